package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import joiner.desktop.work.Notice;
import joiner.desktop.work.SaveState;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Verdict;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.MoveToArea;
import joiner.edit.SplitOff;
import joiner.expression.Formula;
import joiner.model.FieldId;
import joiner.model.Noun;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** What the window shows is true of the design as it stands, and nothing typed is lost. */
class TrueWindowTest extends OpenedWindow {
  @Start
  void start(javafx.stage.Stage stage) throws Exception {
    open(stage);
  }

  @Test
  void proveNeverSaysThatAllIsWellWhileItStillChecks(FxRobot robot) throws Exception {
    robot.interact(
        () ->
            bench.apply(
                new SplitOff(
                    new TableId("session"),
                    List.of(new FieldId("course_code")),
                    List.of(new FieldId("minutes")),
                    "Course"))); // Sessions would say it again and again.
    show(robot, Stage.PROVE, "kiln");
    until(() -> says(robot, "Every row keeps the design"));
    robot.interact(
        () -> {
          Table kiln = bench.design().table(new TableId("kiln"));
          bench.apply(ChangeField.required(kiln, field("kiln", "fallback_id"), true));
          assertThat(bench.verdict().state()).isEqualTo(Verdict.State.CHECKING);
          assertThat(says(robot, "Every row keeps the design")).isFalse();
          assertThat(says(robot, "Nothing to fix")).isFalse();
          assertThat(says(robot, "hecking")).isTrue();
        });
    until(() -> bench.verdict().isCurrent());
    assertThat(says(robot, "Every row keeps the design")).isFalse();
  }

  @Test
  void aVerdictThatArrivesChoosesNothing(FxRobot robot) throws Exception {
    show(robot, Stage.PROVE, "kiln");
    robot.interact(
        () -> {
          Table piece = bench.design().table(new TableId("piece"));
          bench.apply(ChangeField.required(piece, field("piece", "firing_id"), true));
        });
    until(() -> bench.verdict().isCurrent());
    node(robot, "violations", ListView.class);
    assertThat(bench.selectionProperty().get()).isEqualTo(Selection.of(new TableId("kiln")));
  }

  @Test
  void shipOffersNothingWhileTheScriptIsOfAnEarlierDesign(FxRobot robot) throws Exception {
    show(robot, Stage.SHIP, "kiln");
    node(robot, "ship", Button.class);
    until(() -> !robot.lookup("#ship").queryAs(Button.class).isDisabled());
    robot.interact(
        () -> {
          Table kiln = bench.design().table(new TableId("kiln"));
          bench.apply(ChangeTable.rename(kiln, "oven", "Oven", new Noun("oven", "ovens")));
          assertThat(robot.lookup("#ship").queryAs(Button.class).isDisabled()).isTrue();
          assertThat(says(robot, "writing the script")).isTrue();
        });
    until(() -> !robot.lookup("#ship").queryAs(Button.class).isDisabled());
    var sql = robot.lookup("#script").queryAs(org.fxmisc.richtext.CodeArea.class);
    assertThat(sql.getText()).contains("CREATE TABLE oven").doesNotContain("CREATE TABLE kiln");
  }

  @Test
  void rowsThatBreakTheDesignCloseTheGateUnlessTheyStayHere(FxRobot robot) throws Exception {
    robot.interact(
        () -> {
          Table kiln = bench.design().table(new TableId("kiln"));
          bench.apply(
              ChangeField.limits(
                  kiln,
                  field("kiln", "name"),
                  joiner.model.Limits.NONE.withPattern(Optional.of("x+"))));
        });
    show(robot, Stage.SHIP, "kiln");
    until(() -> bench.verdict().isCurrent() && says(robot, "Rows break one constraint"));
    assertThat(node(robot, "ship", Button.class).isDisabled()).isTrue();
  }

