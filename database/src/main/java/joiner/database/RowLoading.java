package joiner.database;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import joiner.ddl.RowLoad;
import joiner.ddl.ShippedRows;
import joiner.ddl.Statement;
import joiner.engine.Dialect;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.ValueReader;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyIn;

/**
 * Puts rows into a table the way its engine takes them quickest. A cell that does not fit its type
 * goes as it is, for the engine to refuse.
 */
final class RowLoading {
  private static final int ROWS_AT_ONCE = 1_000;

  /** DuckDB reads a line of at most so many bytes unless it is told of more. */
  private static final int USUAL_LINE = 2_000_000;

  private final Connection connection;
  private final Dialect dialect;
  private final Draft draft;
  private final BooleanSupplier goesOn;

  /**
   * Loads rows of a draft.
   *
   * @param goesOn asked every thousand rows; false ends the loading
   */
  RowLoading(Connection connection, Dialect dialect, Draft draft, BooleanSupplier goesOn) {
    this.connection = connection;
    this.dialect = dialect;
    this.draft = draft;
    this.goesOn = goesOn;
  }

  /**
   * Loads the rows of a statement.
   *
   * @return whether all went in; not so where the loading was ended
   */
  boolean load(Statement statement, RowLoad load) throws SQLException {
    Table table = draft.design().table(load.table());
    try {
      return switch (dialect.loading()) {
        case COPY -> copy(table, load);
        case FILE -> file(table, load);
        case PARAMETERS -> parameters(statement.sql(), table, load);
        case STATEMENTS -> throw new IllegalStateException("rows are written out for this engine");
      };
    } catch (IOException e) {
      throw new SQLException("The rows of " + table.name() + " cannot be sent: " + e, e);
    }
  }

  private boolean parameters(String sql, Table table, RowLoad load) throws SQLException {
    Rows rows = ShippedRows.of(draft, table);
    try (PreparedStatement insert = connection.prepareStatement(sql)) {
      int waiting = 0;
      for (int row : load.rows()) {
        bind(insert, ShippedRows.fields(table), rows, row);
        insert.addBatch();
        if (++waiting == ROWS_AT_ONCE) {
          insert.executeBatch();
          waiting = 0;
          if (!goesOn.getAsBoolean()) {
            return false;
          }
        }
      }
      insert.executeBatch();
      return true;
    }
  }

  private void bind(PreparedStatement insert, List<Field> fields, Rows rows, int row)
      throws SQLException {
    for (int i = 0; i < fields.size(); i++) {
      Field field = fields.get(i);
      Optional<String> cell = rows.cell(row, field.id());
      if (cell.isEmpty()) {
        insert.setNull(i + 1, Types.NULL);
        continue;
      }
      switch (ValueReader.read(cell.get(), field.type())) {
        case ReadValue.Fits fits -> insert.setObject(i + 1, dialect.parameter(fits.value()));
        case ReadValue.Unfit unfit -> insert.setString(i + 1, cell.get());
      }
    }
  }

  /** The text of a value, as the formats of COPY and of files have it. */
  private String text(String cell, Field field) {
    return switch (ValueReader.read(cell, field.type())) {
      case ReadValue.Fits(Value.Bytes file) -> dialect.loaded(file);
      case ReadValue.Fits fits -> shown(fits.value());
      case ReadValue.Unfit unfit -> cell;
    };
  }

  private static String shown(Value value) {
    boolean moment = value instanceof Value.DateTime || value instanceof Value.Zoned;
    String shown = Evaluator.show(value);
    return moment ? shown.replace('T', ' ') : shown;
  }

  private String into(Table table) {
    return dialect.name(table.name())
        + " ("
        + dialect.names(ShippedRows.fields(table).stream().map(Field::name).toList())
        + ")";
  }

