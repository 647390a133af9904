package joiner.desktop.prove;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import joiner.Pottery;
import joiner.deletion.Chain.Fate;
import joiner.deletion.Outcome;
import joiner.desktop.prove.IfDeletedModel.Instead;
import joiner.desktop.prove.IfDeletedModel.Row;
import joiner.desktop.prove.IfDeletedModel.Told;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.TestBench;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** If deleted without a window: what is told of rows, what can be done instead, and with undo. */
class IfDeletedModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private IfDeletedModel model;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder);
    model = new IfDeletedModel(test.bench, Texts.beside(ProveView.class));
    model.look(true);
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private Told told() {
    model.refresh();
    test.window.until(() -> model.told().isPresent());
    return model.told().orElseThrow();
  }

  private Told of(String table) {
    test.choose(table);
    return told();
  }

  private int rows(String table) {
    return test.bench.draft().rows().of(new TableId(table)).count();
  }

  private static String steps(Told told) {
    return told.lines().stream()
        .map(line -> line.depth() + " " + line.table() + " " + line.rows() + " " + line.fate())
        .toList()
        .toString();
  }

  @Test
  void theRowThatDoesMostIsSupposedUntilOneIsChosen() {
    Told worst = of("course");
    assertThat(worst.any()).isTrue();
    assertThat(steps(worst)).isEqualTo("[0 Course 1 GONE, 1 Session 6 GONE, 2 Enrolment 48 GONE]");
    Row other =
        worst.rows().stream().filter(row -> row.label().contains("Raku")).findFirst().orElseThrow();
    model.add(other);
    Told chosen = told();
    assertThat(chosen.any()).isFalse();
    assertThat(chosen.what()).contains("Raku");
    assertThat(chosen.chain().outcome().count()).isLessThan(worst.chain().outcome().count());
    model.add(worst.rows().getFirst());
    assertThat(told().suppose().cardinality()).isEqualTo(2);
    assertThat(model.chosen()).hasSize(2);
    model.remove(other.id());
    model.remove(worst.rows().getFirst().id());
    assertThat(told().any()).isTrue();
  }

  @Test
  void aDeleteIsShownFirstAndTakenBackWhole() {
    Told course = of("course");
    int enrolments = rows("enrolment");
    model.delete(course.deletion().orElseThrow());
    test.untilProposed();
    assertThat(rows("enrolment")).isEqualTo(enrolments);
    test.bench.accept();
    assertThat(rows("enrolment")).isEqualTo(enrolments - 48);
    assertThat(rows("session")).isPositive();
    test.untilChecked();
    assertThat(test.bench.verdict().audit().violations()).isEmpty();
    test.bench.undo();
    assertThat(rows("enrolment")).isEqualTo(enrolments);
  }

  @Test
  void whatRefusesCanBeHandedOver() {
    Told member = of("member");
    assertThat(member.chain().outcome().verdict()).isEqualTo(Outcome.Verdict.REFUSED);
    assertThat(member.deletion()).isEmpty();
    Instead.To firings =
        member.instead().stream()
            .filter(Instead.To.class::isInstance)
            .map(Instead.To.class::cast)
            .filter(to -> to.over().name().equals("fk_firing_loaded_by"))
            .findFirst()
            .orElseThrow();
    assertThat(firings.words()).contains("firings (Loaded by) over to another member");
    List<Row> takers = model.takers(member).of("").stream().map(offer -> offer.thing()).toList();
    assertThat(takers).hasSize(rows("member") - 1);
    model.hand(firings, takers.getLast());
    test.untilProposed();
    test.bench.accept();
    Told after = told();
    assertThat(after.draft().design()).isEqualTo(member.draft().design());
    test.untilChecked();
    assertThat(test.bench.verdict().audit().violations())
        .noneMatch(v -> v.kind() == joiner.audit.Violation.Kind.ORPHAN);
    assertThat(rows("firing")).isEqualTo(member.draft().rows().of(new TableId("firing")).count());
  }

  @Test
  void whatADeleteDoesIsChangedHereAndTheAnswerFollows() {
    Told before = of("piece");
    assertThat(steps(before)).contains("Piece glaze 3 GONE");
    Relationship by = IfDeletedModel.deciding(before).getFirst();
    model.act(by, ReferentialAction.NO_ACTION);
    Told after = told();
    assertThat(after.lines())
        .filteredOn(line -> line.table().equals("Piece glaze"))
        .allMatch(line -> line.fate() == Fate.REFUSE);
    assertThat(after.instead())
        .anyMatch(way -> way.words().startsWith("Delete 3 piece glazes first"));
    test.bench.undo();
    assertThat(steps(told())).isEqualTo(steps(before));
  }

  @Test
  void rowsThatAreGoneAreNoLongerChosen() {
    Told course = of("course");
    model.add(course.rows().getFirst());
    Told one = told();
    model.delete(one.deletion().orElseThrow());
    test.untilProposed();
    test.bench.accept();
    assertThat(told().any()).isTrue();
    assertThat(model.chosen()).isEmpty();
  }

  @Test
  void lookupsWithAMarkCanBeRetiredInstead() {
    Told plan = of("membership_plan");
    assertThat(plan.instead()).isNotEmpty();
    boolean marked =
        test.table("membership_plan").kind() instanceof joiner.model.TableKind.Lookup lookup
            && lookup.retired().isPresent();
    assertThat(plan.instead().stream().anyMatch(way -> way.words().startsWith("Retire it")))
        .isEqualTo(marked);
  }

  @Test
  void aDatabaseIsAskedAndNothingOfferedThatWouldChangeIt() throws Exception {
    Told own = of("course");
    model.from(LivePottery.in(folder));
    assertThat(model.told()).as("what was of other rows is not shown").isEmpty();
    Told live = told();
    assertThat(steps(live)).isEqualTo(steps(own));
    assertThat(live.part()).isFalse();
    assertThat(live.deletion()).isEmpty();
    assertThat(live.instead()).isEmpty();
    Row other =
        live.rows().stream().filter(row -> row.label().contains("Raku")).findFirst().orElseThrow();
    model.add(other);
    assertThat(told().what()).contains("Raku");
    model.where("title LIKE 'Raku%'");
    Told found = told();
    assertThat(found.rows()).hasSize(1);
    assertThat(found.what()).contains("Raku");
    model.where("titel = ''");
    test.window.until(
        () -> model.toldProperty().get() instanceof joiner.desktop.work.Answer.Failed);
    of("member");
    assertThat(model.where()).as("it was on fields of courses").isEmpty();
    of("course");
    model.from(LivePottery.in(folder));
    model.where("title LIKE 'Raku%'");
    told();
    test.bench.open(OpenDesign.of(Pottery.demo()));
    of("course");
    assertThat(model.rowsOf()).as("that was of another design").isEqualTo(RowsOf.SAMPLES);
    assertThat(model.where()).isEmpty();
    model.from(LivePottery.missing(folder));
    test.window.until(
        () -> model.toldProperty().get() instanceof joiner.desktop.work.Answer.Failed);
    assertThat(model.told()).isEmpty();
    model.from(RowsOf.SAMPLES);
    assertThat(steps(told())).isEqualTo(steps(own));
  }
}
