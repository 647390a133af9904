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
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import joiner.meaning.TableInWords;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;

/** The stage Shape: the typing grid of a table, and its sample rows below. */
public final class ShapeView implements StageView {
  /** From this width on the table in words stands beside its rows. */
  private static final double SIDE_BY_SIDE = 640;

  private static final double WORDS_WIDTH = 232;

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
  private final FieldsModel fields;
  private final FieldGrid grid;
  private final FieldStrip strip;
  private Optional<ListPane> listed = Optional.empty();
  private Optional<StartersPane> starters = Optional.empty();
  private boolean starting;
  private boolean listing;
  private final SampleGrid samples;
  private final WordsPane words;
  private final ToggleButton inWords;
  private final HBox below = new HBox(16);
  private final VBox rows = new VBox(6);
  private final ShapeSheet sheet;
  private final WhenSeen seen = new WhenSeen(this::show);

  /** Builds the stage. */
  public ShapeView(Workbench bench) {
    this.bench = bench;
    this.samples = new SampleGrid(bench);
    this.fields = new FieldsModel(bench, texts);
    this.grid =
        new FieldGrid(
            bench,
            fields,
            samples.model(),
            texts,
            field -> samples.seeCells(field.id()),
            this::list);
    this.strip = new FieldStrip(fields, grid, texts);
    this.words = new WordsPane(texts, this::go);
    this.inWords = new ToggleButton(texts.get("words.short"));
    inWords.setId("in-words");
    inWords.setMinWidth(Region.USE_PREF_SIZE);
    inWords.managedProperty().bind(inWords.visibleProperty());
    samples.model().whenKnown(grid::refresh);
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
    this.sheet = new ShapeSheet(bench, fields, texts, grid::typeOn);
    main.getStyleClass().add("stage-area");
    rows.setMinWidth(0);
    HBox.setHgrow(rows, Priority.ALWAYS);
    VBox.setVgrow(samples.node(), Priority.ALWAYS);
    VBox.setVgrow(words.node(), Priority.ALWAYS);
    VBox.setVgrow(below, Priority.ALWAYS);
    below.setMinHeight(150);
    below.setPrefHeight(150); // What the fields leave is its.
    main.widthProperty().subscribe(width -> layOut());
    inWords.selectedProperty().subscribe(on -> layOut());
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
    samples.model().wantHeld(visible);
    seen.look(visible);
    sheet.look(visible);
  }

  @Override
  public List<Command> commands() {
    var commands = new ArrayList<Command>();
    commands.add(Command.of(texts.get("list.open"), () -> list("")));
    commands.add(Command.of(texts.get("starters.open"), this::start));
    if (bench.table().isEmpty()) {
      return commands;
    }
    commands.addAll(strip.commands());
    if (!samples.chosen().isEmpty() && addRow.isVisible()) {
      commands.add(Command.of(texts.get("rows.remove"), samples::removeChosen));
    }
    commands.add(Command.of(texts.get("rows.filter"), samples.filter()::requestFocus));
    fileDeeds(bench.table().get()).forEach((words, deed) -> commands.add(Command.of(words, deed)));
    return commands;
  }

  private void show() {
    if (listing) {
      main.getChildren().setAll(listPane().node());
      return;
    }
    if (starting) {
      main.getChildren().setAll(startersPane().node());
      return;
    }
    if (bench.table().isEmpty()) {
      Button start = Parts.button(texts.get("starters.open"), this::start);
      start.setId("open-starters");
      Button write = Parts.button(texts.get("list.open"), () -> list(""));
      write.setId("open-list");
      main.getChildren()
          .setAll(
              Parts.label(texts.get("empty.title"), "title"),
              Parts.prose(texts.get("empty.why"), "muted"),
              new FlowPane(8, 8, write, start));
      return;
    }
    Table table = bench.table().get();
    samples.show(table);
    grid.show(table);
    grid.refresh(); // A verdict says something else of the same fields.
    strip.show();
    words.show(TableInWords.of(bench.draft(), table.id()));
    headLine.getChildren().setAll(head(table));
    showRowsHead(table);
    if (!main.getChildren().contains(grid.node())) {
      main.getChildren().setAll(headLine, grid.node(), strip.node(), below);
    }
  }

  /** Shows a list of fields or tables, and what it becomes. */
  private void list(String text) {
    listing = true;
    show();
    listPane().begin(text);
  }

  /** Shows tables to begin with. */
  private void start() {
    starting = true;
    show();
    startersPane().begin();
  }

  /** Made when it is first wanted. */
  private StartersPane startersPane() {
    StartersPane pane =
        starters.orElseGet(() -> new StartersPane(bench, texts, this::closeStarters));
    starters = Optional.of(pane);
    return pane;
  }

  private void closeStarters() {
    starting = false;
    show();
  }

  /** Made when it is first wanted. */
  private ListPane listPane() {
    ListPane pane = listed.orElseGet(() -> new ListPane(bench, texts, this::closeList));
    listed = Optional.of(pane);
    return pane;
  }

  private void closeList() {
    listing = false;
    show();
    if (bench.table().isPresent()) {
      grid.typeOn();
    }
  }

  /** Rows and words side by side where there is room; else one of them. */
  private void layOut() {
    boolean room = main.getWidth() >= SIDE_BY_SIDE;
    inWords.setVisible(!room);
    boolean onlyWords = !room && inWords.isSelected();
    rows.getChildren()
        .setAll(onlyWords ? List.of(words.node()) : List.of(rowsLine, samples.node()));
    if (room) {
      ((Region) words.node()).setPrefWidth(WORDS_WIDTH);
      ((Region) words.node()).setMinWidth(WORDS_WIDTH);
      below.getChildren().setAll(rows, words.node());
    } else {
      ((Region) words.node()).setMinWidth(0);
      below.getChildren().setAll(rows);
    }
  }

  /** Goes to what of the design says something. */
  private void go(TableInWords.Source source) {
    Optional<TableId> table = bench.selectionProperty().get().table();
    switch (source) {
      case TableInWords.Source.OfTable(TableId of) ->
          bench.selectionProperty().set(Selection.of(of));
      case TableInWords.Source.OfField(FieldId field) ->
          table.ifPresent(of -> bench.selectionProperty().set(Selection.of(of, field)));
      case TableInWords.Source.OfRelationship(RelationshipId id) -> {
        TableId child = bench.design().relationship(id).child();
        bench.selectionProperty().set(Selection.of(child, id));
        bench.stageProperty().set(Stage.CONNECT);
      }
      case TableInWords.Source.OfRule rule -> bench.stageProperty().set(Stage.GUARD);
    }
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
    Label said = Parts.shortened(texts.get("head", table.noun().indefinite(), area, key), "muted");
    said.setPrefWidth(0); // It takes what the title leaves.
    said.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(said, Priority.ALWAYS);
    return Parts.row(10, title, said, inWords);
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
        8, rowCount, judgement, Parts.spring(), samples.filter(), remove, rowFile, addRow);
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
