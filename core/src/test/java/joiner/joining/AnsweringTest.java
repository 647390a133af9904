package joiner.joining;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.RandomQuestions;
import joiner.Tries;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Value;
import joiner.meaning.AskedField;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.model.FieldId;
import joiner.model.Question;
import joiner.model.Relationship;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/**
 * Answers are those of nested loops over all rows, joined, sieved and folded one after the other as
 * SQL says it; and what is told of repetition is what counting shows.
 */
class AnsweringTest {
  private static final int GROUPS = 6;
  private static final int ABSENT = -1;

  private int lines;
  private int repeated;
  private int once;

  @Test
  void answersAreThoseOfNestedLoops() {
    for (long seed : Tries.of(3_000).toArray()) {
      Draft draft = RandomLinks.draft(seed, GROUPS);
      Question question = RandomQuestions.of(draft.design(), seed);
      Binding.Result read = Binding.of(draft.design(), draft.meaning(), question);
      assertThat(read).as("%d: %s", seed, question).isInstanceOf(Binding.Result.Sound.class);
      Bound bound = ((Binding.Result.Sound) read).bound();
      var answer = new Answering(draft, Pottery.CLOCK).answer(bound);
      var loops = new Loops(draft, bound);
      assertThat(answer.lines())
          .as("%d: %s", seed, question)
          .containsExactlyElementsOf(loops.lines());
      compareRepetition(answer, loops, "%d: %s".formatted(seed, question));
    }
    System.out.println(
        lines + " lines, " + repeated + " columns repeat rows, " + once + " never can");
    assertThat(lines).isGreaterThan(Tries.least(2_000));
    assertThat(repeated).isGreaterThan(Tries.least(40));
    assertThat(once).isGreaterThan(Tries.least(100));
  }

  /** A column is told of exactly where some line says another thing than if rows counted once. */
  private void compareRepetition(Answer answer, Loops loops, String which) {
    lines += answer.lines().size();
    for (int i = 0; i < answer.bound().columns().size(); i++) {
      if (answer.bound().columns().get(i) instanceof Bound.Folded folded
          && !folded.once()
          && folded.fold().hangsOnRepetition()) {
        int differing = loops.differing(i);
        Optional<Answer.Repeated> told = answer.repeated(i);
        assertThat(told.map(Answer.Repeated::lines).orElse(0)).as(which).isEqualTo(differing);
        told.ifPresent(r -> assertThat(loops.isOfSomeLine(r)).as(which + ": " + r).isTrue());
        if (new Repetition(answer.bound()).of(folded.role()).isEmpty()) {
          once++;
          assertThat(loops.mostTimes(folded.role())).as(which).isLessThanOrEqualTo(1);
        }
        repeated += told.isPresent() ? 1 : 0;
      }
    }
  }

  /** The same by brute force. */
  private static final class Loops {
    private final Draft draft;
    private final Bound bound;
    private final FormulaRows rows;
    private final Evaluator evaluator = new Evaluator(Pottery.CLOCK);

    /** For each line the combinations that make it. */
    private final Map<List<Object>, List<int[]>> groups = new LinkedHashMap<>();

    Loops(Draft draft, Bound bound) {
      this.draft = draft;
      this.bound = bound;
      this.rows = new FormulaRows(draft, Pottery.CLOCK);
      if (bound.shown().isEmpty() && bound.apart().isEmpty()) {
        groups.put(List.of(), new ArrayList<>());
      }
      for (int[] combination : combinations(0)) {
        var key = new ArrayList<Object>();
        bound.shown().forEach(s -> key.add(value(s.of(), combination)));
        bound.apart().forEach(role -> key.add(combination[role]));
        groups.computeIfAbsent(key, k -> new ArrayList<>()).add(combination);
      }
    }

    private Value value(Expression tree, int[] combination) {
      return evaluator.evaluate(
          tree,
          reference -> {
            var asked = (AskedField) reference;
            int row = combination[asked.role()];
            if (row == ABSENT) {
              boolean counted = asked.of().toString().contains("fold=COUNT");
              return counted ? Value.whole(0) : Value.NULL;
            }
            return rows.row(bound.roles().get(asked.role()).table().id(), row).apply(asked.of());
          });
    }

    private int count(int role) {
      return draft.rows().of(bound.roles().get(role).table().id()).count();
    }

    /** A group by itself: every choice of rows, those that are linked, what is within, sieved. */
    private List<int[]> combinations(int group) {
      List<int[]> all = new ArrayList<>();
      int[] none = new int[bound.roles().size()];
      java.util.Arrays.fill(none, ABSENT);
      all.add(none);
      for (int role : bound.members(group)) {
        List<int[]> more = new ArrayList<>();
        for (int[] before : all) {
          for (int row = 0; row < count(role); row++) {
            int[] with = before.clone();
            with[role] = row;
            if (role == group || areLinked(role, with)) {
              more.add(with);
            }
          }
        }
        all = more;
      }
      for (int inner : bound.within(group)) {
        List<int[]> right = combinations(inner);
        List<int[]> more = new ArrayList<>();
        for (int[] left : all) {
          boolean found = false;
          for (int[] r : right) {
            int[] both =
                IntStream.range(0, left.length).map(i -> Math.max(left[i], r[i])).toArray();
            if (areLinked(inner, both)) {
              found = true;
              more.add(both);
            }
          }
          if (!found) {
            more.add(left);
          }
        }
        all = more;
      }
      return all.stream()
          .filter(
              combination ->
                  bound.where().stream()
                      .filter(w -> w.group() == group)
                      .allMatch(w -> value(w.condition(), combination).equals(Value.TRUE)))
          .toList();
    }

