package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.TableView;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import joiner.Pottery;
import joiner.desktop.frame.Frame;
import joiner.desktop.theme.Theme;
import joiner.desktop.work.Notice;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.SaveState;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.edit.MoveToArea;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** What the window shows is true of the design as it stands, and nothing typed is lost. */
@ExtendWith({ApplicationExtension.class, WindowWatch.class})
class TrueWindowTest {
  @TempDir static Path folder;

  private Workbench bench;
  private Frame frame;
  private Scene scene;

  @Start
  void start(javafx.stage.Stage stage) throws Exception {
    Theme.loadFonts();
    Path home = Files.createTempDirectory(folder, "home");
    var recovery = new Recovery(home.resolve("recovery"));
    bench =
        new Workbench(OpenDesign.of(Pottery.demo()), Runner.ofWindow(), recovery, Pottery.CLOCK);
    frame = new Frame(bench, recovery, Settings.in(home.resolve("settings.properties")));
    scene = new Scene(frame.root(), 1000, 800);
    frame.dress(scene);
    stage.setScene(scene);
    stage.setX(0);
    stage.setY(0);
    stage.show();
  }

  @AfterEach
  void everythingIsWritten() {
    assertThat(bench.runner().finish(joiner.desktop.work.Lane.SAVING, 20_000)).isTrue();
  }

  @BeforeEach
  void settled() throws Exception {
    until(() -> bench.verdict().isCurrent());
  }

  private static void until(BooleanSupplier condition) throws Exception {
    WaitForAsyncUtils.waitFor(
        20, TimeUnit.SECONDS, () -> WaitForAsyncUtils.asyncFx(condition::getAsBoolean).get());
  }

  private void show(FxRobot robot, Stage stage, String table) {
    robot.interact(
        () -> {
          bench.selectionProperty().set(Selection.of(new TableId(table)));
          bench.stageProperty().set(stage);
        });
  }

  private <T extends Node> T node(FxRobot robot, String id, Class<T> type) throws Exception {
    until(() -> robot.lookup("#" + id).tryQuery().isPresent());
    return robot.lookup("#" + id).queryAs(type);
  }

  private void openEmpty(FxRobot robot) {
    robot.interact(
        () ->
            bench.open(
                OpenDesign.of(
                    new joiner.meaning.Draft(
                        joiner.model.Design.empty("d", "D"), joiner.rows.SampleRows.NONE))));
  }

  private void untilFocused(String id) throws Exception {
    until(() -> scene.getFocusOwner() != null && id.equals(scene.getFocusOwner().getId()));
  }

  /** Goes to a row of a grid of the stage that is shown. */
  private TableView<?> stand(FxRobot robot, String id, int row) throws Exception {
    TableView<?> grid = node(robot, id, TableView.class);
    robot.interact(
        () -> {
          grid.getSelectionModel().clearAndSelect(row);
          grid.requestFocus();
        });
    return grid;
  }

  private static boolean says(FxRobot robot, String text) {
    return robot.lookup(".label").<Labeled>queryAllAs(Labeled.class).stream()
        .anyMatch(label -> label.getText() != null && label.getText().contains(text));
  }

  private Field field(String table, String field) {
    return bench.design().table(new TableId(table)).field(new FieldId(field));
  }

