package joiner.reasoning;

import com.microsoft.z3.Context;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.RuleId;

/**
 * Finds out what the rules of a table mean together, by the solver Z3 (de Moura and Bjørner, "Z3:
 * An Efficient SMT Solver", 2008). Loading it takes a second or two. Belongs to one thread at a
 * time.
 */
public final class Reasoner implements AutoCloseable {
  /** So many answers are kept for when the same is asked again. */
  private static final int MOST_KEPT = 4_000;

  private final Context z3 = new Context();
  private final Clock clock;
  private final Duration patience;
  private final Map<Question, List<Understood>> known =
      new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Question, List<Understood>> eldest) {
          return size() > MOST_KEPT;
        }
      };

  /**
   * Loads the solver.
   *
   * @param clock what rules say of today is shown on rows of this day
   * @param patience how long one question may take; then it is undecided
   */
  public Reasoner(Clock clock, Duration patience) {
    this.clock = clock;
    this.patience = patience;
  }

  /**
   * What an answer hangs on.
   *
   * @param fields those that are read, with all that is said of their values
   * @param others those of other rows
   */
  private record Question(
      List<Constraint.Ruled> rules,
      List<Field> fields,
      List<Boolean> required,
      List<Field> others,
      LocalDate today) {}

  /** What is known of each rule of a table that can be read, in the order of the rules. */
  public List<Understood> rules(TableMeaning meaning) {
    List<Constraint.Ruled> readable =
        meaning.ruled().stream().filter(rule -> rule.fault().isEmpty()).toList();
    Map<RuleId, Understood> found = new HashMap<>();
    for (List<Constraint.Ruled> part : Components.of(readable)) {
      known
          .computeIfAbsent(question(meaning, part), asked -> reasoning(meaning, part).rules())
          .forEach(understood -> found.put(understood.rule().id(), understood));
    }
    return readable.stream()
        .map(rule -> Objects.requireNonNull(found.get(rule.rule().id())))
        .toList();
  }

  /** What the conditions on each row of a table are like together; nothing is kept of it. */
  public Together together(TableMeaning meaning) {
    return reasoning(meaning, List.copyOf(meaning.rules())).together();
  }

  private TableReasoning reasoning(TableMeaning meaning, List<Constraint.Ruled> part) {
    return new TableReasoning(z3, meaning, part, clock, patience);
  }

  private Question question(TableMeaning meaning, List<Constraint.Ruled> part) {
    List<Field> fields =
        part.stream()
            .flatMap(rule -> rule.fields().stream())
            .distinct()
            .map(meaning.table()::field)
            .toList();
    List<Boolean> required =
        fields.stream().map(field -> meaning.table().isRequired(field.id())).toList();
    List<Field> others =
        part.stream()
            .flatMap(Components::formulas)
            .flatMap(formula -> formula.reads().stream())
            .flatMap(
                read ->
                    read instanceof FarField far ? meaning.fieldOf(far).stream() : Stream.empty())
            .toList();
    return new Question(part, fields, required, others, LocalDate.now(clock));
  }

  @Override
  public void close() {
    z3.close();
  }
}
