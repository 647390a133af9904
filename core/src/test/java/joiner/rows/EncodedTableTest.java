package joiner.rows;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import joiner.Tries;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import org.junit.jupiter.api.Test;

/** A source's cells as numbers, and back. */
class EncodedTableTest {
  /** Equal texts, equal codes; each code gives its text back; counts add up. */
  @Test
  void codesStandForTexts() {
    Tries.of(100)
        .forEach(
            seed -> {
              var random = new Random(seed);
              List<String> cells = new ArrayList<>();
              for (int i = random.nextInt(60); i > 0; i--) {
                cells.add(random.nextInt(4) == 0 ? "" : "pot " + random.nextInt(9));
              }
              EncodedColumn column = EncodedColumn.of("Pot", cells);
              assertThat(column.header()).isEqualTo("Pot");
              assertThat(column.rows()).isEqualTo(cells.size());
              assertThat(column.codes())
                  .isEqualTo((int) cells.stream().filter(c -> !c.isEmpty()).distinct().count() + 1);
              int[] counts = column.counts();
              assertThat(counts).hasSize(column.codes());
              for (int row = 0; row < cells.size(); row++) {
                assertThat(column.text(row)).isEqualTo(cells.get(row));
                assertThat(column.textOf(column.code(row))).isEqualTo(cells.get(row));
                assertThat(column.code(row) == EncodedColumn.EMPTY)
                    .isEqualTo(cells.get(row).isEmpty());
              }
              for (int code = 0; code < counts.length; code++) {
                String text = column.textOf(code);
                assertThat(counts[code])
                    .isEqualTo((int) cells.stream().filter(text::equals).count());
              }
            });
  }

  private static EncodedTable shelves() {
    return EncodedTable.of(
        "shelves",
        List.of("Name", "Room"),
        List.of(List.of("A", "Attic"), List.of("B", ""), List.of("C", "Attic")));
  }

  @Test
  void aTableGivesItsCellsBack() {
    EncodedTable table = shelves();
    assertThat(table.name()).isEqualTo("shelves");
    assertThat(table.headers()).containsExactly("Name", "Room");
    assertThat(table.rows()).isEqualTo(3);
    assertThat(table.text(1, 0)).isEqualTo("B");
    assertThat(table.row(1)).containsExactly("B", "");
    assertThat(table.row(2)).containsExactly("C", "Attic");
    assertThat(table.keeping(List.of(1)).row(2)).containsExactly("Attic");
    assertThatThrownBy(() -> EncodedTable.of("x", List.of("A"), List.of(List.of())))
        .hasMessage("a row has 0 cells for 1 headers");
    assertThatThrownBy(() -> new EncodedTable("x", table.columns(), 2))
        .hasMessageContaining("Name has 3 rows, not 2");
  }

  @Test
  void rowsOfADesignAreEncodedUnderTheirNames() {
    FieldId name = new FieldId("name");
    FieldId room = new FieldId("room");
    Table table =
        Table.of("shelf", "Shelf", new Noun("shelf", "shelves"))
            .withFields(
                List.of(
                    Field.of("name", "Name", new FieldType.Text(9)),
                    Field.of("room", "Room", new FieldType.Text(9))));
    Rows rows =
        Rows.of(
            List.of(name, room),
            List.of(
                List.of(Optional.of("A"), Optional.of("Attic")),
                List.of(Optional.of("B"), Optional.empty())));
    EncodedTable encoded = EncodedTable.of(new TableRows(table, List.of(room, name), rows));
    assertThat(encoded.headers()).containsExactly("room", "name");
    assertThat(encoded.row(0)).containsExactly("Attic", "A");
    assertThat(encoded.row(1)).containsExactly("", "B");
  }

  @Test
  void columnsMayComeLateAndManyRowsAreTaken() {
    var builder = new EncodedTable.Builder("t");
    assertThat(builder.column("A")).isZero();
    for (int row = 0; row < 40; row++) {
      builder.cell(0, "a" + row);
      builder.endRow(row);
    }
    assertThat(builder.column("B")).isEqualTo(1);
    builder.cell(1, "xlatex".toCharArray(), 1, 4);
    builder.endRow(40);
    assertThat(builder.rows()).isEqualTo(41);
    EncodedTable table = builder.build();
    assertThat(table.row(39)).containsExactly("a39", "");
    assertThat(table.row(40)).containsExactly("", "late");
  }
}
