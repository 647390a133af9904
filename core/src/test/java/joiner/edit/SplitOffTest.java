package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import joiner.Pottery;
import joiner.Tries;
import joiner.audit.Anomalies;
import joiner.audit.Anomaly;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.RowLabels;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.KnownFact;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;

/** A split keeps all that was said, once: the join of both tables is the table before. */
class SplitOffTest {
  private static final FieldId NO = new FieldId("no");
  private static final FieldId KILN = new FieldId("kiln");
  private static final FieldId SHELF = new FieldId("shelf");
  private static final FieldId FUEL = new FieldId("fuel");
  private static final FieldId NOTE = new FieldId("note");
  private static final TableId LOAD = new TableId("load");

  /** Loads of kilns; a kiln and a shelf, or a kiln alone, decide the fuel. */
  private static Draft loads(Random random, int rows, boolean shelves) {
    Table load =
        Table.of("load", "Load", Noun.ofLabel("Load"))
            .withFields(
                List.of(NO, KILN, SHELF, FUEL, NOTE).stream()
                    .map(id -> Field.of(id.value(), id.value(), new FieldType.Text(40)))
                    .toList())
            .withPrimaryKey(List.of(NO));
    var fuels = new java.util.HashMap<String, Optional<String>>();
    var all = new ArrayList<List<Optional<String>>>();
    for (int i = 0; i < rows; i++) {
      String kiln = "k" + random.nextInt(4);
      String shelf = "s" + random.nextInt(3);
      Optional<String> fuel =
          fuels.computeIfAbsent(
              shelves ? kiln + shelf : kiln,
              k ->
                  random.nextInt(5) == 0
                      ? Optional.empty()
                      : Optional.of("fuel" + random.nextInt(3)));
      boolean known = random.nextInt(6) > 0 || fuel.isPresent();
      all.add(
          List.of(
              Optional.of("" + i),
              known ? Optional.of(kiln) : Optional.empty(),
              Optional.of(shelf),
              fuel,
              Optional.of("note " + random.nextInt(9))));
    }
    Design design = Design.of("p", "Pottery", "", List.of(), List.of(load), List.of(), Extras.NONE);
    return new Draft(design, new SampleRows(java.util.Map.of(LOAD, Rows.of(load.fieldIds(), all))));
  }

  @Test
  void theJoinOfBothIsTheTableBefore() {
    for (long seed : Tries.of(300).toArray()) {
      var random = new Random(seed);
      boolean shelves = random.nextBoolean();
      Draft before = loads(random, random.nextInt(1, 30), shelves);
      List<FieldId> determinant = shelves ? List.of(KILN, SHELF) : List.of(KILN);
      Draft after = new SplitOff(LOAD, determinant, List.of(FUEL), "Kiln").apply(before);
      Relationship over = after.design().parentsOf(LOAD).getFirst();
      Rows loads = after.rows().of(LOAD);
      Rows kilns = after.rows().of(over.parent());
      Rows were = before.rows().of(LOAD);
      assertThat(loads.has(FUEL)).isFalse();
      assertThat(loads.count()).isEqualTo(were.count());
      for (int row = 0; row < loads.count(); row++) {
        List<Optional<String>> key = loads.row(row, determinant);
        Optional<String> fuel = Optional.empty();
        int found = 0;
        for (int kiln = 0; kiln < kilns.count(); kiln++) {
          if (kilns.row(kiln, over.parentFields()).equals(key)) {
            fuel = kilns.cell(kiln, FUEL);
            found++;
          }
        }
        boolean whole = key.stream().allMatch(Optional::isPresent);
        assertThat(found).as("seed %d row %d", seed, row).isEqualTo(whole ? 1 : 0);
        assertThat(fuel).isEqualTo(were.cell(row, FUEL));
      }
    }
  }

