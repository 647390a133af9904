package joiner.source;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.TableSink;

/** Data Packages: every resource is a table. */
final class PackageTables implements SourceReader {
  @Override
  public Understood read(Path file, ReadingOptions options, TableSinks sinks, ProblemLog problems)
      throws IOException, UnreadableFileException {
    DesignFolder.Opened opened = DesignFolder.open(file);
    opened.notices().forEach(notice -> problems.add(SourceProblem.inLine(file, 0, notice)));
    Draft draft = opened.draft();
    for (Table table : draft.design().tables()) {
      rows(table, draft.rows().of(table.id()), sinks.table(table.name()), options);
    }
    return new Understood("Data Package", -1);
  }

  private static void rows(Table table, Rows rows, TableSink sink, ReadingOptions options) {
    List<Field> fields = table.fields();
    fields.forEach(field -> sink.column(field.name()));
    for (int row = 0; row < rows.count(); row++) {
      options.checkStopped();
      for (int i = 0; i < fields.size(); i++) {
        sink.cell(i, rows.cell(row, fields.get(i).id()).orElse(""));
      }
      sink.endRow(0);
    }
  }
}
