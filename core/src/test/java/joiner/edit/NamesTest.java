package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import joiner.Pottery;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** Names follow labels until somebody chooses others, and there are never too few of them. */
class NamesTest {
  private static final Draft DEMO = Pottery.demo();

  private static Table kiln(Draft draft) {
    return draft.design().table(new TableId("kiln"));
  }

  @Test
  void aNewLabelOfATableTakesNameAndNounsAlong() {
    Draft after = ChangeTable.relabel(DEMO.design(), kiln(DEMO), "Big Oven").apply(DEMO);
    assertThat(kiln(after).name()).isEqualTo("big_oven");
    assertThat(kiln(after).noun()).isEqualTo(new Noun("big oven", "big ovens"));
  }

  @Test
  void aNameOrNounThatSomebodyChoseStays() {
    Draft chosen =
        ChangeTable.rename(kiln(DEMO), "ofen", "Kiln", new Noun("oven", "ovens")).apply(DEMO);
    Draft after = ChangeTable.relabel(chosen.design(), kiln(chosen), "Big one").apply(chosen);
    assertThat(kiln(after).name()).isEqualTo("ofen");
    assertThat(kiln(after).noun()).isEqualTo(new Noun("oven", "ovens"));
    assertThat(kiln(after).label()).isEqualTo("Big one");
  }

  @Test
  void aLabelWhoseNameIsTakenGetsAFreeOne() {
    Draft after = ChangeTable.relabel(DEMO.design(), kiln(DEMO), "Piece").apply(DEMO);
    assertThat(kiln(after).name()).isEqualTo("piece_2");
    Draft back = ChangeTable.relabel(after.design(), kiln(after), "Kiln").apply(after);
    assertThat(kiln(back).name()).as("the numbered name was derived too").isEqualTo("kiln");
  }

  @Test
  void aTakenOrEmptyNameIsRefusedInWords() {
    assertThatThrownBy(
            () -> ChangeTable.rename(kiln(DEMO), "piece", "Kiln", kiln(DEMO).noun()).apply(DEMO))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("another table piece");
    assertThatThrownBy(
            () -> ChangeTable.rename(kiln(DEMO), " ", "Kiln", kiln(DEMO).noun()).apply(DEMO))
        .isInstanceOf(EditRefusedException.class);
    assertThatThrownBy(() -> new ChangeTitle(" ").apply(DEMO))
        .isInstanceOf(EditRefusedException.class);
  }

  @Test
  void afterRenamesTheOldNamesCanBeUsedAgain() {
    Draft renamed = ChangeTable.rename(kiln(DEMO), "oven", "Oven", kiln(DEMO).noun()).apply(DEMO);
    Design design = renamed.design();
    Table again = design.unused(Table.of("kiln", "Kiln", new Noun("kiln", "kilns")));
    Draft added = new AddTable(again, Rows.NONE).apply(renamed);
    Field field = again.unused(Field.of("name", "Name", new FieldType.Text(9)));
    Draft filled = new AddField(again.id(), field).apply(added);
    assertThat(filled.design().tableNamed("kiln")).isPresent();
    assertThat(filled.design().tables()).hasSize(17);
  }

  @Test
  void theTitleTakesTheNameOfTheDesignAlongUntilSomebodyChoseOne() {
    Draft draft =
        new Draft(Design.empty("untitled", "Untitled design"), joiner.rows.SampleRows.NONE);
    Draft titled = new ChangeTitle("Rye Pottery").apply(draft);
    assertThat(titled.design().name()).isEqualTo("rye-pottery");
    Draft chosen = titled.withDesign(titled.design().withName("own"));
    assertThat(new ChangeTitle("Other").apply(chosen).design().name()).isEqualTo("own");
  }
}
