package joiner.ddl;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import joiner.engine.Dialect;
import joiner.engine.RowsQuery;
import joiner.engine.Support;
import joiner.expression.Expression;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;

/**
 * The view of a table: its columns, and beside them what no column can hold, because it reads rows
 * of other tables, the clock, or who asks.
 */
final class TableView {
  private final Design design;
  private final Table table;
  private final Dialect dialect;

  /** The fields that stand in the view alone, with what each is worked out by. */
  private final Map<FieldId, Expression> worked = new LinkedHashMap<>();

  TableView(Design design, Table table, Dialect dialect) {
    this.design = design;
    this.table = table;
    this.dialect = dialect;
  }

  /** Takes a computed field in, where the engine can say what it is worked out by. */
  Support add(Field field, Expression tree) {
    try {
      String sql = new RowsQuery(design, table, dialect).value(tree);
      worked.put(field.id(), tree);
      return new Support.Kept(sql);
    } catch (RowsQuery.Unsaid unsaid) {
      return new Support.Impossible(unsaid.getMessage());
    }
  }

  /** Whether a computed field stands in it. */
  boolean holds(Field field) {
    return worked.containsKey(field.id());
  }

  boolean isEmpty() {
    return worked.isEmpty();
  }

  /**
   * The statement that makes the view.
   *
   * @param columns of the table, in the order of its fields with those that are none
   */
  String definition(String name, List<Field> columns) {
    var rows = new RowsQuery(design, table, dialect);
    String selected =
        columns.stream().map(field -> column(field, rows)).collect(Collectors.joining(",\n  "));
    return "CREATE VIEW " + dialect.name(name) + " AS\nSELECT\n  " + selected + rows.from();
  }

  private String column(Field field, RowsQuery rows) {
    Expression by = worked.get(field.id());
    return by == null ? rows.own(field.id()) : rows.value(by) + " AS " + dialect.name(field.name());
  }
}
