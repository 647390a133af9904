package joiner.format;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.Rows;

/** Rows of a table as CSV (RFC 4180) with a header line; an empty field is NULL. */
final class CsvRows {
  private CsvRows() {}

  /**
   * Reads the rows of a table.
   *
   * @param shownAs the file named in errors
   */
  static Rows read(
      Path file, Path shownAs, Table table, char separator, boolean header, Charset charset)
      throws IOException, UnreadableFileException {
    boolean single = table.fields().size() == 1;
    try (CsvReader<CsvRecord> csv =
        CsvReader.builder()
            .fieldSeparator(separator)
            .skipEmptyLines(!single)
            .detectBomHeader(true)
            .allowMissingFields(true)
            .allowExtraFields(true)
            .ofCsvRecord(file, charset)) {
      Iterator<CsvRecord> records = csv.iterator();
      List<Integer> order =
          order(
              header && records.hasNext() ? records.next().getFields() : names(table),
              table,
              shownAs);
      var builder = new Rows.Builder(table.fields().stream().map(Field::id).toList());
      while (records.hasNext()) {
        add(records.next(), order, builder, shownAs);
      }
      return builder.build();
    } catch (CsvParseException | java.io.UncheckedIOException e) {
      throw new UnreadableFileException(
          shownAs, 0, cause(e) + "; mend the file or save it as UTF-8 CSV again.");
    }
  }

  private static String cause(RuntimeException e) {
    Throwable deepest = e;
    while (deepest.getCause() != null) {
      deepest = deepest.getCause();
    }
    return deepest instanceof java.nio.charset.CharacterCodingException
        ? "the text is not in the encoding it should be in"
        : "the CSV cannot be read (" + deepest.getMessage() + ")";
  }

  private static List<String> names(Table table) {
    return table.fields().stream().map(Field::name).toList();
  }

  /** For each column of the file the place of its field in the table. */
  private static List<Integer> order(List<String> header, Table table, Path file)
      throws UnreadableFileException {
    Map<String, Integer> places = new HashMap<>();
    List<String> names = names(table);
    for (int i = 0; i < names.size(); i++) {
      places.put(names.get(i), i);
    }
    var order = new ArrayList<Integer>();
    for (String column : header) {
      Integer place = places.remove(column);
      if (place == null) {
        throw new UnreadableFileException(
            file,
            1,
            "the column “"
                + column
                + "” is "
                + (names.contains(column) ? "there twice" : "no field of " + table.name())
                + "; the fields are "
                + String.join(", ", names)
                + ".");
      }
      order.add(place);
    }
    if (!places.isEmpty()) {
      throw new UnreadableFileException(
          file,
          1,
          "the header lacks "
              + String.join(", ", names.stream().filter(places::containsKey).toList())
              + " of "
              + table.name()
              + ".");
    }
    return order;
  }

  private static void add(CsvRecord record, List<Integer> order, Rows.Builder builder, Path file)
      throws UnreadableFileException {
    if (record.getFieldCount() != order.size()) {
      throw new UnreadableFileException(
          file,
          (int) record.getStartingLineNumber(),
          "the row has "
              + record.getFieldCount()
              + " fields, the header "
              + order.size()
              + "; a comma or a quote is missing or too many.");
    }
    for (int i = 0; i < order.size(); i++) {
      builder.cell(order.get(i), record.getField(i));
    }
    builder.endRow();
  }

  /** The rows as CSV text. */
  static String write(Table table, Rows rows) {
    var text = new StringWriter();
    List<FieldId> fields = table.fields().stream().map(Field::id).toList();
    try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(text)) {
      csv.writeRecord(names(table));
      for (int row = 0; row < rows.count(); row++) {
        List<String> cells = rows.row(row, fields).stream().map(cell -> cell.orElse("")).toList();
        if (cells.equals(List.of(""))) {
          csv.flush();
          text.append("\"\"\n"); // An empty line would be no row at all.
        } else {
          csv.writeRecord(cells);
        }
      }
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    return text.toString();
  }
}
