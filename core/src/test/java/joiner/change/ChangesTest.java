package joiner.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.edit.AddField;
import joiner.edit.ChangeField;
import joiner.edit.RemoveField;
import joiner.edit.RemoveTable;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.Stretch;
import org.junit.jupiter.api.Test;

class ChangesTest {
  private static final Draft DEMO = Pottery.demo();
  private static final TableId KILN = new TableId("kiln");
  private static final FieldId NAME = new FieldId("name");

  private static void assertLeadsThereAndBack(Draft one, Draft other) {
    Changes there = Changes.between(one, other);
    assertThat(there.applyTo(one)).isEqualTo(other);
    assertThat(there.inverse().applyTo(other)).isEqualTo(one);
    assertThat(there.inverse().inverse()).isEqualTo(there);
    assertThat(there.isEmpty()).isEqualTo(one.equals(other));
  }

  @Test
  void changesLeadFromAnyDraftToAnyOtherAndBack() {
    Tries.of(400)
        .forEach(
            seed -> {
              Draft one = RandomDesigns.draft(seed);
              assertLeadsThereAndBack(one, RandomDesigns.draft(seed + 1));
              assertLeadsThereAndBack(one, RandomDesigns.draft(seed));
              assertLeadsThereAndBack(
                  one, new Draft(Design.empty("none", "None"), joiner.rows.SampleRows.NONE));
            });
  }

  /** Drafts that share most of what they have, as an edit leaves them. */
  @Test
  void changesLeadThroughTheSameThingsInAnotherOrderWithSomeGone() {
    Tries.of(400)
        .forEach(
            seed -> {
              Draft one = RandomDesigns.draft(seed);
              assertLeadsThereAndBack(one, shaken(one, new Random(seed)));
            });
  }

  private static Draft shaken(Draft draft, Random random) {
    Draft some = draft;
    for (Table table : List.copyOf(draft.design().tables())) {
      if (random.nextInt(5) == 0) {
        some = new RemoveTable(table.id(), table.label()).apply(some);
      } else if (!table.fields().isEmpty() && random.nextBoolean()) {
        Field field = table.fields().get(random.nextInt(table.fields().size()));
        some = new RemoveField(table.id(), field.id(), field.label()).apply(some);
      }
    }
    var tables = new ArrayList<Table>();
    for (Table table : some.design().tables()) {
      var fields = new ArrayList<>(table.fields());
      if (random.nextBoolean()) {
        Collections.shuffle(fields, random);
        Field extra = table.unused(Field.of("extra", "Extra", new FieldType.Date()));
        fields.add(random.nextInt(fields.size() + 1), extra);
      }
      tables.add(table.withFields(fields));
    }
    Collections.shuffle(tables, random);
    List<Relationship> related = new ArrayList<>(some.design().relationships());
    Collections.shuffle(related, random);
    Design design = some.design();
    Draft shaken =
        some.withDesign(
            Design.of(
                design.name(),
                random.nextBoolean() ? "Shaken" : design.title(),
                design.description(),
                design.areas(),
                tables,
                related,
                design.extras()));
    for (Table table : tables) {
      shaken = withOtherRows(shaken, table, random);
    }
    return shaken;
  }

  private static Draft withOtherRows(Draft draft, Table table, Random random) {
    Rows rows = draft.rows().of(table.id());
    if (table.fields().isEmpty() || rows.count() == 0) {
      return draft;
    }
    FieldId field = table.fields().get(random.nextInt(table.fields().size())).id();
    int at = random.nextInt(rows.count());
    Rows other =
        switch (random.nextInt(6)) {
          case 0 -> rows.withCell(at, field, Optional.of("another"));
          case 1 -> rows.withRow(Map.of(field, "one more"));
          case 3 -> rows.without(some(rows.count(), random)).withRow(Map.of(field, "one more"));
          case 4 ->
              rows.withCell(at, field, Optional.of("other")).without(some(rows.count(), random));
          case 2 -> rows.without(List.of(new Stretch(at, 1)));
          default ->
              rows.withColumn(
                  field, Collections.nCopies(rows.count(), Optional.of("the same all over")));
        };
    return draft.withRows(draft.rows().with(table.id(), before -> other));
  }

  private static List<Stretch> some(int rows, Random random) {
    return Stretch.of(IntStream.range(0, rows).filter(row -> random.nextInt(3) == 0));
  }

  /** Whatever the change: where it was made already there is nothing that it was made of. */
  @Test
  void noChangeIsMadeTwice() {
    Tries.of(200)
        .forEach(
            seed -> {
              Draft one = RandomDesigns.draft(seed);
              assertRefusedTwice(one, RandomDesigns.draft(seed + 1));
              assertRefusedTwice(one, shaken(one, new Random(seed)));
            });
  }

