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
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
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

  @Test
  void everyPropertyOfAFieldIsTold() {
    Field litres = kiln().field(new FieldId("litres"));
    record Change(java.util.function.UnaryOperator<Field> of, String says) {}
    var limits =
        new joiner.model.Limits(
            Optional.of("5"),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            java.util.OptionalInt.empty(),
            List.of());
    for (Change change :
        List.of(
            new Change(f -> f.withName("volume"), "another name"),
            new Change(f -> f.withLabel("Volume"), "another label"),
            new Change(f -> f.withRequired(!f.required()), "another whether it is required"),
            new Change(f -> f.withDefault(Optional.of(new Formula("5"))), "another default"),
            new Change(f -> f.withLimits(limits), "another limits"),
            new Change(f -> f.withDescription("In litres."), "another note"))) {
      Draft theirs =
          DEMO.withDesign(
              DEMO.design().withTable(KILN, t -> t.withField(litres.id(), change.of())));
      assertThat(after(theirs)).containsExactly("Kiln · Litres has " + change.says() + ".");
    }
  }

  @Test
  void whatIsOnOneSideOnlyIsToldFromBothSides() {
    Draft less = new RemoveField(KILN, new FieldId("litres"), "").apply(DEMO);
    assertThat(Differences.between(less, DEMO))
        .contains("Kiln has the field Litres, here it has not.");
    Draft without = new RemoveTable(new TableId("locker"), "").apply(DEMO);
    assertThat(Differences.between(without, DEMO))
        .contains("The table Locker is there, here it is not.");
    var known = DEMO.design().relationships().iterator().next();
    Draft unrelated = DEMO.withDesign(DEMO.design().withoutRelationship(known.id()));
    assertThat(after(unrelated))
        .contains("The relationship " + known.name() + " is not there, here it is.");
    assertThat(Differences.between(unrelated, DEMO))
        .contains("The relationship " + known.name() + " is there, here it is not.");
    Draft turned =
        DEMO.withDesign(
            DEMO.design().withRelationship(known.id(), r -> r.withRoles("is of", "owns")));
    assertThat(after(turned))
        .containsExactly("The relationship " + known.name() + " is another one.");
    Draft noted =
        DEMO.withDesign(DEMO.design().withAreas(List.copyOf(DEMO.design().areas()).reversed()));
    assertThat(after(noted)).containsExactly("The order or the notes of the design are others.");
  }
}
