package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.edit.ChangeField;
import joiner.edit.DropKit;
import joiner.edit.StandardKits;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Kit;
import joiner.model.Origin;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Where values come from, kits and starter tables, in the window. */
class OriginsWindowTest extends OpenedWindow {
  private static final TableId KILN = new TableId("kiln");
  private static final TableId CONE = new TableId("cone");
  private static final FieldId MADE_BY = new FieldId("made_by");

  @Start
  void start(javafx.stage.Stage stage) throws Exception {
    open(stage);
  }

  private Field field(TableId table, FieldId field) {
    return bench.design().table(table).field(field);
  }

  private void choose(FxRobot robot, TableId table, FieldId field) throws Exception {
    show(robot, Stage.SHAPE, table.value());
    robot.interact(() -> bench.selectionProperty().set(Selection.of(table, field)));
  }

  @Test
  void anOriginIsPickedInTheSheetAndItsPartsAreTyped(FxRobot robot) throws Exception {
    FieldId litres = new FieldId("litres");
    choose(robot, KILN, litres);
    robot.interact(node(robot, "origin-source", Button.class)::fire);
    until(() -> robot.lookup("#picker-text").tryQuery().isPresent());
    robot.write("number of its fir").type(KeyCode.ENTER);
    until(() -> field(KILN, litres).origin() instanceof Origin.SummedUp);
    TextField where = node(robot, "origin-where", TextField.class);
    robot.interact(where::requestFocus);
    robot.write("remark");
    Labeled gives = node(robot, "origin-gives", Labeled.class);
    until(() -> gives.getStyleClass().contains("brick"));
    robot.write(" IS NULL").type(KeyCode.ENTER);
    until(() -> ((Origin.SummedUp) field(KILN, litres).origin()).where().isPresent());
    assertThat(node(robot, "origin-gives", Labeled.class).getText()).contains("whole number");
    robot.interact(node(robot, "origin-entered", Button.class)::fire);
    until(() -> field(KILN, litres).origin().equals(Origin.TYPED));
  }

  @Test
  void aKitIsChangedEverywhereAfterWhatItDoesIsSeen(FxRobot robot) throws Exception {
    Kit stamps =
        StandardKits.of(bench.design()).stream()
            .filter(kit -> kit.label().equals("Stamps"))
            .findFirst()
            .orElseThrow();
    robot.interact(
        () -> {
          bench.apply(new DropKit(KILN, stamps));
          bench.apply(new DropKit(CONE, stamps));
          Table kiln = bench.design().table(KILN);
          bench.apply(ChangeField.required(kiln, kiln.field(MADE_BY), true));
        });
    choose(robot, KILN, MADE_BY);
    until(() -> robot.lookup("Change the kit everywhere").tryQuery().isPresent());
    robot.interact(robot.lookup("Change the kit everywhere").queryButton()::fire);
    assertThat(field(CONE, MADE_BY).required()).isFalse();
    Button make = node(robot, "preview-make", Button.class);
    until(() -> !make.isDisabled());
    assertThat(says(robot, "Cone")).isTrue();
    robot.interact(make::fire);
    until(() -> field(CONE, MADE_BY).required());
  }

  @Test
  void starterTablesArePickedByKeys(FxRobot robot) throws Exception {
    int before = bench.design().tables().size();
    show(robot, Stage.SHAPE, "kiln");
    robot.press(KeyCode.CONTROL).type(KeyCode.K).release(KeyCode.CONTROL);
    untilFocused("finder-text");
    TextInputControl finder = node(robot, "finder-text", TextInputControl.class);
    robot.interact(() -> finder.setText("starter"));
    robot.type(KeyCode.ENTER);
    untilFocused("starter-tables");
    until(() -> says(robot, "Places"));
    robot.type(KeyCode.DOWN).type(KeyCode.DOWN).type(KeyCode.SPACE);
    Button add = node(robot, "starters-add", Button.class);
    until(() -> add.getText().equals("Add 2 tables"));
    robot.press(KeyCode.CONTROL).type(KeyCode.ENTER).release(KeyCode.CONTROL);
    until(() -> bench.design().tables().size() == before + 2);
    assertThat(bench.design().tableNamed("address")).isPresent();
    assertThat(bench.selectionProperty().get().table()).contains(new TableId("country"));
  }
}
