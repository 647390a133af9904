package joiner.desktop.frame;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.skin.VirtualFlow;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.TableIcon;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.finding.Finding;
import joiner.finding.Severity;
import joiner.model.Area;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;

/** All tables by area, with a filter and the number of findings of each. */
final class TableList {
  /** A line of the list: an area's head, or one of its tables. */
  private record Line(String text, Optional<Table> table, String style) {}

  private final Workbench bench;
  private final Texts texts = Texts.beside(TableList.class);
  private final TextField filter = new TextField();
  private final ListView<Line> list = new ListView<>();
  private final VBox node;
  private Map<TableId, Count> findings = Map.of();
  private boolean selecting;

  TableList(Workbench bench, Runnable addTable) {
    this.bench = bench;
    filter.setPromptText(texts.get("tables.filter"));
    filter.setAccessibleText(texts.get("tables.filter"));
    filter.setId("table-filter");
    filter.textProperty().subscribe(value -> fill());
    list.getStyleClass().add("table-list");
    list.setId("table-list");
    list.setAccessibleText(texts.get("tables.list"));
    list.setPlaceholder(Parts.prose(texts.get("tables.none"), "muted"));
    list.setCellFactory(view -> new LineCell());
    list.getSelectionModel().selectedItemProperty().subscribe(this::picked);
    list.setOnMouseClicked(event -> choose(list.getSelectionModel().getSelectedItem()));
    list.setOnKeyPressed(
        event -> {
          if (event.getCode() == KeyCode.ENTER || event.getCode() == KeyCode.SPACE) {
            choose(list.getSelectionModel().getSelectedItem());
            event.consume();
          }
        });
    VBox.setVgrow(list, Priority.ALWAYS);
    VBox.setMargin(filter, new Insets(0, 16, 0, 16));
    var add = Parts.button(texts.get("tables.add"), addTable);
    VBox.setMargin(add, new Insets(8, 16, 10, 16));
    this.node = new VBox(filter, list, add);
    node.getStyleClass().add("table-list-pane");
    node.setPrefWidth(232);
    node.setMinWidth(180);
    bench.historyProperty().subscribe(value -> fill());
    bench.verdictProperty().subscribe(value -> count());
    bench.selectionProperty().subscribe(value -> showSelection());
  }

  Node node() {
    return node;
  }

  private void count() {
    Map<TableId, Count> counts = new HashMap<>();
    for (Finding finding : bench.verdict().findings()) {
      boolean error = finding.severity() == Severity.ERROR;
      counts.merge(finding.table(), new Count(1, error), Count::plus);
    }
    bench
        .verdict()
        .audit()
        .violations()
        .forEach(violation -> counts.merge(violation.table(), new Count(1, true), Count::plus));
    bench
        .verdict()
        .audit()
        .unread()
        .forEach(unread -> counts.merge(unread.table(), new Count(1, true), Count::plus));
    findings = counts;
    list.refresh();
  }

  /** How much there is to say of a table, and whether some of it is to be mended. */
  private record Count(long number, boolean errors) {
    static final Count NONE = new Count(0, false);

    Count plus(Count other) {
      return new Count(number + other.number, errors || other.errors);
    }
  }

  private void fill() {
    Map<Optional<Area>, List<Table>> byArea = new LinkedHashMap<>();
    bench.design().areas().forEach(area -> byArea.put(Optional.of(area), new ArrayList<>()));
    String wanted = filter.getText().strip().toLowerCase(Locale.ROOT);
    for (Table table : bench.design().tables()) {
      if (table.label().toLowerCase(Locale.ROOT).contains(wanted)
          || table.name().contains(wanted)) {
        byArea.computeIfAbsent(bench.design().areaOf(table), area -> new ArrayList<>()).add(table);
      }
    }
    var lines = new ArrayList<Line>();
    byArea.forEach(
        (area, tables) -> {
          if (!tables.isEmpty()) {
            String style = area.map(a -> "area-" + a.hue()).orElse("area-none");
            String head = area.map(Area::name).orElseGet(() -> texts.get("tables.noArea"));
            lines.add(new Line(head, Optional.empty(), style));
            tables.forEach(table -> lines.add(new Line(table.label(), Optional.of(table), style)));
          }
        });
    selecting = true;
    list.getItems().setAll(lines);
    selecting = false;
    showSelection();
  }

  private void picked(Line line) {
    if (!selecting && line != null && line.table().isPresent()) {
      TableId table = line.table().get().id();
      if (!bench.selectionProperty().get().table().equals(Optional.of(table))) {
        bench.selectionProperty().set(Selection.of(table));
      }
    }
  }

  /** Goes to a table as a whole, also where one of its fields was chosen. */
  private void choose(Line line) {
    if (line != null && line.table().isPresent()) {
      bench.selectionProperty().set(Selection.of(line.table().get().id()));
    }
  }

  private void showSelection() {
    Optional<TableId> wanted = bench.selectionProperty().get().table();
    selecting = true;
    list.getSelectionModel().clearSelection();
    for (int i = 0; i < list.getItems().size(); i++) {
      if (wanted.isPresent() && list.getItems().get(i).table().map(Table::id).equals(wanted)) {
        list.getSelectionModel().select(i);
        reveal(i);
      }
    }
    selecting = false;
  }

  private void reveal(int line) {
    if (list.lookup(".virtual-flow") instanceof VirtualFlow<?> flow
        && flow.getFirstVisibleCell() != null
        && (line < flow.getFirstVisibleCell().getIndex() + 1
            || line > flow.getLastVisibleCell().getIndex() - 1)) {
      list.scrollTo(Math.max(0, line - 3));
    }
  }

  private final class LineCell extends ListCell<Line> {
    @Override
    protected void updateItem(Line line, boolean empty) {
      super.updateItem(line, empty);
      setText(null);
      setGraphic(
          empty || line == null ? null : line.table().map(this::table).orElseGet(() -> area(line)));
    }

    private Node area(Line line) {
      var swatch = new Rectangle(8, 8);
      swatch.getStyleClass().add(line.style());
      return Parts.row(8, swatch, Parts.label(line.text(), "area-name"));
    }

    private Node table(Table table) {
      var name = Parts.label(table.label(), "table-name");
      name.setMinWidth(0);
      name.setMaxWidth(166);
      TableIcon.of(table.icon()).ifPresent(name::setGraphic);
      Count count = findings.getOrDefault(table.id(), Count.NONE);
      return count.number() == 0
          ? name
          : Parts.row(
              4,
              name,
              Parts.spring(),
              Parts.label(
                  Counts.of(count.number()), count.errors() ? "brick" : "oak", "strong", "small"));
    }
  }
}
