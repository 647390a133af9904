package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.catalog.Column;
import joiner.catalog.SqlType;
import joiner.catalog.TableChange.ColumnChange;

/**
 * How SQL Server changes tables, after its documentation; none was at hand. A default is a
 * constraint with a name that the server made up.
 */
final class SqlServerAlter extends Alter {
  private final SqlServerDialect own;

  SqlServerAlter(SqlServerDialect dialect) {
    super(dialect);
    this.own = dialect;
  }

  @Override
  public boolean standsInTheWay(ColumnChange column) {
    return column.ofType() || column.ofRequired();
  }

  @Override
  public String renameTable(String from, String to) {
    return rename(name(from), to, "OBJECT");
  }

  @Override
  public String renameColumn(String table, String from, String to) {
    return rename(name(table) + "." + name(from), to, "COLUMN");
  }

  /** The new name is taken as it is, quotation marks and all. */
  private static String rename(String path, String to, String what) {
    return "EXEC sp_rename N"
        + Dialect.quoted(path)
        + ", N"
        + Dialect.quoted(to)
        + ", N'"
        + what
        + "'";
  }

  @Override
  public List<String> addColumn(String table, Column column, String definition) {
    return List.of(table(table) + "ADD " + definition);
  }

  @Override
  public List<String> dropColumn(String table, String column) {
    return List.of(dropDefault(table, column), table(table) + "DROP COLUMN " + name(column));
  }

  private String dropDefault(String table, String column) {
    String text = "N" + Dialect.quoted(name(table));
    return "DECLARE @drop nvarchar(max) = (SELECT N"
        + Dialect.quoted(table(table) + "DROP CONSTRAINT ")
        + " + QUOTENAME(name) FROM sys.default_constraints WHERE parent_object_id = OBJECT_ID("
        + text
        + ") AND parent_column_id = COLUMNPROPERTY(OBJECT_ID("
        + text
        + "), N"
        + Dialect.quoted(column)
        + ", N'ColumnId')); IF @drop IS NOT NULL EXEC (@drop)";
  }

  @Override
  public List<String> changeColumn(String table, ColumnChange change, String definition) {
    var statements = new ArrayList<String>();
    String column = change.after().name();
    boolean other = change.ofDefault() || change.ofType();
    if (other && change.before().defaultValue().isPresent()) {
      statements.add(dropDefault(table, column));
    }
    if (change.ofType() || change.ofRequired()) {
      statements.add(
          table(table)
              + "ALTER COLUMN "
              + name(column)
              + " "
              + dialect().spell(change.after().type())
              + (change.after().required() ? " NOT NULL" : " NULL"));
    }
    if (other) {
      change
          .after()
          .defaultValue()
          .ifPresent(
              value ->
                  statements.add(
                      table(table)
                          + "ADD"
                          + dialect().defaultClause(value)
                          + " FOR "
                          + name(column)));
    }
    return statements;
  }

  @Override
  public String dropIndex(String table, String index) {
    return "DROP INDEX " + name(index) + " ON " + name(table);
  }

  @Override
  public String setAside(String table, String aside) {
    return "SELECT * INTO " + name(aside) + " FROM " + name(table);
  }

  @Override
  public List<String> beforeNumbers(String table) {
    return dialect().beforeRows(table);
  }

  @Override
  public List<String> afterNumbers(String table, String counter) {
    return dialect().afterRows(table);
  }

  @Override
  public Optional<String> describeTable(String table, String before, String after) {
    return Optional.of(own.comment(procedure(before, after), table, List.of(), after));
  }

  @Override
  public Optional<String> describeColumn(String table, String column, String before, String after) {
    List<String> path = SqlServerDialect.pathOf(column);
    return Optional.of(own.comment(procedure(before, after), table, path, after));
  }

  private static SqlServerDialect.Property procedure(String before, String after) {
    if (before.isBlank()) {
      return SqlServerDialect.Property.ADD;
    }
    return after.isBlank() ? SqlServerDialect.Property.DROP : SqlServerDialect.Property.UPDATE;
  }

  /** Texts have an order as columns, and none as values. */
  @Override
  String castType(SqlType type) {
    return dialect().spell(type).replaceFirst(" COLLATE .*", "");
  }
}
