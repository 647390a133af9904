package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.Pottery;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.edit.ChangeRelationship;
import joiner.expression.Formula;
import joiner.meaning.ParentRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType.Choice;
import joiner.model.Hue;
import joiner.model.Picking;
import joiner.model.Relationship;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is offered for a cell, what may be added on the way, and how both are said. */
class PickedValuesTest {
  private final Texts texts = Texts.beside(ShapeView.class);
  @TempDir private Path folder;
  private TestBench test;
  private ChoicesModel choices;
  private PickingModel picking;

  @BeforeEach
  void open() throws Exception {
    test = new TestBench(Pottery.demo(), folder);
    choices = new ChoicesModel(test.bench, texts);
    picking = new PickingModel(test.bench, texts);
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private SheetModel.About.OfField surface() {
    return new SheetModel.About.OfField(
        test.table("glaze"), test.table("glaze").field(new FieldId("surface")));
  }

  private Choice.Entry entry(String text) {
    return ((Choice) surface().field().type()).find(text).orElseThrow();
  }

  private Relationship over(String table, String field) {
    return ParentRows.reference(test.bench.draft(), new TableId(table), new FieldId(field))
        .orElseThrow();
  }

  private List<String> words(Offers<String> offers, String typed) {
    return offers.of(typed).stream().map(Offers.Offer::words).toList();
  }

  private Offers.Offer<String> last(Offers<String> offers, String typed) {
    return offers.of(typed).getLast();
  }

  @Test
  void aChoiceIsRetiredMarkedDescribedAndRestored() {
    choices.retire(surface(), entry("matt"));
    choices.mark(surface(), entry("matt"), Optional.of(Hue.PLUM));
    choices.describe(surface(), entry("matt"), " dry ");
    assertThat(entry("matt"))
        .isEqualTo(
            new Choice.Entry(entry("matt").id(), "matt", "dry", Optional.of(Hue.PLUM), true));
    choices.retire(surface(), entry("matt"));
    assertThat(entry("matt").retired()).isFalse();
    choices.grow(surface(), true);
    assertThat(((Choice) surface().field().type()).grows()).isTrue();
  }

  @Test
  void retiredChoicesAreOfferedToWhoTypesThemAndToWhoHoldsThem() {
    choices.retire(surface(), entry("matt"));
    Choice now = (Choice) surface().field().type();
    assertThat(words(new ChoiceOffers(texts, now, "gloss"), ""))
        .containsExactly("(nothing)", "gloss", "satin");
    assertThat(words(new ChoiceOffers(texts, now, "matt"), "")).contains("matt");
    assertThat(words(new ChoiceOffers(texts, now, "gloss"), "mat")).startsWith("matt");
    assertThat(last(new ChoiceOffers(texts, now, ""), "raw").detail()).contains("not among");
    assertThat(last(new ChoiceOffers(texts, now.withGrows(true), ""), "raw").detail())
        .contains("adds this choice");
  }

  @Test
  void aChoiceThatIsNotListedIsAddedWhereTheListGrowsAndOneUndoTakesBoth() {
    var rows = new SampleModel(test.bench, texts);
    rows.turnTo(test.choose("glaze"));
    rows.edits().choose(0, surface().field(), "raw");
    assertThat(((Choice) surface().field().type()).find("raw")).isEmpty();
    test.bench.undo();
    choices.grow(surface(), true);
    rows.edits().choose(0, surface().field(), "raw");
    assertThat(((Choice) surface().field().type()).find("raw")).isPresent();
    assertThat(cell("glaze", 0, "surface")).isEqualTo("raw");
    test.bench.undo();
    assertThat(((Choice) surface().field().type()).find("raw")).isEmpty();
    assertThat(cell("glaze", 0, "surface")).isNotEqualTo("raw");
  }

  private String cell(String table, int row, String field) {
    return test.bench
        .draft()
        .rows()
        .of(new TableId(table))
        .cell(row, new FieldId(field))
        .orElse("");
  }

  @Test
  void severalChoicesOfARowStandInATableOfTheirOwn() {
    choices.allowSeveral(surface());
    assertThat(test.newest()).contains("Glaze surface holds them now");
    assertThat(test.table("glaze").hasField(new FieldId("surface"))).isFalse();
    test.bench.undo();
    assertThat(test.table("glaze").hasField(new FieldId("surface"))).isTrue();
  }

  @Test
  void whatIsShownSortedAndOfferedIsSaidOfTheRelationship() {
    picking.show(over("firing", "cone_no"), new FieldId("fire"));
    picking.order(over("firing", "cone_no"), new FieldId("end_c"));
    picking.only(over("firing", "cone_no"), " end_c > 1000 ");
    picking.atOnce(over("firing", "cone_no"), "5");
    picking.mayAdd(over("firing", "cone_no"), true);
    assertThat(over("firing", "cone_no").picking())
        .isEqualTo(
            new Picking(
                List.of(new FieldId("fire")),
                List.of(new FieldId("end_c")),
                Formula.unlessBlank("end_c > 1000"),
                OptionalInt.of(5),
                true));
    assertThat(picking.labels(over("firing", "cone_no"), List.of(new FieldId("end_c"))))
        .containsExactly("End temperature");
    picking.atOnce(over("firing", "cone_no"), "many");
    assertThat(test.newest()).contains("no number of rows");
    picking.atOnce(over("firing", "cone_no"), "");
    picking.show(over("firing", "cone_no"), new FieldId("fire"));
    assertThat(over("firing", "cone_no").picking().atOnce()).isEmpty();
    assertThat(over("firing", "cone_no").picking().shown()).isEmpty();
    assertThat(picking.fault(over("firing", "cone_no"))).isEmpty();
    picking.only(over("firing", "cone_no"), "hotness > 3");
    assertThat(picking.fault(over("firing", "cone_no")).orElse("")).contains("no field hotness");
  }

  @Test
  void aRowThatIsNotOfferedIsThereForWhoHoldsIt() {
    Relationship toKiln = over("firing", "kiln_id");
    test.bench.apply(
        ChangeRelationship.picking(
            toKiln, toKiln.picking().withOnly(Formula.unlessBlank("litres > 100"))));
    ParentRows kilns = ParentRows.of(test.bench.draft(), over("firing", "kiln_id"), Pottery.CLOCK);
    String small = kilns.all().stream().filter(k -> !k.offered()).findFirst().orElseThrow().key();
    var held = new ParentOffers(texts, kilns, small, false);
    assertThat(held.of("")).hasSize(4);
    assertThat(held.of("").get(1).thing()).isEqualTo(small);
    assertThat(held.of("").get(1).detail()).contains("not offered");
    assertThat(new ParentOffers(texts, kilns, "1", false).of("")).hasSize(3);
  }

  @Test
  void aRowThatIsReferredToBySeveralFieldsIsPickedByItsLabel() {
    var rows = new SampleModel(test.bench, texts);
    rows.turnTo(test.choose("enrolment"));
    FieldId session = new FieldId("session_no");
    test.window.until(() -> rows.parents(session).isPresent());
    ParentRows sessions = rows.parents(session).orElseThrow();
    ParentRows.Parent last = sessions.all().getLast();
    assertThat(rows.shown(0, session)).isNotEqualTo(rows.cell(0, session));
    assertThat(words(new ParentOffers(texts, sessions, rows.key(0, session), false), last.label()))
        .contains(last.label());
    rows.edits().refer(0, test.table("enrolment").field(session), last.key());
    assertThat(List.of(cell("enrolment", 0, "course_code"), cell("enrolment", 0, "session_no")))
        .isEqualTo(last.cells());
    rows.turnTo(test.table("enrolment"));
    assertThat(rows.shown(0, session)).isEqualTo(last.label());
    test.bench.undo();
    assertThat(cell("enrolment", 0, "session_no")).isNotEqualTo(last.cells().getLast());
  }

  @Test
  void aParentIsAddedOnTheWayWhereThatIsAllowedAndTold() {
    var rows = new SampleModel(test.bench, texts);
    rows.turnTo(test.choose("material"));
    FieldId supplier = new FieldId("supplier_id");
    test.window.until(() -> rows.parents(supplier).isPresent());
    Field field = test.table("material").field(supplier);
    assertThat(rows.edits().mayAddParent(supplier)).isTrue();
    ParentRows suppliers = rows.parents(supplier).orElseThrow();
    assertThat(last(new ParentOffers(texts, suppliers, "1", true), "Clay").detail())
        .contains("adds this supplier");
    rows.edits().refer(0, field, "Moor Clays");
    assertThat(test.newest()).contains("Supplier has a row Moor Clays now");
    assertThat(cell("material", 0, "supplier_id")).isEqualTo("5");
    assertThat(cell("supplier", 4, "name")).isEqualTo("Moor Clays");
    rows.turnTo(test.table("material"));
    picking.mayAdd(over("material", "supplier_id"), false);
    rows.edits().refer(1, field, "Fen Clays");
    assertThat(cell("material", 1, "supplier_id")).isEqualTo("Fen Clays");
  }
}
