package joiner.database;

import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.regex.Pattern;
import joiner.ddl.ShippedRows;
import joiner.engine.Dialect;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.rows.StoredFile;
import org.jspecify.annotations.Nullable;

/** Reads rows in the form of their types. */
final class RowReading {
  private final LiveTarget live;
  private final int atMost;
  private final Progress progress;
  private final List<String> notices = new ArrayList<>();

  RowReading(LiveTarget live, int atMost, Progress progress) {
    this.live = live;
    this.atMost = atMost;
    this.progress = progress;
  }

  /** What was not taken as it is, a sentence each. */
  List<String> notices() {
    return notices;
  }

  /** The first rows of tables. */
  SampleRows read(List<Table> tables) throws SQLException {
    Map<TableId, Rows> rows = new LinkedHashMap<>();
    if (atMost > 0) {
      for (Table table : tables) {
        if (!progress.reached(rows.size(), tables.size(), table.name())) {
          throw new CancellationException("Reading was stopped.");
        }
        if (!table.fields().isEmpty()) {
          rows.put(table.id(), rows(table));
        }
      }
    }
    return new SampleRows(rows);
  }

  private Rows rows(Table table) throws SQLException {
    List<Field> fields = ShippedRows.fields(table);
    var builder = new Rows.Builder(fields.stream().map(Field::id).toList());
    Map<String, Long> empty = new LinkedHashMap<>();
    boolean more = false;
    try (var statement = live.reading(select(table));
        ResultSet row = statement.executeQuery()) {
      for (int count = 0; !more && row.next(); count++) {
        more = count == atMost;
        if (!more) {
          add(row, fields, builder, empty);
        }
      }
    }
    empty.forEach(
        (field, cells) ->
            notices.add(
                table.name()
                    + "."
                    + field
                    + ": "
                    + Counts.of(cells, "empty text is", "empty texts are")
                    + " taken for no value."));
    if (more) {
      notices.add(
          table.name()
              + " has more rows; the first "
              + Counts.of(atMost)
              + " were taken, which --rows changes.");
    }
    return builder.build();
  }

  private String select(Table table) {
    return from(live.dialect(), table) + inOrder(live.dialect(), table);
  }

  private static String from(Dialect dialect, Table table) {
    return "SELECT "
        + dialect.names(ShippedRows.fields(table).stream().map(Field::name).toList())
        + " FROM "
        + dialect.name(table.name());
  }

  /**
   * The rows of a table that a query finds, cells in the order of the fields that are shipped.
   *
   * @param where what stands behind the table's name; may be empty
   * @param most so many rows at most
   */
  static List<List<Optional<String>>> rows(LiveTarget live, Table table, String where, int most)
      throws SQLException {
    List<Field> fields = ShippedRows.fields(table);
    var rows = new ArrayList<List<Optional<String>>>();
    try (var statement = live.reading(from(live.dialect(), table) + where)) {
      statement.setMaxRows(most);
      ResultSet row = statement.executeQuery();
      while (rows.size() < most && row.next()) {
        var cells = new ArrayList<Optional<String>>(fields.size());
        for (int i = 0; i < fields.size(); i++) {
          cells.add(Optional.ofNullable(text(row, i + 1, fields.get(i))));
        }
        rows.add(cells);
      }
    }
    return rows;
  }

  /** What orders the rows of a table, the same each time. */
  static String inOrder(Dialect dialect, Table table) {
    return table.primaryKey().isEmpty()
        ? ""
        : " ORDER BY " + dialect.names(table.namesOf(table.primaryKey()));
  }

  private static void add(
      ResultSet row, List<Field> fields, Rows.Builder builder, Map<String, Long> empty)
      throws SQLException {
    for (int i = 0; i < fields.size(); i++) {
      String cell = text(row, i + 1, fields.get(i));
      if (cell == null) {
        continue;
      }
      if (cell.isEmpty()) {
        empty.merge(fields.get(i).name(), 1L, Long::sum);
      }
      builder.cell(i, cell);
    }
    builder.endRow();
  }

  private static @Nullable String text(ResultSet row, int column, Field field) throws SQLException {
    if (field.type() instanceof FieldType.Content) {
      byte[] content = row.getBytes(column);
      return content == null ? null : StoredFile.cell(content);
    }
    String plain = row.getString(column);
    if (plain == null) {
      return null;
    }
    try {
      return switch (field.type()) {
        case FieldType.TrueFalse t -> String.valueOf(row.getBoolean(column));
        case FieldType.Decimal t -> number(row, column);
        case FieldType.Money t -> number(row, column);
        case FieldType.AnyNumber t -> number(row, column);
        case FieldType.Date t -> value(new Value.Date(row.getObject(column, LocalDate.class)));
        case FieldType.Time t ->
            DateTimeFormatter.ISO_LOCAL_TIME.format(row.getObject(column, LocalTime.class));
        case FieldType.DateTime t when t.zoned() ->
            value(new Value.Zoned(row.getObject(column, OffsetDateTime.class)));
        case FieldType.DateTime t ->
            value(new Value.DateTime(row.getObject(column, LocalDateTime.class)));
        default -> plain;
      };
    } catch (SQLException | RuntimeException e) {
      // The engine keeps such values as texts; the audit says whether they fit.
      return field.type() instanceof FieldType.DateTime
          ? BLANK.matcher(plain).replaceFirst("T")
          : plain;
    }
  }

  /** What some engines put between date and time. */
  private static final Pattern BLANK = Pattern.compile("(?<=^\\d{4}-\\d\\d-\\d\\d) ");

  private static String number(ResultSet row, int column) throws SQLException {
    BigDecimal number = row.getBigDecimal(column);
    return number.toPlainString();
  }

  private static String value(Value value) {
    return Evaluator.show(value);
  }
}
