package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.edit.ChangeTable;
import joiner.meaning.LabelPieces;
import joiner.model.Table;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Row labels put together and tried, without a window. */
class RowLabelModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private RowLabelModel model;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder.resolve("kept"));
    model = new RowLabelModel(test.bench, Texts.beside(ShapeView.class));
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private LabelPieces.Piece piece(Table table, String typed) {
    return model.pieces(table).of(typed).stream()
        .map(Offers.Offer::thing)
        .filter(piece -> piece.words().equals(typed))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void aLabelSaysWhatItGivesWhileItIsTyped() {
    Table kiln = test.table("kiln");
    assertThat(model.gives(kiln, "name").labels()).startsWith("Big Tom", "Little Ann");
    assertThat(model.gives(kiln, "name").remark()).isEmpty();
    assertThat(model.gives(kiln, "fuel").remark())
        .isEqualTo("2 of the first 4 rows share their label with another.");
    RowLabelModel.Gives wrong = model.gives(kiln, "fule");
    assertThat(wrong.isWrong()).isTrue();
    assertThat(wrong.remark()).contains("There is no field fule in Kiln");
  }

  @Test
  void piecesComeOneBehindTheOther() {
    Table incident = test.choose("incident");
    test.bench.apply(ChangeTable.rowLabel(incident, Optional.empty()));
    model.add(test.table("incident"), piece(incident, "Severity"));
    model.add(test.table("incident"), piece(incident, "Details"));
    model.add(test.table("incident"), piece(incident, "Peak of its firing"));
    model.add(test.table("incident"), piece(incident, "!"));
    Table now = test.table("incident");
    assertThat(now.rowLabel().orElseThrow().text())
        .isEqualTo(
            "severity || COALESCE(' · ' || details, '')"
                + " || COALESCE(' · ' || CAST(firing_id.peak_c AS VARCHAR), '') || '!'");
    assertThat(model.gives(now, now.rowLabel().get().text()).labels().get(1))
        .startsWith("medium · ")
        .doesNotContain(" ·  · ")
        .endsWith("!");
  }

  @Test
  void aTextStandsWhereItsConditionHolds() {
    Table kiln = test.choose("kiln");
    model.add(kiln, piece(kiln, "electric if fuel = 'electric'"));
    Table now = test.table("kiln");
    assertThat(now.rowLabel().orElseThrow().text())
        .endsWith("COALESCE(' · ' || CASE WHEN fuel = 'electric' THEN 'electric' END, '')");
    assertThat(model.gives(now, now.rowLabel().get().text()).labels())
        .anyMatch(label -> label.endsWith(" · electric"))
        .anyMatch(label -> !label.contains("electric"));
    assertThat(model.pieces(now).of("hot if peak"))
        .as("no condition of the table")
        .extracting(offer -> offer.thing().stand())
        .containsExactly(LabelPieces.Stand.FIXED);
  }

  /** Whatever is put together can be read, and gives each row a label. */
  @Test
  void everyPieceOfEveryTableIsOneThatCanBeRead() {
    for (Table table : test.bench.design().tables()) {
      for (LabelPieces.Piece piece : LabelPieces.of(test.bench.design(), table)) {
        String label = LabelPieces.with(table.rowLabel(), piece).text();
        RowLabelModel.Gives gives = model.gives(table, label);
        assertThat(gives.isWrong()).as("%s: %s: %s", table.name(), label, gives.remark()).isFalse();
      }
    }
  }
}
