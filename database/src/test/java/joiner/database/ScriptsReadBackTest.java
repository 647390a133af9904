package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.Tries;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogTable;
import joiner.catalog.ForeignKey;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.ddl.ShippedRows;
import joiner.ddl.SqlScript;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Value;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.ValueReader;
import org.junit.jupiter.api.Test;

/** A law: what a script was printed from is what is read from it. */
class ScriptsReadBackTest {
  /** A table as words, without the order in which it says things. */
  private static List<Object> said(CatalogTable table, Dialect dialect) {
    return List.of(
        table.columns().stream()
            .map(
                c ->
                    List.of(
                        c.name(),
                        type(c.type(), dialect),
                        c.required(),
                        c.counts() ? "" : c.defaultValue().map(d -> sql(d)).orElse(""),
                        c.counts(),
                        dialect.keepsComments() ? c.comment() : ""))
            .toList(),
        table.primaryKey().map(k -> k.columns()).orElse(List.of()),
        new HashSet<>(table.uniqueKeys()),
        new HashSet<>(table.foreignKeys().stream().map(ScriptsReadBackTest::said).toList()),
        table.checks().stream().map(c -> c.name() + ": " + sql(c.condition())).toList(),
        new HashSet<>(table.indexes()),
        dialect.keepsComments() ? table.comment() : "");
  }

  /** Numbers without decimals are read as whole ones where an engine has no others. */
  private static Object type(SqlType type, Dialect dialect) {
    boolean none = dialect.keptAs(new SqlType.Whole(Width.BITS_32)) instanceof SqlType.Decimal;
    boolean whole =
        type instanceof SqlType.Whole || type instanceof SqlType.Decimal(var p, var s) && s == 0;
    return none && whole ? "a whole number" : type;
  }

  /** What stands around an expression in a script, as brackets, is not part of it. */
  private static String sql(SqlExpression expression) {
    String sql = expression.sql().strip();
    while (sql.startsWith("(") && sql.endsWith(")")) {
      sql = sql.substring(1, sql.length() - 1).strip();
    }
    return sql;
  }

  private static List<Object> said(ForeignKey key) {
    return List.of(
        key.name(),
        key.columns(),
        key.parent(),
        key.parentColumns(),
        key.onDelete(),
        key.onUpdate());
  }

  private static List<String> differences(Catalog promised, Catalog read, Dialect dialect) {
    var differences = new ArrayList<String>();
    for (CatalogTable table : promised.tables()) {
      Optional<CatalogTable> is = read.find(table.name());
      if (is.isEmpty()) {
        differences.add(table.name() + " is missing");
      } else if (!said(is.get(), dialect).equals(said(table, dialect))) {
        differences.add(said(table, dialect) + "\n  read as\n  " + said(is.get(), dialect));
      }
    }
    return differences;
  }

  @Test
  void everyScriptIsReadBackWhole() {
    var problems = new ArrayList<String>();
    Tries.of(60)
        .forEach(
            seed -> {
              Draft draft = SoundDesigns.draft(seed);
              for (Dialect dialect : Dialects.ALL) {
                SchemaScript script = SchemaScript.of(draft, dialect, RowsChoice.NONE);
                SqlScript read = SqlScript.of(script.text("Studio"), Optional.of(dialect));
                String where = "seed " + seed + ", " + dialect.engine() + ": ";
                differences(script.promise(), read.catalog(), dialect)
                    .forEach(problem -> problems.add(where + problem));
                read.unread().forEach(line -> problems.add(where + line));
              }
            });
    assertThat(problems).isEmpty();
  }

  @Test
  void theStudiosRowsAreReadBackFromTheScriptOfEveryEngine() {
    Draft demo = Pottery.demo();
    for (Dialect dialect : Dialects.ALL) {
      String text = SchemaScript.of(demo, dialect, RowsChoice.ALL).text("Studio");
      for (Optional<Dialect> known : List.of(Optional.of(dialect), Optional.<Dialect>empty())) {
        SqlScript read = SqlScript.of(text, known);
        assertThat(read.unread())
            .as(dialect.engine())
            .allMatch(line -> line.contains("not taken along: "));
        Draft back = read.draft("Studio", new ArrayList<>());
        for (Table table : demo.design().tables()) {
          Table is = back.design().tableNamed(table.name()).orElseThrow();
          assertRows(demo, table, back.rows().of(is.id()), is, dialect);
        }
      }
    }
  }

  private static void assertRows(Draft demo, Table table, Rows read, Table is, Dialect dialect) {
    Rows rows = demo.rows().of(table.id());
    assertThat(read.count()).as(dialect.engine() + " " + table.name()).isEqualTo(rows.count());
    List<Field> fields = ShippedRows.fields(table);
    List<FieldId> there =
        fields.stream().map(f -> is.fieldNamed(f.name()).orElseThrow().id()).toList();
    List<FieldId> own = fields.stream().map(Field::id).toList();
    // Parents may have been put before the rows that refer to them.
    assertThat(values(read, there, fields))
        .as(dialect.engine() + " " + table.name())
        .containsExactlyInAnyOrderElementsOf(values(rows, own, fields));
  }

  private static List<List<Value>> values(Rows rows, List<FieldId> ids, List<Field> fields) {
    var all = new ArrayList<List<Value>>();
    for (int row = 0; row < rows.count(); row++) {
      var values = new ArrayList<Value>();
      for (int i = 0; i < ids.size(); i++) {
        Field field = fields.get(i);
        Optional<String> cell = inForm(rows.cell(row, ids.get(i)), field);
        values.add(ValueReader.valueOrNull(cell, field.type()));
      }
      all.add(values);
    }
    return all;
  }

  /**
   * SQLite has no types of its own for moments, so they come back as its texts; MariaDB keeps them
   * in UTC and does not say so.
   */
  private static Optional<String> inForm(Optional<String> cell, Field field) {
    if (!(field.type() instanceof FieldType.DateTime moment)) {
      return cell;
    }
    Optional<String> text = cell.map(t -> t.replaceFirst("^(.{10}) ", "$1T"));
    return moment.zoned() ? text.map(t -> t.matches(".*T.*(Z|[+-][0-9:]+)") ? t : t + "Z") : text;
  }
}
