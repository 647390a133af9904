package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.binding.Bindings;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import joiner.model.Table;
import joiner.rows.LinkedRows;

/** The stage Shape: the typing grid of a table, and its sample rows below. */
public final class ShapeView implements StageView {
  private final Workbench bench;
  private final Texts texts = Texts.beside(ShapeView.class);
  private final VBox main = new VBox();
  private final VBox headLine = new VBox();
  private final Label rowCount = Parts.label("", "strong");
  private final Label judgement = Parts.shortened("", "muted");
  private final Button addRow;
  private final MenuButton rowFile;
  private final RowFileModel files;
  private final Node rowsLine;
  private final FieldGrid grid;
  private final SampleGrid samples;
  private final ShapeSheet sheet;
  private final WhenSeen seen = new WhenSeen(this::show);

  /** Builds the stage. */
  public ShapeView(Workbench bench) {
    this.bench = bench;
    this.grid = new FieldGrid(bench, new FieldsModel(bench, texts), texts);
    this.samples = new SampleGrid(bench);
    this.addRow = Parts.button(texts.get("rows.add"), samples::add);
    addRow.setId("add-row");
    this.files = new RowFileModel(bench, texts);
    this.rowFile = new MenuButton(texts.get("file"));
    rowFile.setId("row-file");
    rowFile.setMinWidth(Region.USE_PREF_SIZE);
    addRow.managedProperty().bind(addRow.visibleProperty());
    rowFile.managedProperty().bind(rowFile.visibleProperty());
    this.rowsLine = rowsHead();
    samples.model().placesProperty().subscribe(places -> showCount());
    this.sheet = new ShapeSheet(bench, texts, grid::typeOn);
    main.getStyleClass().add("stage-area");
    bench.historyProperty().subscribe(value -> seen.changed());
    bench.selectionProperty().subscribe(value -> seen.changed());
    bench.verdictProperty().subscribe(value -> seen.changed());
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return sheet.node();
  }

  @Override
  public void shown(boolean visible) {
    seen.look(visible);
    sheet.look(visible);
  }

  @Override
  public List<Command> commands() {
    if (bench.table().isEmpty()) {
      return List.of();
    }
    var commands = new ArrayList<>(grid.commands());
    if (!samples.chosen().isEmpty() && addRow.isVisible()) {
      commands.add(Command.of(texts.get("rows.remove"), samples::removeChosen));
    }
    commands.add(Command.of(texts.get("rows.filter"), samples.filter()::requestFocus));
    fileDeeds(bench.table().get()).forEach((words, deed) -> commands.add(Command.of(words, deed)));
    return commands;
  }

  private void show() {
    if (bench.table().isEmpty()) {
      main.getChildren()
          .setAll(
              Parts.label(texts.get("empty.title"), "title"),
              Parts.prose(texts.get("empty.why"), "muted"));
      return;
    }
    Table table = bench.table().get();
    grid.show(table);
    samples.show(table);
    headLine.getChildren().setAll(head(table));
    showRowsHead(table);
    if (!main.getChildren().contains(grid.node())) {
      main.getChildren().setAll(headLine, grid.node(), grid.tools(), rowsLine, samples.node());
    }
    VBox.setVgrow(samples.node(), Priority.ALWAYS);
  }

  private Node head(Table table) {
    String key =
        table.primaryKey().isEmpty()
            ? texts.get("head.nothing")
            : String.join(", ", table.labelsOf(table.primaryKey()));
    String area =
        bench
            .design()
            .areaOf(table)
            .map(in -> texts.get("head.area", in.name()))
            .orElseGet(() -> texts.get("head.noArea"));
    var title = Parts.shortened(table.label(), "title");
    title.setId("shape-title");
    return Parts.row(
        10,
        title,
        Parts.shortened(texts.get("head", table.noun().indefinite(), area, key), "muted"));
  }