  /** COPY of PostgreSQL; its text format separates by tabs and escapes by backslashes. */
  private boolean copy(Table table, RowLoad load) throws SQLException {
    Rows rows = ShippedRows.of(draft, table);
    CopyIn copy =
        connection
            .unwrap(PGConnection.class)
            .getCopyAPI()
            .copyIn("COPY " + into(table) + " FROM STDIN");
    try {
      var lines = new StringBuilder();
      int waiting = 0;
      for (int row : load.rows()) {
        addLine(lines, ShippedRows.fields(table), rows, row);
        if (++waiting == ROWS_AT_ONCE) {
          send(copy, lines);
          waiting = 0;
          if (!goesOn.getAsBoolean()) {
            return false;
          }
        }
      }
      send(copy, lines);
      copy.endCopy();
      return true;
    } finally {
      if (copy.isActive()) {
        copy.cancelCopy();
      }
    }
  }

  private static void send(CopyIn copy, StringBuilder lines) throws SQLException {
    byte[] bytes = lines.toString().getBytes(StandardCharsets.UTF_8);
    copy.writeToCopy(bytes, 0, bytes.length);
    lines.setLength(0);
  }

  private void addLine(StringBuilder lines, List<Field> fields, Rows rows, int row) {
    for (int i = 0; i < fields.size(); i++) {
      lines.append(i == 0 ? "" : "\t");
      Optional<String> cell = rows.cell(row, fields.get(i).id());
      if (cell.isEmpty()) {
        lines.append("\\N");
      } else {
        addEscaped(lines, text(cell.get(), fields.get(i)));
      }
    }
    lines.append('\n');
  }

  private static void addEscaped(StringBuilder lines, String text) {
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      switch (c) {
        case '\\' -> lines.append("\\\\");
        case '\t' -> lines.append("\\t");
        case '\n' -> lines.append("\\n");
        case '\r' -> lines.append("\\r");
        default -> lines.append(c);
      }
    }
  }

  /** COPY of DuckDB, from a file beside; no cell is an empty text, so nothing between is NULL. */
  private boolean file(Table table, RowLoad load) throws SQLException, IOException {
    Path file = Files.createTempFile("joiner-rows", ".csv");
    try {
      long longest;
      try (BufferedWriter out = Files.newBufferedWriter(file)) {
        longest = write(out, table, load);
      }
      if (longest < 0) {
        return false;
      }
      String line = longest < USUAL_LINE ? "" : ", MAX_LINE_SIZE " + 2 * longest;
      try (var statement = connection.createStatement()) {
        statement.execute(
            "COPY "
                + into(table)
                + " FROM "
                + Dialect.quoted(file.toString())
                + " (FORMAT csv, AUTO_DETECT false, HEADER false, DELIMITER ',', QUOTE '\"',"
                + " ESCAPE '\"', NULLSTR '', ALLOW_QUOTED_NULLS false, PARALLEL false"
                + line
                + ")");
      }
      return true;
    } finally {
      Files.deleteIfExists(file);
    }
  }

  /** The bytes of the longest line, at most; −1 where the loading was ended. */
  private long write(Writer out, Table table, RowLoad load) throws IOException {
    Rows rows = ShippedRows.of(draft, table);
    List<Field> fields = ShippedRows.fields(table);
    long longest = 0;
    int done = 0;
    for (int row : load.rows()) {
      long length = 0;
      for (int i = 0; i < fields.size(); i++) {
        out.write(i == 0 ? "" : ",");
        Optional<String> cell = rows.cell(row, fields.get(i).id());
        if (cell.isPresent()) {
          String quoted = "\"" + text(cell.get(), fields.get(i)).replace("\"", "\"\"") + "\"";
          out.write(quoted);
          length += 3L * quoted.length() + 1;
        }
      }
      out.write('\n');
      longest = Math.max(longest, length);
      if (++done % ROWS_AT_ONCE == 0 && !goesOn.getAsBoolean()) {
        return -1;
      }
    }
    return longest;
  }
}
