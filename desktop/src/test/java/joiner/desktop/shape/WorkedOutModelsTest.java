package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import joiner.Pottery;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.TestBench;
import joiner.edit.TypeChoice;
import joiner.expression.Formula;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.MediaType;
import joiner.model.Origin;
import joiner.rows.StoredFile;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Fields that are worked out, files in cells and texts without their marks, without a window. */
class WorkedOutModelsTest {
  private static final FieldId PRICE = new FieldId("price_per_100g");
  private static final FieldId SWATCH = new FieldId("swatch");
  private static final FieldId SHELF = new FieldId("shelf");

  @TempDir private Path folder;
  private final Texts texts = Texts.beside(ShapeView.class);
  private TestBench test;
  private FieldsModel fields;
  private SampleModel rows;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder.resolve("kept"));
    rows = new SampleModel(test.bench, texts);
    fields = new FieldsModel(test.bench, texts);
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private Field field(String table, String id) {
    return test.table(table).field(new FieldId(id));
  }

  private List<String> offered(Field field, String typed) {
    return fields.origins().offers(field).of(typed).stream().map(Offers.Offer::words).toList();
  }

  private SheetModel.About.OfField about(SheetModel sheet, String table, FieldId field) {
    test.bench.selectionProperty().set(Selection.of(test.table(table).id(), field));
    return (SheetModel.About.OfField) sheet.about();
  }

  @Test
  void aFormulaIsTypedBehindAnEqualsSign() {
    test.choose("material");
    Field toxic = field("material", "toxic");
    assertThat(offered(toxic, "= price_per_kg > 20")).containsExactly("= price_per_kg > 20");
    assertThat(fields.origins().offers(toxic).of("= price_per_kg > 20").getFirst().detail())
        .isEqualTo("gives true/false");
    assertThat(fields.origins().offers(toxic).of("= nothing").getFirst().detail())
        .startsWith("There is no field nothing in Material");
    fields.origins().give(List.of(toxic), "= price_per_kg > 20");
    assertThat(field("material", "toxic").origin())
        .isEqualTo(new Origin.Computed(new Formula("price_per_kg > 20")));
    assertThat(test.newest()).contains("Toxic gave way");
    assertThat(fields.origins().words(field("material", "toxic"))).isEqualTo("= price_per_kg > 20");
    test.bench.undo();
    assertThat(field("material", "toxic")).isEqualTo(toxic);
  }

  @Test
  void aFieldIsEnteredAgainAndKeepsWhatWasWorkedOut() {
    test.choose("material");
    Field price = field("material", "price_per_100g");
    assertThat(offered(price, ""))
        .startsWith("= ROUND(price_per_kg / 10, 2)", texts.get("default.entered"));
    fields.origins().give(List.of(price), "");
    assertThat(field("material", "price_per_100g").isComputed()).isFalse();
    assertThat(test.bench.draft().rows().of(test.table("material").id()).cell(0, PRICE))
        .contains("2.42");
  }

  @Test
  void theNextNumberMakesAFieldACounter() {
    test.choose("kiln");
    assertThat(offered(field("kiln", "litres"), "nex")).contains(texts.get("default.next"));
    assertThat(offered(field("kiln", "name"), "nex")).doesNotContain(texts.get("default.next"));
    fields.give(List.of(field("kiln", "litres")), new DefaultOffers.Given.NextNumber());
    assertThat(TypeChoice.of(field("kiln", "litres"))).contains(TypeChoice.Counter);
  }

  @Test
  void whatIsWorkedOutIsSeenAndFoundButNotTyped() {
    rows.turnTo(test.choose("material"));
    assertThat(rows.isComputed(PRICE)).isTrue();
    assertThat(rows.isComputed(SHELF)).isFalse();
    assertThat(rows.shown(0, PRICE)).isEqualTo("2.42");
    rows.edits().type(0, field("material", "price_per_kg"), "50");
    rows.turnTo(test.table("material"));
    assertThat(rows.shown(0, PRICE)).isEqualTo("5");
    rows.filter("1.68");
    test.window.until(() -> rows.placesProperty().get().size() == 1);
    assertThat(rows.placesProperty().get()).containsExactly(1);
  }

  @Test
  void whatTheRowsOfAnotherTableComeToIsFoundByItsWords() {
    test.choose("kiln");
    Field litres = field("kiln", "litres");
    assertThat(offered(litres, "number of").getFirst()).isEqualTo("number of its firings");
    assertThat(offered(litres, "of its kilns")).contains("number of its kilns (Fallback kiln)");
    fields.origins().give(List.of(litres), "Number of its firings");
    Field counted = field("kiln", "litres");
    assertThat(counted.origin()).isInstanceOf(Origin.SummedUp.class);
    assertThat(fields.origins().words(counted)).isEqualTo("number of its firings");
    var sheet = new SheetModel(test.bench, fields, texts);
    assertThat(sheet.examples(about(sheet, "kiln", counted.id()))).contains("8 · 9 · 15 · 16");
    fields.origins().give(List.of(counted), fields.origins().typed(counted));
    assertThat(field("kiln", "litres")).isEqualTo(counted);
    Origin.SummedUp by = (Origin.SummedUp) counted.origin();
    OriginsModel.Tells wrong =
        fields.origins().tells(counted, by.withWhere(Formula.unlessBlank("remark")));
    assertThat(wrong.isWrong()).isTrue();
    assertThat(wrong.words()).contains("this is text");
    fields.origins().give(List.of(counted), "");
    assertThat(test.bench.draft().rows().of(test.table("kiln").id()).cell(0, counted.id()))
        .contains("8");
  }

  @Test
  void whatIsSummedUpFollowsTheRowsOfTheOtherTable() {
    test.choose("kiln");
    fields.origins().give(List.of(field("kiln", "litres")), "number of its firings");
    rows.turnTo(test.table("kiln"));
    assertThat(rows.shown(0, new FieldId("litres"))).isEqualTo("8");
    test.choose("firing");
    rows.turnTo(test.table("firing"));
    rows.edits().remove(Set.of(0));
    rows.turnTo(test.choose("kiln"));
    int sum = 0;
    for (int row = 0; row < 4; row++) {
      sum += Integer.parseInt(rows.shown(row, new FieldId("litres")));
    }
    assertThat(sum).isEqualTo(8 + 9 + 15 + 16 - 1);
  }

  @Test
  void aValueOfTheParentIsCarriedByItsWords() {
    test.choose("firing");
    Field remark = field("firing", "remark");
    fields.origins().give(List.of(remark), "Litres of its kiln");
    assertThat(field("firing", "remark").origin())
        .isEqualTo(new Origin.Computed(new Formula("kiln_id.litres")));
  }

  @Test
  void theSheetShowsWhatAFormulaGivesInTheRows() {
    var sheet = new SheetModel(test.bench, fields, texts);
    assertThat(sheet.examples(about(sheet, "material", PRICE))).contains("2.42 · 1.68");
  }

  @Test
  void textsAreSeenAndTypedWithTheMarksThatAreNotKept() {
    rows.turnTo(test.choose("material"));
    assertThat(rows.cell(0, SHELF)).isEqualTo("A01");
    assertThat(rows.shown(0, SHELF)).isEqualTo("A-01");
    rows.edits().type(0, field("material", "shelf"), "b 12");
    rows.turnTo(test.table("material"));
    assertThat(rows.cell(0, SHELF)).isEqualTo("B12");
    rows.filter("B-12");
    test.window.until(() -> rows.placesProperty().get().equals(List.of(0)));
    var sheet = new SheetModel(test.bench, fields, texts);
    sheet.storeMarks(about(sheet, "material", SHELF), true);
    rows.turnTo(test.table("material"));
    assertThat(rows.cell(0, SHELF)).isEqualTo("B-12");
    sheet.pattern(about(sheet, "material", SHELF), "[A-Z]-[0-9]{3}");
    assertThat(field("material", "shelf").limits().pattern()).contains("[A-Z]-[0-9]{3}");
  }

  @Test
  void aFileIsTakenInSavedAndTakenOut() throws Exception {
    rows.turnTo(test.choose("glaze"));
    var type = (FieldType.Content) field("glaze", "swatch").type();
    assertThat(rows.shown(0, SWATCH)).isEqualTo("PNG · 74 bytes");
    assertThat(rows.files().deeds(3, field("glaze", "swatch")))
        .containsExactly(FileCells.Deed.TAKE_IN);
    Path saved = folder.resolve("swatch.png");
    rows.files().save(0, field("glaze", "swatch"), type, saved);
    test.window.until(() -> test.newest().contains("swatch.png is saved"));
    assertThat(Files.size(saved)).isEqualTo(74);
    rows.files().takeIn(3, field("glaze", "swatch"), type, saved);
    test.window.until(() -> cell(3).isPresent());
    assertThat(cell(3)).isEqualTo(cell(0));
    rows.turnTo(test.table("glaze"));
    assertThat(rows.files().name(3, field("glaze", "swatch"), type)).isEqualTo("swatch-4.png");
    rows.files().takeOut(3, field("glaze", "swatch"));
    assertThat(cell(3)).isEmpty();
  }

  private Optional<String> cell(int row) {
    return test.bench.draft().rows().of(test.table("glaze").id()).cell(row, SWATCH);
  }

  @Test
  void aFileOfAnotherKindOrSizeIsRefusedWithTheReason() throws Exception {
    rows.turnTo(test.choose("glaze"));
    var type = (FieldType.Content) field("glaze", "swatch").type();
    Path other = Files.writeString(folder.resolve("note.txt"), "no picture");
    rows.files().takeIn(3, field("glaze", "swatch"), type, other);
    test.window.until(() -> test.newest().contains("note.txt begins like no file"));
    Path great = Files.write(folder.resolve("great.png"), new byte[20_001]);
    rows.files().takeIn(3, field("glaze", "swatch"), type, great);
    test.window.until(() -> test.newest().contains("great.png has 20 kB"));
    assertThat(cell(3)).isEmpty();
  }

  @Test
  void aSizeKeepsTheKindsAndKindsAreAdmitted() {
    test.choose("glaze");
    Field swatch = field("glaze", "swatch");
    assertThat(fields.resize(List.of(swatch), "1.5 MB")).isTrue();
    fields.admit(
        field("glaze", "swatch"),
        (FieldType.Content) field("glaze", "swatch").type(),
        MediaType.GIF,
        true);
    assertThat(field("glaze", "swatch").type())
        .isEqualTo(
            new FieldType.Content(
                List.of(MediaType.PNG, MediaType.JPEG, MediaType.GIF), 1_500_000));
    assertThat(fields.resize(List.of(field("glaze", "swatch")), "huge")).isFalse();
    assertThat(StoredFile.words(cell(0).orElseThrow())).startsWith("PNG");
  }
}
