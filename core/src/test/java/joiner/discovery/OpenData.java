package joiner.discovery;

import de.siegmar.fastcsv.reader.CsvReader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import joiner.rows.EncodedTable;

/** The open datasets of the tests; their sources are named beside them. */
final class OpenData {
  private OpenData() {}

  static EncodedTable read(String name) {
    var rows = new ArrayList<List<String>>();
    try (var csv = CsvReader.builder().ofCsvRecord(Path.of("src/test/resources/open-data", name))) {
      csv.forEach(row -> rows.add(row.getFields()));
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    return EncodedTable.of(name, rows.getFirst(), rows.subList(1, rows.size()));
  }
}
