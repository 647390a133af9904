package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TableView;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import joiner.Pottery;
import joiner.desktop.frame.Frame;
import joiner.desktop.map.MapView;
import joiner.desktop.ship.ShipView;
import joiner.desktop.theme.Theme;
import joiner.desktop.work.Notice;
import joiner.desktop.work.OpenDesign;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Runner;
import joiner.desktop.work.SaveState;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Settings;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.format.DesignFolder;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** Drives the real window without a display. */
@ExtendWith({ApplicationExtension.class, WindowWatch.class})
class WindowTest {
  @TempDir static Path folder;

  private Workbench bench;
  private javafx.stage.Stage window;
  private Path saved;
  private ShipView ship;

  @Start
  void start(javafx.stage.Stage stage) throws Exception {
    Theme.loadFonts();
    saved = java.nio.file.Files.createTempDirectory(folder, "design");
    Draft demo = Pottery.demo();
    DesignFolder.save(demo, saved);
    Path home = java.nio.file.Files.createTempDirectory(folder, "home");
    var recovery = new Recovery(home.resolve("recovery"));
    bench = new Workbench(OpenDesign.in(saved), Runner.ofWindow(), recovery, Pottery.CLOCK);
    var frame = new Frame(bench, recovery, Settings.in(home.resolve("settings.properties")));
    var scene = new Scene(frame.root(), 1000, 800);
    scene.setUserData(frame);
    frame.dress(scene);
    stage.setScene(scene);
    stage.setX(0);
    stage.setY(0);
    stage.show();
    window = stage;
  }

  @AfterEach
  void everythingIsWritten() {
    assertThat(bench.runner().finish(joiner.desktop.work.Lane.SAVING, 20_000)).isTrue();
  }

  @BeforeEach
  void settled() throws Exception {
    until(() -> bench.verdict().isCurrent());
    assertThat(FxToolkit.isFXApplicationThreadRunning()).isTrue();
  }

  private static void until(BooleanSupplier condition) throws Exception {
    WaitForAsyncUtils.waitFor(
        20, TimeUnit.SECONDS, () -> WaitForAsyncUtils.asyncFx(condition::getAsBoolean).get());
  }

  private void go(FxRobot robot, Stage stage) throws Exception {
    robot.press(KeyCode.ALT).press(KeyCode.valueOf("DIGIT" + (stage.ordinal() + 1)));
    robot.release(KeyCode.valueOf("DIGIT" + (stage.ordinal() + 1))).release(KeyCode.ALT);
    until(() -> bench.stageProperty().get() == stage);
  }

  private void choose(FxRobot robot, String table) {
    robot.interact(() -> bench.selectionProperty().set(Selection.of(new TableId(table))));
  }

  private <T extends Node> T node(FxRobot robot, String id, Class<T> type) {
    return robot.lookup("#" + id).queryAs(type);
  }