  private void showJudgement() {
    boolean inFile = samples.model().link().isPresent();
    long bad = inFile ? samples.model().offending() : samples.model().badCells();
    boolean unread =
        bench.verdict().audit().unread().stream()
            .anyMatch(u -> bench.table().filter(t -> t.id().equals(u.table())).isPresent());
    boolean wrong = bad > 0 || unread || bench.verdict().state() == Verdict.State.FAILED;
    judgement.getStyleClass().removeAll("muted", "brick");
    judgement.getStyleClass().add(wrong ? "brick" : "muted");
    judgement.setText(
        samples.model().count() == 0 && !inFile
            ? ""
            : switch (bench.verdict().state()) {
              case CHECKING -> texts.get("rows.checking");
              case FAILED -> texts.get("rows.failed");
              case CURRENT ->
                  texts.get(unread ? "rows.unread" : inFile ? "rows.offending" : "rows.bad", bad);
            });
  }

  /** One line for good: in its filter somebody may be typing. */
  private Node rowsHead() {
    var remove = Parts.button(texts.get("rows.remove.short"), samples::removeChosen);
    remove.setAccessibleText(texts.get("rows.remove"));
    remove.setId("remove-rows");
    remove
        .visibleProperty()
        .bind(Bindings.isNotEmpty(samples.chosen()).and(addRow.visibleProperty()));
    remove.managedProperty().bind(remove.visibleProperty());
    return Parts.row(
        10, rowCount, judgement, Parts.spring(), samples.filter(), remove, rowFile, addRow);
  }

  private void showRowsHead(Table table) {
    addRow.setDisable(table.fields().isEmpty());
    addRow.setVisible(files.link(table.id()).isEmpty());
    // Beside rows that were typed there is no room for what is seldom wanted; the finder has it.
    boolean rowsTyped = samples.model().link().isEmpty() && samples.model().count() > 0;
    rowFile.setVisible(!rowsTyped && !table.fields().isEmpty());
    rowFile
        .getItems()
        .setAll(
            fileDeeds(table).entrySet().stream()
                .map(deed -> item(deed.getKey(), deed.getValue()))
                .toList());
    showCount();
    showJudgement();
  }

  private static MenuItem item(String words, Runnable deed) {
    var item = new MenuItem(words);
    item.setOnAction(event -> deed.run());
    return item;
  }

  /** What can be done with files that have the rows of a table, by what it is called. */
  private Map<String, Runnable> fileDeeds(Table table) {
    Map<String, Runnable> deeds = new LinkedHashMap<>();
    Optional<LinkedRows> link = files.link(table.id());
    if (link.isPresent()) {
      deeds.put(texts.get("file.hold"), () -> files.hold(table));
      deeds.put(texts.get("file.other"), () -> choose(table));
      deeds.put(texts.get("file.unlink"), () -> files.unlink(table));
    } else if (!table.fields().isEmpty()) {
      deeds.put(texts.get("file.link"), () -> choose(table));
    }
    return deeds;
  }

  private void choose(Table table) {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("file.choose", table.label()));
    chooser
        .getExtensionFilters()
        .add(
            new FileChooser.ExtensionFilter(
                texts.get("file.kinds"), "*.csv", "*.tsv", "*.tab", "*.txt"));
    Optional.ofNullable(chooser.showOpenDialog(main.getScene().getWindow()))
        .ifPresent(file -> files.link(table, file.toPath()));
  }

  private void showCount() {
    Optional<LinkedRows> link = samples.model().link();
    int count = samples.model().count();
    int shown = samples.model().placesProperty().get().size();
    rowCount.setMinWidth(link.isPresent() ? 0 : Region.USE_PREF_SIZE);
    if (link.isPresent()) {
      long all = samples.model().countInFile();
      rowCount.setText(
          shown < all
              ? texts.get("rows.linked.some", link.get().fileName(), all, shown)
              : texts.get("rows.linked", link.get().fileName(), all));
      return;
    }
    rowCount.setText(
        shown == count ? texts.get("rows.count", count) : texts.get("rows.some", shown, count));
  }
}
