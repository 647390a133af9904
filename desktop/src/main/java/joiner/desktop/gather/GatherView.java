package joiner.desktop.gather;

import java.io.File;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ProgressBar;
import javafx.scene.input.Clipboard;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.util.Subscription;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Workbench;
import joiner.model.FieldId;
import joiner.rows.EncodedTable;
import joiner.source.ReadingOptions;
import joiner.source.Source;
import joiner.source.SourceFile;
import joiner.source.SourceTable;
import org.jspecify.annotations.Nullable;

/**
 * The stage Gather: open a file, see what is in each column, say what decides what, and split the
 * one wide table into those it becomes.
 */
public final class GatherView implements StageView {
  private final Workbench bench;
  private final StartChoices starts;
  private final Texts texts = Texts.beside(GatherView.class);
  private final VBox main = new VBox();
  private final VBox waiting = new VBox(8);
  private final VBox content = new VBox(10);
  private final VBox side = new VBox();
  private final GatherSheet sheet = new GatherSheet(texts, side);
  private final ComboBox<String> chosen = new ComboBox<>();
  private final GatherModel model;
  private final WhenSeen seen = new WhenSeen(this::show);

  private boolean offering;

  /** What keeps the table on the bench in sight; ended when another comes. */
  private Subscription watching = Subscription.EMPTY;

  /** Builds the stage. */
  public GatherView(Workbench bench, StartChoices starts) {
    this.bench = bench;
    this.starts = starts;
    this.model = new GatherModel(bench, texts);
    main.getStyleClass().add("stage-area");
    VBox.setVgrow(content, Priority.ALWAYS);
    main.getChildren().setAll(waiting, content);
    side.getStyleClass().add("side-content");
    chosen.setAccessibleText(texts.get("sources"));
    chosen.setId("sources");
    chosen.setMinWidth(150);
    chosen.setOnAction(event -> choose(chosen.getValue()));
    model.shownProperty().subscribe(value -> seen.changed());
    model.underway().subscribe(this::showWaiting);
    bench.historyProperty().subscribe(value -> seen.changed());
    starts.keptProperty().subscribe(value -> seen.changed());
    main.setOnDragOver(
        event -> {
          if (event.getDragboard().hasFiles()) {
            event.acceptTransferModes(TransferMode.COPY);
          }
          event.consume();
        });
    main.setOnDragDropped(
        event -> {
          event.getDragboard().getFiles().forEach(file -> open(file.toPath()));
          event.setDropCompleted(true);
          event.consume();
        });
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return side;
  }

  @Override
  public void shown(boolean visible) {
    seen.look(visible);
  }

  @Override
  public List<Command> commands() {
    return List.of(
        new Command(texts.get("open"), "Ctrl+G", Command.Sort.DEED, this::choose),
        new Command(texts.get("paste"), "Ctrl+Shift+V", Command.Sort.DEED, this::paste));
  }

  private void show() {
    watching.unsubscribe();
    Optional<GatherModel.Opened> source = model.source();
    if (source.isEmpty()) {
      content.getChildren().setAll(empty());
      sheet.showNothing();
      return;
    }
    boolean seenBefore = model.isSeenBefore();
    SplitBench split = model.split().orElseThrow();
    sheet.pickNothing();
    var grid =
        new SourceGrid(texts, split.cells(), split.profiles(), column -> sheet.pick(split, column));
    grid.node().setPrefHeight(232);
    grid.node().setMinHeight(190);
    if (split.isWhole()) {
      show(source.get(), split, grid);
    } else {
      VBox.setVgrow(grid.node(), Priority.ALWAYS);
      content
          .getChildren()
          .setAll(head(source.get(), split), grid.node(), staying(source.get(), split));
      watching = split.stateProperty().subscribe(state -> sheet.refresh(split));
    }
    if (seenBefore) {
      split.refresh(); // The design may have changed since.
    }
  }