  @Test
  void theWholeWayFromDemoToShipped(FxRobot robot) throws Exception {
    go(robot, Stage.CONNECT);
    robot.interact(
        () ->
            bench
                .selectionProperty()
                .set(Selection.of(new TableId("piece"), new RelationshipId("fk_piece_maker_id"))));
    MenuButton quantity =
        robot.lookup("#quantity").<MenuButton>queryAllAs(MenuButton.class).stream()
            .filter(b -> b.getText().equals("exactly one"))
            .findFirst()
            .orElseThrow();
    MenuItem many =
        quantity.getItems().stream()
            .filter(item -> item.getText().equals("any number of"))
            .findFirst()
            .orElseThrow();
    robot.interact(many::fire);
    Button make = node(robot, "preview-make", Button.class);
    until(() -> !make.isDisabled());
    assertThat(bench.design().tableNamed("piece_member")).as("it is shown first").isEmpty();
    assertThat(robot.lookup(".label").<Label>queryAllAs(Label.class))
        .anyMatch(l -> "each becomes a row of Piece member".equals(l.getText()));
    robot.type(KeyCode.ENTER);
    until(() -> bench.design().tableNamed("piece_member").isPresent());
    assertThat(bench.draft().rows().of(new TableId("piece_member")).count()).isEqualTo(120);

    go(robot, Stage.GUARD);
    choose(robot, "kiln");
    robot.clickOn("#new-rule");
    until(() -> window.getScene().getFocusOwner() instanceof TextArea);
    TextArea condition = (TextArea) window.getScene().getFocusOwner();
    robot.interact(() -> condition.setText("litres > 10 AN hottest_c < 1400"));
    assertThat(robot.lookup(".label").<Label>queryAllAs(Label.class))
        .anyMatch(l -> l.getText() != null && l.getText().contains("“AN”"));
    robot.interact(() -> condition.setText("litres > 50"));
    robot.interact(() -> condition.getParent().requestFocus());
    until(
        () -> bench.verdict().audit().violations().anyMatch(v -> v.table().value().equals("kiln")));

    go(robot, Stage.PROVE);
    ListView<?> violations = node(robot, "violations", ListView.class);
    assertThat(violations.getItems().stream().map(String::valueOf))
        .as("beside what sessions say again")
        .filteredOn(line -> line.contains("violation=Optional["))
        .hasSize(1);
    until(() -> !robot.lookup(".bad").queryAll().isEmpty());
    robot.interact(bench::undo);
    robot.interact(bench::undo);
    until(() -> bench.verdict().audit().total() == 0);

    go(robot, Stage.SHIP);
    until(() -> !robot.lookup("#ship").queryAll().isEmpty());
    Path file = folder.resolve("walk");
    until(
        () ->
            robot
                .lookup("#ship")
                .tryQueryAs(Button.class)
                .filter(b -> !b.isDisabled())
                .isPresent());
    robot.interact(
        () -> {
          ship = new ShipView(bench, new Targets(Settings.in(folder.resolve("settings"))));
          ship.ship(file);
        });
    until(() -> ship.side().lookup("#shipped") != null);
    robot.interact(() -> ((Button) ship.side().lookup("#place-differs")).fire());
    until(() -> ship.side().lookup("#drift") != null);
    assertThat(ship.side().lookupAll(".card")).as("what differs from the design").isEmpty();
    robot.interact(() -> ((Button) ship.side().lookup("#place-audit")).fire());
    until(() -> ship.side().lookup("#audited") != null);
    assertThat(ship.side().lookupAll(".card")).as("what breaks the design there").isEmpty();
    until(() -> bench.keeper().stateProperty().get() == SaveState.SAVED);
    assertThat(DesignFolder.open(saved).draft()).isEqualTo(bench.draft());
  }

  @Test
  void aServerThatCannotBeReachedIsToldWithItsReasonUntilAnotherIsMeant(FxRobot robot)
      throws Exception {
    go(robot, Stage.SHIP);
    until(() -> !robot.lookup("#target-postgresql").queryAll().isEmpty());
    robot.interact(() -> robot.lookup("#target-postgresql").queryAs(ToggleButton.class).fire());
    TextField address = node(robot, "place-address", TextField.class);
    until(() -> robot.lookup("#ship").queryButton().isDisabled());
    robot.interact(() -> address.setText("localhost:1/studio"));
    robot.interact(() -> robot.lookup("#place-try").queryButton().fire());
    Label result = node(robot, "place-result", Label.class);
    until(() -> result.getText().contains("nobody answers there"));
    robot.interact(() -> address.setText("localhost:2/studio"));
    assertThat(result.getText()).isEmpty();
    assertThat(result.isVisible()).as("lies over nothing").isFalse();
  }

  @Test
  void aScriptOfSqlBringsItsTablesAndWhatIsNotUnderstoodIsTold(FxRobot robot) throws Exception {
    Frame frame = (Frame) window.getScene().getUserData();
    Path script = folder.resolve("tools.sql");
    java.nio.file.Files.writeString(
        script,
        "CREATE TABLE tool (tool_id integer PRIMARY KEY, kiln varchar(9));\nCREATE VIEW v AS SELECT 1;");
    robot.interact(() -> frame.gather(script));
    until(() -> bench.design().tableNamed("tool").isPresent());
    until(
        () ->
            bench.notices().shown().stream()
                .anyMatch(n -> n.text().contains("Line 2, not taken along: CREATE VIEW")));
    robot.interact(bench::undo);
    assertThat(bench.design().tableNamed("tool")).isEmpty();
    Path none = folder.resolve("none.sql");
    java.nio.file.Files.writeString(none, "SELECT 1;");
    robot.interact(() -> frame.gather(none));
    until(
        () ->
            bench.notices().shown().stream()
                .anyMatch(n -> n.text().contains("none.sql makes no table")));
  }

