package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import joiner.Pottery;
import joiner.desktop.widget.TableIcon;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.TestBench;
import joiner.edit.ChangeTable;
import joiner.edit.TypeChoice;
import joiner.expression.Formula;
import joiner.finding.Finding;
import joiner.model.Area;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Listing.By;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.HeldValues;
import joiner.shape.TextPattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Shape without a window: fields typed, rows typed, what the sheet says. */
class ShapeModelsTest {
  @TempDir private Path folder;
  private TestBench test;
  private final Texts texts = Texts.beside(ShapeView.class);

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder);
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private Field field(String table, String id) {
    return test.table(table).field(new FieldId(id));
  }

  @Nested
  class Fields {
    private FieldsModel model;

    @BeforeEach
    void turnToFirings() {
      model = new FieldsModel(test.bench, texts);
      model.turnTo(test.choose("firing"));
    }

    private void again() {
      model.turnTo(test.table("firing"));
    }

    private void hold(String id, TypeChoice choice, String size) {
      model.retype(List.of(field("firing", id)), new TypeOffers.Held.OfType(choice, size));
      again();
    }

    @Test
    void unitsAndPatternsThatAreWhatAFieldIsComeAndGoWithIt() {
      hold("remark", TypeChoice.Image, "");
      assertThat(model.type(field("firing", "remark"))).isEqualTo("Image");
      assertThat(TextPattern.of(field("firing", "remark").limits().pattern().orElseThrow()))
          .isInstanceOfSatisfying(
              TextPattern.Read.Understood.class,
              read -> {
                assertThat(read.pattern().matches("kilns/Big Tom.JPG")).isTrue();
                assertThat(read.pattern().matches("kilns/Big Tom.pdf")).isFalse();
              });
      hold("remark", TypeChoice.Percentage, "5.1");
      assertThat(field("firing", "remark").type()).isEqualTo(new FieldType.Decimal(5, 1));
      assertThat(field("firing", "remark").unit()).isEqualTo("%");
      assertThat(field("firing", "remark").limits().pattern()).isEmpty();
      hold("remark", TypeChoice.TimeSpan, "h");
      assertThat(model.type(field("firing", "remark"))).isEqualTo("Time span");
      assertThat(model.size(field("firing", "remark"))).isEqualTo("h");
      model.resize(List.of(field("firing", "remark")), "min");
      assertThat(field("firing", "remark").unit()).isEqualTo("min");
      assertThat(model.resize(List.of(field("firing", "remark")), "40")).isFalse();
      hold("remark", TypeChoice.Text, "40");
      assertThat(field("firing", "remark").unit()).isEmpty();
      model.measure(List.of(field("firing", "peak_c")), "K");
      hold("peak_c", TypeChoice.Decimal, "6.1");
      assertThat(field("firing", "peak_c").unit()).isEqualTo("K");
    }

    @Test
    void severalFieldsReferToATableAsOneChange() {
      List<Field> two = List.of(field("firing", "remark"), field("firing", "peak_c"));
      int before = test.bench.design().parentsOf(test.table("firing").id()).size();
      model.retype(two, new TypeOffers.Held.RowOf(test.table("glaze").id()));
      assertThat(test.bench.design().parentsOf(test.table("firing").id())).hasSize(before + 2);
      test.bench.undo();
      assertThat(test.bench.design().parentsOf(test.table("firing").id())).hasSize(before);
    }

    @Test
    void valuesThatBecomeSecretAreToldToBeGone() {
      hold("remark", TypeChoice.Secret, "");
      assertThat(test.newest()).contains("The values of Remark are gone");
      assertThat(test.bench.draft().rows().has(test.table("firing").id(), new FieldId("remark")))
          .isFalse();
      test.bench.undo();
      assertThat(test.bench.draft().rows().has(test.table("firing").id(), new FieldId("remark")))
          .isTrue();
    }

    @Test
    void keysAndReferencesAreTagged() {
      assertThat(model.tag(field("firing", "firing_id"))).isEqualTo("PK");
      assertThat(model.tag(field("firing", "kiln_id"))).isEqualTo("FK");
      assertThat(model.tag(field("firing", "remark"))).isEmpty();
      assertThat(model.type(field("firing", "kiln_id"))).isEqualTo("→ Kiln");
      assertThat(model.type(field("firing", "remark"))).isEqualTo("Text");
    }

    @Test
    void onlyWhatChangedIsShownAnew() {
      assertThat(model.turnTo(test.table("firing"))).isFalse();
      model.note(field("firing", "remark"), " what was odd ");
      assertThat(field("firing", "remark").description()).isEqualTo("what was odd");
      assertThat(model.turnTo(test.table("firing"))).isTrue();
      assertThat(model.turnTo(test.table("kiln"))).isTrue();
    }

    @Test
    void aNewFieldHasTheTypeItsLabelSuggestsAndIsChosen() {
      model.add("Fuel cost");
      Field added = test.table("firing").fields().getLast();
      assertThat(added.name()).isEqualTo("fuel_cost");
      assertThat(added.type()).isInstanceOf(FieldType.Money.class);
      assertThat(test.bench.selectionProperty().get())
          .isEqualTo(Selection.of(new TableId("firing"), added.id()));
      again();
      model.add("Fuel cost");
      assertThat(test.table("firing").fields().getLast().name()).isEqualTo("fuel_cost_2");
    }

    @Test
    void aNameThatCameFromTheLabelFollowsItAndAnotherDoesNot() {
      model.relabel(field("firing", "remark"), "Notes");
      assertThat(field("firing", "remark").name()).isEqualTo("notes");
      again();
      model.rename(field("firing", "remark"), "seen");
      again();
      model.relabel(field("firing", "remark"), "Seen by the loader");
      assertThat(field("firing", "remark").name()).isEqualTo("seen");
      again();
      int steps = test.bench.historyProperty().get().done();
      model.relabel(field("firing", "remark"), "  ");
      model.rename(field("firing", "remark"), "seen");
      assertThat(test.bench.historyProperty().get().done()).as("nothing was done").isEqualTo(steps);
    }

    @Test
    void severalFieldsAreChangedAtOnceAndOneUndoTakesItBack() {
      List<Field> some =
          List.of(
              field("firing", "remark"), field("firing", "peak_c"), field("firing", "firing_id"));
      var before = test.bench.design();
      model.require(some, true);
      assertThat(field("firing", "remark").required()).isTrue();
      assertThat(field("firing", "peak_c").required()).isTrue();
      again();
      List<Field> two = List.of(field("firing", "remark"), field("firing", "peak_c"));
      model.retype(two, new TypeOffers.Held.OfType(TypeChoice.Decimal, "8.2"));
      assertThat(field("firing", "remark").type()).isEqualTo(new FieldType.Decimal(8, 2));
      assertThat(field("firing", "peak_c").type()).isEqualTo(new FieldType.Decimal(8, 2));
      assertThat(test.bench.historyProperty().get().undoName()).contains("change 2 fields");
      again();
      two = List.of(field("firing", "remark"), field("firing", "peak_c"));
      assertThat(model.resize(two, "9.3")).isTrue();
      model.origins().changeDefault(two, Formula.unlessBlank("1.5"));
      again();
      model.setUnique(List.of(field("firing", "remark"), field("firing", "peak_c")), true);
      assertThat(test.table("firing").isKey(List.of(new FieldId("remark")))).isTrue();
      assertThat(test.table("firing").isKey(List.of(new FieldId("peak_c")))).isTrue();
      for (int i = 0; i < 5; i++) {
        test.bench.undo();
      }
      assertThat(test.bench.design()).isEqualTo(before);
    }

    @Test
    void aSizeThatFitsNotAllFieldsChangesNone() {
      var before = test.bench.design();
      assertThat(model.resize(List.of(field("firing", "remark"), field("firing", "peak_c")), "60"))
          .isFalse();
      model.retype(
          List.of(field("firing", "remark")),
          new TypeOffers.Held.OfType(TypeChoice.Decimal, "wide"));
      assertThat(test.newest()).contains("wide");
      assertThat(test.bench.design()).isSameAs(before);
    }

    @Test
    void aSizeThatIsNoneIsToldAndNotTaken() {
      assertThat(model.resize(List.of(field("firing", "remark")), "120")).isTrue();
      assertThat(field("firing", "remark").type()).isEqualTo(new FieldType.Text(120));
      again();
      assertThat(model.resize(List.of(field("firing", "remark")), "wide")).isFalse();
      assertThat(test.newest()).contains("wide").contains("Text");
      assertThat(field("firing", "remark").type()).isEqualTo(new FieldType.Text(120));
      assertThat(model.resize(List.of(field("firing", "remark")), "120")).isTrue();
      model.retype(
          List.of(field("firing", "remark")), new TypeOffers.Held.OfType(TypeChoice.LongText, ""));
      assertThat(field("firing", "remark").type()).isEqualTo(new FieldType.LongText());
    }

    @Test
    void keyFieldsStayRequiredAndUnique() {
      Field id = field("firing", "firing_id");
      int steps = test.bench.historyProperty().get().done();
      model.require(List.of(id), false);
      model.setUnique(List.of(id), false);
      assertThat(test.bench.historyProperty().get().done()).isEqualTo(steps);
      model.require(
          List.of(field("firing", "remark")), !model.isRequired(field("firing", "remark")));
      again();
      assertThat(model.isRequired(field("firing", "remark"))).isTrue();
      model.setUnique(
          List.of(field("firing", "remark")), !model.isUnique(field("firing", "remark")));
      again();
      assertThat(model.isUnique(field("firing", "remark"))).isTrue();
      model.setUnique(
          List.of(field("firing", "remark")), !model.isUnique(field("firing", "remark")));
      again();
      assertThat(model.isUnique(field("firing", "remark"))).isFalse();
    }

    @Test
    void theKeyIsWhatIsChosenAndWhatRefersToItFollows() {
      model.turnTo(test.choose("member"));
      model.keys().toggle(List.of(field("member", "card_no")));
      assertThat(test.table("member").primaryKey()).containsExactly(new FieldId("card_no"));
      assertThat(model.isUnique(field("member", "member_id"))).isTrue();
      assertThat(field("piece", "maker_id").type()).isEqualTo(new FieldType.Text(6));
      assertThat(test.bench.historyProperty().get().done()).as("one step").isEqualTo(1);
      model.keys().toggle(List.of(field("member", "member_id")));
      assertThat(model.keys().isCounted()).isTrue();
      model.keys().toggle(List.of(field("member", "member_id")));
      assertThat(test.newest()).contains("identified by nothing");
      model.turnTo(test.choose("piece_glaze"));
      model.keys().toggle(test.table("piece_glaze").fields());
      assertThat(test.table("piece_glaze").primaryKey()).hasSize(3);
      model.keys().identifyByCounter();
      assertThat(model.keys().isCounted()).isTrue();
      List<FieldId> before = test.table("piece_glaze").primaryKey();
      model.keys().toggle(List.of());
      assertThat(test.table("piece_glaze").primaryKey()).isEqualTo(before);
    }

    @Test
    void aReferenceIsSizedWithItsKeyAndATypeOfItsOwnEndsIt() {
      model.turnTo(test.choose("firing"));
      assertThat(model.resize(List.of(field("firing", "cone_no")), "9")).isTrue();
      assertThat(field("cone", "cone_no").type()).isEqualTo(new FieldType.Text(9));
      assertThat(field("glaze", "cone_no").type()).isEqualTo(new FieldType.Text(9));
      model.retype(
          List.of(field("firing", "cone_no")), new TypeOffers.Held.OfType(TypeChoice.Text, ""));
      assertThat(model.type(field("firing", "cone_no"))).isEqualTo("Text");
      test.bench.undo();
      assertThat(model.type(field("firing", "cone_no"))).isEqualTo("→ Cone");
    }

    @Test
    void fieldsMoveToATableOfTheirOwnAndAreFoldedBack() {
      model.turnTo(test.choose("supplier"));
      model
          .keys()
          .toOwnTable(List.of(field("supplier", "email"), field("supplier", "website")), " ");
      assertThat(test.table("supplier").hasField(new FieldId("email"))).isTrue();
      model
          .keys()
          .toOwnTable(
              List.of(field("supplier", "email"), field("supplier", "website")),
              "Supplier contact");
      Table own = test.bench.table().orElseThrow();
      assertThat(own.label()).isEqualTo("Supplier contact");
      assertThat(test.newest()).contains("each belongs to one row of Supplier");
      var sheet = new SheetModel(test.bench, model, texts);
      var tie = sheet.foldable(own).orElseThrow();
      assertThat(sheet.foldable(test.table("firing"))).isEmpty();
      sheet.fold(tie);
      assertThat(test.bench.table()).map(Table::label).contains("Supplier");
      assertThat(test.table("supplier").hasField(new FieldId("email"))).isTrue();
      assertThat(test.bench.design().find(own.id())).isEmpty();
    }

    @Test
    void fieldsAreUniqueTogetherAndIndexedTogether() {
      List<Field> two = List.of(field("firing", "kiln_id"), field("firing", "started_at"));
      model.keys().uniqueTogether(two);
      model.keys().index(two);
      List<FieldId> ids = two.stream().map(Field::id).toList();
      assertThat(test.table("firing").isKey(ids)).isTrue();
      assertThat(test.table("firing").indexes()).anyMatch(i -> i.fields().equals(ids));
    }

    @Test
    void fieldsMoveUpToTheEnds() {
      model.move(field("firing", "kiln_id"), -1);
      again();
      assertThat(test.table("firing").fieldIds().getFirst()).isEqualTo(new FieldId("kiln_id"));
      model.move(field("firing", "kiln_id"), -1);
      model.move(field("firing", "remark"), 1);
      again();
      assertThat(test.table("firing").fieldIds().getFirst()).isEqualTo(new FieldId("kiln_id"));
      assertThat(test.table("firing").fieldIds().getLast()).isEqualTo(new FieldId("remark"));
    }

    @Test
    void removedFieldsAreOneStepAndWhatGoesAlongIsTold() {
      var before = test.bench.draft();
      model.remove(List.of(field("firing", "kiln_id"), field("firing", "peak_c")));
      test.untilProposed();
      assertThat(test.bench.draft()).as("what holds values is shown first").isEqualTo(before);
      test.bench.accept();
      assertThat(test.table("firing").hasField(new FieldId("kiln_id"))).isFalse();
      assertThat(test.newest()).contains("2 fields").contains("fk_firing_kiln").contains("Peak");
      test.bench.undo();
      assertThat(test.bench.draft()).isEqualTo(before);
      model.remove(List.of());
      assertThat(test.bench.draft()).isEqualTo(before);
    }

    @Test
    void defaultsAreFormulasOrNone() {
      model
          .origins()
          .changeDefault(List.of(field("firing", "remark")), Formula.unlessBlank("'none'"));
      assertThat(field("firing", "remark").defaultValue()).isPresent();
      again();
      model.origins().changeDefault(List.of(field("firing", "remark")), Optional.empty());
      assertThat(field("firing", "remark").defaultValue()).isEmpty();
    }
  }

  @Nested
  class SampleRowsOfATable {
    private SampleModel model;

    @BeforeEach
    void turnToKilns() {
      model = new SampleModel(test.bench, Texts.beside(SampleGrid.class));
      assertThat(model.turnTo(test.table("kiln"))).isEqualTo(SampleModel.News.COLUMNS);
    }

    private SampleModel.News again() {
      return model.turnTo(test.table("kiln"));
    }

    @Test
    void onlyWhatChangedIsShownAnew() {
      assertThat(again()).isEqualTo(SampleModel.News.CELLS);
      Field name = field("kiln", "name");
      model.edits().type(0, name, "Great Tom");
      assertThat(again()).isEqualTo(SampleModel.News.CELLS);
      assertThat(model.cell(0, name.id())).isEqualTo("Great Tom");
      model.edits().add();
      assertThat(again()).isEqualTo(SampleModel.News.ROWS);
      assertThat(model.cell(model.count() - 1, name.id())).isEmpty();
      assertThat(model.turnTo(test.table("firing"))).isEqualTo(SampleModel.News.COLUMNS);
    }

    @Test
    void rowsAreReadAndLookedForByWhatPeopleRecogniseThemBy() {
      Table firing = test.choose("firing");
      model.wantHeld(true);
      model.turnTo(firing);
      FieldId kiln = new FieldId("kiln_id");
      assertThat(model.isReference(kiln)).isTrue();
      assertThat(model.isReference(new FieldId("peak_c"))).isFalse();
      test.window.until(() -> model.parents(kiln).isPresent() && model.held(kiln).isPresent());
      assertThat(model.shown(0, kiln)).isEqualTo("The Bin");
      assertThat(model.cell(0, kiln)).isEqualTo("4");
      model.filter("the bin");
      test.window.until(() -> model.placesProperty().get().size() < model.count());
      assertThat(model.placesProperty().get())
          .isNotEmpty()
          .allSatisfy(row -> assertThat(model.cell(row, kiln)).isEqualTo("4"));
      model.sort(List.of(new By(kiln, false)));
      model.filter("");
      test.window.until(() -> model.placesProperty().get().size() == model.count());
      assertThat(model.shown(model.placesProperty().get().getFirst(), kiln)).isEqualTo("Big Tom");
    }

    @Test
    void rowsAreLookedForAndOrderedAndStayWhereTheyAreWhileOneTypes() {
      Field name = field("kiln", "name");
      List<Integer> all = model.placesProperty().get();
      assertThat(all).hasSize(model.count());
      model.sort(List.of(new By(name.id(), true)));
      test.window.until(() -> !model.placesProperty().get().equals(all));
      List<Integer> sorted = model.placesProperty().get();
      assertThat(sorted)
          .containsExactlyInAnyOrderElementsOf(all)
          .isSortedAccordingTo(
              Comparator.comparing(
                      (Integer row) -> model.cell(row, name.id()).toLowerCase(Locale.ROOT))
                  .reversed());
      model.edits().type(sorted.getFirst(), name, "Aaa");
      again();
      assertThat(model.placesProperty().get()).isEqualTo(sorted);
      model.sort(List.of());
      assertThat(model.placesProperty().get()).isEqualTo(all);
      model.filter("aaa");
      test.window.until(() -> model.placesProperty().get().size() == 1);
      assertThat(model.placesProperty().get()).containsExactly(sorted.getFirst());
      model.edits().remove(Set.of(sorted.getFirst()));
      again();
      test.window.until(() -> model.placesProperty().get().isEmpty());
      model.turnTo(test.table("firing"));
      assertThat(model.isOrdered()).as("another table is shown whole").isFalse();
      assertThat(model.placesProperty().get()).hasSize(model.count());
    }

    @Test
    void cellsThatBreakTheDesignAreKnown() {
      Field name = field("kiln", "name");
      model.edits().type(1, name, "");
      test.untilChecked();
      again();
      assertThat(model.isBad(1, name.id())).isTrue();
      assertThat(model.isBad(0, name.id())).isFalse();
      assertThat(model.badCells()).isEqualTo(1);
    }

    @Test
    void whatIsTypedGoesToTheRowThatIsSeenThoughOthersWentMeanwhile() {
      Field name = field("kiln", "name");
      String third = model.cell(2, name.id());
      new SampleModel(test.bench, Texts.beside(SampleGrid.class)).turnTo(test.table("kiln"));
      test.bench.apply(
          joiner.edit.ChangeRows.removed(
              test.table("kiln"), test.bench.draft().rows().of(new TableId("kiln")), Set.of(0)));
      model.edits().type(2, name, "Third");
      assertThat(test.bench.draft().rows().of(new TableId("kiln")).cell(1, name.id()))
          .isEqualTo(Optional.of("Third"));
      assertThat(third).isNotEqualTo("Third");
    }

    @Test
    void removedRowsAreOneStep() {
      var before = test.bench.draft();
      model.edits().remove(Set.of(0, 2));
      assertThat(test.bench.draft().rows().of(new TableId("kiln")).count())
          .isEqualTo(model.count() - 2);
      assertThat(test.newest()).contains("2");
      test.bench.undo();
      assertThat(test.bench.draft()).isEqualTo(before);
      model.edits().remove(Set.of());
      assertThat(test.bench.draft()).isEqualTo(before);
    }
  }

  @Nested
  class Sheet {
    private SheetModel model;

    @BeforeEach
    void look() {
      model = new SheetModel(test.bench, new FieldsModel(test.bench, texts), texts);
      model.look(true);
    }

    @Test
    void itFollowsWhatIsChosen() {
      assertThat(model.about()).isEqualTo(new SheetModel.About.Nothing());
      Table kiln = test.choose("kiln");
      assertThat(model.about()).isEqualTo(new SheetModel.About.OfTable(kiln, area(kiln)));
      var name = new FieldId("name");
      test.bench.selectionProperty().set(Selection.of(kiln.id(), name));
      assertThat(model.about()).isEqualTo(new SheetModel.About.OfField(kiln, kiln.field(name)));
      test.bench.selectionProperty().set(Selection.of(kiln.id(), new FieldId("gone")));
      assertThat(model.about()).isEqualTo(new SheetModel.About.OfTable(kiln, area(kiln)));
    }

    @Test
    void theCellsOfAFieldAreCounted() {
      test.bench
          .selectionProperty()
          .set(Selection.of(new TableId("kiln"), new FieldId("fallback_id")));
      model.about();
      test.window.until(() -> model.seenProperty().get().current().isPresent());
      HeldValues seen = model.seenProperty().get().current().orElseThrow();
      assertThat(seen.rows()).isEqualTo(4);
      assertThat(seen.blank()).isEqualTo(1);
      assertThat(seen.different()).isEqualTo(2);
      assertThat(seen.longest()).isEqualTo(1);
    }

    @Test
    void limitsAreChangedOneByOne() {
      Table firing = test.choose("firing");
      var peak = new SheetModel.About.OfField(firing, field("firing", "peak_c"));
      model.least(peak, " 600 ");
      assertThat(field("firing", "peak_c").limits().minimum()).contains("600");
      assertThat(field("firing", "peak_c").limits().maximum()).contains("1400");
      var now = new SheetModel.About.OfField(test.table("firing"), field("firing", "peak_c"));
      model.greatest(now, " ");
      assertThat(field("firing", "peak_c").limits().maximum()).isEmpty();
      assertThat(field("firing", "peak_c").limits().minimum()).contains("600");
      var remark = new SheetModel.About.OfField(test.table("firing"), field("firing", "remark"));
      model.pattern(remark, "[a-z ]+");
      assertThat(field("firing", "remark").limits().pattern()).contains("[a-z ]+");
    }

    @Test
    void aPatternIsTakenFromTheRows() {
      Table piece = test.choose("piece");
      var mark = new SheetModel.About.OfField(piece, field("piece", "mark"));
      model.pattern(mark, "");
      assertThat(field("piece", "mark").limits().pattern()).isEmpty();
      model.patternFromRows(
          new SheetModel.About.OfField(test.table("piece"), field("piece", "mark")));
      assertThat(field("piece", "mark").limits().pattern()).contains("P-[0-9]{4}");
      assertThat(test.newest()).contains("“P-”, then 4 digits");
      Table kiln = test.choose("kiln");
      model.patternFromRows(new SheetModel.About.OfField(kiln, field("kiln", "name")));
      assertThat(test.newest()).contains("no pattern in common");
    }

    @Test
    void choicesAreAddedMovedAndRemoved() {
      Table glaze = test.choose("glaze");
      FieldId surface = new FieldId("surface");
      model
          .choices()
          .add(new SheetModel.About.OfField(glaze, glaze.field(surface)), " crystalline ");
      assertThat(choices(surface)).endsWith("crystalline");
      model.choices().add(about(surface), "crystalline");
      assertThat(test.newest()).contains("among the choices already");
      var last = ((FieldType.Choice) field("glaze", "surface").type()).entries().getLast();
      model.choices().move(about(surface), last, -1);
      assertThat(choices(surface).get(2)).isEqualTo("crystalline");
      model.choices().move(about(surface), last, 5);
      assertThat(choices(surface).get(2)).isEqualTo("crystalline");
      model.choices().remove(about(surface), last);
      assertThat(choices(surface)).containsExactly("gloss", "satin", "matt");
    }

    @Test
    void anIndexIsTurnedRoundAndATableGetsAPicture() {
      Table kiln = test.choose("kiln");
      var index = new Index("ix_kiln_fuel", List.of(new FieldId("fuel"), new FieldId("litres")));
      test.bench.apply(ChangeTable.addIndex(kiln, index));
      model.changeIndex(test.table("kiln"), index.withDescending(Set.of(new FieldId("litres"))));
      assertThat(test.table("kiln").indexes())
          .filteredOn(i -> i.name().equals("ix_kiln_fuel"))
          .singleElement()
          .extracting(Index::descending)
          .isEqualTo(Set.of(new FieldId("litres")));
      model.changeIndex(test.table("kiln"), index.withFields(List.of(new FieldId("litres"))));
      model.picture(test.table("kiln"), "sun");
      assertThat(test.table("kiln").icon()).isEqualTo("sun");
      assertThat(TableIcon.all()).contains("sun", "users").hasSizeGreaterThan(200);
      assertThat(TableIcon.all().stream().filter(name -> TableIcon.of(name).isEmpty())).isEmpty();
      assertThat(TableIcon.of("no such")).isEmpty();
    }

    private SheetModel.About.OfField about(FieldId field) {
      Table glaze = test.table("glaze");
      return new SheetModel.About.OfField(glaze, glaze.field(field));
    }

    private List<String> choices(FieldId field) {
      return ((FieldType.Choice) test.table("glaze").field(field).type()).values();
    }

    @Test
    void theWordsOfATableAreChangedOneByOneAndBlankNamesAreNotTaken() {
      Table kiln = test.choose("kiln");
      model.singular(kiln, "oven");
      assertThat(test.table("kiln").noun().singular()).isEqualTo("oven");
      assertThat(test.table("kiln").noun().plural()).isEqualTo(kiln.noun().plural());
      model.plural(test.table("kiln"), "ovens");
      assertThat(test.table("kiln").noun().plural()).isEqualTo("ovens");
      model.rename(test.table("kiln"), " ");
      assertThat(test.table("kiln").name()).isEqualTo("kiln");
      model.rename(test.table("kiln"), " oven ");
      assertThat(test.table("kiln").name()).isEqualTo("oven");
      model.relabel(test.table("kiln"), " ");
      assertThat(test.table("kiln").label()).isEqualTo("Kiln");
      model.relabel(test.table("kiln"), "Oven");
      assertThat(test.table("kiln").label()).isEqualTo("Oven");
      model.area(test.table("kiln"), " Yard ");
      assertThat(test.bench.design().areaOf(test.table("kiln"))).map(Area::name).contains("Yard");
      model.rowLabel(test.table("kiln"), "");
      assertThat(test.table("kiln").rowLabel()).isEmpty();
      model.describe(test.table("kiln"), "Hot.");
      assertThat(test.table("kiln").description()).isEqualTo("Hot.");
    }

    private Optional<Area> area(Table table) {
      return test.bench.design().areaOf(table);
    }

    @Test
    void anAreaIsRenamedWithAllThatStandsInIt() {
      Table kiln = test.choose("kiln");
      SheetModel.About before = model.about();
      model.renameArea(area(kiln).orElseThrow(), " Ovens ");
      assertThat(area(test.table("firing"))).map(Area::name).contains("Ovens");
      assertThat(model.about()).as("the sheet shows the new name").isNotEqualTo(before);
      model.renameArea(area(kiln).orElseThrow(), "");
      assertThat(area(test.table("kiln"))).map(Area::name).contains("Ovens");
    }

    @Test
    void aChoiceIsRenamedWithTheRowsThatHoldIt() {
      Table glaze = test.choose("glaze");
      Field surface = glaze.fieldNamed("surface").orElseThrow();
      var of = new SheetModel.About.OfField(glaze, surface);
      var gloss = ((FieldType.Choice) surface.type()).entries().getFirst();
      model.choices().rename(of, gloss, " glossy ");
      Field now = test.table("glaze").fieldNamed("surface").orElseThrow();
      assertThat(((FieldType.Choice) now.type()).values()).contains("glossy");
      assertThat(test.bench.verdict().audit().violations()).isEmpty();
    }

    @Test
    void findingsBelongToTheFieldOrToTheTable() {
      test.choose("kiln");
      model.rename(test.table("kiln"), "order");
      test.untilChecked();
      List<Finding> findings = test.bench.verdict().findings();
      var table = new SheetModel.About.OfTable(test.table("kiln"), area(test.table("kiln")));
      assertThat(findings).anyMatch(finding -> SheetModel.concerns(table, finding));
      assertThat(findings)
          .noneMatch(finding -> SheetModel.concerns(new SheetModel.About.Nothing(), finding));
      var field = new SheetModel.About.OfField(test.table("kiln"), field("kiln", "name"));
      assertThat(findings).noneMatch(finding -> SheetModel.concerns(field, finding));
    }
  }
}