  /** Shows what the rows say, all of which are here, and the split. */
  private void show(GatherModel.Opened source, SplitBench split, SourceGrid grid) {
    var facts = new FactList(texts, split, fact -> sheet.pick(split, fact));
    var panel = new SplitPanel(texts, split, bench, () -> model.split(split));
    VBox.setVgrow(facts.node(), Priority.ALWAYS);
    var below = new HBox(16, grown(facts.node(), 5), grown(panel.node(), 7));
    below.setMinHeight(0);
    VBox.setVgrow(below, Priority.ALWAYS);
    content.getChildren().setAll(head(source, split), grid.node(), below);
    watching =
        split
            .stateProperty()
            .subscribe(
                state -> {
                  facts.show(state);
                  panel.show(state);
                  grid.show(destinations(state));
                  sheet.refresh(split);
                });
  }

  /** What is to be said of a file whose rows stay in it. */
  private Node staying(GatherModel.Opened source, SplitBench split) {
    Source read = source.profiled().source();
    int rows = read.whole().orElseThrow().rows();
    var add = Parts.button(texts.get("stay.add"), () -> model.add(split), "main");
    add.setId("stay-add");
    add.setDisable(split.made().isPresent());
    var load =
        Parts.button(
            texts.get("stay.load"),
            () -> source.file().ifPresent(file -> model.openWhole(file, source.options())));
    load.setId("stay-load");
    return new VBox(
        4,
        Parts.label(texts.get("stay.title", read.name()), "title"),
        Parts.prose(texts.get("stay.why", rows), "muted"),
        Parts.row(8, add, load));
  }

  /** Offers the sources that are open; that is no choice of anybody's. */
  private void offer(List<String> names, String shown) {
    offering = true;
    chosen.getItems().setAll(names);
    chosen.setValue(shown);
    offering = false;
  }

  private void choose(@Nullable String name) {
    if (!offering && name != null) {
      model.show(name, 0);
    }
  }

  private static Node grown(Node node, int weight) {
    HBox.setHgrow(node, Priority.ALWAYS);
    if (node instanceof javafx.scene.layout.Region region) {
      region.setPrefWidth(weight * 60.0);
      region.setMinWidth(0);
      region.setMinHeight(0);
    }
    return node;
  }

  /** For each column the new table it goes to. */
  private Map<Integer, String> destinations(SplitBench.State state) {
    Map<Integer, String> destinations = new HashMap<>();
    state
        .preview()
        .filter(preview -> preview.split().open().isEmpty())
        .ifPresent(
            preview ->
                preview
                    .columns()
                    .forEach(
                        (column, field) ->
                            destination(preview, field)
                                .ifPresent(to -> destinations.put(column, to))));
    return destinations;
  }

  private Optional<String> destination(SplitBench.Preview preview, FieldId field) {
    if (preview.design().table(preview.table().id()).hasField(field)) {
      return Optional.empty();
    }
    return preview
        .split()
        .homeOf(field)
        .map(
            home ->
                texts.get("head.goes", preview.shortName(home, preview.arriving(bench.design()))));
  }

  private Node empty() {
    var open = Parts.button(texts.get("open"), this::choose, "main");
    var paste = Parts.button(texts.get("paste"), this::paste);
    var content =
        new VBox(
            10,
            Parts.label(texts.get("empty.title"), "title"),
            Parts.prose(texts.get("empty.why"), "muted"),
            Parts.row(8, open, paste));
    content.setMaxWidth(640);
    if (starts.isFresh()) {
      content.getChildren().addAll(new StartPane(texts, starts).nodes());
    }
    return content;
  }

  private Node head(GatherModel.Opened source, SplitBench split) {
    Source read = source.profiled().source();
    GatherModel.Shown shown = model.shownProperty().get().orElseThrow();
    offer(model.names(), shown.source());
    int all = read.whole().map(Source.Whole::rows).orElse(split.cells().rows());
    var row =
        Parts.row(10, chosen, Parts.shortened(found(split.cells(), all, read.found()), "muted"));
    if (read.tables().size() > 1) {
      row.getChildren().add(1, tables(read, shown));
    }
    if (read.headerLine().isPresent()) {
      source.file().ifPresent(file -> row.getChildren().add(differently(source, file)));
    }
    var add = Parts.button(texts.get("add", read.tables().size()), () -> model.add(split));
    add.setId("add-as-table");
    add.setDisable(split.made().isPresent());
    row.getChildren().add(Parts.spring());
    if (split.isWhole()) {
      row.getChildren().add(add);
    }
    row.getChildren().add(another());
    return row;
  }