  @Test
  void rowsThatAreChosenAreRemovedAtOnceAndOneUndoBringsThemBack(FxRobot robot) throws Exception {
    choose(robot, "kiln");
    go(robot, Stage.SHAPE);
    var kiln = new TableId("kiln");
    TableView<?> rows = node(robot, "sample-grid", TableView.class);
    assertThat(robot.lookup("#remove-rows").queryButton().isVisible()).isFalse();
    robot.interact(() -> rows.getSelectionModel().selectIndices(0, 2));
    robot.interact(() -> robot.lookup("#remove-rows").queryButton().fire());
    assertThat(bench.draft().rows().of(kiln).count()).isEqualTo(2);
    assertThat(bench.historyProperty().get().undoName()).contains("remove 2 rows of Kiln");
    robot.interact(bench::undo);
    assertThat(bench.draft()).isEqualTo(Pottery.demo());
  }

  @Test
  void aRemovedFieldTellsWhichRulesCanNoLongerBeRead(FxRobot robot) throws Exception {
    choose(robot, "firing");
    go(robot, Stage.SHAPE);
    TableView<?> grid = node(robot, "field-grid", TableView.class);
    var fields = bench.table().orElseThrow().fields();
    int ended = fields.indexOf(bench.table().orElseThrow().fieldNamed("ended_at").orElseThrow());
    robot.interact(() -> grid.getSelectionModel().select(ended));
    robot.interact(() -> robot.lookup("#remove-fields").queryButton().fire());
    until(() -> robot.lookup("#preview-make").tryQuery().isPresent());
    Button make = node(robot, "preview-make", Button.class);
    until(() -> !make.isDisabled());
    assertThat(robot.lookup(".label").<Label>queryAllAs(Label.class))
        .as("said before it happens")
        .anyMatch(
            l ->
                l.getText() != null
                    && l.getText()
                        .contains("The rule Ends after it starts of Firing can no longer"));
    assertThat(bench.draft()).isEqualTo(Pottery.demo());
    robot.interact(make::fire);
    assertThat(bench.notices().newest().orElseThrow().text())
        .contains("The rule Ends after it starts of Firing can no longer be read");
    robot.interact(bench::undo);
    assertThat(bench.draft()).isEqualTo(Pottery.demo());
  }

  @Test
  void undoAndRedoAreNamedAndBoundToKeys(FxRobot robot) throws Exception {
    choose(robot, "kiln");
    go(robot, Stage.SHAPE);
    TableView<?> grid = node(robot, "field-grid", TableView.class);
    robot.interact(() -> grid.getSelectionModel().select(3));
    Draft before = bench.draft();
    robot.interact(
        () ->
            bench.apply(
                joiner.edit.ChangeField.required(
                    bench.table().orElseThrow(),
                    bench.table().orElseThrow().fields().get(3),
                    false)));
    assertThat(bench.historyProperty().get().undoName()).contains("make Litres optional");
    robot.press(KeyCode.CONTROL).press(KeyCode.Z).release(KeyCode.Z).release(KeyCode.CONTROL);
    until(() -> bench.draft().equals(before));
    robot
        .press(KeyCode.CONTROL)
        .press(KeyCode.SHIFT)
        .press(KeyCode.Z)
        .release(KeyCode.Z)
        .release(KeyCode.SHIFT)
        .release(KeyCode.CONTROL);
    until(() -> !bench.draft().equals(before));
  }

  @Test
  void theFinderGoesToATable(FxRobot robot) throws Exception {
    robot.press(KeyCode.CONTROL).press(KeyCode.K).release(KeyCode.K).release(KeyCode.CONTROL);
    until(() -> node(robot, "finder-text", TextInputControl.class).isFocused());
    robot.interact(
        () -> node(robot, "finder-text", TextInputControl.class).setText("table recipe"));
    robot.type(KeyCode.ENTER);
    until(
        () ->
            bench
                .selectionProperty()
                .get()
                .table()
                .equals(Optional.of(new TableId("recipe_line"))));
  }

  @Test
  void clickingABoardOnTheMapChoosesItsTable(FxRobot robot) throws Exception {
    go(robot, Stage.CONNECT);
    MapView map = node(robot, "map", MapView.class);
    until(
        () ->
            map.middleOf(new TableId("kiln")).isPresent()
                && map.layoutShown().boards().size() == 16);
    Point2D middle = map.middleOf(new TableId("kiln")).orElseThrow();
    Point2D onScreen = map.localToScreen(middle);
    robot.clickOn(onScreen);
    until(() -> bench.table().map(t -> t.name().equals("kiln")).orElse(false));
  }