  @Test
  void whatGoesToATableThatIsThereIsSaidThereOnce() {
    Draft demo = Pottery.demo();
    Table session = demo.design().tableNamed("session").orElseThrow();
    List<Anomaly> found = Anomalies.of(demo, () -> false);
    assertThat(found)
        .anySatisfy(
            anomaly -> {
              assertThat(anomaly.table()).isEqualTo(session.id());
              assertThat(session.namesOf(anomaly.determinant())).containsExactly("course_code");
              assertThat(session.namesOf(anomaly.dependents())).containsExactly("minutes");
            });
    Anomaly minutes = found.getFirst();
    Draft after = minutes.split(demo).apply(demo);
    Table course = after.design().tableNamed("course").orElseThrow();
    FieldId moved = course.fieldNamed("minutes").orElseThrow().id();
    Rows courses = after.rows().of(course.id());
    Rows sessions = demo.rows().of(session.id());
    FieldId code = session.fieldNamed("course_code").orElseThrow().id();
    for (int row = 0; row < sessions.count(); row++) {
      Optional<String> said = sessions.cell(row, new FieldId("minutes"));
      Optional<String> of = sessions.cell(row, code);
      assertThat(
              java.util.stream.IntStream.range(0, courses.count())
                  .filter(c -> courses.cell(c, course.primaryKey().getFirst()).equals(of))
                  .mapToObj(c -> courses.cell(c, moved)))
          .containsExactly(said);
    }
    assertThat(after.design().relationships()).hasSameSizeAs(demo.design().relationships());
    assertThat(Anomalies.of(after, () -> false))
        .as("nothing of it is said again")
        .noneMatch(anomaly -> anomaly.table().equals(session.id()));
  }

  @Test
  void whatIsKnownOfFieldsThatGoAlongIsKnownThere() {
    Draft before = loads(new Random(4), 12, false);
    var key = new KnownFact(List.of(KILN), List.of(FUEL, NOTE), true);
    var along = new KnownFact(List.of(FUEL), List.of(NOTE), false);
    var stays = new KnownFact(List.of(KILN), List.of(SHELF), false);
    Draft knowing =
        before.withDesign(
            before.design().withTable(LOAD, t -> t.withFacts(List.of(key, along, stays))));
    Rows one = Rows.of(before.design().table(LOAD).fieldIds(), List.of());
    Draft empty = knowing.with(knowing.design(), knowing.rows().with(LOAD, rows -> one));
    Draft after = new SplitOff(LOAD, List.of(KILN), List.of(FUEL, NOTE), "Kiln").apply(empty);
    Table kiln = after.design().tableNamed("kiln").orElseThrow();
    assertThat(kiln.facts()).containsExactly(along);
    assertThat(after.design().table(LOAD).facts()).containsExactly(stays);
  }

  @Test
  void formulasGoOnReadingWhatWasMoved() {
    Draft before = loads(new Random(4), 12, false);
    Draft labelled =
        before.withDesign(
            before
                .design()
                .withTable(
                    LOAD,
                    t ->
                        t.withRowLabel(
                            Optional.of(new Formula("no || ' ' || coalesce(fuel, '')")))));
    Draft after = new SplitOff(LOAD, List.of(KILN), List.of(FUEL), "Kiln").apply(labelled);
    assertThat(after.design().table(LOAD).rowLabel().orElseThrow().text()).contains("kiln.fuel");
    for (int row = 0; row < 12; row++) {
      assertThat(label(after, row)).isEqualTo(label(labelled, row));
    }
  }

  private static String label(Draft draft, int row) {
    return new RowLabels(
            draft.meaning().of(LOAD), new FormulaRows(draft, Pottery.CLOCK), Pottery.CLOCK)
        .of(row);
  }

  @Test
  void whatWouldLoseSomethingIsRefused() {
    Draft draft = loads(new Random(2), 20, true);
    assertThatThrownBy(() -> new SplitOff(LOAD, List.of(NOTE), List.of(FUEL), "Note").apply(draft))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("does not decide");
    Draft demo = Pottery.demo();
    TableId firing = demo.design().tableNamed("firing").orElseThrow().id();
    assertThatThrownBy(
            () ->
                new SplitOff(
                        firing,
                        List.of(new FieldId("kiln_id")),
                        List.of(new FieldId("firing_id")),
                        "Kiln")
                    .apply(demo))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("stands on");
  }
}
