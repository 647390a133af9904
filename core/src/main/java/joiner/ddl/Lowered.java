package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogTable;
import joiner.engine.Dialect;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * A design as a schema of one engine.
 *
 * @param catalog what the engine keeps
 * @param shortfalls what it cannot keep
 * @param tables the design's tables, in the order of the catalog's
 */
public record Lowered(Catalog catalog, List<Shortfall> shortfalls, List<Table> tables) {
  public Lowered {
    shortfalls = List.copyOf(shortfalls);
    tables = List.copyOf(tables);
  }

  /**
   * Lowers a design.
   *
   * @param rows which rows go along; rows that refer to each other in a circle go in before the
   *     reference is declared
   */
  public static Lowered of(Draft draft, Dialect dialect, RowsChoice rows) {
    Design design = draft.design();
    TableOrder order = TableOrder.of(design);
    Map<TableId, List<Relationship>> byChild =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    Predicate<Relationship> isLate = r -> !dialect.refersAhead() && isLate(design, order, rows, r);
    var names = new ConstraintNames(dialect.identifiers());
    order.tables().forEach(table -> names.reserve(table.name()));
    var lowered = new ArrayList<CatalogTable>();
    var shortfalls = new ArrayList<Shortfall>();
    for (Table table : order.tables()) {
      List<Relationship> own = byChild.getOrDefault(table.id(), List.of());
      var lowering = new TableLowering(design, draft.meaning().of(table), own, dialect, names);
      lowered.add(lowering.lower(isLate));
      shortfalls.addAll(lowering.shortfalls());
    }
    return new Lowered(new Catalog(lowered), shortfalls, order.tables());
  }

  /** Whether an engine keeps a condition on the rows of a table; linear in relationships. */
  public static Support support(
      Draft draft, TableId table, Checked.Sound condition, Dialect dialect) {
    Design design = draft.design();
    var names = new ConstraintNames(dialect.identifiers());
    return new TableLowering(
            design, draft.meaning().of(table), design.parentsOf(table), dialect, names)
        .support(condition.tree());
  }

  private static boolean isLate(Design design, TableOrder order, RowsChoice rows, Relationship r) {
    return order.late().contains(r.id())
        || r.isSelfReference() && rows.includes(design.table(r.child()));
  }
}