  @Test
  void aFileBecomesATableWithItsRows(FxRobot robot) throws Exception {
    Frame frame = (Frame) window.getScene().getUserData();
    robot.interact(() -> frame.gather(Pottery.folder("sources/firing log.csv")));
    until(() -> !robot.lookup("#add-as-table").queryAll().isEmpty());
    robot.interact(node(robot, "add-as-table", Button.class)::fire);
    until(() -> bench.design().tableNamed("firing_log").isPresent());
    assertThat(bench.draft().rows().of(new TableId("firing_log")).count()).isEqualTo(180);
  }

  @Test
  void theFlatFiringLogIsSplitUndoneAndRedoneAndAuditsClean(FxRobot robot) throws Exception {
    go(robot, Stage.GATHER);
    int tables = bench.design().tables().size();
    Frame frame = (Frame) window.getScene().getUserData();
    robot.interact(() -> frame.gather(Pottery.folder("sources/firing log.csv")));
    until(() -> !robot.lookup("#fact-member-decides-e_mail").queryAll().isEmpty());
    CheckBox address = node(robot, "fact-member-decides-e_mail", CheckBox.class);
    assertThat(address.isSelected()).as("plausible though two rows contradict").isTrue();
    until(() -> said(robot, "2 contradictions left"));

    robot.interact(node(robot, "fact-kiln-lookup", CheckBox.class)::fire);
    until(() -> !node(robot, "fact-kiln-lookup", CheckBox.class).isSelected());
    CheckBox spelling =
        robot.lookup(".check-box").<CheckBox>queryAllAs(CheckBox.class).stream()
            .filter(tick -> tick.getId().startsWith("fact-clay_supplier-same"))
            .findFirst()
            .orElseThrow();
    assertThat(spelling.isSelected()).as("no value is merged unasked").isFalse();
    robot.interact(spelling::fire);
    press(robot, "odo.wick@example.org");
    until(() -> said(robot, "1 contradiction left"));
    press(robot, "ines.finch@example.org");
    until(() -> !robot.lookup("#split").queryAll().isEmpty());
    until(() -> said(robot, "give back the same 180 rows"));
    Button split = node(robot, "split", Button.class);
    assertThat(split.getText()).isEqualTo("Split into 7 tables");
    robot.interact(
        () -> {
          split.fire();
          split.fire(); // A second press makes nothing twice.
        });

    until(() -> bench.stageProperty().get() == Stage.CONNECT);
    assertThat(bench.design().tables()).hasSize(tables + 7);
    assertThat(rows("firing_log")).isEqualTo(180);
    assertThat(rows("firing_log_member")).isEqualTo(12);
    assertThat(rows("firing_log_cone")).isEqualTo(3);
    assertThat(rows("clay_supplier")).as("two spellings are one").isEqualTo(2);
    until(() -> bench.verdict().audit().rows() > 1_000);
    assertThat(bench.verdict().audit().total()).isZero();
    Draft after = bench.draft();
    robot.interact(bench::undo);
    assertThat(bench.design().tables()).hasSize(tables);
    robot.interact(bench::redo);
    assertThat(bench.draft()).isEqualTo(after);
    until(() -> bench.verdict().audit().rows() > 1_000);
    assertThat(bench.verdict().audit().total()).isZero();
  }

  @Test
  void aPastedBlockIsASource(FxRobot robot) throws Exception {
    robot.interact(
        () -> {
          var content = new javafx.scene.input.ClipboardContent();
          content.putString("Kiln\tLitres\nEmber\t120\nBig Tom\t300\n");
          javafx.scene.input.Clipboard.getSystemClipboard().setContent(content);
        });
    robot.press(KeyCode.CONTROL).press(KeyCode.SHIFT).press(KeyCode.V);
    robot.release(KeyCode.V).release(KeyCode.SHIFT).release(KeyCode.CONTROL);
    until(() -> said(robot, "2 rows · tab"));
    assertThat(node(robot, "source-grid", TableView.class).getColumns()).hasSize(2);
  }

