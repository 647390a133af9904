package joiner.desktop.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.edit.ChangeField;
import joiner.edit.ChangeRows;
import joiner.edit.ChangeTitle;
import joiner.edit.FromManyToMany;
import joiner.edit.RemoveTable;
import joiner.format.DesignFolder;
import joiner.format.Places;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Limits;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The open design without a window: what is checked, saved, kept, refused and taken back. */
class WorkbenchTest {
  private static final TableId KILN = new TableId("kiln");

  @TempDir private Path folder;
  private final TestWindow window = new TestWindow();
  private final Runner runner = new Runner(window);
  private Recovery recovery;
  private Path design;

  @BeforeEach
  void copyTheDemo() throws Exception {
    recovery = new Recovery(folder.resolve("recovery"));
    design = folder.resolve("design");
    DesignFolder.save(Pottery.demo(), design);
  }

  /** What is still being written would come back into a folder that is being deleted. */
  @AfterEach
  void everythingIsWritten() {
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
  }

  private Workbench bench(OpenDesign opened) {
    return new Workbench(opened, runner, recovery, Pottery.CLOCK);
  }

  private Workbench saved() throws Exception {
    return bench(OpenDesign.in(design));
  }

  private static void rename(Workbench bench, String name) {
    Table kiln = bench.design().table(KILN);
    bench.apply(
        ChangeRows.cell(
            kiln,
            bench.draft().rows().of(KILN),
            0,
            kiln.field(new FieldId("name")),
            Optional.of(name)));
  }

  private static String firstKiln(Draft draft) {
    return draft.rows().of(KILN).cell(0, new FieldId("name")).orElse("");
  }

  private void untilSaved(Workbench bench) {
    window.until(() -> bench.keeper().stateProperty().get() == SaveState.SAVED);
  }

  @Test
  void anEditMakesTheOldVerdictOldAtOnce() throws Exception {
    Workbench bench = saved();
    window.until(() -> bench.verdict().isCurrent());
    Table kiln = bench.design().table(KILN);
    Field name = kiln.field(new FieldId("name"));
    bench.apply(ChangeField.limits(kiln, name, Limits.NONE.withPattern(Optional.of("x+"))));
    assertThat(bench.verdict().state()).isEqualTo(Verdict.State.CHECKING);
    window.until(() -> bench.verdict().isCurrent());
    assertThat(bench.verdict().audit().total()).isPositive();
    bench.undo();
    assertThat(bench.verdict().state()).isEqualTo(Verdict.State.CHECKING);
    window.until(() -> bench.verdict().isCurrent());
    assertThat(bench.verdict().audit().total()).isZero();
  }

  @Test
  void everyEditIsSavedInTheFolder() throws Exception {
    Workbench bench = saved();
    assertThat(bench.keeper().stateProperty().get()).isEqualTo(SaveState.SAVED);
    rename(bench, "Small Ann");
    assertThat(bench.keeper().stateProperty().get()).isEqualTo(SaveState.SAVING);
    untilSaved(bench);
    assertThat(firstKiln(DesignFolder.open(design).draft())).isEqualTo("Small Ann");
    assertThat(bench.keeper().wouldLose()).isFalse();
  }

  @Test
  void whatWasDoneCanBeTakenBackAfterOpeningAgain() throws Exception {
    Workbench bench = saved();
    rename(bench, "Small Ann");
    bench.apply(new RemoveTable(new TableId("locker"), "Locker"));
    untilSaved(bench);
    bench.leave();
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
    Workbench again = saved();
    assertThat(again.historyProperty().get().undoName()).contains("remove the table Locker");
    again.undo();
    assertThat(again.design().find(new TableId("locker"))).isPresent();
    again.undo();
    assertThat(again.draft()).isEqualTo(Pottery.demo());
    untilSaved(again);
    Workbench third = saved();
    assertThat(third.historyProperty().get().undoName()).isEmpty();
    third.redo();
    assertThat(firstKiln(third.draft())).isEqualTo("Small Ann");
    untilSaved(third);
  }

  @Test
  void whatIsForgottenCannotBeTakenBackAndStandsNowhere() throws Exception {
    Workbench bench = saved();
    rename(bench, "Unspeakable");
    rename(bench, "Small Ann");
    untilSaved(bench);
    assertThat(kept()).contains("Unspeakable");
    bench.forgetSteps();
    untilSaved(bench);
    assertThat(bench.historyProperty().get().undoName()).isEmpty();
    assertThat(kept()).doesNotContain("Unspeakable");
    assertThat(firstKiln(saved().draft())).isEqualTo("Small Ann");
    assertThat(saved().historyProperty().get().undoName()).isEmpty();
  }

