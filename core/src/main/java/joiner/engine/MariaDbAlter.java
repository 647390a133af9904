package joiner.engine;

import java.util.List;
import java.util.Optional;
import joiner.catalog.Column;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.catalog.TableChange;
import joiner.catalog.TableChange.ColumnChange;

/** How MariaDB changes tables: a column is written out anew with all that belongs to it. */
final class MariaDbAlter extends Alter {
  MariaDbAlter(Dialect dialect) {
    super(dialect);
  }

  /** A column that counts must be the primary key all the time. */
  @Override
  public boolean inPlace(TableChange change) {
    boolean sameKey =
        change
            .renamed()
            .primaryKey()
            .map(Key::columns)
            .equals(change.after().primaryKey().map(Key::columns));
    return super.inPlace(change)
        && (sameKey || change.before().columns().stream().noneMatch(Column::counts));
  }

  /** It keeps none, and takes any but its own. */
  @Override
  public String primaryKey(String given) {
    return "pk";
  }

  @Override
  public boolean leansOn(ForeignKey reference, List<String> columns) {
    return columns.size() >= reference.columns().size()
        && columns.subList(0, reference.columns().size()).equals(reference.columns());
  }

  /** Rows that are there would get a value that nobody gave. */
  @Override
  public List<String> addColumn(String table, Column column, String definition) {
    if (!column.required() || column.defaultValue().isPresent()) {
      return super.addColumn(table, column, definition);
    }
    String empty = name(column.name()) + " " + dialect().spell(column.type()) + " NULL";
    return List.of(
        table(table) + "ADD COLUMN " + empty, table(table) + "MODIFY COLUMN " + definition);
  }

  @Override
  public List<String> changeColumn(String table, ColumnChange change, String definition) {
    return List.of(table(table) + "MODIFY COLUMN " + definition);
  }

  /** The index that it made for the key goes along. */
  @Override
  public List<String> dropReference(String table, ForeignKey reference) {
    return List.of(
        table(table) + "DROP FOREIGN KEY " + name(reference.name()),
        "DROP INDEX IF EXISTS " + name(reference.name()) + " ON " + name(table));
  }

  @Override
  public String dropKey(String table, Key key, boolean primary) {
    return primary ? table(table) + "DROP PRIMARY KEY" : dropIndex(table, key.name());
  }

  @Override
  public String dropIndex(String table, String index) {
    return "DROP INDEX " + name(index) + " ON " + name(table);
  }

  @Override
  public String carried(ColumnChange change, String from) {
    return from;
  }

  @Override
  public Optional<String> describeTable(String table, String before, String after) {
    return Optional.of(table(table) + "COMMENT = " + Dialect.quoted(after));
  }

  /** Said where the column is written out. */
  @Override
  public Optional<String> describeColumn(String table, String column, String before, String after) {
    return Optional.empty();
  }
}