  @Test
  void aSourceOpenedAfterAnotherShowsItsOwnColumnsAndFacts(FxRobot robot) throws Exception {
    Frame frame = (Frame) window.getScene().getUserData();
    robot.interact(() -> frame.gather(Pottery.folder("sources/firing log.csv")));
    until(() -> !robot.lookup("#fact-cone-decides-c").queryAll().isEmpty());
    robot.interact(() -> frame.gather(Pottery.folder("sources/course bookings.json")));
    until(() -> !robot.lookup("#fact-course_code-decides-course_title").queryAll().isEmpty());
    assertThat(robot.lookup("#fact-cone-decides-c").queryAll()).isEmpty();
    until(
        () ->
            robot.lookup(".check-box").<CheckBox>queryAllAs(CheckBox.class).stream()
                .anyMatch(tick -> "course.code itself".equals(tick.getText())));
    robot.interact(() -> node(robot, "sources", ComboBox.class).getSelectionModel().select(0));
    until(() -> !robot.lookup("#fact-cone-decides-c").queryAll().isEmpty());
    assertThat(robot.lookup(".check-box").<CheckBox>queryAllAs(CheckBox.class))
        .noneMatch(tick -> "course.code itself".equals(tick.getText()));
  }

  @Test
  void aDependencyThePersonKnowsIsPutToTheRows(FxRobot robot) throws Exception {
    Frame frame = (Frame) window.getScene().getUserData();
    robot.interact(() -> frame.gather(Pottery.folder("sources/firing log.csv")));
    until(() -> said(robot, "2 contradictions left"));
    press(robot, "Say something");
    List<ComboBox<Object>> boxes = new ArrayList<>();
    for (ComboBox<Object> box : robot.lookup(".combo-box").<ComboBox<Object>>queryAll()) {
      if (box.getItems().contains("Kiln")) {
        boxes.add(box);
      }
    }
    robot.interact(
        () -> {
          boxes.getFirst().setValue("Member");
          boxes.getLast().setValue("Clay supplier");
        });
    press(robot, "Say so");
    until(
        () ->
            !robot.lookup("#fact-member-decides-clay_supplier").queryAll().isEmpty()
                && said(robot, "Member → Clay supplier"));
    assertThat(node(robot, "fact-member-decides-clay_supplier", CheckBox.class).isSelected())
        .isTrue();
  }

  @Test
  void aFileThatCannotBeReadIsToldAndChangesNothing(FxRobot robot) throws Exception {
    Path broken = java.nio.file.Files.writeString(folder.resolve("kilns.xlsx"), "no workbook");
    Frame frame = (Frame) window.getScene().getUserData();
    robot.interact(() -> frame.gather(broken));
    until(() -> told().contains("kilns.xlsx"));
    assertThat(told()).contains("Save it anew");
    assertThat(bench.design().tables()).hasSize(16);
  }

  private int rows(String table) {
    return bench.draft().rows().of(new TableId(table)).count();
  }

  private static boolean said(FxRobot robot, String text) {
    return robot.lookup(".label").<Label>queryAllAs(Label.class).stream()
        .anyMatch(label -> label.getText() != null && label.getText().contains(text));
  }

  private String told() {
    return bench.notices().newest().map(Notice::text).orElse("");
  }

  /** Waits for a button to be there and presses it; what is drawn later is found too. */
  private static void press(FxRobot robot, String beginning) throws Exception {
    until(() -> button(robot, beginning).isPresent());
    robot.interact(() -> button(robot, beginning).orElseThrow().fire());
  }

  private static Optional<Button> button(FxRobot robot, String beginning) {
    return robot.lookup(".button").<Button>queryAllAs(Button.class).stream()
        .filter(b -> b.getText() != null && b.getText().startsWith(beginning))
        .findFirst();
  }

  @Test
  void aRefusedChangeIsToldAndChangesNothing(FxRobot robot) {
    Draft before = bench.draft();
    robot.interact(
        () ->
            bench.apply(
                new joiner.edit.FromManyToMany(
                    new TableId("piece_glaze"),
                    new RelationshipId("fk_piece_glaze_piece_id"),
                    "x")));
    assertThat(bench.draft()).isSameAs(before);
    assertThat(robot.lookup("#notice").query().isVisible()).isTrue();
  }

  @Test
  void aPictureOfTheWindowIsNotBlankInEitherTheme(FxRobot robot) throws Exception {
    for (Theme theme : Theme.values()) {
      robot.interact(() -> theme.applyTo(window.getScene()));
      var image = WaitForAsyncUtils.asyncFx(() -> window.getScene().snapshot(null)).get();
      var colours = new java.util.HashSet<Integer>();
      for (int x = 0; x < 1000; x += 3) {
        colours.add(image.getPixelReader().getArgb(x, 24));
      }
      assertThat(colours).as(theme.name().toLowerCase(Locale.ROOT)).hasSizeGreaterThan(5);
    }
  }

