package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.Exclusion;
import joiner.catalog.ForeignKey;
import joiner.catalog.Grant;
import joiner.catalog.Key;
import joiner.catalog.Sequence;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;
import joiner.catalog.Surroundings;
import joiner.catalog.Trigger;
import joiner.engine.Dialect;
import joiner.expression.Width;

/** Prints a table of a schema as the statements that make it. */
final class Definitions {
  private static final int LONGEST_PERIOD = 6;

  private final Dialect dialect;
  private final CatalogTable table;

  Definitions(Dialect dialect, CatalogTable table) {
    this.dialect = dialect;
    this.table = table;
  }

  /** All that makes a table, its foreign keys that come late among it. */
  static List<Statement> all(CatalogTable table, Dialect dialect, String comment) {
    var definitions = new Definitions(dialect, table);
    var all = new ArrayList<Statement>();
    all.add(definitions.create(comment));
    all.addAll(definitions.lateReferences());
    all.addAll(definitions.indexes());
    all.addAll(definitions.comments());
    return all;
  }

  /** All that makes what stands around tables. */
  static List<Statement> all(Surroundings around, Dialect dialect) {
    var all = new ArrayList<Statement>();
    around
        .views()
        .forEach(
            view -> all.add(Statement.creatingView(view.definition(), dialect.name(view.name()))));
    around.exclusions().stream()
        .flatMap(exclusion -> exclusion.needs().stream())
        .distinct()
        .forEach(sql -> all.add(statement(Statement.Section.KEYS, sql)));
    for (Exclusion exclusion : around.exclusions()) {
      all.add(
          statement(
              exclusion.isIndex() ? Statement.Section.INDEXES : Statement.Section.KEYS,
              exclusion.definition()));
    }
    for (Trigger trigger : around.triggers()) {
      trigger.function().ifPresent(function -> all.add(around(function)));
      all.add(around(trigger.definition()));
    }
    for (Grant grant : around.grants()) {
      all.add(
          around(
              "GRANT "
                  + grant.privilege()
                  + " ON "
                  + dialect.name(grant.on())
                  + " TO "
                  + grant.to()
                  + (grant.passedOn() ? " WITH GRANT OPTION" : "")));
    }
    return all;
  }

  private static Statement around(String sql) {
    return statement(Statement.Section.AROUND, sql);
  }

  /** A sequence is made before the tables that count by it. */
  static Statement create(Sequence sequence, Dialect dialect) {
    if (sequence.isTable()) {
      return numbers(sequence, dialect);
    }
    return statement(
        Statement.Section.TABLES,
        "CREATE SEQUENCE " + dialect.name(sequence.name()) + " START WITH " + sequence.start());
  }

  /** The table of the last numbers of several periods. */
  private static Statement numbers(Sequence sequence, Dialect dialect) {
    var period = new SqlType.Varchar(LONGEST_PERIOD);
    String name = dialect.name(sequence.name());
    return Statement.creating(
        "The last numbers that were given",
        "CREATE TABLE "
            + name
            + " (\n  "
            + dialect.name(Sequence.PERIOD)
            + " "
            + dialect.spell(period)
            + " PRIMARY KEY,\n  "
            + dialect.name(Sequence.LAST)
            + " "
            + dialect.spell(new SqlType.Whole(Width.BITS_64))
            + " NOT NULL\n)"
            + dialect.tableTail(""),
        name);
  }

  /** Takes a sequence away. */
  static Statement drop(Sequence sequence, Dialect dialect) {
    return statement(
        Statement.Section.TIDYING,
        (sequence.isTable() ? "DROP TABLE " : "DROP SEQUENCE ") + dialect.name(sequence.name()));
  }

  /** Brings into a sequence what rows have already. */
  static Optional<Statement> soFar(Sequence sequence) {
    return sequence.soFar().map(Definitions::around);
  }

  /** CREATE TABLE; {@code comment} stands above it for people. */
  private Statement create(String comment) {
    var lines = new ArrayList<String>();
    table.columns().forEach(column -> lines.add(column(column)));
    table
        .primaryKey()
        .filter(key -> !countsAsKey(key))
        .ifPresent(key -> lines.add(constraint(key.name(), "PRIMARY KEY " + in(key.columns()))));
    for (Key key : table.uniqueKeys()) {
      if (whereFilled(key).isEmpty()) {
        lines.add(constraint(key.name(), "UNIQUE " + in(key.columns())));
      }
    }
    for (ForeignKey key : table.foreignKeys()) {
      if (!key.late()) {
        lines.add(constraint(key.name(), reference(key)));
      }
    }
    table.checks().forEach(check -> lines.add(check(check)));
    String name = dialect.name(table.name());
    String sql =
        "CREATE TABLE "
            + name
            + " ("
            + inside()
            + "\n  "
            + String.join(",\n  ", lines)
            + "\n)"
            + dialect.tableTail(table.comment());
    return Statement.creating(comment, sql, name);
  }

  private String check(Check check) {
    return constraint(check.name(), "CHECK (" + check.condition().sql() + ")");
  }

  /** Where the engine keeps no descriptions, they stand as comments in the text it keeps. */
  private String inside() {
    return dialect.keepsComments() || table.comment().isBlank()
        ? ""
        : " -- " + table.comment().replaceAll("\\R", " ");
  }

