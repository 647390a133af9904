package joiner.ddl;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import joiner.engine.Dialect;
import joiner.engine.Support;
import joiner.expression.Expression;
import joiner.expression.Place;
import joiner.expression.Reference;
import joiner.expression.ValueType;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;

/**
 * The view of a table: its columns, and beside them what no column can hold, because it reads rows
 * of other tables, the clock, or who asks. Each way to another row is one outer join, so that there
 * is one row for each of the table.
 */
final class TableView {
  private static final String OWN = "t0";

  private final Design design;
  private final Table table;
  private final Dialect dialect;

  /** What stands for the rows that a way leads to, from the table on. */
  private final Map<List<RelationshipId>, String> joined = new LinkedHashMap<>();

  /** By the name of a field what it is in the view. */
  private final Map<String, String> worked = new LinkedHashMap<>();

  /** A column of one of the tables that are joined. */
  private record Joined(List<String> path, ValueType type) implements Reference {}

  TableView(Design design, Table table, Dialect dialect) {
    this.design = design;
    this.table = table;
    this.dialect = dialect;
  }

  /** Takes a computed field in, where the engine can say what it is worked out by. */
  Support add(Field field, Expression tree) {
    Support said = dialect.say(joined(tree));
    if (said instanceof Support.Kept kept) {
      worked.put(field.name(), kept.sql());
    }
    return said;
  }

  /** Whether a computed field stands in it. */
  boolean holds(Field field) {
    return worked.containsKey(field.name());
  }

  boolean isEmpty() {
    return worked.isEmpty();
  }

  private Expression joined(Expression tree) {
    return tree instanceof Expression.FieldRef(Reference to, Place place)
        ? new Expression.FieldRef(joined(to), place)
        : tree.withParts(this::joined);
  }

  private Joined joined(Reference to) {
    return switch (to) {
      case OwnField own -> new Joined(List.of(OWN, own.name()), own.type());
      case FarField far -> {
        Table end = design.table(design.relationship(far.over().getLast()).parent());
        String name = end.field(far.field()).name();
        yield new Joined(List.of(alias(far.over()), name), far.type());
      }
      default -> throw new IllegalArgumentException(to.name() + " is no field of a row");
    };
  }

  /** The rows a way leads to; those before on the way are joined first. */
  private String alias(List<RelationshipId> way) {
    if (way.isEmpty()) {
      return OWN;
    }
    alias(way.subList(0, way.size() - 1));
    return joined.computeIfAbsent(List.copyOf(way), w -> "t" + (joined.size() + 1));
  }

  /**
   * The statement that makes the view.
   *
   * @param columns of the table, in the order of its fields with those that are none
   */
  String definition(String name, List<Field> columns) {
    var selected = new ArrayList<String>();
    for (Field field : columns) {
      String own = dialect.name(field.name());
      String sql = worked.get(field.name());
      selected.add(sql == null ? OWN + "." + own : sql + " AS " + own);
    }
    var sql = new StringBuilder("CREATE VIEW ");
    sql.append(dialect.name(name)).append(" AS\nSELECT\n  ");
    sql.append(String.join(",\n  ", selected));
    sql.append("\nFROM ").append(dialect.name(table.name())).append(" ").append(OWN);
    joined.forEach((way, alias) -> sql.append("\nLEFT JOIN ").append(join(way, alias)));
    return sql.toString();
  }

  private String join(List<RelationshipId> way, String alias) {
    Relationship last = design.relationship(way.getLast());
    String from = alias(way.subList(0, way.size() - 1));
    Table child = design.table(last.child());
    Table parent = design.table(last.parent());
    var on = new ArrayList<String>();
    for (int i = 0; i < last.childFields().size(); i++) {
      on.add(
          from
              + "."
              + dialect.name(child.field(last.childFields().get(i)).name())
              + " = "
              + alias
              + "."
              + dialect.name(parent.field(last.parentFields().get(i)).name()));
    }
    return dialect.name(parent.name()) + " " + alias + " ON " + String.join(" AND ", on);
  }
}
