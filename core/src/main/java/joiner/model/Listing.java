package joiner.model;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * How the rows of a table are listed for whoever enters them.
 *
 * @param columns fields that stand beside what a row is recognised by
 * @param filters fields by whose values people look for rows
 * @param order by what rows are sorted; what remains equal stays as it is
 */
public record Listing(List<FieldId> columns, List<FieldId> filters, List<By> order) {
  /** What rows are recognised by, in the order they were entered. */
  public static final Listing USUAL = new Listing(List.of(), List.of(), List.of());

  public Listing {
    columns = List.copyOf(columns);
    filters = List.copyOf(filters);
    order = List.copyOf(order);
  }

  /** A field to sort by; rows without a value come last. */
  public record By(FieldId field, boolean descending) {}

  public Listing withColumns(List<FieldId> other) {
    return new Listing(other, filters, order);
  }

  public Listing withFilters(List<FieldId> other) {
    return new Listing(columns, other, order);
  }

  public Listing withOrder(List<By> other) {
    return new Listing(columns, filters, other);
  }

  /** How a field takes part in the order. */
  public Optional<By> by(FieldId field) {
    return order.stream().filter(by -> by.field.equals(field)).findFirst();
  }

  /** The same with fields that are there, each once. */
  Listing standing(Set<FieldId> there) {
    var sorted = new HashSet<FieldId>();
    return new Listing(
        columns.stream().filter(there::contains).distinct().toList(),
        filters.stream().filter(there::contains).distinct().toList(),
        order.stream().filter(by -> there.contains(by.field) && sorted.add(by.field)).toList());
  }

  /** The same of other fields. */
  public Listing under(UnaryOperator<FieldId> other) {
    return new Listing(
        columns.stream().map(other).toList(),
        filters.stream().map(other).toList(),
        order.stream().map(by -> new By(other.apply(by.field), by.descending)).toList());
  }

  /** Whether it says nothing beyond the usual. */
  public boolean isUsual() {
    return equals(USUAL);
  }
}