  private static void assertRefusedTwice(Draft one, Draft other) {
    for (Change change : Changes.between(one, other).list()) {
      boolean onlyMore =
          change instanceof Change.RowsAdded
              || (change instanceof Change.RowsRemoved removed && isThereAgain(removed, other));
      if (!onlyMore) {
        assertThatThrownBy(() -> new Changes(List.of(change)).applyTo(other))
            .as(change.getClass().getSimpleName())
            .isInstanceOf(UnfitChangeException.class);
      }
    }
  }

  /** Rows equal to those removed may have moved up to their places. */
  private static boolean isThereAgain(Change.RowsRemoved removed, Draft other) {
    Rows rows = other.rows().of(removed.table());
    return Stretch.fit(removed.places(), rows.count())
        && rows.at(removed.places()).equals(removed.rows());
  }

  @Test
  void aTableWithRowsIsNotRemovedUnlessTheyGoFirst() {
    Table kiln = DEMO.design().table(KILN);
    int place = List.copyOf(DEMO.design().tables()).indexOf(kiln);
    Draft alone = DEMO.withDesign(DEMO.design().withRelationships(List.of()));
    Change removed = new Change.TableRemoved(alone.design().table(KILN), place);
    assertThatThrownBy(() -> new Changes(List.of(removed)).applyTo(alone))
        .isInstanceOf(UnfitChangeException.class);
    Rows kilns = DEMO.rows().of(KILN);
    Change rows = new Change.RowsRemoved(KILN, List.of(new Stretch(0, kilns.count())), kilns);
    assertThat(new Changes(List.of(rows, removed)).applyTo(alone).design().find(KILN)).isEmpty();
  }

  @Test
  void placesBeyondTheEndAreRefused() {
    Rows more = Rows.of(List.of(NAME), List.of(List.of(Optional.of("Old Ann"))));
    int count = DEMO.rows().of(KILN).count();
    for (Change change :
        List.of(
            new Change.RowsAdded(KILN, List.of(new Stretch(count + 1, 1)), more),
            new Change.RowsAdded(KILN, List.of(new Stretch(0, 2)), more),
            new Change.RowsRemoved(KILN, List.of(new Stretch(count, 1)), more),
            new Change.CellChanged(KILN, NAME, count, Optional.empty(), Optional.of("x")),
            new Change.FieldAdded(KILN, Field.of("colour", "Colour", new FieldType.Date()), 99),
            new Change.FieldRemoved(KILN, DEMO.design().table(KILN).field(NAME), 99))) {
      assertThatThrownBy(() -> new Changes(List.of(change)).applyTo(DEMO))
          .as(change.toString())
          .isInstanceOf(UnfitChangeException.class);
    }
  }

  @Test
  void aChangedCellIsOneChangeThatNamesItsTexts() {
    Draft after = DEMO.withRows(DEMO.rows().with(KILN, r -> r.withCell(1, NAME, Optional.empty())));
    Optional<String> before = DEMO.rows().of(KILN).cell(1, NAME);
    assertThat(Changes.between(DEMO, after).list())
        .containsExactly(new Change.CellChanged(KILN, NAME, 1, before, Optional.empty()));
  }

  @Test
  void aRowInTheMiddleIsOneChangeAndSoIsItsRemoval() {
    Rows rows = DEMO.rows().of(KILN);
    Rows one = Rows.of(List.of(NAME), List.of(List.of(Optional.of("Old Ann"))));
    List<Stretch> second = List.of(new Stretch(1, 1));
    Draft more = DEMO.withRows(DEMO.rows().with(KILN, r -> r.with(second, one)));
    assertThat(Changes.between(DEMO, more).list())
        .containsExactly(new Change.RowsAdded(KILN, second, one));
    Draft fewer = DEMO.withRows(DEMO.rows().with(KILN, r -> r.without(second)));
    assertThat(Changes.between(DEMO, fewer).list())
        .containsExactly(new Change.RowsRemoved(KILN, second, rows.slice(1, 2)));
  }

  @Test
  void rowsRemovedHereAndThereAreTheOnlyOnesKept() {
    Rows rows = DEMO.rows().of(KILN);
    List<Stretch> ends = List.of(new Stretch(0, 1), new Stretch(rows.count() - 1, 1));
    Draft fewer =
        DEMO.withRows(
            DEMO.rows().with(KILN, r -> r.withCell(1, NAME, Optional.of("x")).without(ends)));
    assertThat(Changes.between(DEMO, fewer).list())
        .containsExactly(
            new Change.RowsRemoved(KILN, ends, rows.at(ends)),
            new Change.CellChanged(KILN, NAME, 0, rows.cell(1, NAME), Optional.of("x")));
  }

  @Test
  void rowsThatMovedAreToldAsGoneAndCome() {
    Rows rows = DEMO.rows().of(KILN);
    List<Stretch> first = List.of(new Stretch(0, 1));
    List<Stretch> last = List.of(new Stretch(rows.count() - 1, 1));
    Draft moved =
        DEMO.withRows(DEMO.rows().with(KILN, r -> r.without(first).with(last, r.at(first))));
    assertLeadsThereAndBack(DEMO, moved);
    assertThat(Changes.between(DEMO, moved).list())
        .containsExactly(
            new Change.RowsRemoved(KILN, first, rows.at(first)),
            new Change.RowsAdded(KILN, last, rows.at(first)));
  }

