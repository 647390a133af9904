package joiner.engine;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.catalog.CatalogTable;
import joiner.catalog.Column;
import joiner.catalog.Exclusion;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.catalog.SqlType;
import joiner.catalog.TableChange;
import joiner.catalog.TableChange.ColumnChange;
import joiner.catalog.Trigger;
import joiner.catalog.View;

/**
 * How an engine changes tables that are there: as PostgreSQL and the standard have it; each engine
 * says what it does otherwise. Names are given unquoted.
 */
public class Alter {
  private final Dialect dialect;

  Alter(Dialect dialect) {
    this.dialect = dialect;
  }

  final Dialect dialect() {
    return dialect;
  }

  final String name(String name) {
    return dialect.name(name);
  }

  /** The beginning of a statement that changes a table. */
  final String table(String table) {
    return "ALTER TABLE " + name(table) + " ";
  }

  /**
   * Whether the table can be changed where it is. If not, its rows are set aside, it is made anew
   * and they are put back.
   */
  public boolean inPlace(TableChange change) {
    return change.added().stream().noneMatch(Column::counts)
        && change.changed().stream().noneMatch(Alter::touchesCounter);
  }

  /** A counter that comes, goes or is kept as another type has numbers of its own behind it. */
  private static boolean touchesCounter(ColumnChange column) {
    return column.ofCounting() || column.after().counts() && column.ofType();
  }

  /** What the engine calls a primary key that was given a name. */
  public String primaryKey(String given) {
    return given;
  }

  /** Whether a view hinders changes of what it reads. */
  public boolean bindsViews() {
    return false;
  }

  /** Takes a view away. */
  public final String dropView(View view) {
    return "DROP " + (view.stored() ? "MATERIALIZED VIEW " : "VIEW ") + name(view.name());
  }

  /** Takes a trigger away. */
  public List<String> dropTrigger(Trigger trigger) {
    return List.of("DROP TRIGGER " + name(trigger.name()));
  }

  /** Takes away what rows exclude each other by. */
  public String dropExclusion(Exclusion exclusion) {
    return exclusion.isIndex()
        ? "DROP INDEX " + name(exclusion.name())
        : "ALTER TABLE " + name(exclusion.table()) + " DROP CONSTRAINT " + name(exclusion.name());
  }

  /** Whether what refers to a table must be made anew with it. */
  public boolean takesFamily() {
    return false;
  }

  /** Whether keys, indexes and checks have to let go of a column before it is changed so. */
  public boolean standsInTheWay(ColumnChange column) {
    return column.ofType();
  }

  /** Whether a foreign key uses a key or index that begins with its own columns. */
  public boolean leansOn(ForeignKey reference, List<String> columns) {
    return false;
  }

  /** Statements before everything else. */
  public List<String> opening() {
    return dialect.opening();
  }

  /** Statements after everything else. */
  public List<String> closing() {
    return dialect.closing();
  }

  /** Gives a table another name. */
  public String renameTable(String from, String to) {
    return table(from) + "RENAME TO " + name(to);
  }

  /** Gives a column another name. */
  public String renameColumn(String table, String from, String to) {
    return table(table) + "RENAME COLUMN " + name(from) + " TO " + name(to);
  }

  /**
   * Adds a column.
   *
   * @param definition its name, type and all that belongs to it
   */
  public List<String> addColumn(String table, Column column, String definition) {
    return List.of(table(table) + "ADD COLUMN " + definition);
  }

  /** Takes a column away. */
  public List<String> dropColumn(String table, String column) {
    return List.of(table(table) + "DROP COLUMN " + name(column));
  }

  /**
   * Changes type, default and whether it is required.
   *
   * @param definition of what it becomes
   */
  public List<String> changeColumn(String table, ColumnChange change, String definition) {
    String column = table(table) + "ALTER COLUMN " + name(change.after().name()) + " ";
    var statements = new ArrayList<String>();
    boolean other = change.ofDefault() || change.ofType();
    if (other && change.before().defaultValue().isPresent()) {
      statements.add(column + "DROP DEFAULT");
    }
    if (change.ofType()) {
      statements.add(column + typeClause(change));
    }
    if (other) {
      change
          .after()
          .defaultValue()
          .ifPresent(v -> statements.add(column + "SET" + dialect.defaultClause(v)));
    }
    if (change.ofRequired()) {
      statements.add(column + (change.after().required() ? "SET" : "DROP") + " NOT NULL");
    }
    return statements;
  }

  String typeClause(ColumnChange change) {
    return "TYPE " + dialect.spell(change.after().type()) + " USING " + carried(change);
  }

  /** A query for the number above all that a counter gave. */
  final String nextNumber(String table, String counter) {
    return "SELECT COALESCE(MAX(" + name(counter) + "), 0) + 1 FROM " + name(table);
  }

  /** Takes a foreign key away. */
  public List<String> dropReference(String table, ForeignKey reference) {
    return List.of(dropConstraint(table, reference.name()));
  }

  /** Takes a key away. */
  public String dropKey(String table, Key key, boolean primary) {
    return dropConstraint(table, key.name());
  }

  /** Takes a check away. */
  public final String dropCheck(String table, String check) {
    return dropConstraint(table, check);
  }

  final String dropConstraint(String table, String constraint) {
    return table(table) + "DROP CONSTRAINT " + name(constraint);
  }

  /** Takes an index away. */
  public String dropIndex(String table, String index) {
    return "DROP INDEX " + name(index);
  }

  /** Copies the rows of a table into one without keys. */
  public String setAside(String table, String aside) {
    return "CREATE TABLE " + name(aside) + " AS SELECT * FROM " + name(table);
  }

  /**
   * Rows that were set aside and come back.
   *
   * @param table that gets them, as it comes
   * @param values what each of its columns gets, by its name, in SQL; some columns get their
   *     default
   * @param aside where the rows are
   */
  public record Return(CatalogTable table, Map<String, String> values, String aside) {
    /** The values are in the order of the columns. */
    public Return {
      values = Collections.unmodifiableMap(new LinkedHashMap<>(values));
    }
  }

  /** Puts rows back that were set aside. */
  public List<String> putBack(Return rows) {
    return List.of(insert(rows));
  }

  final String insert(Return rows) {
    return "INSERT INTO "
        + name(rows.table.name())
        + " ("
        + dialect.names(List.copyOf(rows.values.keySet()))
        + ") SELECT "
        + String.join(", ", rows.values.values())
        + " FROM "
        + name(rows.aside);
  }

  /** Statements before rows are put back with the numbers that a counter gave them. */
  public List<String> beforeNumbers(String table) {
    return List.of();
  }

  /** What {@link #beforeNumbers} began ends here, and the counter goes on above its numbers. */
  public List<String> afterNumbers(String table, String counter) {
    return List.of();
  }

  /** What the column of before gives the one of after; both have the name of after. */
  public final String carried(ColumnChange change) {
    return carried(change, name(change.after().name()));
  }

  /** What an expression of the type before gives the column of after. */
  public String carried(ColumnChange change, String from) {
    return change.ofType() ? "CAST(" + from + " AS " + castType(change.after().type()) + ")" : from;
  }

  /** A type as a cast names it. */
  String castType(SqlType type) {
    return dialect.spell(type);
  }

  /** Says something else about a table. */
  public Optional<String> describeTable(String table, String before, String after) {
    return dialect.tableComment(table, after);
  }

  /** Says something else about a column. */
  public Optional<String> describeColumn(String table, String column, String before, String after) {
    return dialect.columnComment(table, column, after);
  }
}
