package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.scene.control.Button;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import joiner.desktop.work.Stage;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** The faces of Prove in a real window, by keyboard. */
class ProveWindowTest extends OpenedWindow {
  @Start
  void start(javafx.stage.Stage stage) throws Exception {
    open(stage);
  }

  private void ask(FxRobot robot) throws Exception {
    show(robot, Stage.PROVE, "member");
    robot.interact(node(robot, "face-ask", ToggleButton.class)::fire);
    TextField column = node(robot, "ask-column", TextField.class);
    robot.interact(column::requestFocus);
    untilFocused("ask-column");
  }

  private void type(FxRobot robot, String text) {
    robot.write(text).type(KeyCode.ENTER);
  }

  @Test
  void aQuestionIsAskedCountedOnceAndKeptByKeyboard(FxRobot robot) throws Exception {
    ask(robot);
    type(robot, "member.card_no");
    type(robot, "count(enrolment)");
    type(robot, "sum(piece.grams)");
    until(() -> says(robot, "Rows multiply."));
    assertThat(says(robot, "One line for each member.")).isTrue();
    Button once = node(robot, "count-all-once", Button.class);
    robot.interact(once::requestFocus);
    robot.type(KeyCode.SPACE);
    until(() -> !says(robot, "Rows multiply.") && says(robot, "ms on the sample rows"));
    TableView<?> lines = node(robot, "answer", TableView.class);
    assertThat(lines.getItems()).isNotEmpty();
    Button keep = node(robot, "keep-question", Button.class);
    robot.interact(keep::requestFocus);
    robot.type(KeyCode.SPACE);
    untilFocused("question-name");
    type(robot, "Members at work");
    until(() -> bench.design().questions().size() == 3);
    assertThat(bench.design().questions().getLast().label()).isEqualTo("Members at work");
    until(keep::isDisabled);
  }

  @Test
  void whatIsWrongIsSaidAndWhatWasTypedStays(FxRobot robot) throws Exception {
    ask(robot);
    type(robot, "membr.card_no");
    until(() -> says(robot, "did you mean member?"));
    TextField column = node(robot, "ask-column", TextField.class);
    assertThat(column.getText()).isEqualTo("membr.card_no");
    untilFocused("ask-column");
    robot.type(KeyCode.ESCAPE);
    until(() -> column.getText().isEmpty() && !says(robot, "did you mean member?"));
  }

  @Test
  void aChipIsTakenAwayByDeleteAndAConditionOpensAgain(FxRobot robot) throws Exception {
    ask(robot);
    type(robot, "piece.mark");
    type(robot, "piece.grams");
    robot.interact(node(robot, "ask-condition", TextField.class)::requestFocus);
    type(robot, "piece.grams > 2000");
    until(() -> robot.lookup(".chip").queryAll().size() == 3);
    Button second = node(robot, "column-1", Button.class);
    robot.interact(second::requestFocus);
    robot.type(KeyCode.DELETE);
    until(() -> robot.lookup("#column-1").tryQuery().isEmpty());
    untilFocused("column-0");
    Button condition =
        robot.lookup(".chip").<Button>queryAllAs(Button.class).stream()
            .filter(chip -> chip.getText().contains(">"))
            .findFirst()
            .orElseThrow();
    robot.interact(condition::fire);
    untilFocused("ask-condition");
    assertThat(node(robot, "ask-condition", TextField.class).getText())
        .isEqualTo("piece.grams > 2000");
  }

  @Test
  void aDeleteIsSupposedForARowThatIsPickedByTyping(FxRobot robot) throws Exception {
    show(robot, Stage.PROVE, "course");
    robot.interact(node(robot, "face-if-deleted", ToggleButton.class)::fire);
    until(() -> says(robot, "48 enrolments would go along"));
    Button pick = node(robot, "deleted-pick", Button.class);
    robot.interact(pick::requestFocus);
    robot.type(KeyCode.SPACE);
    TextField typed = node(robot, "picker-text", TextField.class);
    until(typed::isFocused);
    type(robot, "raku");
    until(() -> says(robot, "16 enrolments would go along"));
    untilFocused("deleted-pick");
    robot.interact(
        () ->
            bench.selectionProperty().set(joiner.desktop.work.Selection.of(new TableId("member"))));
    until(() -> says(robot, "Refused by every database"));
    assertThat(robot.lookup("#delete-now").tryQuery()).isEmpty();
  }

  @Test
  void aRowIsEnteredByKeyboardWithItsDetails(FxRobot robot) throws Exception {
    show(robot, Stage.PROVE, "firing");
    robot.interact(node(robot, "face-enter", ToggleButton.class)::fire);
    until(() -> says(robot, "48 of 48 firings"));
    pick(robot, "enter-kiln_id", "tom");
    pick(robot, "enter-loaded_by", "mara");
    pick(robot, "enter-cone_no", "6");
    write(robot, "enter-started_at", "2026-03-13 18:05");
    write(robot, "enter-ended_at", "2026-03-13 09:15");
    until(() -> says(robot, "A firing cannot end before it has started."));
    Button save = node(robot, "enter-save", Button.class);
    assertThat(save.isDisabled()).isTrue();
    write(robot, "enter-ended_at", "2026-03-14 06:00");
    write(robot, "enter-peak_c", "1222");
    until(() -> !save.isDisabled());
    robot.press(KeyCode.CONTROL).type(KeyCode.ENTER).release(KeyCode.CONTROL);
    until(() -> says(robot, "49 of 49 firings"));
    until(() -> says(robot, "as it is saved"));
    robot.interact(bench::undo);
    until(() -> says(robot, "48 of 48 firings"));
  }

  /** Goes to a control that picks and types what is looked for. */
  private void pick(FxRobot robot, String id, String words) throws Exception {
    Button button = node(robot, id, Button.class);
    robot.interact(button::requestFocus);
    robot.type(KeyCode.SPACE);
    TextField typed = node(robot, "picker-text", TextField.class);
    until(typed::isFocused);
    type(robot, words);
    untilFocused(id);
    until(() -> !button.getText().equals("–"));
  }

  private void write(FxRobot robot, String id, String words) throws Exception {
    TextField field = node(robot, id, TextField.class);
    robot.interact(
        () -> {
          field.requestFocus();
          field.selectAll();
        });
    robot.write(words);
    until(() -> field.getText().equals(words));
  }
}