  @Test
  void rowsTakenBackAreTheSameOnesAsBefore() {
    Rows rows = DEMO.rows().of(KILN);
    List<Stretch> first = List.of(new Stretch(0, 1));
    Draft fewer = DEMO.withRows(DEMO.rows().with(KILN, r -> r.without(first)));
    Draft again = Changes.between(DEMO, fewer).inverse().applyTo(fewer);
    for (int row = 0; row < rows.count(); row++) {
      assertThat(again.rows().of(KILN).id(row)).isEqualTo(rows.id(row));
    }
  }

  /** Rows of other origin, as of a file read again, are the same where they hold the same. */
  @Test
  void rowsReadAgainAreComparedByWhatTheyHold() {
    Rows rows = DEMO.rows().of(KILN);
    List<FieldId> fields = DEMO.design().table(KILN).fieldIds();
    var texts = new ArrayList<List<Optional<String>>>();
    for (int row = 0; row < rows.count(); row++) {
      texts.add(rows.row(row, fields));
    }
    Draft same = DEMO.withRows(DEMO.rows().with(KILN, r -> Rows.of(fields, texts)));
    assertThat(Changes.between(DEMO, same).isEmpty()).isTrue();
    texts.remove(1);
    Draft fewer = DEMO.withRows(DEMO.rows().with(KILN, r -> Rows.of(fields, texts)));
    List<Stretch> second = List.of(new Stretch(1, 1));
    assertThat(Changes.between(DEMO, fewer).list())
        .containsExactly(new Change.RowsRemoved(KILN, second, rows.at(second)));
  }

  @Test
  void aRemovedTableIsToldWithItsRowsAndRelationships() {
    Draft after = new RemoveTable(KILN, "Kiln").apply(DEMO);
    List<Change> changes = Changes.between(DEMO, after).list();
    assertThat(changes)
        .filteredOn(Change.RelationshipRemoved.class::isInstance)
        .hasSize(DEMO.design().childrenOf(KILN).size());
    Rows kilns = DEMO.rows().of(KILN);
    assertThat(changes)
        .contains(new Change.RowsRemoved(KILN, List.of(new Stretch(0, kilns.count())), kilns));
    assertThat(changes).filteredOn(Change.TableRemoved.class::isInstance).hasSize(1);
  }

  @Test
  void aRemovedFieldIsToldWithItsValues() {
    Table kiln = DEMO.design().table(KILN);
    Draft after = new RemoveField(KILN, NAME, "Name").apply(DEMO);
    assertThat(Changes.between(DEMO, after).list())
        .contains(
            new Change.ColumnChanged(
                KILN, NAME, DEMO.rows().of(KILN).only(NAME), after.rows().of(KILN).only(NAME)),
            new Change.FieldRemoved(
                KILN, kiln.field(NAME), kiln.fields().indexOf(kiln.field(NAME))));
  }

  @Test
  void whatTheChangesDoNotTouchStaysTheVerySameObject() {
    Table kiln = DEMO.design().table(KILN);
    Draft after =
        new AddField(KILN, Field.of("colour", "Colour", new FieldType.Date())).apply(DEMO);
    Draft made = Changes.between(DEMO, after).applyTo(DEMO);
    for (Table table : DEMO.design().tables()) {
      if (!table.id().equals(KILN)) {
        assertThat(made.design().table(table.id())).isSameAs(table);
      }
    }
    assertThat(made.design().table(KILN)).isNotEqualTo(kiln);
    assertThat(made.rows()).isEqualTo(DEMO.rows());
  }

  @Test
  void aChangeOfSomethingElseIsRefusedAndNamesTheTable() {
    Table kiln = DEMO.design().table(KILN);
    Field name = kiln.field(NAME);
    Changes renamed =
        Changes.between(DEMO, ChangeField.rename(kiln, name, "Called", "called").apply(DEMO));
    Changes gone = Changes.between(DEMO, new RemoveTable(KILN, "Kiln").apply(DEMO));
    Draft without = gone.applyTo(DEMO);
    Draft otherwise = ChangeField.required(kiln, name, !name.required()).apply(DEMO);
    Draft fewer = DEMO.withRows(DEMO.rows().with(KILN, r -> r.slice(0, 1)));
    assertThatThrownBy(() -> renamed.applyTo(without))
        .isInstanceOf(UnfitChangeException.class)
        .hasMessageContaining("kiln");
    assertThatThrownBy(() -> renamed.applyTo(otherwise)).isInstanceOf(UnfitChangeException.class);
    assertThatThrownBy(() -> gone.applyTo(fewer)).isInstanceOf(UnfitChangeException.class);
    assertThatThrownBy(() -> gone.inverse().applyTo(DEMO)).isInstanceOf(UnfitChangeException.class);
  }
}
