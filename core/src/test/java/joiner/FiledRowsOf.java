package joiner;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.rows.ValueForm;

/** Drafts some of whose tables have their rows in files, with the very values they had before. */
public final class FiledRowsOf {
  private FiledRowsOf() {}

  /** A draft with the rows of some tables, by chance, written into a folder and linked. */
  public static Draft some(Draft draft, Path folder, Random random) throws IOException {
    SampleRows rows = draft.rows();
    for (Table table : draft.design().tables()) {
      if (!table.fields().isEmpty() && random.nextBoolean()) {
        rows = rows.withLink(table.id(), link(table, rows.of(table.id()), folder));
      }
    }
    return draft.withRows(rows);
  }

  /** Writes rows as a file whose columns are named as the table's fields. */
  public static LinkedRows link(Table table, Rows rows, Path folder) throws IOException {
    var text =
        new StringBuilder(
            line(table.namesOf(table.fieldIds()).stream().map(Optional::of).toList()));
    for (int row = 0; row < rows.count(); row++) {
      text.append(line(rows.row(row, table.fieldIds())));
    }
    Path file = Files.createTempFile(folder, "rows", ".csv");
    Files.writeString(file, text);
    var columns = new ArrayList<LinkedRows.Column>();
    List<FieldId> fields = table.fieldIds();
    for (int i = 0; i < fields.size(); i++) {
      String name = table.field(fields.get(i)).name();
      columns.add(LinkedRows.Column.of(fields.get(i), i, name, ValueForm.TEXT));
    }
    return new LinkedRows(
        file.toString(), ",", "UTF-8", 1, columns, Optional.empty(), rows.count());
  }

  private static String line(List<Optional<String>> cells) {
    return String.join(
            ",",
            cells.stream()
                .map(cell -> cell.map(t -> "\"" + t.replace("\"", "\"\"") + "\"").orElse(""))
                .toList())
        + "\n";
  }
}
