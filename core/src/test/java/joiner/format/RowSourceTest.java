package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.meaning.Draft;
import joiner.model.Extras;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.EncodedTable;
import joiner.rows.RowSource;
import joiner.rows.Rows;
import joiner.rows.TableRows;
import org.junit.jupiter.api.Test;

/** Rows are the same wherever they come from, and as often as they are gone through. */
class RowSourceTest {
  private static final Table KILN = Pottery.demo().design().table(new TableId("kiln"));

  private static RowsFile file(Table table, String text, List<String> notices) throws IOException {
    Path shownAs = Path.of("rows.csv");
    return new RowsFile(
        () -> new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)),
        shownAs,
        table,
        RowsForm.of(table, "rows.csv", shownAs),
        notices::add);
  }

  private static String written(Table table, Rows rows) {
    RowsForm form = RowsForm.own(table);
    byte[] bytes =
        new CsvText(table, form, CsvText.Habits.of(CsvText.beginning(new byte[0], form)))
            .write(rows, 0, rows.count())
            .orElseThrow();
    return new String(bytes, StandardCharsets.UTF_8);
  }

  private static EncodedTable gone(RowSource source) throws IOException {
    var builder = new EncodedTable.Builder("t");
    source.scan(builder);
    return builder.build();
  }

  @Test
  void memoryAndFileShowTheSameCellsAtEveryPass() {
    Tries.of(60)
        .forEach(
            seed -> {
              Draft draft = RandomDesigns.draft(seed);
              for (Table table : draft.design().tables()) {
                assertSame(table, draft.rows().of(table.id()));
              }
            });
  }

  private static void assertSame(Table table, Rows rows) {
    if (table.fields().isEmpty()) {
      return;
    }
    Table plain = RowsForm.withoutForm(table);
    try {
      RowSource memory = TableRows.of(plain, rows);
      RowSource file = file(plain, written(plain, rows), new ArrayList<>());
      assertThat(file.headers()).isEqualTo(memory.headers());
      EncodedTable once = gone(file);
      assertThat(once.headers()).isEqualTo(memory.headers());
      for (EncodedTable other : List.of(gone(file), gone(memory))) {
        assertThat(other.rows()).isEqualTo(rows.count());
        for (int row = 0; row < rows.count(); row++) {
          assertThat(other.row(row)).isEqualTo(once.row(row));
        }
      }
      assertThat(Rows.of(plain.fieldIds(), file)).isEqualTo(rows);
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  @Test
  void whatIsKnownOfTheirNumber() throws IOException {
    Rows rows = Pottery.demo().rows().of(KILN.id());
    assertThat(TableRows.of(KILN, rows).count()).hasValue(rows.count());
    assertThat(file(KILN, "", new ArrayList<>()).count()).isEmpty();
  }

  @Test
  void aPassThatBreaksOffHasShownTheRowsBeforeAndNamesTheLine() throws IOException {
    String text = written(KILN, Pottery.demo().rows().of(KILN.id()));
    List<String> lines = text.lines().toList();
    String broken = lines.get(0) + "\n" + lines.get(1) + "\n\"x\",\"y\"\n" + lines.get(2) + "\n";
    var builder = new EncodedTable.Builder("kiln");
    RowsFile file = file(KILN, broken, new ArrayList<>());
    assertThatThrownBy(() -> file.scan(builder))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("rows.csv, line 3");
    assertThat(builder.rows()).isEqualTo(1);
  }

  /** What could not be taken as meant is counted anew at each pass. */
  @Test
  void noticesAreOfOnePass() throws IOException {
    Table swapped =
        Pottery.demo().design().table(new TableId("kiln")).fields().stream()
            .filter(field -> field.name().equals("name"))
            .map(field -> KILN.withExtras(new Extras(Map.of("schema/missingValues", "[\"-\"]"))))
            .findFirst()
            .orElseThrow();
    String header = String.join(",", swapped.namesOf(swapped.fieldIds()));
    String row = ",".repeat(swapped.fields().size() - 1);
    var notices = new ArrayList<String>();
    RowsFile file = file(swapped, header + "\n" + row + "\n", notices);
    Rows first = file.rows();
    assertThat(first.cell(0, swapped.fieldIds().getFirst())).isEqualTo(Optional.empty());
    List<String> told = List.copyOf(notices);
    assertThat(told).isNotEmpty().allMatch(notice -> notice.contains("1 empty texts"));
    notices.clear();
    file.rows();
    assertThat(notices).isEqualTo(told);
  }
}
