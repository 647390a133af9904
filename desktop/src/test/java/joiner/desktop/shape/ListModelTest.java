package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.widget.Offers.Offer;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.TestBench;
import joiner.edit.TypeChoice;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Fields that are pasted, copied and typed as lists, without a window. */
class ListModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private ListModel model;
  private FieldsModel fields;
  private final Texts texts = Texts.beside(ShapeView.class);

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder);
    model = new ListModel(test.bench, texts);
    fields = new FieldsModel(test.bench, texts);
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  @Test
  void aListIsShownBeforeItIsAdded() {
    test.choose("kiln");
    model.read("shelf count int required\nbought on\nmaker → Supplier");
    assertThat(model.lines())
        .extracting(ListModel.Line::label)
        .containsExactly("shelf count", "bought on", "maker");
    assertThat(model.lines())
        .extracting(ListModel.Line::type)
        .containsExactly("Whole number", "Date", "→ Supplier");
    assertThat(model.lines().getFirst().required()).isTrue();
    assertThat(model.deed()).isEqualTo("Add 3 fields to Kiln");
    var before = test.bench.draft();
    assertThat(model.canAdd()).isTrue();
    assertThat(model.add()).isTrue();
    Table kiln = test.table("kiln");
    assertThat(kiln.fields().getLast().label()).isEqualTo("Maker");
    assertThat(test.bench.design().parentsOf(kiln.id()))
        .anyMatch(r -> r.parent().equals(new TableId("supplier")));
    test.bench.undo();
    assertThat(test.bench.draft()).isEqualTo(before);
  }

  @Test
  void fieldsOfNoTableWaitForOneAndTablesDoNot() {
    test.bench.selectionProperty().set(Selection.NONE);
    model.read("name, litres");
    assertThat(model.canAdd()).isFalse();
    assertThat(model.remarks()).singleElement().asString().contains("belong to no table");
    model.read("Shelf: name, height\nRack: name");
    assertThat(model.remarks()).isEmpty();
    assertThat(model.deed()).isEqualTo("Add 2 tables with 3 fields");
    assertThat(model.add()).isTrue();
    assertThat(test.bench.table()).map(Table::label).contains("Shelf");
    model.read(" ");
    assertThat(model.canAdd()).isFalse();
  }

  @Test
  void whatCannotBeAddedIsToldAndNothingIsChanged() {
    test.choose("kiln");
    var before = test.bench.draft();
    model.read("stand → Shelf");
    assertThat(model.add()).isFalse();
    assertThat(test.newest()).contains("no table Shelf");
    assertThat(test.bench.draft()).isSameAs(before);
  }

  @Test
  void copiedFieldsArePastedWithAllThatIsSaidOfThem() {
    Table firing = test.choose("firing");
    Field peak = firing.field(new FieldId("peak_c"));
    String text = fields.clipboard().copy(List.of(peak));
    assertThat(text).contains("Peak").contains("whole number");
    assertThat(fields.clipboard().paste("something else")).isFalse();
    test.choose("kiln");
    assertThat(fields.clipboard().paste(text)).isTrue();
    assertThat(fields.clipboard().paste(text)).isTrue();
    List<Field> now = test.table("kiln").fields();
    assertThat(now.getLast().name()).isEqualTo("peak_c_2");
    assertThat(now.getLast().limits()).isEqualTo(peak.limits());
    test.bench.selectionProperty().set(Selection.NONE);
    assertThat(fields.clipboard().paste(text)).isFalse();
  }

  @Test
  void typesAreTypedWithTheirSizesAndTablesWithAnArrow() {
    test.choose("firing");
    TypeOffers offers = fields.typeOffers();
    assertThat(first(offers, "dec 5.1"))
        .isEqualTo(new TypeOffers.Held.OfType(TypeChoice.Decimal, "5.1"));
    assertThat(first(offers, "span h"))
        .isEqualTo(new TypeOffers.Held.OfType(TypeChoice.TimeSpan, "h"));
    assertThat(first(offers, "addr"))
        .isInstanceOfSatisfying(
            TypeOffers.Held.Several.class,
            several -> assertThat(several.kind().kind()).isEqualTo("address"));
    assertThat(first(offers, "mon")).isEqualTo(new TypeOffers.Held.OfType(TypeChoice.Money, ""));
    assertThat(first(offers, "→ kil")).isEqualTo(new TypeOffers.Held.RowOf(new TableId("kiln")));
    assertThat(first(offers, "->mat"))
        .isEqualTo(new TypeOffers.Held.RowOf(new TableId("material")));
    assertThat(first(offers, "kil")).isEqualTo(new TypeOffers.Held.RowOf(new TableId("kiln")));
    assertThat(offers.of("→ nowhere")).isEmpty();
    assertThat(offers.of("").stream().map(Offer::group).distinct())
        .containsExactly(
            "Text",
            "Numbers",
            "Yes or no",
            "Time",
            "Identity",
            "Whole files",
            "Several fields",
            "A row of");
  }

  private static TypeOffers.Held first(TypeOffers offers, String typed) {
    return offers.of(typed).getFirst().thing();
  }

  @Test
  void aFieldBecomesAReferenceAndAnotherOne() {
    Table firing = test.choose("firing");
    Field remark = firing.field(new FieldId("remark"));
    fields.retype(List.of(remark), new TypeOffers.Held.RowOf(new TableId("cone")));
    assertThat(refers("remark")).contains(new TableId("cone"));
    assertThat(test.table("firing").field(new FieldId("remark")).type())
        .isEqualTo(new FieldType.Text(4));
    remark = test.table("firing").field(new FieldId("remark"));
    fields.retype(List.of(remark), new TypeOffers.Held.RowOf(new TableId("kiln")));
    assertThat(refers("remark")).contains(new TableId("kiln"));
    assertThat(
            test.bench.design().parentsOf(firing.id()).stream()
                .filter(r -> r.childFields().contains(new FieldId("remark"))))
        .hasSize(1);
    fields.retype(
        List.of(test.table("firing").field(new FieldId("remark"))),
        new TypeOffers.Held.RowOf(new TableId("session")));
    assertThat(test.newest()).contains("Course and Number together");
    assertThat(refers("remark")).contains(new TableId("kiln"));
  }

  private Optional<TableId> refers(String field) {
    return fields.refersTo(test.table("firing").field(new FieldId(field)));
  }
}
