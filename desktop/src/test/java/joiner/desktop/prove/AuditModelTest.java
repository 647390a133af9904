package joiner.desktop.prove;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.audit.Violation;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.TestBench;
import joiner.desktop.work.Verdict;
import joiner.edit.ChangeRows;
import joiner.edit.RemoveField;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.KnownFact;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Prove without a window: what the rows break, and which of it is looked at. */
class AuditModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private AuditModel model;

  private void open(Draft draft) {
    test = new TestBench(draft, folder);
    model = new AuditModel(test.bench, Texts.beside(ProveView.class));
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private void type(String table, int row, String field, String text) {
    Table t = test.table(table);
    test.bench.apply(
        ChangeRows.cell(
            t,
            test.bench.draft().rows().of(t.id()),
            row,
            t.field(new FieldId(field)),
            Optional.of(text).filter(typed -> !typed.isEmpty())));
  }

  private AuditModel.Shown.Lines lines() {
    test.untilChecked();
    return (AuditModel.Shown.Lines) model.shown();
  }

  @Test
  void beforeTheFirstAuditNothingIsClaimed() {
    open(Pottery.demo());
    assertThat(model.shown()).isInstanceOf(AuditModel.Shown.Looking.class);
    test.untilChecked();
    assertThat(model.shown()).isInstanceOf(AuditModel.Shown.Clean.class);
  }

  @Test
  void withoutRowsThereIsNothingToPraise() {
    Design design = Pottery.demo().design();
    open(new Draft(design, SampleRows.NONE));
    test.untilChecked();
    assertThat(model.shown()).isInstanceOf(AuditModel.Shown.NoRows.class);
  }

  @Test
  void everyViolationIsALineWithItsRows() {
    open(Pottery.demo());
    type("kiln", 1, "name", "");
    type("firing", 0, "kiln_id", "99");
    AuditModel.Shown.Lines shown = lines();
    assertThat(shown.lines())
        .extracting(line -> line.kind().orElseThrow())
        .containsExactlyInAnyOrder(Violation.Kind.MISSING_REQUIRED, Violation.Kind.ORPHAN);
    assertThat(shown.state()).isEqualTo(Verdict.State.CURRENT);
    assertThat(shown.clean()).isEqualTo(test.bench.verdict().audit().tables().size() - 2);
    assertThat(shown.chosen()).isEqualTo(shown.lines().getFirst());
    assertThat(shown.chosen().rows()).isNotEmpty();
  }

  @Test
  void theLineLookedAtStaysSoWhenOthersComeBeforeIt() {
    open(Pottery.demo());
    type("firing", 0, "kiln_id", "99");
    AuditModel.Line orphan = lines().lines().getFirst();
    model.choose(orphan);
    assertThat(test.bench.selectionProperty().get())
        .isEqualTo(Selection.of(new TableId("firing"), new FieldId("kiln_id")));
    type("cone", 0, "cone_no", "");
    type("firing", 1, "kiln_id", "98");
    AuditModel.Shown.Lines shown = lines();
    assertThat(shown.lines().size()).isGreaterThan(1);
    assertThat(shown.chosen().table()).isEqualTo(new TableId("firing"));
    assertThat(shown.chosen().rows()).isEqualTo(List.of(1, 2));
  }

  @Test
  void theFirstLineLookedAtIsOfTheChosenTable() {
    open(Pottery.demo());
    type("cone", 0, "cone_no", "");
    type("firing", 0, "kiln_id", "99");
    test.choose("firing");
    assertThat(lines().chosen().table()).isEqualTo(new TableId("firing"));
  }

  @Test
  void linesOfWhatIsGoneAreNotShownWhileTheNewAuditIsUnderway() {
    open(Pottery.demo());
    type("firing", 0, "peak_c", "9999");
    AuditModel.Line line = lines().lines().getFirst();
    test.bench.apply(new RemoveField(new TableId("firing"), new FieldId("peak_c"), "Peak"));
    assertThat(model.isThere(line)).isFalse();
    assertThat(model.shown()).isInstanceOf(AuditModel.Shown.Looking.class);
  }

  @Test
  void rowsThatCannotBeReadAreALineOfTheirOwn() {
    Draft demo = Pottery.demo();
    Table kiln = demo.design().table(new TableId("kiln"));
    LinkedRows gone =
        new LinkedRows(
            folder.resolve("gone.csv").toString(), ",", "UTF-8", 1, List.of(), Optional.empty(), 9);
    open(demo.withRows(demo.rows().withLink(kiln.id(), gone)));
    AuditModel.Line line = lines().lines().getFirst();
    assertThat(line.isUnread()).isTrue();
    assertThat(line.message()).contains("gone.csv: there is no such file");
    assertThat(lines().lines()).as("no reference is said to lead nowhere").hasSize(1);
  }

  @Test
  void whatIsSaidAgainIsALineAndItsSplitIsShownFirst() {
    open(Pottery.demo());
    model.look(true);
    test.untilChecked();
    test.window.until(
        () -> model.shown() instanceof AuditModel.Shown.Lines && model.saidAgain().isLooked());
    AuditModel.Line line = lines().lines().getFirst();
    assertThat(line.message())
        .isEqualTo("Course decides Minutes: it is said again in every session.");
    SaidAgain.Told told = line.anomaly().orElseThrow();
    assertThat(told.who()).as("people read names").isEqualTo("Raku weekend");
    model.saidAgain().split(told.anomaly());
    test.untilProposed();
    assertThat(test.table("course").fieldNamed("minutes")).isEmpty();
    test.bench.accept();
    assertThat(test.table("course").fieldNamed("minutes")).isPresent();
    assertThat(model.saidAgain().isLooked()).as("of the rows before").isFalse();
    test.untilChecked();
    model.shown();
    test.window.until(model.saidAgain()::isLooked);
    assertThat(model.shown()).isInstanceOf(AuditModel.Shown.Clean.class);
    test.bench.undo();
    assertThat(test.table("session").fieldNamed("minutes")).isPresent();
  }

  private AuditModel.Shown.Lines looked() {
    test.untilChecked();
    model.shown();
    test.window.until(model.saidAgain()::isLooked);
    return lines();
  }

  @Test
  void whatSomebodyKnowsIsKeptAndRowsThatDisagreeAreSettled() {
    open(Pottery.demo());
    model.look(true);
    TableId session = new TableId("session");
    AuditModel.Line shown = looked().lines().getFirst();
    var minutes = shown.anomaly().orElseThrow().anomaly().fact();
    model.saidAgain().know(session, minutes);
    assertThat(test.table("session").facts()).containsExactly(minutes);
    AuditModel.Line known = looked().lines().getFirst();
    assertThat(known.anomaly().orElseThrow().anomaly().isKnown()).isTrue();
    type("session", 0, "minutes", "95");
    AuditModel.Line disputed = looked().lines().getFirst();
    SaidAgain.Told told = disputed.anomaly().orElseThrow();
    assertThat(disputed.message())
        .isEqualTo("Course decides Minutes, as somebody said, but 6 rows disagree.");
    assertThat(disputed.rows()).contains(1).hasSize(6);
    SaidAgain.Dispute dispute = told.disputes().getFirst();
    assertThat(dispute.who()).as("people read names").isEqualTo("Throwing on the wheel");
    assertThat(dispute.said()).containsExactly("120", "95");
    assertThat(told.byMost()).isEqualTo(1);
    assertThat(dispute.of().others(dispute.of().said().getLast())).isEqualTo(5);
    assertThat(told.further()).isZero();
    model.saidAgain().settleByMost(told);
    assertThat(looked().lines().getFirst().anomaly().orElseThrow().disputes()).isEmpty();
    assertThat(test.bench.draft().rows().of(session).cell(0, new FieldId("minutes")))
        .contains("120");
    test.bench.undo();
    assertThat(looked().lines().getFirst().anomaly().orElseThrow().disputes()).hasSize(1);
    model.saidAgain().forget(session, minutes);
    assertThat(test.table("session").facts()).isEmpty();
  }

  @Test
  void whatIsNotSoIsSaidNoMore() {
    open(Pottery.demo());
    model.look(true);
    TableId session = new TableId("session");
    var fact = looked().lines().getFirst().anomaly().orElseThrow().anomaly().fact();
    model.saidAgain().know(session, new KnownFact(fact.determinant(), fact.dependents(), false));
    test.untilChecked();
    model.shown();
    test.window.until(model.saidAgain()::isLooked);
    assertThat(model.shown()).isInstanceOf(AuditModel.Shown.Clean.class);
  }

  @Test
  void aFactOfATableWithoutRowsIsALineWithoutRows() {
    Draft demo = Pottery.demo();
    open(new Draft(demo.design(), SampleRows.NONE));
    model.look(true);
    var fact =
        new KnownFact(List.of(new FieldId("course_code")), List.of(new FieldId("minutes")), true);
    model.saidAgain().know(new TableId("session"), fact);
    AuditModel.Line line = looked().lines().getFirst();
    assertThat(line.rows()).isEmpty();
    assertThat(line.isUnread()).isFalse();
  }

  @Test
  void rowsArePutRightAllAlikeOrOneByOne() {
    open(Pottery.demo());
    model.look(true);
    type("firing", 0, "kiln_id", "98");
    type("firing", 1, "kiln_id", "99");
    Violation orphans = lines().lines().getFirst().violation().orElseThrow();
    model.seek(orphans);
    test.window.until(() -> model.ways(orphans).isPresent());
    assertThat(model.ways(orphans).orElseThrow().elsewhere().orElseThrow().rows()).hasSize(2);
    model.only(Optional.of(2));
    assertThat(model.ways(orphans)).as("of both rows").isEmpty();
    model.seek(orphans);
    test.window.until(() -> model.ways(orphans).isPresent());
    assertThat(model.ways(orphans).orElseThrow().elsewhere().orElseThrow().rows()).hasSize(1);
    model.only(Optional.of(48));
    assertThat(model.rows(orphans)).as("not one of them").isEqualTo(orphans.rows());
  }

  @Test
  void whatRowsReferToIsCounted() {
    open(Pottery.demo());
    model.look(true);
    type("firing", 0, "kiln_id", "98");
    TableId firing = new TableId("firing");
    test.window.until(() -> !model.above(firing).isEmpty());
    AuditModel.Up kiln = model.above(firing).getFirst();
    assertThat(kiln.over().parent()).isEqualTo(new TableId("kiln"));
    assertThat(kiln.found()).isEqualTo(kiln.referring() - 1);
    assertThat(model.above(firing).stream().skip(1))
        .allSatisfy(up -> assertThat(up.found()).isEqualTo(up.referring()));
  }
}
