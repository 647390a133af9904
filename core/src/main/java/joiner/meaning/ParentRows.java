package joiner.meaning;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * The rows one field refers to, by the texts people recognise them by. Unchanging; keys are
 * compared as values, so that a key written in another way is the same one.
 */
public final class ParentRows {
  private final Noun noun;
  private final FieldType type;
  private final List<Parent> parents;
  private final Map<Value, Parent> byKey = new HashMap<>();

  /**
   * A row that can be referred to.
   *
   * @param key what a cell that refers to it holds
   * @param label what people recognise it by
   * @param retired whether it is no longer offered
   */
  public record Parent(String key, String label, boolean retired) {}

  private ParentRows(Noun noun, FieldType type, List<Parent> parents) {
    this.noun = noun;
    this.type = type;
    this.parents = List.copyOf(parents);
    for (Parent parent : parents) {
      byKey.putIfAbsent(value(parent.key()), parent);
    }
  }

  private Value value(String cell) {
    return ValueReader.valueOrNull(Optional.of(cell), type);
  }

  /** The relationship by which a field alone refers to another table, if it does. */
  public static Optional<Relationship> reference(Draft draft, TableId table, FieldId field) {
    return draft.design().parentsOf(table).stream()
        .filter(r -> r.childFields().equals(List.of(field)))
        .findFirst();
  }

  /**
   * The rows that a relationship by one field leads to; linear in the parent's rows. Rows that stay
   * in a file are not among them.
   */
  public static ParentRows of(Draft draft, Relationship reference, Clock clock) {
    Table parent = draft.design().table(reference.parent());
    Field key = parent.field(reference.parentFields().getFirst());
    Rows rows = draft.rows().of(parent.id());
    var labels = new RowLabels(draft.meaning().of(parent), new FormulaRows(draft), clock);
    Optional<FieldId> retired =
        parent.kind() instanceof TableKind.Lookup lookup ? lookup.retired() : Optional.empty();
    var parents = new ArrayList<Parent>();
    for (int row = 0; row < rows.count(); row++) {
      int at = row;
      boolean gone =
          retired
              .map(
                  field ->
                      ValueReader.valueOrNull(rows.cell(at, field), parent.field(field).type()))
              .filter(Value.TRUE::equals)
              .isPresent();
      rows.cell(row, key.id())
          .ifPresent(text -> parents.add(new Parent(text, labels.of(at), gone)));
    }
    return new ParentRows(parent.noun(), key.type(), parents);
  }

  /** The row that a cell refers to; empty if there is none. */
  public Optional<Parent> find(String cell) {
    return Optional.ofNullable(byKey.get(value(cell)));
  }

  /** What the rows are. */
  public Noun noun() {
    return noun;
  }

  /** All of them, in their order. */
  public List<Parent> all() {
    return parents;
  }

  /** How many rows there are. */
  public int count() {
    return parents.size();
  }

  /**
   * Rows somebody may mean who types a text: the one with that very key, then those whose labels
   * begin with it, then those whose labels hold it; retired ones last, and not at all while nothing
   * is typed.
   *
   * @param most so many at most
   */
  public List<Parent> meantBy(String typed, int most) {
    String wanted = typed.strip().toLowerCase(Locale.ROOT);
    Optional<Parent> exact = wanted.isEmpty() ? Optional.empty() : find(typed.strip());
    return parents.stream()
        .filter(
            parent ->
                wanted.isEmpty()
                    ? !parent.retired()
                    : lower(parent).contains(wanted) || is(parent, exact))
        .sorted(
            Comparator.comparing((Parent parent) -> !is(parent, exact))
                .thenComparing(Parent::retired)
                .thenComparing(parent -> !lower(parent).startsWith(wanted)))
        .limit(most)
        .toList();
  }

  private static boolean is(Parent parent, Optional<Parent> exact) {
    return exact.filter(parent::equals).isPresent();
  }

  private static String lower(Parent parent) {
    return parent.label().toLowerCase(Locale.ROOT);
  }
}