  /** Whoever makes a rule types in it at once, and sees where. */
  @Test
  void aNewRuleIsInSightHoweverManyThereAre(FxRobot robot) throws Exception {
    go(robot, Stage.GUARD);
    choose(robot, "firing");
    for (int i = 0; i < 3; i++) {
      robot.clickOn("#new-rule");
    }
    int rules = bench.design().table(new TableId("firing")).rules().size();
    until(() -> robot.lookup(".condition").queryAll().size() == rules);
    String last = bench.design().table(new TableId("firing")).rules().getLast().name();
    TextArea condition = node(robot, "condition-" + last, TextArea.class);
    until(condition::isFocused);
    until(
        () -> {
          Bounds at = condition.localToScene(condition.getBoundsInLocal());
          return at.getMinY() > 0 && at.getMaxY() < condition.getScene().getHeight();
        });
  }

  @Test
  void noHeadingIsCutInANarrowWindow(FxRobot robot) throws Exception {
    choose(robot, "kiln");
    for (Stage stage : List.of(Stage.SHAPE, Stage.CONNECT, Stage.GUARD, Stage.PROVE, Stage.SHIP)) {
      go(robot, stage);
      // What is filled in later is built anew; a heading is seen once it has been laid out.
      var titles = new ArrayList<Label>();
      until(
          () -> {
            titles.clear();
            titles.addAll(robot.lookup(".title").queryAllAs(Label.class));
            return !titles.isEmpty() && titles.stream().allMatch(t -> t.lookup(".text") != null);
          });
      assertThat(titles)
          .as(stage.name())
          .allSatisfy(
              title -> {
                var seen = (javafx.scene.text.Text) title.lookup(".text");
                assertThat(seen.getText().replaceAll("\\s+", " ")).isEqualTo(title.getText());
              });
    }
  }

  @Test
  void theSideSheetStaysWithinTheWindowWhateverItIsAbout(FxRobot robot) throws Exception {
    go(robot, Stage.SHAPE);
    for (String name : List.of("glaze", "member")) {
      Table table = bench.design().table(new TableId(name));
      for (Field field : table.fields()) {
        robot.interact(() -> bench.selectionProperty().set(Selection.of(table.id(), field.id())));
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(robot.lookup(".side-sheet .text-field").<Node>queryAllAs(Node.class))
            .as(table.name() + "." + field.name())
            .isNotEmpty()
            .allSatisfy(
                node ->
                    assertThat(node.localToScene(node.getBoundsInLocal()).getMaxX())
                        .isLessThanOrEqualTo(node.getScene().getWidth()));
      }
    }
  }

  @Test
  void rowsAreLookedForAndWhatIsTypedGoesToTheRowThatIsSeen(FxRobot robot) throws Exception {
    choose(robot, "firing");
    go(robot, Stage.SHAPE);
    TableView<?> grid = node(robot, "sample-grid", TableView.class);
    TextField filter = node(robot, "row-filter", TextField.class);
    TableId firing = new TableId("firing");
    int count = bench.draft().rows().of(firing).count();
    until(() -> grid.getItems().size() == count);
    robot.interact(filter::requestFocus);
    robot.write("2025 10");
    until(() -> grid.getItems().size() < count);
    int row = (Integer) grid.getItems().get(2);
    robot.interact(
        () -> {
          grid.requestFocus();
          grid.getSelectionModel().clearAndSelect(2);
        });
    robot.interact(() -> node(robot, "remove-rows", Button.class).fire());
    until(() -> bench.draft().rows().of(firing).count() == count - 1);
    robot.interact(bench::undo);
    until(() -> bench.draft().rows().of(firing).count() == count);
    assertThat(row).isNotEqualTo(2);
    robot.interact(() -> grid.getSelectionModel().clearAndSelect(0));
    Node add = grid.getScene().lookup("#add-row");
    assertThat(add.localToScene(add.getBoundsInLocal()).getMaxX())
        .as("nothing is pushed out of the stage")
        .isLessThan(robot.lookup(".side-sheet").<Node>query().localToScene(0, 0).getX());
    assertThat(filter.getText()).isEqualTo("2025 10");
    robot.interact(filter::requestFocus);
    robot.type(KeyCode.ESCAPE);
    until(() -> grid.getItems().size() == count);
  }
}
