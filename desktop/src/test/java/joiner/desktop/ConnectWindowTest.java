package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.event.EventType;
import javafx.geometry.Point2D;
import javafx.scene.control.Button;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import joiner.desktop.map.MapView;
import joiner.desktop.map.MatrixView;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.edit.Reading;
import joiner.model.FieldId;
import joiner.model.Pin;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/**
 * Every way to relate two tables, and a change seen before it is made, with real keys and mouse.
 */
class ConnectWindowTest extends OpenedWindow {
  @Start
  void start(javafx.stage.Stage stage) throws Exception {
    open(stage);
  }

  private MapView map(FxRobot robot) throws Exception {
    MapView map = node(robot, "map", MapView.class);
    until(() -> map.layoutShown().boards().size() == bench.design().tables().size());
    return map;
  }

  private static Point2D at(MapView map, String table) {
    return map.localToScreen(map.middleOf(new TableId(table)).orElseThrow());
  }

  private List<Relationship> ties(String child, String parent) {
    return bench.design().parentsOf(new TableId(child)).stream()
        .filter(r -> r.parent().equals(new TableId(parent)))
        .toList();
  }

  private void makeIt(FxRobot robot) throws Exception {
    Button make = node(robot, "relate-make", Button.class);
    until(() -> !make.isDisabled() && make.getScene() != null);
    untilFocused("relate-make");
    robot.type(KeyCode.ENTER);
  }

