package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import javafx.geometry.Orientation;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollBar;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import joiner.desktop.widget.ChoiceBoxes;
import joiner.desktop.work.Stage;
import joiner.edit.ChangeTable;
import joiner.model.FieldId;
import joiner.model.KnownFact;
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
    until(() -> !says(robot, "Rows multiply.") && says(robot, " ms"));
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

  @Test
  void whatAConditionLeavesOpenIsFilledInWithoutLeavingTheKeyboard(FxRobot robot) throws Exception {
    ask(robot);
    type(robot, "kiln.name");
    type(robot, "count(firing)");
    robot.interact(node(robot, "ask-condition", TextField.class)::requestFocus);
    untilFocused("ask-condition");
    type(robot, "firing.started_at >= :since");
    untilFocused("open-since");
    type(robot, "1.6.2025");
    until(() -> says(robot, " ms"));
    TableView<?> lines = node(robot, "answer", TableView.class);
    assertThat(lines.getItems()).isNotEmpty();
    robot.interact(node(robot, "ask-condition", TextField.class)::requestFocus);
    type(robot, "count(firing) > 99");
    until(() -> lines.getItems().isEmpty() && says(robot, "No line answers this."));
    Button back = node(robot, "question-back", Button.class);
    robot.interact(back::requestFocus);
    robot.type(KeyCode.SPACE);
    until(() -> !lines.getItems().isEmpty());
  }

  private void enter(FxRobot robot, String table) throws Exception {
    show(robot, Stage.PROVE, table);
    robot.interact(node(robot, "face-enter", ToggleButton.class)::fire);
    until(() -> !rows(robot).getItems().isEmpty());
  }

  private TableView<?> rows(FxRobot robot) {
    return robot.lookup("#enter-rows").queryAs(TableView.class);
  }

  @Test
  void rowsAreFoundByWordsValuesAndConditions(FxRobot robot) throws Exception {
    enter(robot, "firing");
    until(() -> rows(robot).getItems().size() == 48);
    robot.interact(node(robot, "list-by-kiln_id", Button.class)::fire);
    untilPicking(robot);
    robot.write("big tom").type(KeyCode.ENTER);
    until(() -> rows(robot).getItems().size() < 48);
    int big = rows(robot).getItems().size();
    robot.interact(node(robot, "enter-list", Button.class)::fire);
    untilPicking(robot);
    robot.write("only rows").type(KeyCode.ENTER);
    untilFocused("enter-condition");
    type(robot, "peak_c > 1200");
    until(() -> rows(robot).getItems().size() < big);
    robot.type(KeyCode.ESCAPE);
    untilFocused("enter-filter");
    until(() -> rows(robot).getItems().size() == big);
    robot.write("cone 6");
    until(() -> rows(robot).getItems().size() < big);
    robot.type(KeyCode.ENTER);
    until(() -> says(robot, "as it is saved"));
    robot.interact(node(robot, "enter-list", Button.class)::fire);
    untilPicking(robot);
    robot.write("show peak").type(KeyCode.ENTER);
    until(() -> rows(robot).getColumns().size() == 3);
    robot.interact(bench::undo);
    until(() -> rows(robot).getColumns().size() == 2);
  }

  private void untilPicking(FxRobot robot) throws Exception {
    var typed = node(robot, "picker-text", javafx.scene.control.TextInputControl.class);
    until(typed::isFocused);
  }

  @Test
  void aBlockFromASpreadsheetIsTakenInOnceItIsSeenWhatHappens(FxRobot robot) throws Exception {
    enter(robot, "kiln");
    robot.interact(
        () -> {
          var content = new javafx.scene.input.ClipboardContent();
          content.putString(
              "Name\tFuel\tlitres\tHottest\tfallback_id\n"
                  + "Heron\tgas\t90\t1250\tBig Tom\nGosling\tpeat\t90\t1250\tEmber");
          javafx.scene.input.Clipboard.getSystemClipboard().setContent(content);
        });
    robot.interact(node(robot, "enter-intake", Button.class)::fire);
    untilFocused("intake-open");
    Button paste = node(robot, "intake-paste", Button.class);
    robot.interact(paste::requestFocus);
    robot.type(KeyCode.SPACE);
    until(() -> says(robot, "2 new") && says(robot, "1 row is refused"));
    Button take = node(robot, "intake-take", Button.class);
    assertThat(take.isDisabled()).isTrue();
    robot.interact(node(robot, "intake-partly", javafx.scene.control.CheckBox.class)::fire);
    until(() -> !take.isDisabled());
    robot.interact(take::requestFocus);
    robot.type(KeyCode.SPACE);
    until(() -> bench.draft().rows().of(new TableId("kiln")).count() == 5);
    robot.interact(node(robot, "intake-close", Button.class)::fire);
    until(() -> robot.lookup("#enter-form").tryQuery().isPresent());
    robot.interact(bench::undo);
    until(() -> rows(robot).getItems().size() == 4);
  }

  @Test
  void aDayIsPickedFromTheCalendarByKeyboard(FxRobot robot) throws Exception {
    enter(robot, "firing");
    write(robot, "enter-started_at", "2026-03-13 18:05");
    robot.press(KeyCode.ALT).type(KeyCode.DOWN).release(KeyCode.ALT);
    until(() -> robot.lookup("#calendar").tryQuery().isPresent());
    robot.type(KeyCode.RIGHT).type(KeyCode.ENTER);
    TextField started = node(robot, "enter-started_at", TextField.class);
    until(() -> started.getText().startsWith("2026-03-14"));
    assertThat(started.getText()).contains("18:05");
    untilFocused("enter-started_at");
  }

  @Test
  void oneOfAFewChoicesIsTakenByArrowsLettersAndClicks(FxRobot robot) throws Exception {
    enter(robot, "kiln");
    ChoiceBoxes fuel = node(robot, "enter-fuel", ChoiceBoxes.class);
    robot.interact(fuel::requestFocus);
    untilFocused("enter-fuel");
    robot.type(KeyCode.RIGHT);
    assertThat(taken(fuel)).containsExactly("electric");
    robot.type(KeyCode.RIGHT).type(KeyCode.RIGHT).type(KeyCode.RIGHT);
    assertThat(taken(fuel)).as("the last is the last").containsExactly("raku");
    robot.write("g");
    assertThat(taken(fuel)).containsExactly("gas");
    robot.type(KeyCode.DELETE);
    assertThat(taken(fuel)).as("one is required").containsExactly("gas");
    robot.interact(((ToggleButton) fuel.getChildren().getFirst())::fire);
    assertThat(taken(fuel)).containsExactly("electric");
    robot.interact(((ToggleButton) fuel.getChildren().getFirst())::fire);
    assertThat(taken(fuel)).as("it stays").containsExactly("electric");
    robot.type(KeyCode.TAB);
    until(() -> scene.getFocusOwner() instanceof TextField);
  }

  private static List<String> taken(ChoiceBoxes boxes) {
    return boxes.getChildren().stream()
        .map(ToggleButton.class::cast)
        .filter(ToggleButton::isSelected)
        .map(ToggleButton::getText)
        .toList();
  }

  @Test
  void rowsAreSortedByWhatTheyAreRecognisedByAndOpenedOneAfterTheOther(FxRobot robot)
      throws Exception {
    enter(robot, "member");
    sortByLabel(robot, TableColumn.SortType.ASCENDING);
    openFirst(robot, "Alder Sedge");
    sortByLabel(robot, TableColumn.SortType.DESCENDING);
    openFirst(robot, "Zeb Tamarisk");
    robot.interact(rows(robot)::requestFocus);
    until(() -> says(robot, "1 of 40 found"));
    robot.press(KeyCode.CONTROL).type(KeyCode.PAGE_DOWN).release(KeyCode.CONTROL);
    until(() -> says(robot, "2 of 40 found"));
    robot.press(KeyCode.CONTROL).type(KeyCode.PAGE_UP).release(KeyCode.CONTROL);
    until(() -> says(robot, "1 of 40 found"));
    robot.press(KeyCode.CONTROL).type(KeyCode.PAGE_UP).release(KeyCode.CONTROL);
    assertThat(says(robot, "1 of 40 found")).isTrue();
  }

  private <T> void sortByLabel(FxRobot robot, TableColumn.SortType type) {
    robot.interact(
        () -> {
          @SuppressWarnings("unchecked")
          var list = (TableView<T>) rows(robot);
          TableColumn<T, ?> label = list.getColumns().getFirst();
          label.setSortType(type);
          list.getSortOrder().setAll(List.of(label));
        });
  }

  private void openFirst(FxRobot robot, String name) throws Exception {
    until(
        () -> {
          rows(robot).getSelectionModel().clearAndSelect(0);
          return says(robot, name);
        });
    assertThat(rows(robot).getSortOrder()).hasSize(1);
  }

  @Test
  void allFieldsOfRowsBelowAreThereForWhoWantsThem(FxRobot robot) throws Exception {
    enter(robot, "kiln");
    robot.interact(() -> rows(robot).getSelectionModel().select(0));
    Button all = node(robot, "fields-fk_firing_kiln_id", Button.class);
    int before = robot.lookup(".below-fk_firing_kiln_id-0").queryAll().size();
    robot.interact(all::requestFocus);
    robot.type(KeyCode.SPACE);
    until(() -> robot.lookup(".below-fk_firing_kiln_id-0").queryAll().size() > before);
    untilFocused("fields-fk_firing_kiln_id");
    robot.type(KeyCode.SPACE);
    until(() -> robot.lookup(".below-fk_firing_kiln_id-0").queryAll().size() == before);
  }

  @Test
  void whatDecidesWhatIsSaidByKeyboard(FxRobot robot) throws Exception {
    show(robot, Stage.PROVE, "firing");
    until(() -> robot.lookup("#fact-open").tryQuery().isPresent());
    until(() -> robot.lookup("#anomaly-split").tryQuery().isPresent());
    robot.interact(node(robot, "fact-open", Button.class)::requestFocus);
    robot.type(KeyCode.SPACE);
    untilFocused("fact-by");
    robot.type(KeyCode.SPACE);
    robot.write("cour").type(KeyCode.TAB); // Tab picks and goes on.
    untilFocused("fact-decided");
    robot.type(KeyCode.SPACE);
    robot.write("teach").type(KeyCode.ENTER);
    untilFocused("fact-decided");
    robot.type(KeyCode.TAB);
    untilFocused("fact-say");
    robot.type(KeyCode.SPACE);
    until(() -> !bench.design().tableNamed("session").orElseThrow().facts().isEmpty());
    untilFocused("fact-by");
    robot.type(KeyCode.ESCAPE);
    until(() -> robot.lookup("#fact-form").tryQuery().isEmpty());
  }

  @Test
  void keysStayInSightWhileOneScrollsSideways(FxRobot robot) throws Exception {
    var fact = new KnownFact(List.of(new FieldId("kiln_id")), List.of(new FieldId("peak_c")), true);
    robot.interact(
        () ->
            bench.apply(ChangeTable.know(bench.design().tableNamed("firing").orElseThrow(), fact)));
    show(robot, Stage.PROVE, "firing");
    until(() -> robot.lookup("#anomaly-forget").tryQuery().isPresent());
    TableView<?> grid = node(robot, "sample-grid", TableView.class);
    ScrollBar bar =
        grid.lookupAll(".scroll-bar").stream()
            .map(ScrollBar.class::cast)
            .filter(b -> b.getOrientation() == Orientation.HORIZONTAL)
            .findFirst()
            .orElseThrow();
    until(() -> bar.isVisible() && bar.getMax() > 100);
    robot.interact(() -> bar.setValue(bar.getMax()));
    until(() -> left(grid, "firing_id") < 60 && left(grid, "kiln_id") < 0);
    assertThat(left(grid, null)).as("the number of the row").isLessThan(5);
  }

  /** Where the cells of a column begin, from the grid's left side. */
  private static double left(TableView<?> grid, String field) {
    FieldId id = field == null ? null : new FieldId(field);
    return grid.lookupAll(".table-cell").stream()
        .map(TableCell.class::cast)
        .filter(cell -> cell.getTableColumn() != null && !cell.isEmpty())
        .filter(cell -> Objects.equals(cell.getTableColumn().getUserData(), id))
        .mapToDouble(cell -> grid.sceneToLocal(cell.localToScene(0, 0)).getX())
        .findFirst()
        .orElseThrow();
  }

  @Test
  void whatIsSaidAgainIsSplitAfterAPreview(FxRobot robot) throws Exception {
    show(robot, Stage.PROVE, "session");
    until(() -> robot.lookup("#anomaly-split").tryQuery().isPresent());
    robot.interact(node(robot, "anomaly-split", Button.class)::fire);
    until(() -> bench.proposalProperty().get().isPresent());
    robot.interact(bench::accept);
    until(
        () -> bench.design().tableNamed("course").orElseThrow().fieldNamed("minutes").isPresent());
  }
}
