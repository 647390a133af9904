package joiner.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import joiner.Tries;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.edit.CarriedType;
import joiner.edit.ChangeField;
import joiner.edit.ChangeKey;
import joiner.edit.Counters;
import joiner.edit.Edit;
import joiner.edit.Relating;
import joiner.edit.TypeChoice;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** Shape typed through with real keys: nothing is lost, and nothing needs the mouse. */
class ShapeWindowTest extends OpenedWindow {
  @Start
  void start(javafx.stage.Stage stage) throws Exception {
    open(stage);
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
                    List.of("Price paid", "", "", ""),
                    List.of("Serviced on", "", "", ""),
                    List.of("Serial number", "", "", ""),
                    List.of("Website", "", "", ""),
                    List.of("Remark", "", "", ""))),
            new Wanted(
                "Apron",
                List.of(
                    List.of("Colour", "choice", "blue, grey, oat", "*"),
                    List.of("Belt", "dec 5.1", "", ""),
                    List.of("Washed", "true", "", "*"),
                    List.of("Bought on", "", "", ""),
                    List.of("Price paid", "", "", ""),
                    List.of("Supplier name", "", "", ""),
                    List.of("Phone", "", "", ""),
                    List.of("Remark", "", "", ""))),
            new Wanted(
                "Shelf",
                List.of(
                    List.of("Shelf number", "whole", "", "*"),
                    List.of("Room", "", "12", ""),
                    List.of("Height", "", "", ""),
                    List.of("Weight", "", "", ""),
                    List.of("Built on", "", "", ""),
                    List.of("Contact e-mail", "", "", ""),
                    List.of("Is locked", "", "", ""),
                    List.of("Remark", "", "", ""))));
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
    assertThat(tables).extracting(Table::label).containsExactly("Wheel", "Apron", "Shelf");
    assertThat(said(tables.get(0)))
        .containsExactly(
            "Wheel number · wheel_number · WholeNumber 32 · required",
            "Maker · maker · Text 60 · required",
            "Bought on · bought_on · Date",
            "Price paid · price_paid · Money 10.2",
            "Serviced on · serviced_on · Date",
            "Serial number · serial_number · Text 40",
            "Website · website · WebAddress 200",
            "Remark · remark · LongText");
    assertThat(said(tables.get(1)))
        .containsExactly(
            "Colour · colour · Choice blue, grey, oat · required",
            "Belt · belt · Decimal 5.1",
            "Washed · washed · TrueFalse · required",
            "Bought on · bought_on · Date",
            "Price paid · price_paid · Money 10.2",
            "Supplier name · supplier_name · Text 80",
            "Phone · phone · Phone 24",
            "Remark · remark · LongText");
    assertThat(said(tables.get(2)))
        .containsExactly(
            "Shelf number · shelf_number · WholeNumber 32 · required",
            "Room · room · Text 12",
            "Height · height · Decimal 8.2",
            "Weight · weight · Decimal 9.3",
            "Built on · built_on · Date",
            "Contact e-mail · contact_e_mail · Email 254",
            "Is locked · is_locked · TrueFalse",
            "Remark · remark · LongText");
    assertThat((double) keys / characters).as("keys for a character").isLessThan(1.3);
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
                    + field.name()
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
    until(() -> cursor.getBoundsInParent().getMinX() > first + 150);
    robot.type(KeyCode.LEFT).type(KeyCode.LEFT).type(KeyCode.LEFT);
    until(() -> cursor.getBoundsInParent().getMinX() == first);
    // Fuel takes the type of Name, which stands above it; there is no room for names.
    robot.type(KeyCode.RIGHT);
    robot.press(KeyCode.CONTROL).type(KeyCode.D).release(KeyCode.CONTROL);
    until(() -> field("kiln", "fuel").type().equals(field("kiln", "name").type()));
    robot.press(KeyCode.ALT).type(KeyCode.UP).release(KeyCode.ALT);
    assertThat(bench.design().table(new TableId("kiln")).fieldIds())
        .startsWith(new FieldId("kiln_id"), new FieldId("fuel"), new FieldId("name"));
    robot.type(KeyCode.DELETE);
    Button make = node(robot, "preview-make", Button.class);
    until(make::isFocused);
    assertThat(bench.design().table(new TableId("kiln")).hasField(new FieldId("fuel"))).isTrue();
    robot.type(KeyCode.ENTER);
    until(() -> !bench.design().table(new TableId("kiln")).hasField(new FieldId("fuel")));
    untilFocused("field-grid");
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

  private void inClipboard(FxRobot robot, String text) {
    robot.interact(
        () -> {
          var content = new ClipboardContent();
          content.putString(text);
          Clipboard.getSystemClipboard().setContent(content);
        });
  }

  private static void paste(FxRobot robot) {
    robot.press(KeyCode.CONTROL).type(KeyCode.V).release(KeyCode.CONTROL);
  }

  @Test
  void aListPastedWhereAFieldIsTypedIsShownAndThenAdded(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "kiln");
    int before = bench.design().table(new TableId("kiln")).fields().size();
    stand(robot, "field-grid", before);
    inClipboard(robot, "Shelf count\tint\t\tyes\nBought on\tdate\t\tno\n");
    robot.write("S"); // Already typing: in one cell the lines would run together.
    paste(robot);
    until(() -> robot.lookup("#list-preview").tryQuery().isPresent());
    assertThat(bench.design().table(new TableId("kiln")).fields()).hasSize(before);
    until(() -> "list-add".equals(String.valueOf(scene.getFocusOwner().getId())));
    robot.type(KeyCode.ENTER);
    until(() -> bench.design().table(new TableId("kiln")).fields().size() == before + 2);
    assertThat(bench.design().table(new TableId("kiln")).fields().getLast().type())
        .isEqualTo(new FieldType.Date());
    untilFocused("field-grid");
  }

  @Test
  void fieldsAreCopiedFromOneTableIntoAnother(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "firing");
    stand(robot, "field-grid", 7);
    robot.press(KeyCode.CONTROL).type(KeyCode.C).release(KeyCode.CONTROL);
    show(robot, Stage.SHAPE, "kiln");
    stand(robot, "field-grid", 0);
    paste(robot);
    until(() -> bench.design().table(new TableId("kiln")).hasField(new FieldId("peak_c")));
    assertThat(field("kiln", "peak_c").limits()).isEqualTo(field("firing", "peak_c").limits());
  }

  @Test
  void aParentIsPickedByWhatPeopleRecogniseItBy(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "firing");
    TableView<?> rows = stand(robot, "sample-grid", 0);
    until(() -> shows(rows, "The Bin"));
    robot.type(KeyCode.TAB);
    robot.write("l");
    until(() -> robot.lookup("#picker-text").tryQuery().isPresent());
    robot.write("ittle").type(KeyCode.TAB);
    FieldId kiln = new FieldId("kiln_id");
    TableId firing = new TableId("firing");
    until(() -> bench.draft().rows().of(firing).cell(0, kiln).equals(Optional.of("2")));
    until(() -> shows(rows, "Little Ann"));
  }

  private static boolean shows(TableView<?> rows, String text) {
    return rows.lookupAll(".table-cell").stream()
        .anyMatch(cell -> cell instanceof Labeled labeled && text.equals(labeled.getText()));
  }

  private static List<String> labels(TableView<?> grid) {
    return IntStream.range(0, grid.getItems().size() - 1)
        .mapToObj(row -> cell(grid, "column-label", row))
        .toList();
  }

  /** A group is one line when it is folded, and moves as one; all with the keyboard. */
  @Test
  void anAddressIsTypedFoldedNamedAndMovedAsOne(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "supplier");
    TableView<?> grid = stand(robot, "field-grid", 4);
    robot.write("Delivery address", 0).type(KeyCode.TAB).write("addr", 0);
    until(() -> robot.lookup("#picker-list").tryQuery().isPresent());
    robot.type(KeyCode.ENTER);
    until(() -> grid.getItems().size() == 11);
    List<String> before = labels(grid);
    assertThat(before.subList(4, 6)).containsExactly("Delivery address", "Delivery street");
    robot.interact(() -> grid.getSelectionModel().clearAndSelect(4));
    robot.type(KeyCode.LEFT).type(KeyCode.LEFT).type(KeyCode.SPACE);
    until(() -> grid.getItems().size() == 6);
    robot.type(KeyCode.RIGHT);
    robot.write("Ship to", 0).type(KeyCode.ENTER);
    until(() -> labels(grid).getLast().equals("Ship to"));
    robot.type(KeyCode.UP);
    robot.press(KeyCode.ALT).type(KeyCode.UP).release(KeyCode.ALT);
    until(() -> labels(grid).get(3).equals("Ship to"));
    assertThat(labels(grid)).hasSize(5).endsWith("Website");
    robot.interact(bench::undo);
    robot.interact(bench::undo);
    robot.interact(bench::undo);
    until(() -> labels(grid).size() == 5 && labels(grid).getLast().equals("Delivery address"));
  }

  /** In a small window what can be done with several fields goes on in a second line. */
  @Test
  void whatCanBeDoneWithSeveralFieldsStaysWithinASmallWindow(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "piece");
    robot.interact(() -> scene.getWindow().setWidth(1000));
    TableView<?> grid = stand(robot, "field-grid", 0);
    robot.interact(() -> grid.getSelectionModel().selectRange(0, 8));
    until(() -> says(robot, "8 fields chosen"));
    WaitForAsyncUtils.waitForFxEvents();
    Node remove = node(robot, "remove-fields", Node.class);
    Node first = node(robot, "several-fields", Node.class);
    Node rows = node(robot, "row-filter", Node.class);
    var stage = grid.localToScene(grid.getBoundsInLocal());
    var last = remove.localToScene(remove.getBoundsInLocal());
    assertThat(last.getMaxX()).isLessThanOrEqualTo(stage.getMaxX());
    assertThat(first.localToScene(first.getBoundsInLocal()).getMinX())
        .isGreaterThanOrEqualTo(stage.getMinX());
    assertThat(last.getMaxY())
        .isLessThanOrEqualTo(rows.localToScene(rows.getBoundsInLocal()).getMinY());
  }

  @Test
  void severalFieldsAreChangedInTheSheetAndItSaysWhereTheyDiffer(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "kiln");
    TableView<?> grid = stand(robot, "field-grid", 1);
    robot.interact(() -> grid.getSelectionModel().selectRange(1, 4));
    until(() -> robot.lookup("#field-type").tryQuery().isPresent());
    until(() -> says(robot, "3 fields of Kiln") || says(robot, "4 fields of Kiln"));
    assertThat(node(robot, "field-type", Button.class).getText()).isEqualTo("mixed");
    boolean required = field("kiln", "name").required();
    robot.interact(() -> checkBox(robot, "field-required").fire());
    until(() -> field("kiln", "name").required() != required || field("kiln", "fuel").required());
    assertThat(grid.getSelectionModel().getSelectedIndices().size()).isGreaterThanOrEqualTo(3);
  }

  @Test
  void whatDoesNotFitIsSaidOfAFieldAsLongAsItIsTrue(FxRobot robot) throws Exception {
    robot.interact(() -> scene.getWindow().setWidth(1280));
    show(robot, Stage.SHAPE, "member");
    TableView<?> grid = stand(robot, "field-grid", 6);
    until(() -> ofPhone(grid).endsWith("empty"));
    robot.interact(
        () ->
            bench.apply(
                ChangeField.required(
                    bench.design().table(new TableId("member")), field("member", "phone"), true)));
    until(() -> ofPhone(grid).endsWith("do not fit"));
    robot.interact(bench::undo);
    until(() -> ofPhone(grid).endsWith("empty"));
  }

  /** What is said of the rows in the line of the phone. */
  private static String ofPhone(TableView<?> grid) {
    return grid.lookupAll(".table-cell").stream()
        .filter(
            node ->
                node instanceof TableCell<?, ?> cell
                    && cell.getIndex() == 6
                    && "column-rows".equals(cell.getTableColumn().getId()))
        .map(Node::getAccessibleText)
        .filter(Objects::nonNull)
        .findFirst()
        .orElse("");
  }

  private static CheckBox checkBox(FxRobot robot, String id) {
    return robot.lookup("#" + id).queryAs(CheckBox.class);
  }

  @Test
  void whoGoesOnWithTabInTheSheetStaysInIt(FxRobot robot) throws Exception {
    show(robot, Stage.SHAPE, "kiln");
    robot.interact(
        () ->
            bench.selectionProperty().set(Selection.of(new TableId("kiln"), new FieldId("name"))));
    TextField label = node(robot, "field-label", TextField.class);
    robot.interact(label::requestFocus);
    robot.press(KeyCode.CONTROL).type(KeyCode.A).release(KeyCode.CONTROL);
    robot.write("Called").type(KeyCode.TAB);
    until(() -> field("kiln", "name").label().equals("Called"));
    untilFocused("field-name");
    assertThat(scene.getFocusOwner().getScene()).isNotNull();
  }

  @Test
  void aPhraseOfTheTableInWordsLeadsToWhatSaysIt(FxRobot robot) throws Exception {
    robot.interact(() -> scene.getWindow().setWidth(1000));
    show(robot, Stage.SHAPE, "cone");
    robot.interact(() -> robot.lookup("#in-words").queryAs(ToggleButton.class).fire());
    Node words = node(robot, "table-in-words", Node.class);
    robot.interact(words::requestFocus);
    robot.type(KeyCode.RIGHT).type(KeyCode.ENTER);
    until(() -> bench.selectionProperty().get().field().isPresent());
  }

  /**
   * Law: whatever is done in whatever order, the grid and the sheet show the types and sizes that
   * the design has.
   */
  @Test
  void typesAreShownAsTheyAreAfterAnySequenceOfChanges(FxRobot robot) throws Exception {
    var random = new Random(20260314);
    show(robot, Stage.SHAPE, "firing");
    TableView<?> grid = node(robot, "field-grid", TableView.class);
    long steps = Tries.of(40).count();
    for (int step = 0; step < steps; step++) {
      robot.interact(() -> anyChange(random));
      WaitForAsyncUtils.waitForFxEvents();
      int at = step;
      robot.interact(() -> compareShown(robot, grid, at));
    }
  }

  private void anyChange(Random random) {
    List<Table> tables = List.copyOf(bench.design().tables());
    Table table = bench.table().orElse(tables.getFirst());
    Field field = table.fields().get(random.nextInt(table.fields().size()));
    switch (random.nextInt(8)) {
      case 0 -> {
        Table other = tables.get(random.nextInt(tables.size()));
        bench.selectionProperty().set(Selection.of(other.id()));
      }
      case 1 -> bench.selectionProperty().set(Selection.of(table.id(), field.id()));
      case 2 -> bench.undo();
      case 3 -> bench.redo();
      case 4 -> {
        TypeChoice[] all = TypeChoice.values();
        FieldType type = all[random.nextInt(all.length)].usual();
        bench.apply(Edit.all("retype", CarriedType.of(bench.design(), table, field, type)));
      }
      case 5 -> {
        Table parent = tables.get(random.nextInt(tables.size()));
        bench.apply(() -> Relating.by(bench.design(), table, field, parent));
      }
      case 6 -> bench.apply(() -> Counters.identify(table));
      default -> bench.apply(() -> ChangeKey.of(table, List.of(field.id())));
    }
  }

  private void compareShown(FxRobot robot, TableView<?> grid, int step) {
    Table table = bench.table().orElseThrow();
    assertThat(grid.getItems())
        .as("step %d", step)
        .hasSize(table.fields().size() + table.groups().size() + 1);
    int line = 0;
    for (Field field : table.fields()) {
      boolean headed =
          table.groups().stream().anyMatch(g -> g.fields().getFirst().equals(field.id()));
      line += headed ? 1 : 0; // A heading stands before the first of its fields.
      int row = line++;
      assertThat(cell(grid, "column-label", row)).isEqualTo(field.label());
      assertThat(cell(grid, "column-type", row))
          .as("step %d, %s", step, field)
          .isEqualTo(typeWords(table, field));
      if (!(field.type() instanceof FieldType.Choice)) {
        String size = TypeChoice.sizeOf(field);
        String in = List.of("", "%", "min").contains(field.unit()) ? "" : " · " + field.unit();
        assertThat(cell(grid, "column-size", row))
            .isEqualTo(size.isEmpty() ? field.unit() : size + in);
      }
    }
    bench
        .selectionProperty()
        .get()
        .field()
        .filter(table::hasField)
        .filter(id -> grid.getSelectionModel().getSelectedIndices().size() < 2)
        .ifPresent(
            id ->
                assertThat(robot.lookup("#field-type").queryAs(Button.class).getText())
                    .as("step %d", step)
                    .isEqualTo(typeWords(table, table.field(id))));
  }

  private static String cell(TableView<?> grid, String column, int row) {
    return grid.getColumns().stream()
        .filter(c -> column.equals(c.getId()))
        .map(c -> String.valueOf(c.getCellData(row)))
        .findFirst()
        .orElseThrow();
  }

  private String typeWords(Table table, Field field) {
    return bench.design().parentsOf(table.id()).stream()
        .filter(r -> r.childFields().contains(field.id()))
        .map(r -> "→ " + bench.design().table(r.parent()).label())
        .findFirst()
        .orElseGet(
            () ->
                switch (field.type()) {
                  case FieldType.LongText t -> "Long text";
                  case FieldType.Decimal t when field.unit().equals("%") -> "Percentage";
                  case FieldType.WholeNumber t when field.unit().equals("min") -> "Time span";
                  case FieldType.WholeNumber t -> "Whole number";
                  case FieldType.AnyNumber t -> "Number";
                  case FieldType.TrueFalse t -> "True/false";
                  case FieldType.DateTime t -> t.zoned() ? "Date, time, zone" : "Date and time";
                  case FieldType.Uuid t -> "UUID";
                  case FieldType.Email t -> "E-mail";
                  case FieldType.WebAddress t -> "Web address";
                  case FieldType.FileReference t -> "File";
                  default -> field.type().getClass().getSimpleName();
                });
  }
}
