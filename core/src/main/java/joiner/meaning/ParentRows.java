package joiner.meaning;

import java.time.Clock;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.expression.Value;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Picking;
import joiner.model.Relationship;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * The rows that a relationship leads to, by the texts people recognise them by. Unchanging; keys
 * are compared as values, so that a key written in another way is the same one.
 */
public final class ParentRows {
  private final Noun noun;
  private final List<FieldId> childFields;
  private final List<FieldType> types;
  private final Picking picking;
  private final List<Parent> parents;
  private final Map<List<Value>, Parent> byKey = new HashMap<>();

  /**
   * A row that can be referred to.
   *
   * @param row its place among the parent's rows, from 0
   * @param cells what the cells of a row that refers to it hold
   * @param label what people recognise it by
   * @param shown what is shown beside that
   * @param retired whether it is no longer offered
   * @param offered whether it meets what is asked of those offered, and is not retired
   */
  public record Parent(
      int row,
      List<String> cells,
      String label,
      List<String> shown,
      boolean retired,
      boolean offered) {
    public Parent {
      cells = List.copyOf(cells);
      shown = List.copyOf(shown);
    }

    /** What a cell that refers to it holds; of several cells what all of them do. */
    public String key() {
      return String.join(" · ", cells);
    }
  }

  /**
   * Those rows.
   *
   * @param types of the parent's key, in the order of the child's fields
   */
  ParentRows(Noun noun, Relationship reference, List<FieldType> types, List<Parent> parents) {
    this.picking = reference.picking();
    this.childFields = reference.childFields();
    this.noun = noun;
    this.types = List.copyOf(types);
    this.parents = List.copyOf(parents);
    for (Parent parent : parents) {
      byKey.putIfAbsent(values(parent.cells()), parent);
    }
  }

  private List<Value> values(List<String> cells) {
    return IntStream.range(0, types.size())
        .mapToObj(i -> ValueReader.valueOrNull(Optional.of(cells.get(i)), types.get(i)))
        .toList();
  }

  /** The relationship by which a field alone refers to another table, if it does. */
  public static Optional<Relationship> reference(Draft draft, TableId table, FieldId field) {
    return draft.design().parentsOf(table).stream()
        .filter(r -> r.childFields().equals(List.of(field)))
        .findFirst();
  }

  /**
   * The relationship whose rows a field stands for where people read rows: by which it alone refers
   * to another table, or else one of several fields of which it is the last.
   */
  public static Optional<Relationship> readIn(Draft draft, TableId table, FieldId field) {
    return reference(draft, table, field)
        .or(
            () ->
                draft.design().parentsOf(table).stream()
                    .filter(r -> r.childFields().getLast().equals(field))
                    .findFirst());
  }

  /**
   * The rows that a relationship leads to, in the order in which they are offered; log-linear in
   * the parent's rows. Rows that stay in a file are not among them.
   */
  public static ParentRows of(Draft draft, Relationship reference, Clock clock) {
    return new ParentReading(draft, reference, clock).read();
  }

  /** Whether one cell refers to a row. */
  public boolean isOfOneField() {
    return types.size() == 1;
  }

  /** The row that a cell alone refers to; empty if there is none. */
  public Optional<Parent> find(String cell) {
    return isOfOneField()
        ? Optional.ofNullable(byKey.get(values(List.of(cell))))
        : Optional.empty();
  }

  /** The row that a row of the child refers to; empty if there is none. */
  public Optional<Parent> find(Rows children, int row) {
    List<String> cells =
        childFields.stream().flatMap(field -> children.cell(row, field).stream()).toList();
    return cells.size() == types.size()
        ? Optional.ofNullable(byKey.get(values(cells)))
        : Optional.empty();
  }

  /** The fields that hold a row's key. */
  public List<FieldId> childFields() {
    return childFields;
  }

  /** What the rows are. */
  public Noun noun() {
    return noun;
  }

  /** How they are picked. */
  public Picking picking() {
    return picking;
  }

  /** All of them, in the order in which they are offered. */
  public List<Parent> all() {
    return parents;
  }

  /** How many rows there are. */
  public int count() {
    return parents.size();
  }

  /**
   * Rows somebody may mean who types a text: the one with that very key, then those whose labels
   * begin with it, then those whose labels or what is shown beside them hold it; those not offered
   * last, and not at all while nothing is typed.
   *
   * @param most so many at most
   */
  public List<Parent> meantBy(String typed, int most) {
    String wanted = typed.strip().toLowerCase(Locale.ROOT);
    Optional<Parent> exact = wanted.isEmpty() ? Optional.empty() : find(typed.strip());
    return parents.stream()
        .filter(
            parent ->
                wanted.isEmpty() ? parent.offered() : holds(parent, wanted) || is(parent, exact))
        .sorted(
            Comparator.comparing((Parent parent) -> !is(parent, exact))
                .thenComparing(parent -> !parent.offered())
                .thenComparing(parent -> !lower(parent).startsWith(wanted)))
        .limit(most)
        .toList();
  }

  private static boolean is(Parent parent, Optional<Parent> exact) {
    return exact.filter(parent::equals).isPresent();
  }

  private static boolean holds(Parent parent, String wanted) {
    return lower(parent).contains(wanted)
        || parent.shown().stream().anyMatch(text -> text.toLowerCase(Locale.ROOT).contains(wanted));
  }

  private static String lower(Parent parent) {
    return parent.label().toLowerCase(Locale.ROOT);
  }
}
