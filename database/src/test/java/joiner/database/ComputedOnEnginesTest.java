package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.RandomComputed;
import joiner.RandomRules;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogTable;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.engine.Dialect;
import joiner.expression.Kind;
import joiner.meaning.Draft;
import joiner.meaning.WorkedOut;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Columns that engines compute hold what Joiner works out, row by row. */
class ComputedOnEnginesTest {
  private static final int ROWS = 10;
  private static final int FIELDS = 6;

  @TempDir private Path folder;

  @Test
  void everyEngineComputesWhatIsWorkedOut() throws Exception {
    var compared = new AtomicLong();
    var seen = new AtomicLong();
    for (long seed : Tries.of(12).toArray()) {
      Draft draft = computable(RandomComputed.draft(seed, ROWS, FIELDS));
      Table table = draft.design().table(RandomRules.table().id());
      Rows worked = WorkedOut.of(draft, table, Pottery.CLOCK).in(draft.rows().of(table.id()));
      for (String url : Databases.fresh(folder)) {
        Dialect dialect = Shipment.dialectOf(url);
        var shipped = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
        assertThat(shipped.verification().differences()).as("seed %d, %s", seed, url).isEmpty();
        Catalog promise = SchemaScript.of(draft, dialect, RowsChoice.NONE).promise();
        CatalogTable made = promise.tables().getFirst();
        for (Field field : table.fields()) {
          boolean column = made.column(field.name()).isPresent();
          boolean inView = isInView(promise, field);
          if (field.isComputed() && (column || inView)) {
            String from = column ? "firing_log" : "firing_log_view";
            (column ? compared : seen)
                .addAndGet(compare(dialect, url, from, field, worked, "seed " + seed));
          }
        }
        Databases.drop(url);
      }
    }
    System.out.println(compared + " computed values compared, " + seen + " of them in views");
    assertThat(compared.get()).isGreaterThan(500);
  }

  /** The same with the rows only in which every field can be worked out. */
  private static Draft computable(Draft draft) {
    Table table = draft.design().table(RandomRules.table().id());
    Rows rows = draft.rows().of(table.id());
    List<Integer> bad =
        Audit.of(draft, Pottery.CLOCK)
            .violations()
            .flatMap(violation -> violation.rows().stream())
            .distinct()
            .toList();
    var kept = new ArrayList<List<Optional<String>>>();
    for (int row : IntStream.range(0, rows.count()).toArray()) {
      if (!bad.contains(row + 1)) {
        kept.add(table.fieldIds().stream().map(id -> rows.cell(row, id)).toList());
      }
    }
    return draft.withRows(new SampleRows(Map.of(table.id(), Rows.of(table.fieldIds(), kept))));
  }

  private static boolean isInView(Catalog promise, Field field) {
    return promise.around().views().stream()
        .anyMatch(view -> view.definition().contains(" AS " + field.name()));
  }

  /** How many values are the same. */
  private static int compare(
      Dialect dialect, String url, String from, Field field, Rows worked, String seed)
      throws SQLException {
    int count = 0;
    String sql = "SELECT " + dialect.name(field.name()) + " FROM " + from + " ORDER BY id";
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement();
        ResultSet rows = statement.executeQuery(sql)) {
      for (int row = 0; rows.next(); row++) {
        Optional<String> found = found(rows, field.type().kind());
        Optional<String> expected = worked.cell(row, field.id()).map(text -> plain(text, field));
        count++;
        assertThat(found)
            .as(
                "%s in %s, row %d, %s: %s",
                field.name(), dialect.id(), row + 1, seed, field.origin())
            .isEqualTo(expected);
      }
    }
    return count;
  }

  private static String plain(String text, Field field) {
    return field.type().kind().isNumeric() ? number(new BigDecimal(text)) : text;
  }

  /** Numbers are compared as far as the floating-point ones of some engines are exact. */
  private static String number(BigDecimal number) {
    BigDecimal rounded = number.setScale(6, java.math.RoundingMode.HALF_UP);
    return rounded.signum() == 0 ? "0" : rounded.stripTrailingZeros().toPlainString();
  }

  /** The empty text is no value here. */
  private static Optional<String> found(ResultSet rows, Kind kind) throws SQLException {
    String text = rows.getString(1);
    if (rows.wasNull() || text.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        switch (kind) {
          case BOOLEAN -> String.valueOf(rows.getBoolean(1));
          case WHOLE, NUMBER -> number(new BigDecimal(text));
          default -> text;
        });
  }
}
