package joiner.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.ChangeTitle;
import joiner.edit.RemoveField;
import joiner.edit.RemoveTable;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Draft;
import org.junit.jupiter.api.Test;

class DifferencesTest {
  private static final Draft DEMO = Pottery.demo();
  private static final TableId KILN = new TableId("kiln");

  private static Table kiln() {
    return DEMO.design().table(KILN);
  }

  private static List<String> after(Draft theirs) {
    return Differences.between(DEMO, theirs);
  }

  @Test
  void equalDesignsHaveNoneAndOthersHaveSome() {
    Tries.of(150)
        .forEach(
            seed -> {
              Draft one = RandomDesigns.draft(seed);
              Draft other = RandomDesigns.draft(seed + 1);
              assertThat(Differences.between(one, RandomDesigns.draft(seed))).isEmpty();
              assertThat(Differences.between(one, other).isEmpty())
                  .as("seed " + seed)
                  .isEqualTo(one.equals(other));
            });
  }

  @Test
  void whatIsOtherwiseThereIsSaidInSentences() {
    assertThat(after(new ChangeTitle("Rye").apply(DEMO)))
        .containsExactly("The design is called Rye, here Saltmarsh Pottery.");
    assertThat(after(new RemoveTable(new TableId("locker"), "").apply(DEMO)))
        .contains("The table Locker is not there, here it is.");
    assertThat(after(ChangeTable.rename(kiln(), "oven", "Oven", kiln().noun()).apply(DEMO)))
        .containsExactly("The table Kiln is called Oven.");
    Field litres = kiln().field(new FieldId("litres"));
    assertThat(after(ChangeField.type(kiln(), litres, new FieldType.Text(9)).apply(DEMO)))
        .containsExactly("Kiln · Litres has another type.");
    assertThat(after(new RemoveField(KILN, litres.id(), "").apply(DEMO)))
        .contains("Kiln has not the field Litres, here it has.");
    assertThat(
            after(
                DEMO.withRows(
                    DEMO.rows().with(KILN, r -> r.withCell(0, litres.id(), Optional.of("1"))))))
        .containsExactly("Kiln: 1 cell is another there.");
    assertThat(after(DEMO.withRows(DEMO.rows().with(KILN, r -> r.withRow(Map.of())))))
        .containsExactly("Kiln has 5 rows, here 4.");
    Draft noted =
        DEMO.withDesign(DEMO.design().withTable(KILN, t -> t.withDescription("An oven.")));
    assertThat(after(noted)).containsExactly("Keys, rules, indexes or notes of Kiln are others.");
    assertThat(
            after(
                ChangeTable.rename(kiln(), "kiln", "Kiln", new Noun("oven", "ovens")).apply(DEMO)))
        .hasSize(1);
  }
}
