package joiner.model;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import joiner.expression.Formula;

/**
 * How people who enter a child row pick its parent over a relationship. It is about what is
 * offered: rows that refer to what is not offered stay valid. Fields that the parent has no longer
 * are passed over.
 *
 * @param shown fields of the parent that stand beside what it is recognised by
 * @param order fields of the parent by which its rows are sorted; empty: as the parent says
 * @param only a condition on the parent's row that those offered meet; empty: all are offered
 * @param atOnce how many rows are shown before more is typed; empty: as many as there is room for
 * @param mayAdd whether a parent that is missing may be added on the way
 */
public record Picking(
    List<FieldId> shown,
    List<FieldId> order,
    Optional<Formula> only,
    OptionalInt atOnce,
    boolean mayAdd) {
  /** By the row label, in the parent's order, all of them, none added. */
  public static final Picking USUAL =
      new Picking(List.of(), List.of(), Optional.empty(), OptionalInt.empty(), false);

  public Picking {
    shown = List.copyOf(shown);
    order = List.copyOf(order);
    if (atOnce.orElse(1) < 1) {
      throw new IllegalArgumentException("at least one row is shown at once, not " + atOnce);
    }
  }

  public Picking withShown(List<FieldId> other) {
    return new Picking(other, order, only, atOnce, mayAdd);
  }

  public Picking withOrder(List<FieldId> other) {
    return new Picking(shown, other, only, atOnce, mayAdd);
  }

  public Picking withOnly(Optional<Formula> other) {
    return new Picking(shown, order, other, atOnce, mayAdd);
  }

  public Picking withAtOnce(OptionalInt other) {
    return new Picking(shown, order, only, other, mayAdd);
  }

  public Picking withMayAdd(boolean other) {
    return new Picking(shown, order, only, atOnce, other);
  }

  /** All fields of the parent that it names. */
  public List<FieldId> fields() {
    return Stream.concat(shown.stream(), order.stream()).distinct().toList();
  }

  /** The same without a field that the parent has no longer. */
  public Picking without(FieldId gone) {
    return withShown(shown.stream().filter(f -> !f.equals(gone)).toList())
        .withOrder(order.stream().filter(f -> !f.equals(gone)).toList());
  }
}
