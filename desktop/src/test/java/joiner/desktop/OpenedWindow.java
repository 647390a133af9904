package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableView;
import joiner.Pottery;
import joiner.desktop.frame.Frame;
import joiner.desktop.theme.Theme;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.util.WaitForAsyncUtils;

/** The window with the demo in it, as tests drive it. */
@ExtendWith({ApplicationExtension.class, WindowWatch.class})
abstract class OpenedWindow {
  @TempDir static Path folder;

  Workbench bench;
  Frame frame;
  Scene scene;

  /** Opens the demo in a window; to be called from what each test class does at its start. */
  void open(javafx.stage.Stage stage) throws Exception {
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

  static void until(BooleanSupplier condition) throws Exception {
    WaitForAsyncUtils.waitFor(
        20, TimeUnit.SECONDS, () -> WaitForAsyncUtils.asyncFx(condition::getAsBoolean).get());
  }

  void show(FxRobot robot, Stage stage, String table) {
    robot.interact(
        () -> {
          bench.selectionProperty().set(Selection.of(new TableId(table)));
          bench.stageProperty().set(stage);
        });
  }

  <T extends Node> T node(FxRobot robot, String id, Class<T> type) throws Exception {
    until(() -> robot.lookup("#" + id).tryQuery().isPresent());
    return robot.lookup("#" + id).queryAs(type);
  }

  void openEmpty(FxRobot robot) {
    robot.interact(
        () ->
            bench.open(
                OpenDesign.of(
                    new joiner.meaning.Draft(
                        joiner.model.Design.empty("d", "D"), joiner.rows.SampleRows.NONE))));
  }

  void untilFocused(String id) throws Exception {
    until(() -> scene.getFocusOwner() != null && id.equals(scene.getFocusOwner().getId()));
  }

  /** Goes to a row of a grid of the stage that is shown. */
  TableView<?> stand(FxRobot robot, String id, int row) throws Exception {
    TableView<?> grid = node(robot, id, TableView.class);
    robot.interact(
        () -> {
          grid.getSelectionModel().clearAndSelect(row);
          grid.requestFocus();
        });
    return grid;
  }

  static boolean says(FxRobot robot, String text) {
    return robot.lookup(".label").<Labeled>queryAllAs(Labeled.class).stream()
        .anyMatch(label -> label.getText() != null && label.getText().contains(text));
  }

  Field field(String table, String field) {
    return bench.design().table(new TableId(table)).field(new FieldId(field));
  }
}
