package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import joiner.Pottery;
import joiner.change.Change;
import joiner.change.Changes;
import joiner.compare.Comparison;
import joiner.compare.Effect;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

/** Tables stand in areas by identity: an area may be renamed with all that stands in it. */
class AreasTest {
  private static final Draft DEMO = Pottery.demo();
  private static final Area GLAZING = DEMO.design().areaNamed("Glazing").orElseThrow();

  private static Table table(Draft draft, String id) {
    return draft.design().table(new TableId(id));
  }

  private static Draft renamed(String name) {
    return new RenameArea(GLAZING.id(), GLAZING.name(), name).apply(DEMO);
  }

  private static List<String> tablesIn(Design design, String area) {
    return design.tables().stream()
        .filter(t -> design.areaOf(t).filter(a -> a.name().equals(area)).isPresent())
        .map(Table::name)
        .toList();
  }

  @Test
  void aRenamedAreaKeepsItsTablesAndItsMark() {
    Draft after = renamed("Glazes and cones");
    assertThat(tablesIn(after.design(), "Glazes and cones"))
        .isNotEmpty()
        .isEqualTo(tablesIn(DEMO.design(), "Glazing"));
    assertThat(after.design().areaNamed("Glazing")).isEmpty();
    assertThat(after.design().area(GLAZING.id()).hue()).isEqualTo(GLAZING.hue());
  }

  @Test
  void itIsOneChangeAndNoneOfItsTables() {
    assertThat(Changes.between(DEMO, renamed("Glazes")).list())
        .singleElement()
        .isInstanceOf(Change.HeadingChanged.class);
    assertThat(Comparison.between(DEMO, renamed("Glazes")))
        .extracting(Effect::message)
        .containsExactly("The design calls the area Glazing now Glazes.");
  }

  @Test
  void anAreaHasANameAndNoOtherHasIt() {
    assertThatThrownBy(() -> renamed("Firing")).hasMessage("There is an area Firing already.");
    assertThatThrownBy(() -> renamed(" ")).hasMessage("An area needs a name.");
    assertThat(renamed("Glazing")).isEqualTo(DEMO);
  }

  @Test
  void aNewAreaOfAFormerNameIsAnotherArea() {
    Draft after = MoveToArea.of(table(DEMO, "kiln"), "Glazing").apply(renamed("Glazes"));
    assertThat(tablesIn(after.design(), "Glazing")).containsExactly("kiln");
    assertThat(after.design().areaNamed("Glazing").orElseThrow().id()).isNotEqualTo(GLAZING.id());
    assertThat(tablesIn(after.design(), "Glazes")).isEqualTo(tablesIn(DEMO.design(), "Glazing"));
  }

  @Test
  void aTableStandsInAnAreaThatIsThereOrInNone() {
    Draft after = MoveToArea.of(table(DEMO, "kiln"), "Glazing").apply(DEMO);
    assertThat(table(after, "kiln").area()).contains(GLAZING.id());
    assertThat(after.design().areas()).isEqualTo(DEMO.design().areas());
    Draft nowhere = MoveToArea.of(table(DEMO, "kiln"), "").apply(DEMO);
    assertThat(table(nowhere, "kiln").area()).isEmpty();
  }

  @Test
  void areasOfOneNameBecomeOneWhenDesignsAreJoined() {
    var other =
        Design.empty("o", "Other").withAreas(List.of(new Area(new AreaId("x"), "Glazing", 3)));
    Table shelf = Table.of("shelf", "Shelf", table(DEMO, "kiln").noun());
    Draft with =
        new Draft(
            other.withTableAdded(shelf.withArea(java.util.Optional.of(new AreaId("x")))),
            joiner.rows.SampleRows.NONE);
    Draft joined = new AddDesign(with).apply(DEMO);
    assertThat(table(joined, "shelf").area()).contains(GLAZING.id());
    Draft apart = new AddDesign(with).apply(renamed("Glazes"));
    assertThat(tablesIn(apart.design(), "Glazing")).containsExactly("shelf");
    assertThat(apart.design().areaNamed("Glazing").orElseThrow().hue()).isEqualTo(3);
  }
}
