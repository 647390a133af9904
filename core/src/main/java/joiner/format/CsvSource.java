package joiner.format;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.discovery.ColumnProfile;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/**
 * A CSV file that is not yet part of a design.
 *
 * @param name the file's name without its ending
 * @param separator found between the columns
 * @param columns what was found in each column, in order
 * @param rows the cells, by field ids {@code 0}, {@code 1}, … in the order of the columns
 */
public record CsvSource(String name, char separator, List<ColumnProfile> columns, Rows rows) {
  public CsvSource {
    columns = List.copyOf(columns);
  }

  /** The cells of one column. */
  public FieldId column(int index) {
    return new FieldId(String.valueOf(index));
  }

  /** Reads a CSV file with a header line; the separator is found by looking. */
  public static CsvSource read(Path file) throws IOException, UnreadableFileException {
    if (!Files.isRegularFile(file)) {
      throw new UnreadableFileException(file, 0, "there is no such file.");
    }
    char separator = separator(file);
    try (CsvReader<CsvRecord> csv =
        CsvReader.builder()
            .fieldSeparator(separator)
            .detectBomHeader(true)
            .allowMissingFields(true)
            .allowExtraFields(true)
            .ofCsvRecord(file, StandardCharsets.UTF_8)) {
      return read(file, separator, csv);
    } catch (CsvParseException | java.io.UncheckedIOException e) {
      throw new UnreadableFileException(
          file, 0, "this is not UTF-8 CSV (" + e.getMessage() + "); save it as UTF-8 CSV.");
    }
  }

  private static CsvSource read(Path file, char separator, CsvReader<CsvRecord> csv)
      throws UnreadableFileException {
    List<String> header = new ArrayList<>();
    List<List<Optional<String>>> columns = new ArrayList<>();
    for (CsvRecord record : csv) {
      if (header.isEmpty()) {
        header.addAll(record.getFields());
        header.forEach(name -> columns.add(new ArrayList<>()));
      } else {
        add(file, record, columns);
      }
    }
    if (header.isEmpty()) {
      throw new UnreadableFileException(file, 1, "the file is empty; it needs a header line.");
    }
    var profiles = new ArrayList<ColumnProfile>();
    for (int i = 0; i < header.size(); i++) {
      profiles.add(ColumnProfile.of(header.get(i), columns.get(i)));
    }
    String fileName = String.valueOf(file.getFileName());
    int dot = fileName.lastIndexOf('.');
    return new CsvSource(
        dot > 0 ? fileName.substring(0, dot) : fileName, separator, profiles, rows(columns));
  }

  private static void add(Path file, CsvRecord record, List<List<Optional<String>>> columns)
      throws UnreadableFileException {
    if (record.getFieldCount() != columns.size()) {
      throw new UnreadableFileException(
          file,
          (int) record.getStartingLineNumber(),
          "the row has "
              + record.getFieldCount()
              + " fields, the header "
              + columns.size()
              + "; a separator or a quote is missing or too many.");
    }
    for (int i = 0; i < columns.size(); i++) {
      columns.get(i).add(Optional.of(record.getField(i)).filter(text -> !text.isEmpty()));
    }
  }

  private static Rows rows(List<List<Optional<String>>> columns) {
    var ids = new ArrayList<FieldId>();
    for (int i = 0; i < columns.size(); i++) {
      ids.add(new FieldId(String.valueOf(i)));
    }
    var rows = new ArrayList<List<Optional<String>>>();
    for (int row = 0; row < columns.getFirst().size(); row++) {
      int number = row;
      rows.add(columns.stream().map(column -> column.get(number)).toList());
    }
    return Rows.of(ids, rows);
  }

  /** The separator that occurs most often in the header line. */
  private static char separator(Path file) throws IOException {
    String head;
    try (var lines = Files.newBufferedReader(file, StandardCharsets.ISO_8859_1)) {
      String line = lines.readLine();
      head = line == null ? "" : line;
    }
    char best = ',';
    long most = 0;
    for (char candidate : new char[] {',', ';', '\t', '|'}) {
      long count = head.chars().filter(c -> c == candidate).count();
      if (count > most) {
        most = count;
        best = candidate;
      }
    }
    return best;
  }

  /** The table this file proposes, under a name that is not taken, with its rows. */
  public Map.Entry<Table, Rows> asTable(Set<String> takenNames) {
    String name = NamingPolicy.free(NamingPolicy.nameFor(this.name), takenNames);
    String label = NamingPolicy.labelFor(NamingPolicy.nameFor(this.name));
    Set<String> taken = new HashSet<>();
    Map<FieldId, Field> fields = new LinkedHashMap<>();
    for (int i = 0; i < columns.size(); i++) {
      Field field = columns.get(i).field(taken);
      taken.add(field.name());
      fields.put(column(i), field);
    }
    Table table =
        Table.of(name, label, NamingPolicy.nounFor(label)).withFields(List.copyOf(fields.values()));
    var cells = new ArrayList<List<Optional<String>>>();
    for (int row = 0; row < rows.count(); row++) {
      cells.add(rows.row(row, List.copyOf(fields.keySet())));
    }
    return Map.entry(table, Rows.of(fields.values().stream().map(Field::id).toList(), cells));
  }
}
