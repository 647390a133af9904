package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.SummedDemo;
import joiner.Tries;
import joiner.catalog.View;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.engine.Dialect;
import joiner.expression.Kind;
import joiner.meaning.Draft;
import joiner.meaning.WorkedOut;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What views of engines sum up is what Joiner sums up, row by row. */
class SummedOnEnginesTest {
  @TempDir private Path folder;

  @Test
  void everyEngineSumsUpAsJoinerDoes() throws Exception {
    int compared = 0;
    for (long seed : Tries.of(1).toArray()) {
      compared += compared(SummedDemo.draft(seed));
    }
    System.out.println(compared + " values summed up and compared");
    assertThat(compared).isGreaterThan(5_000);
  }

  private int compared(Draft draft) throws Exception {
    int compared = 0;
    for (String url : Databases.fresh(folder)) {
      Dialect dialect = Shipment.dialectOf(url);
      var shipped = Shipment.ship(draft, Target.of(url), RowsChoice.ALL, Progress.NONE);
      assertThat(shipped.verification().differences()).as(url).isEmpty();
      List<View> views =
          SchemaScript.of(draft, dialect, RowsChoice.NONE).promise().around().views();
      for (Table table : draft.design().tables()) {
        compared += compared(draft, table, dialect, url, views);
      }
      Databases.drop(url);
    }
    return compared;
  }

  private static int compared(
      Draft draft, Table table, Dialect dialect, String url, List<View> views) throws SQLException {
    String view = table.name() + "_view";
    String definition =
        views.stream()
            .filter(v -> v.name().equals(view))
            .map(View::definition)
            .collect(Collectors.joining());
    List<Field> summed =
        table.fields().stream()
            .filter(
                f ->
                    definition.contains(" AS " + dialect.name(f.name()) + "\n")
                        || definition.contains(" AS " + dialect.name(f.name()) + ","))
            .toList();
    if (summed.isEmpty()) {
      return 0;
    }
    Rows worked = WorkedOut.of(draft, table, Pottery.CLOCK).in(draft.rows().of(table.id()));
    List<String> expected =
        IntStream.range(0, worked.count())
            .mapToObj(
                row ->
                    summed.stream()
                        .map(f -> plain(f, worked.cell(row, f.id()).orElse("")))
                        .collect(Collectors.joining("|")))
            .sorted()
            .toList();
    List<String> found = new ArrayList<>();
    String sql =
        "SELECT "
            + dialect.names(summed.stream().map(Field::name).toList())
            + " FROM "
            + dialect.name(view);
    try (Connection connection = DriverManager.getConnection(url);
        var statement = connection.createStatement();
        ResultSet rows = statement.executeQuery(sql)) {
      while (rows.next()) {
        var cells = new ArrayList<String>();
        for (int i = 0; i < summed.size(); i++) {
          cells.add(found(rows, i + 1, summed.get(i)));
        }
        found.add(String.join("|", cells));
      }
    }
    assertThat(found.stream().sorted().toList())
        .as("%s of %s: %s", table.name(), dialect.id(), summed)
        .isEqualTo(expected);
    return expected.size() * summed.size();
  }

  private static String found(ResultSet rows, int column, Field field) throws SQLException {
    String text = rows.getString(column);
    if (text == null) {
      return "";
    }
    return field.type().kind() == Kind.BOOLEAN
        ? String.valueOf(rows.getBoolean(column))
        : plain(field, text);
  }

  /** Numbers are compared without the zeros some engines write behind them. */
  private static String plain(Field field, String text) {
    return switch (field.type().kind()) {
      case WHOLE, NUMBER -> text.isEmpty() ? "" : number(text);
      case DATE_TIME -> text.replace('T', ' ').replaceAll("(:00)?(\\.0+)?$", "");
      case ZONED -> text.isEmpty() ? "" : moment(text);
      default -> text;
    };
  }

  /** A moment as any engine writes it; those that say no offset mean UTC. */
  private static String moment(String text) {
    String iso = text.replace(' ', 'T').replaceFirst("([+-]\\d\\d)$", "$1:00");
    boolean offset = iso.matches(".*T.*(Z|[+-]\\d\\d:\\d\\d)");
    return OffsetDateTime.parse(offset ? iso : iso + "Z").toInstant().toString();
  }

  private static String number(String text) {
    BigDecimal number = new BigDecimal(text).setScale(6, RoundingMode.HALF_UP);
    return number.signum() == 0 ? "0" : number.stripTrailingZeros().toPlainString();
  }
}