  /** Everything that is kept of histories. */
  private static String kept() throws Exception {
    var all = new StringBuilder();
    try (Stream<Path> files = Files.walk(Places.log().resolveSibling("history"))) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        all.append(Files.readString(file));
      }
    }
    return all.toString();
  }

  @Test
  void whatSomebodyElseChangedEndsTheHistory() throws Exception {
    Workbench bench = saved();
    rename(bench, "Small Ann");
    untilSaved(bench);
    DesignFolder.save(Pottery.demo(), design);
    assertThat(saved().historyProperty().get().undoName()).isEmpty();
  }

  @Test
  void aDesignWithoutAFolderIsKeptAndOfferedAfterAKill() throws Exception {
    Workbench bench = bench(OpenDesign.of(Pottery.demo()));
    assertThat(bench.keeper().wouldLose()).isFalse();
    rename(bench, "Small Ann");
    assertThat(bench.keeper().wouldLose()).as("also while it is being kept").isTrue();
    window.until(() -> bench.keeper().stateProperty().get() == SaveState.KEPT);
    assertThat(bench.keeper().wouldLose()).isTrue();
    assertThat(recovery.kept()).as("its own window still works on it").isEmpty();
    bench.leave(); // As the system does for a process that is killed.
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
    assertThat(recovery.kept())
        .singleElement()
        .satisfies(
            kept -> {
              assertThat(kept.tables()).isEqualTo(16);
              Draft draft = DesignFolder.open(kept.folder()).draft();
              assertThat(firstKiln(draft)).isEqualTo("Small Ann");
            });
  }

  @Test
  void savingADesignInAFolderEndsItsRecovery() throws Exception {
    Workbench bench = bench(OpenDesign.of(Pottery.demo()));
    rename(bench, "Small Ann");
    window.until(() -> bench.keeper().stateProperty().get() == SaveState.KEPT);
    Path home = folder.resolve("home");
    bench.saveIn(home);
    untilSaved(bench);
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
    assertThat(firstKiln(DesignFolder.open(home).draft())).isEqualTo("Small Ann");
    assertThat(recovery.kept()).isEmpty();
    assertThat(bench.keeper().folder()).contains(home);
  }

  @Test
  void throwingAnUnsavedDesignAwayLeavesNothing() throws Exception {
    Workbench bench = bench(OpenDesign.of(Pottery.demo()));
    rename(bench, "Small Ann");
    window.until(() -> bench.keeper().stateProperty().get() == SaveState.KEPT);
    bench.discard();
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
    assertThat(recovery.kept()).isEmpty();
    assertThat(bench.keeper().wouldLose()).isFalse();
  }

  @Test
  void aSaveOfTheDesignBeforeIsNotLostWhenAnotherIsOpened() throws Exception {
    Workbench bench = saved();
    rename(bench, "Small Ann");
    bench.open(OpenDesign.of(Pottery.broken()));
    rename(bench, "Other");
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
    assertThat(firstKiln(DesignFolder.open(design).draft())).isEqualTo("Small Ann");
  }

  private void changeOutside() throws Exception {
    Path kilns = design.resolve("data/kiln.csv");
    String text = Files.readString(kilns);
    Files.writeString(kilns, text.replace(firstKiln(Pottery.demo()), "Theirs"));
  }

  private Workbench inConflict() throws Exception {
    Workbench bench = saved();
    changeOutside();
    rename(bench, "Ours");
    window.until(() -> bench.keeper().conflictProperty().get().isPresent());
    assertThat(bench.keeper().stateProperty().get()).isEqualTo(SaveState.CONFLICT);
    assertThat(bench.keeper().wouldLose()).isTrue();
    assertThat(firstKiln(DesignFolder.open(design).draft())).isEqualTo("Theirs");
    return bench;
  }

  @Test
  void aConflictTellsWhatDiffersAndKeepsWritingNothing() throws Exception {
    Workbench bench = inConflict();
    Conflict conflict = bench.keeper().conflictProperty().get().orElseThrow();
    assertThat(conflict.files()).containsExactly("data/kiln.csv");
    assertThat(conflict.differences()).containsExactly("Kiln: 1 cell holds another value.");
    rename(bench, "Ours again");
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
    assertThat(firstKiln(DesignFolder.open(design).draft())).isEqualTo("Theirs");
  }

  @Test
  void takingTheirsKeepsOursOneStepBack() throws Exception {
    Workbench bench = inConflict();
    bench.takeTheirs("take theirs");
    untilSaved(bench);
    assertThat(firstKiln(bench.draft())).isEqualTo("Theirs");
    assertThat(bench.historyProperty().get().undoName()).contains("take theirs");
    bench.undo();
    assertThat(firstKiln(bench.draft())).isEqualTo("Ours");
    untilSaved(bench);
    assertThat(firstKiln(DesignFolder.open(design).draft())).isEqualTo("Ours");
  }

  @Test
  void keepingOursWritesItInTheirPlace() throws Exception {
    Workbench bench = inConflict();
    rename(bench, "Ours again");
    bench.keepOurs();
    untilSaved(bench);
    assertThat(firstKiln(DesignFolder.open(design).draft())).isEqualTo("Ours again");
    assertThat(bench.keeper().conflictProperty().get()).isEmpty();
  }

  @Test
  void keepingBothGoesOnBesideTheirs() throws Exception {
    Workbench bench = inConflict();
    bench.keepBoth();
    untilSaved(bench);
    assertThat(firstKiln(DesignFolder.open(design).draft())).isEqualTo("Theirs");
    Path mine = bench.keeper().folder().orElseThrow();
    assertThat(mine).isNotEqualTo(design);
    assertThat(firstKiln(DesignFolder.open(mine).draft())).isEqualTo("Ours");
  }

  @Test
  void lookingFindsWhatOthersChangedBeforeAnythingIsEdited() throws Exception {
    Workbench bench = saved();
    bench.lookForChanges();
    assertThat(runner.finish(Lane.SAVING, 20_000)).isTrue();
    changeOutside();
    bench.lookForChanges();
    window.until(() -> bench.keeper().conflictProperty().get().isPresent());
  }

  @Test
  void aFailedSaveIsToldAndTheDesignStaysOpen() throws Exception {
    Workbench bench = saved();
    Path file = Files.writeString(folder.resolve("file"), "in the way");
    bench.saveIn(file.resolve("below"));
    window.until(() -> bench.keeper().stateProperty().get() == SaveState.FAILED);
    assertThat(bench.notices().newest().orElseThrow().text())
        .contains("could not be saved", "Ctrl+S");
    assertThat(bench.keeper().wouldLose()).isTrue();
    bench.saveIn(folder.resolve("elsewhere"));
    untilSaved(bench);
  }

  @Test
  void aRefusedChangeIsToldUntilAChangeSucceeds() throws Exception {
    Workbench bench = saved();
    Draft before = bench.draft();
    boolean made =
        bench.apply(
            () ->
                new FromManyToMany(
                    new TableId("piece_glaze"),
                    new RelationshipId("fk_piece_glaze_piece_id"),
                    "x"));
    assertThat(made).isFalse();
    assertThat(bench.draft()).isSameAs(before);
    assertThat(bench.notices().newest().orElseThrow().sort()).isEqualTo(Notice.Sort.REFUSED);
    bench.apply(new ChangeTitle("Rye Pottery"));
    assertThat(bench.notices().shown()).isEmpty();
    assertThat(bench.notices().all()).hasSize(1);
    assertThat(bench.design().title()).isEqualTo("Rye Pottery");
    assertThat(bench.design().name()).isEqualTo("rye-pottery");
  }

  @Test
  void theUndoOfANoticeTakesBackOnlyWhatItSpeaksOf() throws Exception {
    Workbench bench = saved();
    rename(bench, "Small Ann");
    bench.tellDone("The kiln is renamed.", "Undo");
    Notice done = bench.notices().newest().orElseThrow();
    rename(bench, "Big Bo");
    done.answers().getFirst().action().run();
    assertThat(firstKiln(bench.draft())).isEqualTo("Big Bo");
    bench.undo();
    bench.tellDone("The kiln is renamed.", "Undo");
    bench.notices().newest().orElseThrow().answers().getFirst().action().run();
    assertThat(firstKiln(bench.draft())).isEqualTo(firstKiln(Pottery.demo()));
  }

  @Test
  void aFolderThatIsNotThereStartsANewDesign() throws Exception {
    Path fresh = folder.resolve("rye pottery");
    Workbench bench = bench(OpenDesign.in(fresh));
    assertThat(bench.design().title()).isEqualTo("Rye pottery");
    assertThat(fresh).doesNotExist();
    bench.apply(new ChangeTitle("Rye"));
    untilSaved(bench);
    assertThat(DesignFolder.open(fresh).draft().design().title()).isEqualTo("Rye");
  }

  @Test
  void aSecondWindowIsTold() throws Exception {
    Workbench first = saved();
    assertThat(first.notices().shown()).isEmpty();
    OpenDesign second = OpenDesign.in(design);
    assertThat(second.notices()).singleElement().asString().contains("open elsewhere too");
  }
}