    private boolean areLinked(int role, int[] combination) {
      Bound.Joined joined = bound.roles().get(role);
      Relationship over = joined.over().orElseThrow();
      int child = joined.down() ? role : joined.from();
      int parent = joined.down() ? joined.from() : role;
      return IntStream.range(0, over.childFields().size())
          .allMatch(
              i -> {
                Optional<String> from = cell(child, combination, over.childFields().get(i));
                return from.isPresent()
                    && from.equals(cell(parent, combination, over.parentFields().get(i)));
              });
    }

    private Optional<String> cell(int role, int[] combination, FieldId field) {
      Rows of = draft.rows().of(bound.roles().get(role).table().id());
      return of.cell(combination[role], field);
    }

    List<List<Value>> lines() {
      var all = new ArrayList<List<Value>>();
      groups.forEach(
          (key, combinations) -> {
            var line = new ArrayList<Value>();
            int shown = 0;
            for (Bound.Column column : bound.columns()) {
              line.add(
                  switch (column) {
                    case Bound.Shown s -> (Value) key.get(shown++);
                    case Bound.Folded f -> fold(f, combinations, f.once());
                  });
            }
            all.add(line);
          });
      all.removeIf(line -> !isLeft(line));
      all.sort(this::compare);
      return all.stream().limit(bound.question().first().orElse(Integer.MAX_VALUE)).toList();
    }

    /** What conditions on lines read is the value below the label. */
    private boolean isLeft(List<Value> line) {
      List<String> labels =
          bound.question().columns().stream().map(Question.Column::label).toList();
      return bound.having().stream()
          .allMatch(
              condition ->
                  evaluator.evaluate(condition, read -> line.get(labels.indexOf(read.name())))
                      == Value.TRUE);
    }

    private int compare(List<Value> one, List<Value> other) {
      for (Question.Order order : bound.question().order()) {
        int by = compare(one.get(order.column()), other.get(order.column()), order.descending());
        if (by != 0) {
          return by;
        }
      }
      for (int i = 0; i < one.size(); i++) {
        int by = compare(one.get(i), other.get(i), false);
        if (by != 0) {
          return by;
        }
      }
      return 0;
    }

    private static int compare(Value one, Value other, boolean descending) {
      if (one == Value.NULL || other == Value.NULL) {
        return Boolean.compare(one == Value.NULL, other == Value.NULL);
      }
      int order = Evaluator.order(one, other);
      return descending ? -order : order;
    }

    private Value fold(Bound.Folded folded, List<int[]> combinations, boolean once) {
      var values = new ArrayList<Value>();
      var seen = new HashSet<Integer>();
      for (int[] combination : combinations) {
        int row = combination[folded.role()];
        if (row != ABSENT && (!once || seen.add(row))) {
          values.add(folded.of().map(of -> value(of, combination)).orElse(Value.TRUE));
        }
      }
      values.removeIf(value -> value == Value.NULL);
      return switch (folded.fold()) {
        case COUNT -> Value.whole(values.size());
        case DIFFERENT -> Value.whole(new HashSet<>(values).size());
        case SUM -> values.isEmpty() ? Value.NULL : new Value.Num(sum(values), true);
        case AVERAGE ->
            values.isEmpty()
                ? Value.NULL
                : new Value.Num(
                    sum(values)
                        .divide(
                            BigDecimal.valueOf(values.size()),
                            folded.decimals(),
                            RoundingMode.HALF_UP),
                    false);
        case LEAST -> values.isEmpty() ? Value.NULL : Collections.min(values, Evaluator::order);
        case GREATEST -> values.isEmpty() ? Value.NULL : Collections.max(values, Evaluator::order);
      };
    }

    private static BigDecimal sum(List<Value> values) {
      return values.stream()
          .map(value -> ((Value.Num) value).number())
          .reduce(BigDecimal.ZERO, BigDecimal::add);
    }

    int differing(int column) {
      var folded = (Bound.Folded) bound.columns().get(column);
      return (int)
          groups.values().stream()
              .filter(c -> !fold(folded, c, false).equals(fold(folded, c, true)))
              .count();
    }

    /** Whether what is told of the worst line is true of one. */
    boolean isOfSomeLine(Answer.Repeated told) {
      var folded = (Bound.Folded) bound.columns().get(told.column());
      return groups.values().stream()
          .anyMatch(
              c ->
                  fold(folded, c, false).equals(told.says())
                      && fold(folded, c, true).equals(told.means())
                      && most(folded.role(), c) == told.most());
    }

    int mostTimes(int role) {
      return groups.values().stream().mapToInt(c -> most(role, c)).max().orElse(0);
    }

    private static int most(int role, List<int[]> combinations) {
      var times = new LinkedHashMap<Integer, Integer>();
      combinations.stream()
          .filter(c -> c[role] != ABSENT)
          .forEach(c -> times.merge(c[role], 1, Integer::sum));
      return times.values().stream().max(Integer::compare).orElse(0);
    }
  }
}