  @Test
  void whatIsTypedInTheSheetStaysWhenAVerdictArrives(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "kiln");
    until(() -> robot.lookup("#table-label").tryQuery().isPresent());
    TextField label =
        robot.lookup(".side-sheet .text-field").<TextField>queryAllAs(TextField.class).stream()
            .filter(f -> f.getText().equals("Kiln"))
            .findFirst()
            .orElseThrow();
    robot.interact(
        () -> {
          label.requestFocus();
          label.setText("Big ov");
          Table piece = bench.design().table(new TableId("piece"));
          bench.apply(ChangeField.required(piece, field("piece", "firing_id"), true));
        });
    until(() -> bench.verdict().isCurrent());
    assertThat(label.getScene()).as("the field is still there").isNotNull();
    assertThat(label.getText()).isEqualTo("Big ov");
    robot.interact(() -> label.setText("Big oven"));
    robot.type(KeyCode.ENTER);
    until(() -> bench.design().table(new TableId("kiln")).name().equals("big_oven"));
    assertThat(bench.design().table(new TableId("kiln")).noun().plural()).isEqualTo("big ovens");
  }

  @Test
  void tabLeavesTheConditionOfARuleAndTheMessageKeepsTheFocus(FxRobot robot) throws Exception {
    show(robot, Stage.GUARD, "kiln");
    robot.interact(node(robot, "new-rule", Button.class)::fire);
    until(() -> scene.getFocusOwner() instanceof TextArea);
    TextArea condition = (TextArea) scene.getFocusOwner();
    robot.interact(
        () -> {
          condition.requestFocus();
          condition.setText("litres > 10");
        });
    robot.type(KeyCode.TAB);
    until(() -> scene.getFocusOwner() instanceof TextField);
    until(
        () ->
            !bench
                .design()
                .table(new TableId("kiln"))
                .rules()
                .getLast()
                .condition()
                .orElseThrow()
                .isBlank());
    until(() -> bench.verdict().isCurrent());
    TextField message = (TextField) scene.getFocusOwner();
    assertThat(message.getAccessibleText()).isEqualTo("Message when it is broken");
    assertThat(condition.getText()).as("no tab in it").isEqualTo("litres > 10");
    robot.interact(() -> message.setText("A kiln is larger"));
    robot.interact(scene.getRoot()::requestFocus);
    until(
        () ->
            bench
                .design()
                .table(new TableId("kiln"))
                .rules()
                .getLast()
                .message()
                .equals("A kiln is larger"));
  }

  /** Whoever tabs on sees what was written meanwhile, and gives nothing older back. */
  @Test
  void aFormIsFilledInByKeyboardAndItsConditionStandsBesideIt(FxRobot robot) throws Exception {
    show(robot, Stage.GUARD, "firing");
    robot.interact(node(robot, "rule-sorts", Button.class)::fire);
    until(() -> robot.lookup("#picker-text").tryQuery().isPresent());
    robot.write("range");
    robot.type(KeyCode.ENTER);
    until(() -> focusedId().equals("part-slot-0"));
    robot.type(KeyCode.SPACE);
    until(() -> robot.lookup("#picker-text").tryQuery().isPresent());
    robot.write("peak");
    robot.type(KeyCode.ENTER);
    until(() -> focusedId().equals("part-slot-0"));
    robot.type(KeyCode.TAB).write("600").type(KeyCode.TAB).write("1300");
    robot.type(KeyCode.TAB);
    until(() -> scene.getFocusOwner() instanceof TextArea);
    TextArea condition = (TextArea) scene.getFocusOwner();
    until(() -> condition.getText().equals("peak_c BETWEEN 600 AND 1300"));
    robot.type(KeyCode.TAB);
    until(() -> scene.getFocusOwner() instanceof TextField);
    Rule rule = bench.design().table(new TableId("firing")).rules().getLast();
    assertThat(rule.condition()).contains(new Formula("peak_c BETWEEN 600 AND 1300"));
    assertThat(rule.label()).isEqualTo("Peak lies between 600 and 1300");
  }

  private String focusedId() {
    return scene.getFocusOwner() == null || scene.getFocusOwner().getId() == null
        ? ""
        : scene.getFocusOwner().getId();
  }

  @Test
  void aConditionIsCompletedWithoutTakingAKeyFromWhoeverTypesOn(FxRobot robot) throws Exception {
    show(robot, Stage.GUARD, "kiln");
    robot.interact(node(robot, "new-rule", Button.class)::fire);
    until(() -> scene.getFocusOwner() instanceof TextArea);
    TextArea condition = (TextArea) scene.getFocusOwner();
    robot.write("hot");
    until(() -> robot.lookup("#completions").tryQuery().isPresent());
    robot.type(KeyCode.DOWN).type(KeyCode.ENTER);
    until(() -> condition.getText().equals("hottest_c"));
    until(() -> robot.lookup("#completions").tryQuery().isEmpty());
    robot.write(" > 1000 AND fuel = ").press(KeyCode.CONTROL).type(KeyCode.SPACE);
    robot.release(KeyCode.CONTROL);
    until(() -> robot.lookup("#completions").tryQuery().isPresent());
    robot.type(KeyCode.ENTER);
    until(() -> condition.getText().endsWith("'electric'"));
    robot.write(" OR lit");
    until(() -> robot.lookup("#completions").tryQuery().isPresent());
    robot.type(KeyCode.ENTER); // Nothing was gone to in the list: Enter leaves, as ever.
    until(() -> scene.getFocusOwner() instanceof TextField);
    assertThat(condition.getText()).endsWith(" OR lit");
    until(() -> robot.lookup("#completions").tryQuery().isEmpty());
  }

  @Test
  void movingThroughTheTypesChangesNothingUntilOneIsPicked(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "kiln");
    stand(robot, "field-grid", 1);
    robot.type(KeyCode.RIGHT).type(KeyCode.F2);
    var before = bench.design();
    until(() -> robot.lookup("#picker-text").tryQuery().isPresent());
    robot.type(KeyCode.DOWN).type(KeyCode.DOWN).type(KeyCode.DOWN);
    WaitForAsyncUtils.waitForFxEvents();
    assertThat(bench.design()).isSameAs(before);
    robot.type(KeyCode.ESCAPE);
    until(() -> robot.lookup("#picker-text").tryQuery().isEmpty());
    assertThat(bench.design()).isSameAs(before);
  }

  @Test
  void leavingAnUnsavedDesignAsksAndEscapeStays(FxRobot robot) throws Exception {
    robot.interact(
        () -> bench.apply(MoveToArea.of(bench.design().table(new TableId("kiln")), "Ovens")));
    until(() -> bench.keeper().stateProperty().get() == SaveState.KEPT);
    robot.press(KeyCode.CONTROL).type(KeyCode.N).release(KeyCode.CONTROL);
    node(robot, "answer-save", Button.class);
    robot.type(KeyCode.ESCAPE);
    until(() -> robot.lookup("#answer-save").tryQuery().isEmpty());
    assertThat(bench.design().tables()).hasSize(16);
    robot.press(KeyCode.CONTROL).type(KeyCode.N).release(KeyCode.CONTROL);
    robot.interact(node(robot, "answer-keep", Button.class)::fire);
    until(() -> bench.design().tables().isEmpty());
    assertThat(says(robot, "Start from what you have")).isTrue();
  }

  /** Somebody else saves while a label is typed: the letters stay, and Enter answers nothing. */
  @Test
  void whatNobodyAskedForWaitsUntilTypingPausesAndEnterGivesNoAnswer(FxRobot robot)
      throws Exception {
    Path own = Files.createTempDirectory(folder, "own").resolve("design");
    robot.interact(() -> bench.saveIn(own));
    until(() -> bench.keeper().stateProperty().get() == SaveState.SAVED);
    show(robot, Stage.SHAPE, "kiln");
    TextField label = node(robot, "table-label", TextField.class);
    Path file = own.resolve("datapackage.json");
    Files.writeString(file, Files.readString(file).replace("\"Locker\"", "\"Cupboard\""));
    robot.interact(
        () -> {
          label.requestFocus();
          label.selectAll();
        });
    robot.write("Ov");
    robot.interact(
        () -> bench.apply(MoveToArea.of(bench.design().table(new TableId("piece")), "Glazing 2")));
    robot.write("en");
    until(() -> bench.keeper().stateProperty().get() == SaveState.CONFLICT);
    robot.write("s");
    assertThat(label.getText()).isEqualTo("Ovens");
    until(() -> says(robot, "Somebody else changed this design"));
    robot.type(KeyCode.ENTER);
    robot.type(KeyCode.SPACE);
    WaitForAsyncUtils.waitForFxEvents();
    assertThat(says(robot, "Somebody else changed this design")).isTrue();
    assertThat(bench.keeper().stateProperty().get()).isEqualTo(SaveState.CONFLICT);
    robot.type(KeyCode.TAB).type(KeyCode.TAB).type(KeyCode.ENTER);
    until(() -> bench.keeper().stateProperty().get() == SaveState.SAVED);
    assertThat(bench.design().table(new TableId("locker")).label()).isEqualTo("Locker");
    assertThat(bench.design().table(new TableId("kiln")).label()).isEqualTo("Ovens");
  }

  @Test
  void removingATableThroughTheFinderShowsFirstWhatGoesAlong(FxRobot robot) throws Exception {
    robot.press(KeyCode.CONTROL).type(KeyCode.K).release(KeyCode.CONTROL);
    TextInputControl finder = node(robot, "finder-text", TextInputControl.class);
    until(finder::isFocused);
    robot.interact(() -> finder.setText("remove the table kiln"));
    robot.type(KeyCode.ENTER);
    untilFocused("preview-leave");
    assertThat(says(robot, "Rows of Kiln")).isTrue();
    robot.type(KeyCode.ENTER); // A second Enter keeps it.
    until(() -> bench.proposalProperty().get().isEmpty());
    assertThat(bench.design().tableNamed("kiln")).isPresent();
  }

  @Test
  void aMistakeOfJoinersIsToldAndNothingElseHappens(FxRobot robot) throws Exception {
    var before = bench.draft();
    robot.interact(
        () ->
            bench
                .runner()
                .start(
                    joiner.desktop.work.Request.of(
                        "x",
                        "Trying something",
                        progress -> {
                          throw new IllegalStateException("a wheel came off");
                        },
                        done -> {},
                        bench::tell)));
    until(() -> bench.notices().newest().isPresent());
    Notice notice = bench.notices().newest().orElseThrow();
    assertThat(notice.text()).contains("Trying something", "a wheel came off");
    assertThat(notice.details()).isPresent();
    until(() -> robot.lookup("#notice").tryQuery().isPresent());
    assertThat(says(robot, "a wheel came off")).isTrue();
    assertThat(bench.draft()).isSameAs(before);
  }

  @Test
  void choosingATableInTheListLeavesTheFieldThatWasChosen(FxRobot robot) throws Exception {
    robot.interact(
        () -> {
          bench.selectionProperty().set(Selection.of(new TableId("kiln"), new FieldId("name")));
          bench.stageProperty().set(Stage.SHAPE);
        });
    ListView<?> list = node(robot, "table-list", ListView.class);
    robot.interact(list::requestFocus);
    robot.type(KeyCode.ENTER);
    until(() -> bench.selectionProperty().get().equals(Selection.of(new TableId("kiln"))));
  }

  @Test
  void everythingThatTakesTheFocusHasANameForScreenReaders(FxRobot robot) throws Exception {
    var nameless = new ArrayList<String>();
    for (Stage stage : Stage.values()) {
      show(robot, stage, "firing");
      robot.interact(() -> bench.stageProperty().set(stage));
      until(() -> bench.runner().jobs().isEmpty());
      robot.interact(() -> collect(scene.getRoot(), stage, nameless));
    }
    assertThat(nameless).isEmpty();
  }

  private static void collect(Node node, Stage stage, List<String> nameless) {
    if (node.isFocusTraversable() && node.isVisible() && name(node).isEmpty()) {
      nameless.add(stage + ": " + node.getClass().getSimpleName() + " " + node.getStyleClass());
    }
    if (node instanceof Parent parent && node.isVisible()) {
      parent.getChildrenUnmodifiable().forEach(child -> collect(child, stage, nameless));
    }
  }

  private static Optional<String> name(Node node) {
    return Optional.ofNullable(node.getAccessibleText())
        .or(() -> node instanceof Labeled l ? Optional.ofNullable(l.getText()) : Optional.empty())
        .filter(text -> !text.isBlank());
  }
}