  @Test
  void proveNeverSaysThatAllIsWellWhileItStillChecks(FxRobot robot) throws Exception {
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
    until(() -> robot.lookup(".condition").tryQuery().isPresent());
    TextArea condition = robot.lookup(".condition").queryAs(TextArea.class);
    robot.interact(
        () -> {
          condition.requestFocus();
          condition.setText("litres > 10");
        });
    robot.type(KeyCode.TAB);
    until(() -> scene.getFocusOwner() instanceof TextField);
    until(() -> !bench.design().table(new TableId("kiln")).rules().getLast().condition().isBlank());
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

  @Test
  void movingThroughTheTypesChangesNothingUntilOneIsPicked(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "kiln");
    stand(robot, "field-grid", 1);
    robot.type(KeyCode.RIGHT).type(KeyCode.RIGHT).type(KeyCode.F2);
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
  void removingATableThroughTheFinderAsksWithWhatGoesAlong(FxRobot robot) throws Exception {
    robot.press(KeyCode.CONTROL).type(KeyCode.K).release(KeyCode.CONTROL);
    TextInputControl finder = node(robot, "finder-text", TextInputControl.class);
    until(finder::isFocused);
    robot.interact(() -> finder.setText("remove the table kiln"));
    robot.type(KeyCode.ENTER);
    node(robot, "answer-remove", Button.class);
    assertThat(says(robot, "relationships")).isTrue();
    robot.type(KeyCode.ENTER); // The usual answer keeps it.
    until(() -> robot.lookup("#answer-remove").tryQuery().isEmpty());
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

  @Test
  void aTableIsTypedFromNothingWithoutTheMouse(FxRobot robot) throws Exception {
    openEmpty(robot);
    robot.press(KeyCode.CONTROL, KeyCode.T).release(KeyCode.T, KeyCode.CONTROL);
    untilFocused("table-label");
    robot.write("Shelf").type(KeyCode.ENTER);
    untilFocused("field-grid");
    for (String label : List.of("Shelf number", "room", "Litres")) {
      robot.write(label).type(KeyCode.ENTER);
    }
    Table table = bench.design().tables().iterator().next();
    assertThat(table.label()).isEqualTo("Shelf");
    assertThat(table.fields())
        .extracting(Field::label)
        .containsExactly("Shelf number", "room", "Litres");
    assertThat(bench.selectionProperty().get().field()).contains(table.fields().getLast().id());
    robot.press(KeyCode.CONTROL, KeyCode.Z).release(KeyCode.Z, KeyCode.CONTROL);
    assertThat(bench.design().table(table.id()).fields()).hasSize(2);
  }

  /** A table as somebody has it in their head. */
  private record Wanted(String label, List<List<String>> fields) {}

  /** How many keys were pressed, and how many characters they made. */
  private int keys;

  private int characters;

  private void write(FxRobot robot, String text) {
    robot.write(text);
    keys += text.length();
    characters += text.length();
  }

  private void press(FxRobot robot, KeyCode... codes) {
    for (KeyCode code : codes) {
      robot.type(code);
      keys++;
    }
  }

  /** Label, type as far as it takes to be the first found, size, and whether it is required. */
  @Test
  void tablesWithTypesAndSizesAreTypedWithoutTheMouse(FxRobot robot) throws Exception {
    openEmpty(robot);
    var wanted =
        List.of(
            new Wanted(
                "Wheel",
                List.of(
                    List.of("Wheel number", "whole", "", "*"),
                    List.of("Maker", "", "60", "*"),
                    List.of("Bought on", "", "", ""),
                    List.of("Price paid", "", "", ""))),
            new Wanted(
                "Apron",
                List.of(
                    List.of("Colour", "choice", "blue, grey, oat", "*"),
                    List.of("Belt", "dec 5.1", "", ""),
                    List.of("Washed", "true", "", "*"))));
    for (Wanted table : wanted) {
      robot.press(KeyCode.CONTROL, KeyCode.T).release(KeyCode.T, KeyCode.CONTROL);
      keys += 2;
      untilFocused("table-label");
      write(robot, table.label());
      press(robot, KeyCode.ENTER);
      untilFocused("field-grid");
      for (List<String> field : table.fields()) {
        type(robot, field);
      }
    }
    List<Table> tables = List.copyOf(bench.design().tables());
    assertThat(tables).extracting(Table::label).containsExactly("Wheel", "Apron");
    assertThat(said(tables.get(0)))
        .containsExactly(
            "Wheel number · WholeNumber 32 · required",
            "Maker · Text 60 · required",
            "Bought on · Date",
            "Price paid · Money 10.2");
    assertThat(said(tables.get(1)))
        .containsExactly(
            "Colour · Choice blue, grey, oat · required",
            "Belt · Decimal 5.1",
            "Washed · TrueFalse · required");
    assertThat(keys).as("of %d characters", characters).isLessThanOrEqualTo(134);
    assertThat(characters).isEqualTo(101);
  }

  private void type(FxRobot robot, List<String> field) throws Exception {
    write(robot, field.get(0));
    boolean more = field.stream().skip(1).anyMatch(part -> !part.isEmpty());
    if (!more) {
      press(robot, KeyCode.ENTER);
      return;
    }
    press(robot, KeyCode.TAB); // Over the name, which follows the label.
    if (!field.get(1).isEmpty()) {
      write(robot, field.get(1).substring(0, 1));
      until(() -> robot.lookup("#picker-text").tryQuery().isPresent());
      write(robot, field.get(1).substring(1));
    }
    press(robot, KeyCode.TAB);
    until(() -> robot.lookup("#picker-text").tryQuery().isEmpty());
    if (!field.get(2).isEmpty()) {
      write(robot, field.get(2));
    }
    press(robot, KeyCode.TAB);
    if (!field.get(3).isEmpty()) {
      press(robot, KeyCode.SPACE);
    }
    press(robot, KeyCode.ENTER);
  }

  private static List<String> said(Table table) {
    return table.fields().stream()
        .map(
            field ->
                field.label()
                    + " · "
                    + (field.type().getClass().getSimpleName() + " " + size(field)).strip()
                    + (field.required() ? " · required" : ""))
        .toList();
  }

  private static String size(Field field) {
    return switch (field.type()) {
      case joiner.model.FieldType.Sized t -> String.valueOf(t.maxLength());
      case joiner.model.FieldType.WholeNumber t -> String.valueOf(t.width().bits());
      case joiner.model.FieldType.Decimal t -> t.precision() + "." + t.scale();
      case joiner.model.FieldType.Money t -> t.precision() + "." + t.scale();
      case joiner.model.FieldType.Choice t -> String.join(", ", t.values());
      default -> "";
    };
  }

  @Test
  void theCursorMovesOverCellsAndTakesWhatStandsAbove(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "kiln");
    stand(robot, "field-grid", 2);
    Node cursor = robot.lookup(".cell-cursor").query();
    until(cursor::isVisible);
    double first = cursor.getBoundsInParent().getMinX();
    robot.type(KeyCode.RIGHT).type(KeyCode.RIGHT);
    until(() -> cursor.getBoundsInParent().getMinX() > first + 100);
    robot.type(KeyCode.LEFT).type(KeyCode.LEFT).type(KeyCode.LEFT);
    until(() -> cursor.getBoundsInParent().getMinX() == first);
    // Fuel takes the type of Name, which stands above it.
    robot.type(KeyCode.RIGHT).type(KeyCode.RIGHT);
    robot.press(KeyCode.CONTROL).type(KeyCode.D).release(KeyCode.CONTROL);
    until(() -> field("kiln", "fuel").type().equals(field("kiln", "name").type()));
    robot.press(KeyCode.ALT).type(KeyCode.UP).release(KeyCode.ALT);
    assertThat(bench.design().table(new TableId("kiln")).fieldIds())
        .startsWith(new FieldId("kiln_id"), new FieldId("fuel"), new FieldId("name"));
    robot.type(KeyCode.DELETE);
    assertThat(bench.design().table(new TableId("kiln")).hasField(new FieldId("fuel"))).isFalse();
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    assertThat(bench.design().table(new TableId("kiln")).hasField(new FieldId("fuel"))).isTrue();
  }

  @Test
  void tabPastTheLastCellOfTheRowsOpensAnother(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "cone");
    TableView<?> rows = node(robot, "sample-grid", TableView.class);
    int count = rows.getItems().size();
    Table cone = bench.design().table(new TableId("cone"));
    robot.interact(
        () -> {
          rows.requestFocus();
          rows.getSelectionModel().clearAndSelect(count - 1);
        });
    for (int i = 0; i < cone.fields().size(); i++) {
      robot.type(KeyCode.TAB);
    }
    until(() -> rows.getItems().size() == count + 1);
    robot.write("13");
    robot.type(KeyCode.TAB);
    until(
        () ->
            bench
                .draft()
                .rows()
                .of(cone.id())
                .cell(count, cone.fields().getFirst().id())
                .equals(java.util.Optional.of("13")));
    robot.press(KeyCode.SHIFT).type(KeyCode.TAB).release(KeyCode.SHIFT);
    robot.type(KeyCode.DELETE);
    until(
        () ->
            bench
                .draft()
                .rows()
                .of(cone.id())
                .cell(count, cone.fields().getFirst().id())
                .isEmpty());
  }
}
