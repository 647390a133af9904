package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Map;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

@Tag("long")
class WideTableTest {
  @TempDir private Path folder;

  @Test
  void manyColumnsLongCellsAndLoneReturnsComeBack() throws Exception {
    var fields = new ArrayList<Field>();
    for (int i = 0; i < 17_000; i++) {
      fields.add(Field.of("f" + i, "F" + i, new FieldType.LongText()));
    }
    Table table = Table.of("t", "T", new Noun("t", "ts")).withFields(fields);
    var rows =
        Rows.NONE
            .withRow(Map.of(new FieldId("f0"), "x".repeat(17 << 20), new FieldId("f16999"), "a\rb"))
            .withRow(Map.of(new FieldId("f16999"), "c\r"));
    Draft draft =
        new Draft(
            Design.empty("d", "D").withTableAdded(table), new SampleRows(Map.of(table.id(), rows)));
    DesignFolder.save(draft, folder.resolve("wide"));
    assertThat(DesignFolder.open(folder.resolve("wide")).draft()).isEqualTo(draft);
  }
}
