package joiner.desktop.prove;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.PasswordField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import joiner.Pottery;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/**
 * Whose rows are looked at is picked by keyboard, and a password is asked for where one has one.
 */
@ExtendWith(ApplicationExtension.class)
class RowsPickTest {
  @TempDir static Path folder;

  private final List<RowsOf> picked = new ArrayList<>();
  private RowsPick pick;
  private Scene scene;

  @Start
  void start(Stage stage) {
    var bench =
        new Workbench(
            OpenDesign.of(Pottery.demo()),
            Runner.ofWindow(),
            new Recovery(folder.resolve("recovery")),
            Pottery.CLOCK);
    var targets = new Targets(Settings.in(folder.resolve("settings.properties")));
    targets.keep(Optional.empty(), new Targets.Known("sqlite", "/tmp/pots.sqlite", ""));
    targets.keep(Optional.empty(), new Targets.Known("postgresql", "localhost:1/pots", "ada"));
    pick = new RowsPick("rows", bench, targets, Texts.beside(ProveView.class), picked::add);
    scene = new Scene(new VBox(pick), 500, 300);
    stage.setScene(scene);
    stage.show();
  }

  private static void until(BooleanSupplier condition) throws Exception {
    WaitForAsyncUtils.waitFor(
        20, TimeUnit.SECONDS, () -> WaitForAsyncUtils.asyncFx(condition::getAsBoolean).get());
  }

  private void choose(FxRobot robot, String words) throws Exception {
    Button button = robot.lookup("#rows").queryAs(Button.class);
    robot.interact(button::requestFocus);
    robot.type(KeyCode.SPACE);
    until(() -> robot.lookup("#picker-text").tryQuery().filter(Node::isFocused).isPresent());
    robot.write(words).type(KeyCode.ENTER);
  }

  private boolean says(FxRobot robot, String words) {
    return robot.lookup("#rows").queryAs(Button.class).getText().contains(words);
  }

  @Test
  void aPasswordIsTypedBeforeRowsOfADatabaseAreLookedAt(FxRobot robot) throws Exception {
    PasswordField password = robot.lookup("#rows-password").queryAs(PasswordField.class);
    assertThat(password.isVisible()).isFalse();
    choose(robot, "localhost");
    until(password::isFocused);
    assertThat(picked).as("nobody is there yet").isEmpty();
    assertThat(says(robot, "sample")).as("those are still looked at").isTrue();
    robot.write("kiln7").type(KeyCode.ENTER);
    until(() -> picked.size() == 1);
    assertThat(picked.getFirst().target().orElseThrow().password()).contains("kiln7");
    assertThat(says(robot, "localhost:1/pots")).isTrue();

    choose(robot, "sqlite");
    until(() -> picked.size() == 2);
    assertThat(password.isVisible()).as("a file has none").isFalse();
    choose(robot, "localhost");
    until(() -> picked.size() == 3);
    assertThat(picked.getLast().target().orElseThrow().password())
        .as("as long as Joiner runs")
        .contains("kiln7");
    robot.interact(password::requestFocus);
    robot.type(KeyCode.ESCAPE);
    until(() -> picked.getLast().equals(RowsOf.SAMPLES));
    assertThat(says(robot, "sample")).isTrue();
    assertThat(password.isVisible()).isFalse();
  }
}