  private String found(EncodedTable cells, int rows, String how) {
    int columns = cells.columns().size();
    if (columns > SourceGrid.MOST_COLUMNS) {
      return texts.get("found.columns", rows, columns, how, SourceGrid.MOST_COLUMNS);
    }
    return texts.get(
        rows > SourceGrid.MOST_ROWS ? "found.rows" : "found",
        rows,
        columns,
        how,
        SourceGrid.MOST_ROWS);
  }

  private Node another() {
    var menu = new MenuButton(texts.get("another"));
    menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
    var file = new MenuItem(texts.get("open"));
    file.setOnAction(event -> choose());
    var block = new MenuItem(texts.get("paste"));
    block.setOnAction(event -> paste());
    menu.getItems().addAll(file, block);
    return menu;
  }

  private Node tables(Source source, GatherModel.Shown shown) {
    var box = new ComboBox<String>();
    box.setAccessibleText(texts.get("tables"));
    box.getItems().setAll(source.tables().stream().map(SourceTable::name).toList());
    box.getSelectionModel().select(shown.table());
    box.setOnAction(
        event -> model.show(shown.source(), box.getSelectionModel().getSelectedIndex()));
    return box;
  }

  /** Corrections of how the text was read. */
  private Node differently(GatherModel.Opened source, Path file) {
    var menu = new MenuButton(texts.get("differently"));
    menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
    ReadingOptions options = source.options();
    int header = source.profiled().source().headerLine().orElse(1);
    menu.getItems()
        .addAll(
            item("header.next", () -> model.open(file, options.withHeaderLine(header + 1))),
            item("header.first", () -> model.open(file, options.withHeaderLine(1))),
            item("header.none", () -> model.open(file, options.withHeaderLine(0))),
            item("comma", () -> model.open(file, options.withSeparator(','))),
            item("semicolon", () -> model.open(file, options.withSeparator(';'))),
            item("tab", () -> model.open(file, options.withSeparator('\t'))),
            item("bar", () -> model.open(file, options.withSeparator('|'))));
    if (source.profiled().source().whole().isEmpty()) {
      menu.getItems().add(item("stay", () -> model.openHead(file, options)));
    }
    for (String name : List.of("UTF-8", "windows-1252", "ISO-8859-15", "UTF-16")) {
      var item = new MenuItem(texts.get("encoding", name));
      item.setOnAction(event -> model.open(file, options.withCharset(Charset.forName(name))));
      menu.getItems().add(item);
    }
    return menu;
  }

  private MenuItem item(String key, Runnable action) {
    var item = new MenuItem(texts.get("read." + key));
    item.setOnAction(event -> action.run());
    return item;
  }

  /** Asks for files and opens them. */
  public void choose() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("choose"));
    List<String> endings =
        Stream.concat(
                SourceFile.ENDINGS.stream(),
                Stream.of("sql", "ddl", "sqlite", "sqlite3", "duckdb", "db"))
            .map(ending -> "*." + ending)
            .toList();
    chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter(texts.get("files"), endings));
    List<File> files = chooser.showOpenMultipleDialog(main.getScene().getWindow());
    Optional.ofNullable(files).orElse(List.of()).forEach(file -> open(file.toPath()));
  }

  /** Opens what is on the clipboard. */
  public void paste() {
    String block = Clipboard.getSystemClipboard().getString();
    model.paste(block == null ? "" : block);
  }

  /** Reads a file and shows it. */
  public void open(Path file) {
    model.open(file);
  }

  /** A card for each file that is being read. */
  private void showWaiting() {
    waiting.getChildren().setAll(model.underway().stream().map(this::card).toList());
    waiting.setManaged(!model.underway().isEmpty());
  }

  private Node card(GatherModel.Reading reading) {
    var bar = new ProgressBar();
    bar.progressProperty().bind(reading.job().doneProperty());
    return Parts.card(
        List.of(
            Parts.row(
                10,
                Parts.label(texts.get("reading", reading.name())),
                bar,
                Parts.button(texts.get("cancel"), () -> model.stop(reading)))));
  }
}