  @Test
  void aBoardIsDraggedToAnother(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "kiln");
    MapView map = map(robot);
    robot.drag(at(map, "supplier"), MouseButton.PRIMARY).dropTo(at(map, "kiln"));
    until(() -> says(robot, "Relate two tables"));
    assertThat(ties("kiln", "supplier")).as("nothing is made yet").isEmpty();
    makeIt(robot);
    until(() -> ties("kiln", "supplier").size() == 1);
    Relationship made = ties("kiln", "supplier").getFirst();
    assertThat(bench.selectionProperty().get().relationship()).contains(made.id());
    assertThat(
            bench.design().table(new TableId("kiln")).field(made.childFields().getFirst()).name())
        .isEqualTo("supplier_id");
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    until(() -> ties("kiln", "supplier").isEmpty());
  }

  @Test
  void byKeysAloneOneWalksAndRelates(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "member");
    MapView map = map(robot);
    robot.interact(map::requestFocus);
    robot.type(KeyCode.LEFT);
    until(() -> bench.table().map(Table::name).equals(Optional.of("membership_plan")));
    robot.type(KeyCode.RIGHT);
    until(() -> bench.table().map(Table::name).equals(Optional.of("member")));
    robot.type(KeyCode.R).type(KeyCode.RIGHT);
    until(() -> !bench.table().map(Table::name).equals(Optional.of("member")));
    String other = bench.table().orElseThrow().name();
    int before = ties(other, "member").size();
    robot.type(KeyCode.ENTER);
    makeIt(robot);
    until(() -> ties(other, "member").size() == before + 1);
    robot.interact(map::requestFocus);
    robot.type(KeyCode.ENTER);
    until(() -> bench.stageProperty().get() == Stage.SHAPE);
  }

  private void untilPicking(FxRobot robot) throws Exception {
    TextInputControl typed = node(robot, "picker-text", TextInputControl.class);
    until(typed::isFocused);
  }

  @Test
  void theSheetTiesByFieldsThatAreThereAndByNumberWords(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "glaze");
    robot.interact(node(robot, "relate", Button.class)::fire);
    untilFocused("other-table");
    robot.type(KeyCode.ENTER);
    untilPicking(robot);
    robot.write("incident");
    robot.type(KeyCode.ENTER);
    Button by = node(robot, "relate-by", Button.class);
    until(() -> by.getText().contains("glaze_id"));
    robot.interact(by::fire);
    untilPicking(robot);
    robot.write("details");
    robot.type(KeyCode.ENTER);
    until(() -> says(robot, "Relate two tables"));
    node(robot, "relate-types", Button.class);
    robot.type(KeyCode.ESCAPE);
    until(() -> !says(robot, "Relate two tables"));
    assertThat(ties("incident", "glaze")).as("Escape leaves it").isEmpty();
  }

  /** Somebody who has the form open and looks for a table in the list is not interrupted. */
  @Test
  void theOpenFormTakesTheFocusFromNobody(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "glaze");
    robot.interact(node(robot, "relate", Button.class)::fire);
    untilFocused("other-table");
    TextInputControl filter = node(robot, "table-filter", TextInputControl.class);
    robot.interact(filter::requestFocus);
    robot.interact(() -> bench.selectionProperty().set(Selection.of(new TableId("kiln"))));
    robot.write("pie");
    assertThat(filter.isFocused()).isTrue();
    assertThat(filter.getText()).isEqualTo("pie");
    assertThat(says(robot, "Relate two tables")).as("it waits").isTrue();
  }

  private static boolean shows(MapView map, String... tables) {
    return map.layoutShown()
        .boards()
        .keySet()
        .equals(Arrays.stream(tables).map(TableId::new).collect(Collectors.toSet()));
  }

  @Test
  void anAreaIsFoldedByAKeyAndUnfoldedByAClick(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "kiln");
    MapView map = map(robot);
    robot.interact(map::requestFocus);
    robot.type(KeyCode.F);
    until(() -> !map.layoutShown().folded().isEmpty());
    assertThat(map.layoutShown().folded().keySet())
        .extracting(TableId::value)
        .containsExactlyInAnyOrder("kiln", "cone", "firing", "incident");
    assertThat(map.layoutShown().bundles()).isNotEmpty();
    robot.type(KeyCode.LEFT); // A folded area is walked on from like a table.
    until(() -> !bench.table().map(Table::name).equals(Optional.of("kiln")));
    robot.clickOn(at(map, "kiln"));
    until(() -> map.layoutShown().folded().isEmpty());
    assertThat(map.layoutShown().boards()).hasSize(16);
  }

  @Test
  void onlyWhatLeadsFromOneTableToAnotherIsShown(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "locker");
    MapView map = map(robot);
    robot.interact(map::requestFocus);
    robot.type(KeyCode.W);
    robot.interact(() -> bench.selectionProperty().set(Selection.of(new TableId("piece"))));
    robot.interact(map::requestFocus);
    robot.type(KeyCode.ENTER);
    until(() -> shows(map, "locker", "member", "piece"));
    robot.type(KeyCode.H); // The piece is taken off.
    until(() -> shows(map, "locker", "member"));
    robot.interact(node(robot, "hidden-shown", Button.class)::fire);
    until(() -> shows(map, "locker", "member", "piece"));
    robot.interact(node(robot, "ways-shown", Button.class)::fire);
    until(() -> map.layoutShown().boards().size() == 16);
  }

  /** The mouse with Ctrl held down, which a robot without a display does not tell of. */
  private static void mouse(MapView map, EventType<MouseEvent> type, Point2D at) {
    MouseButton left = MouseButton.PRIMARY;
    boolean down = type != MouseEvent.MOUSE_RELEASED;
    Point2D inScene = map.localToScene(at);
    map.fireEvent(
        new MouseEvent(
            type,
            inScene.getX(),
            inScene.getY(),
            inScene.getX(),
            inScene.getY(),
            left,
            1,
            false,
            true,
            false,
            false,
            down,
            false,
            false,
            false,
            false,
            false,
            null));
  }

  @Test
  void aBoardIsPinnedByDraggingWithControlAndLetGoByAKey(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "kiln");
    MapView map = map(robot);
    Point2D kiln = map.middleOf(new TableId("kiln")).orElseThrow();
    robot.interact(
        () -> {
          mouse(map, MouseEvent.MOUSE_PRESSED, kiln);
          mouse(map, MouseEvent.MOUSE_DRAGGED, kiln.add(200, 90));
          mouse(map, MouseEvent.MOUSE_RELEASED, kiln.add(200, 90));
        });
    until(() -> bench.design().pins().size() == 1);
    assertThat(ties("kiln", "piece_glaze")).as("nothing is related").isEmpty();
    robot.interact(map::requestFocus);
    List<Pin> pinned = bench.design().pins();
    robot.press(KeyCode.CONTROL).type(KeyCode.LEFT).release(KeyCode.CONTROL);
    until(() -> !bench.design().pins().equals(pinned));
    robot.type(KeyCode.P);
    until(() -> bench.design().pins().isEmpty());
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
    until(() -> bench.design().pins().size() == 1);
  }

  /** A session is told by its course and a number already; here it gets a key of its own. */
  @Test
  void aJoinTableGetsAKeyOfItsOwnAndARowIsCountedWithinItsParent(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "enrolment");
    Relationship toSession = ties("enrolment", "session").getFirst();
    robot.interact(
        () -> bench.selectionProperty().set(Selection.of(toSession.child(), toSession.id())));
    robot.interact(node(robot, "other-own_key", Button.class)::fire);
    untilFocused("preview-make");
    robot.type(KeyCode.ENTER);
    until(() -> table("enrolment").primaryKey().size() == 1);
    assertThat(table("enrolment").kind()).isInstanceOf(TableKind.Plain.class);
    assertThat(
            table("enrolment")
                .isUnique(
                    List.of(
                        new FieldId("member_id"),
                        new FieldId("course_code"),
                        new FieldId("session_no"))))
        .isTrue();
    Relationship toKiln = ties("firing", "kiln").getFirst();
    robot.interact(() -> bench.selectionProperty().set(Selection.of(toKiln.child(), toKiln.id())));
    robot.interact(node(robot, "other-within", Button.class)::fire);
    untilFocused("preview-make");
    robot.type(KeyCode.ENTER);
    until(() -> table("firing").primaryKey().size() == 2);
    assertThat(ties("incident", "firing").getFirst().childFields()).hasSize(2);
    until(() -> bench.verdict().isCurrent());
    assertThat(bench.verdict().audit().violations()).isEmpty();
    robot.press(KeyCode.CONTROL).type(KeyCode.Z).type(KeyCode.Z).release(KeyCode.CONTROL);
    until(() -> table("enrolment").kind() instanceof TableKind.Join);
  }

  private Table table(String name) {
    return bench.design().table(new TableId(name));
  }

  @Test
  void aTableIsLookedForOnTheMap(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "kiln");
    map(robot);
    TextInputControl find = node(robot, "find-on-map", TextInputControl.class);
    robot.interact(find::requestFocus);
    robot.write("glaze");
    robot.type(KeyCode.ENTER);
    until(() -> bench.table().map(Table::name).equals(Optional.of("glaze")));
    robot.type(KeyCode.ENTER);
    until(() -> bench.table().map(Table::name).equals(Optional.of("piece_glaze")));
    assertThat(find.isFocused()).as("one goes on looking").isTrue();
  }

  @Test
  void aSentenceIsTypedInTheFinder(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "kiln");
    robot.press(KeyCode.CONTROL).type(KeyCode.K).release(KeyCode.CONTROL);
    untilFocused("finder-text");
    robot.write("supplier mends many kilns");
    robot.type(KeyCode.ENTER);
    makeIt(robot);
    until(() -> ties("kiln", "supplier").size() == 1);
    assertThat(Reading.of(bench.design(), ties("kiln", "supplier").getFirst()))
        .first()
        .extracting(Reading::sentence)
        .isEqualTo("Each supplier mends any number of kilns.");
  }

  @Test
  void theMatrixRelatesAndChooses(FxRobot robot) throws Exception {
    show(robot, Stage.CONNECT, "kiln");
    robot.interact(() -> robot.lookup("#face-matrix").queryAs(ToggleButton.class).fire());
    MatrixView matrix = node(robot, "matrix", MatrixView.class);
    until(() -> matrix.shown().tables().size() == bench.design().tables().size());
    untilFocused("matrix");
    List<String> order = matrix.shown().tables().stream().map(Table::name).toList();
    go(robot, matrix, order.indexOf("firing"), order.indexOf("member"));
    robot.type(KeyCode.ENTER);
    until(() -> bench.selectionProperty().get().relationship().isPresent());
    var first = bench.selectionProperty().get().relationship();
    robot.type(KeyCode.ENTER);
    until(() -> !bench.selectionProperty().get().relationship().equals(first));
    assertThat(ties("firing", "member"))
        .extracting(Relationship::id)
        .contains(bench.selectionProperty().get().relationship().orElseThrow());
    go(robot, matrix, order.indexOf("glaze"), order.indexOf("supplier"));
    robot.type(KeyCode.ENTER);
    until(() -> says(robot, "Relate two tables"));
    makeIt(robot);
    until(() -> ties("glaze", "supplier").size() == 1);
  }

  private void go(FxRobot robot, MatrixView matrix, int row, int column) throws Exception {
    while (matrix.cell()[0] != row) {
      robot.type(matrix.cell()[0] < row ? KeyCode.DOWN : KeyCode.UP);
    }
    while (matrix.cell()[1] != column) {
      robot.type(matrix.cell()[1] < column ? KeyCode.RIGHT : KeyCode.LEFT);
    }
  }

  @Test
  void aChangeThatReachesFarIsLeftByEscapeAndMadeByEnter(FxRobot robot) throws Exception {
    Relationship toLocker = ties("locker", "member").getFirst();
    show(robot, Stage.CONNECT, "locker");
    robot.interact(
        () -> bench.selectionProperty().set(Selection.of(toLocker.child(), toLocker.id())));
    Button turn = node(robot, "turn-round", Button.class);
    robot.interact(turn::fire);
    Button make = node(robot, "preview-make", Button.class);
    until(() -> !make.isDisabled());
    assertThat(says(robot, "all kept the other way round")).isTrue();
    assertThat(ties("locker", "member")).as("nothing has changed").hasSize(1);
    robot.type(KeyCode.ESCAPE);
    until(() -> robot.lookup("#preview-make").tryQuery().isEmpty());
    assertThat(ties("locker", "member")).hasSize(1);
    robot.interact(node(robot, "turn-round", Button.class)::fire);
    Button again = node(robot, "preview-make", Button.class);
    until(() -> !again.isDisabled() && again.isFocused());
    robot.type(KeyCode.ENTER);
    until(() -> ties("member", "locker").size() == 1 && ties("locker", "member").isEmpty());
    assertThat(Reading.of(bench.design(), ties("member", "locker").getFirst()))
        .extracting(Reading::verb)
        .containsExactly(toLocker.childRole(), toLocker.parentRole());
    FieldId by = ties("member", "locker").getFirst().childFields().getFirst();
    assertThat(bench.draft().rows().of(new TableId("member")).has(by)).isTrue();
  }
}
