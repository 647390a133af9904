package joiner.ddl;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import joiner.catalog.Catalog;
import joiner.engine.Dialect;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * What a script of SQL says of a schema, as far as it is understood.
 *
 * @param catalog the schema
 * @param rows for each table the rows that are inserted, each a map from column to text; what is
 *     NULL has no entry
 * @param unread what was not understood, each with its line
 */
public record SqlScript(
    Catalog catalog, Map<String, List<Map<String, String>>> rows, List<String> unread) {
  public SqlScript {
    rows = new LinkedHashMap<>(rows);
    unread = List.copyOf(unread);
  }

  /** Whether a file of that name is a script. */
  public static boolean isNamed(String file) {
    String name = file.toLowerCase(Locale.ROOT);
    return name.endsWith(".sql") || name.endsWith(".ddl");
  }

  /**
   * Reads a script. Statements that say nothing of tables, as settings and transactions, are passed
   * over; every other one is understood or told.
   *
   * @param dialect the engine it is for; empty: whichever understands it
   */
  public static SqlScript of(String sql, Optional<Dialect> dialect) {
    return new ScriptReader(sql, dialect).read();
  }

  /**
   * The script as a design with its rows, and everything that was not understood.
   *
   * @param title of the design
   */
  public Draft draft(String title, List<String> notices) {
    Raised raised = Raised.of(catalog, title);
    notices.addAll(unread);
    notices.addAll(raised.unread());
    Map<TableId, Rows> all = new LinkedHashMap<>();
    for (Table table : raised.design().tables()) {
      List<Map<String, String>> inserted = rows.getOrDefault(table.name(), List.of());
      if (!table.fields().isEmpty() && !inserted.isEmpty()) {
        all.put(table.id(), rows(table, inserted));
      }
    }
    return new Draft(raised.design(), new SampleRows(all));
  }

  private static Rows rows(Table table, List<Map<String, String>> inserted) {
    var builder = new Rows.Builder(table.fieldIds());
    for (Map<String, String> row : inserted) {
      for (int i = 0; i < table.fields().size(); i++) {
        Field field = table.fields().get(i);
        String value = row.get(field.name());
        builder.cell(i, value == null ? null : ScriptValues.inForm(value, field.type()));
      }
      builder.endRow();
    }
    return builder.build();
  }
}
