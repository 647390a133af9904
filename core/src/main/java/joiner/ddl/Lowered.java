package joiner.ddl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogTable;
import joiner.catalog.Exclusion;
import joiner.catalog.SameParts;
import joiner.catalog.Sequence;
import joiner.catalog.Surroundings;
import joiner.catalog.Trigger;
import joiner.catalog.View;
import joiner.engine.Dialect;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.Question;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

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
    Predicate<Relationship> isLate =
        r -> !dialect.refersAhead() && isLate(draft, order, rows, r, dialect);
    Set<RelationshipId> stopped =
        dialect.actsAlongOneWay() ? OneWay.stopped(design, dialect) : Set.of();
    var names = new ConstraintNames(dialect.identifiers());
    order.tables().forEach(table -> names.reserve(table.name()));
    var lowered = new ArrayList<CatalogTable>();
    var shortfalls = new ArrayList<Shortfall>();
    var sequences = new ArrayList<Sequence>();
    var views = new ArrayList<View>();
    var triggers = new ArrayList<Trigger>();
    var exclusions = new ArrayList<Exclusion>();
    for (Table table : order.tables()) {
      List<Relationship> own = byChild.getOrDefault(table.id(), List.of());
      Rows there = rows.includes(table) ? draft.rows().of(table.id()) : Rows.NONE;
      var lowering = new TableLowering(design, draft.meaning().of(table), own, dialect, names);
      lowered.add(lowering.lower(isLate, stopped, there));
      sequences.addAll(lowering.sequences());
      lowering.view().ifPresent(views::add);
      triggers.addAll(lowering.triggers());
      exclusions.addAll(lowering.exclusions());
      shortfalls.addAll(lowering.shortfalls());
    }
    for (Question question : design.questions()) {
      new QuestionView(draft, question, dialect, names).lower(views, shortfalls);
    }
    var around = new Surroundings(views, triggers, exclusions, List.of());
    return new Lowered(new Catalog(lowered, sequences, around), shortfalls, order.tables());
  }

  /** Which parts of two schemas were made of the same tables and fields. */
  static SameParts same(Lowered before, Lowered after) {
    Map<TableId, Table> now =
        after.tables.stream().collect(Collectors.toMap(Table::id, Function.identity()));
    Map<String, String> tables = new HashMap<>();
    Map<String, Map<String, String>> columns = new HashMap<>();
    Map<String, CatalogTable> was = before.made();
    Map<String, CatalogTable> is = after.made();
    for (Table table : before.tables) {
      Optional<Table> same = Optional.ofNullable(now.get(table.id()));
      if (same.isPresent()) {
        Map<String, String> own = new HashMap<>();
        for (Field field : table.fields()) {
          if (same.get().hasField(field.id())) {
            String name = same.get().field(field.id()).name();
            boolean both = // What is computed need not be a column.
                was.get(table.name()).column(field.name()).isPresent()
                    && is.get(same.get().name()).column(name).isPresent();
            if (both) {
              own.put(field.name(), name);
            }
          }
        }
        tables.put(table.name(), same.get().name());
        columns.put(table.name(), own);
      }
    }
    return new SameParts(tables, columns);
  }

  private Map<String, CatalogTable> made() {
    return catalog.tables().stream()
        .collect(Collectors.toMap(CatalogTable::name, Function.identity()));
  }

  /** What an engine cannot keep of one table; linear in the table and in relationships. */
  public static List<Shortfall> shortfalls(Draft draft, TableId table, Dialect dialect) {
    Design design = draft.design();
    var names = new ConstraintNames(dialect.identifiers());
    var lowering =
        new TableLowering(
            design, draft.meaning().of(table), design.parentsOf(table), dialect, names);
    lowering.lower(r -> false, Set.of(), Rows.NONE);
    return lowering.shortfalls();
  }

  /** How an engine keeps a rule of a table; linear in relationships. */
  public static Keeping keeping(
      Draft draft, TableId table, Constraint.Ruled rule, Dialect dialect) {
    Design design = draft.design();
    var names = new ConstraintNames(dialect.identifiers());
    return new TableLowering(
            design, draft.meaning().of(table), design.parentsOf(table), dialect, names)
        .keeping(rule);
  }

  private static boolean isLate(
      Draft draft, TableOrder order, RowsChoice rows, Relationship r, Dialect dialect) {
    Table child = draft.design().table(r.child());
    boolean own = r.isSelfReference() && rows.includes(child);
    return order.late().contains(r.id())
        || own && (dialect.addsReferences() || RowWaves.of(draft, child).isEmpty());
  }
}