  /** Whether a key is kept by an index instead of a constraint. */
  boolean isIndex(Key key) {
    return whereFilled(key).isPresent();
  }

  private Optional<String> whereFilled(Key key) {
    Set<String> nullable =
        table.columns().stream()
            .filter(column -> !column.required() && key.columns().contains(column.name()))
            .map(Column::name)
            .collect(Collectors.toSet());
    return nullable.isEmpty()
        ? Optional.empty()
        : dialect.uniqueWhereFilled(key.name(), table.name(), key.columns(), nullable);
  }

  private boolean countsAsKey(Key key) {
    return dialect.countsAsKey()
        && table.columns().stream()
            .anyMatch(column -> column.counts() && key.columns().equals(List.of(column.name())));
  }

  /** A column as it stands in the definition of its table. */
  String column(Column column) {
    if (column.generated().isPresent()) {
      return dialect.computedColumn(column.name(), column.type(), column.generated().get())
          + dialect.columnTail(column.comment());
    }
    boolean isKey = column.counts() && dialect.countsAsKey();
    String type = column.counts() ? counter(column) : dialect.spell(column.type());
    return dialect.name(column.name())
        + " "
        + type
        + defaultClause(column)
        + (column.required() && !isKey ? " NOT NULL" : "")
        + dialect.columnTail(column.comment());
  }

  private String counter(Column column) {
    boolean wholeKey =
        table.primaryKey().filter(k -> k.columns().equals(List.of(column.name()))).isPresent();
    return dialect.counter(column.type(), wholeKey).orElseGet(() -> dialect.spell(column.type()));
  }

  private String defaultClause(Column column) {
    Optional<SqlExpression> value = column.defaultValue();
    return column.counts()
        ? value.map(next -> " DEFAULT " + next.sql()).orElse("")
        : value.map(dialect::defaultClause).orElse("");
  }

  private String constraint(String name, String body) {
    return "CONSTRAINT " + dialect.name(name) + " " + body;
  }

  private String in(List<String> columns) {
    return "(" + dialect.names(columns) + ")";
  }

  private String reference(ForeignKey key) {
    return "FOREIGN KEY "
        + in(key.columns())
        + " REFERENCES "
        + dialect.name(key.parent())
        + " "
        + in(key.parentColumns())
        + dialect.action(Dialect.Event.DELETE, key.onDelete())
        + dialect.action(Dialect.Event.UPDATE, key.onUpdate());
  }

  /** Foreign keys that are declared when all tables are there. */
  private List<Statement> lateReferences() {
    return table.foreignKeys().stream().filter(ForeignKey::late).map(this::adding).toList();
  }

  /** Declares a foreign key on a table that is there. */
  Statement adding(ForeignKey key) {
    return adding(Statement.Section.RELATIONSHIPS, constraint(key.name(), reference(key)));
  }

  /** Declares a key on a table that is there. */
  Statement adding(Key key, boolean primary) {
    Optional<String> index = primary ? Optional.empty() : whereFilled(key);
    String words = primary ? "PRIMARY KEY " : "UNIQUE ";
    return index
        .map(sql -> statement(Statement.Section.INDEXES, sql))
        .orElseGet(
            () ->
                adding(Statement.Section.KEYS, constraint(key.name(), words + in(key.columns()))));
  }

  /** Declares a check on a table that is there. */
  Statement adding(Check check) {
    return adding(Statement.Section.KEYS, check(check));
  }

  private Statement adding(Statement.Section section, String constraint) {
    return statement(section, "ALTER TABLE " + dialect.name(table.name()) + " ADD " + constraint);
  }

  /** Makes an index. */
  Statement adding(CatalogIndex index) {
    String columns =
        index.columns().stream()
            .map(c -> dialect.name(c) + (index.descending().contains(c) ? " DESC" : ""))
            .collect(Collectors.joining(", ", "(", ")"));
    String on = " ON " + dialect.name(table.name()) + " " + columns;
    return statement(Statement.Section.INDEXES, "CREATE INDEX " + dialect.name(index.name()) + on);
  }

  /** Indexes, and keys that are kept by one. */
  private List<Statement> indexes() {
    var indexes = new ArrayList<Statement>();
    table.uniqueKeys().stream()
        .filter(this::isIndex)
        .forEach(key -> indexes.add(adding(key, false)));
    table.indexes().forEach(index -> indexes.add(adding(index)));
    return indexes;
  }

  /** Descriptions, where the engine keeps them. */
  private List<Statement> comments() {
    var comments = new ArrayList<Statement>();
    if (!table.comment().isBlank()) {
      dialect.tableComment(table.name(), table.comment()).ifPresent(sql -> describe(sql, comments));
    }
    for (Column column : table.columns()) {
      if (!column.comment().isBlank()) {
        dialect
            .columnComment(table.name(), column.name(), column.comment())
            .ifPresent(sql -> describe(sql, comments));
      }
    }
    return comments;
  }

  private static void describe(String sql, List<Statement> comments) {
    comments.add(statement(Statement.Section.DESCRIPTIONS, sql));
  }

  private static Statement statement(Statement.Section section, String sql) {
    return Statement.of(section, "", sql);
  }
}
