package joiner.desktop.gather;

import java.io.File;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
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
import joiner.database.LiveDesign;
import joiner.database.WholeSchema;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Job;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Request;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.edit.AddDesign;
import joiner.format.UnreadableFileException;
import joiner.model.FieldId;
import joiner.rows.EncodedTable;
import joiner.source.ProfiledSource;
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
  /** So many things that were not understood stand in a notice; the others are counted. */
  private static final int MOST_TOLD = 8;

  private final Workbench bench;
  private final StartChoices starts;
  private final Texts texts = Texts.beside(GatherView.class);
  private final VBox main = new VBox();
  private final VBox side = new VBox();
  private final GatherSheet sheet = new GatherSheet(texts, side);
  private final ComboBox<String> chosen = new ComboBox<>();
  private final Map<String, Opened> sources = new LinkedHashMap<>();

  private final WhenSeen seen = new WhenSeen(this::again);
  private int shownTable;

  /** What keeps the table on the bench in sight; ended when another comes. */
  private Subscription watching = Subscription.EMPTY;

  /**
   * A source that is open.
   *
   * @param file where it was read from; none for a pasted block
   * @param benches by table, as they are looked at
   */
  private record Opened(
      @Nullable Path file,
      ReadingOptions options,
      ProfiledSource profiled,
      Map<Integer, SplitBench> benches) {}

  /** Builds the stage. */
  public GatherView(Workbench bench, StartChoices starts) {
    this.bench = bench;
    this.starts = starts;
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
    chosen.setAccessibleText(texts.get("sources"));
    chosen.setId("sources");
    chosen.setMinWidth(150);
    chosen.valueProperty().subscribe(value -> show(0));
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

  /** The design may have changed since the stage was last looked at. */
  private void again() {
    if (chosen.getValue() == null) {
      main.getChildren().setAll(empty());
      sheet.showNothing();
    } else {
      show(shownTable);
    }
  }

  private void show(int table) {
    watching.unsubscribe();
    shownTable = table;
    Opened source = chosen.getValue() == null ? null : sources.get(chosen.getValue());
    if (source == null) {
      main.getChildren().setAll(empty());
      sheet.showNothing();
      return;
    }
    boolean seenBefore = source.benches().containsKey(table);
    SplitBench split =
        source.benches().computeIfAbsent(table, t -> new SplitBench(bench, source.profiled(), t));
    sheet.pickNothing();
    var grid =
        new SourceGrid(texts, split.cells(), split.profiles(), column -> sheet.pick(split, column));
    grid.node().setPrefHeight(232);
    grid.node().setMinHeight(190);
    var facts = new FactList(texts, split, fact -> sheet.pick(split, fact));
    var panel = new SplitPanel(texts, split, bench, () -> split(split));
    VBox.setVgrow(facts.node(), Priority.ALWAYS);
    var below = new HBox(16, grown(facts.node(), 5), grown(panel.node(), 7));
    below.setMinHeight(0);
    VBox.setVgrow(below, Priority.ALWAYS);
    main.getChildren().setAll(head(source, split, table), grid.node(), below);
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
    if (seenBefore) {
      split.refresh(); // The design may have changed since.
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

  private Node head(Opened source, SplitBench split, int table) {
    Source read = source.profiled().source();
    var row = Parts.row(10, chosen, Parts.shortened(found(split.cells(), read.found()), "muted"));
    if (read.tables().size() > 1) {
      row.getChildren().add(1, tables(read, table));
    }
    if (source.file() != null && read.headerLine().isPresent()) {
      row.getChildren().add(differently(source));
    }
    var add = Parts.button(texts.get("add", read.tables().size()), () -> add(split));
    add.setId("add-as-table");
    add.setDisable(split.made().isPresent());
    row.getChildren().addAll(Parts.spring(), add, another());
    return row;
  }

  private String found(EncodedTable cells, String how) {
    int columns = cells.columns().size();
    if (columns > SourceGrid.MOST_COLUMNS) {
      return texts.get("found.columns", cells.rows(), columns, how, SourceGrid.MOST_COLUMNS);
    }
    return texts.get(
        cells.rows() > SourceGrid.MOST_ROWS ? "found.rows" : "found",
        cells.rows(),
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

  private Node tables(Source source, int table) {
    var box = new ComboBox<String>();
    box.setAccessibleText(texts.get("tables"));
    box.getItems().setAll(source.tables().stream().map(SourceTable::name).toList());
    box.getSelectionModel().select(table);
    box.setOnAction(event -> show(box.getSelectionModel().getSelectedIndex()));
    return box;
  }

  /** Corrections of how the text was read. */
  private Node differently(Opened source) {
    var menu = new MenuButton(texts.get("differently"));
    menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
    var file = java.util.Objects.requireNonNull(source.file());
    ReadingOptions options = source.options();
    int header = source.profiled().source().headerLine().orElse(1);
    menu.getItems()
        .addAll(
            item("header.next", () -> open(file, options.withHeaderLine(header + 1))),
            item("header.first", () -> open(file, options.withHeaderLine(1))),
            item("header.none", () -> open(file, options.withHeaderLine(0))),
            item("comma", () -> open(file, options.withSeparator(','))),
            item("semicolon", () -> open(file, options.withSeparator(';'))),
            item("tab", () -> open(file, options.withSeparator('\t'))),
            item("bar", () -> open(file, options.withSeparator('|'))));
    for (String name : List.of("UTF-8", "windows-1252", "ISO-8859-15", "UTF-16")) {
      var item = new MenuItem(texts.get("encoding", name));
      item.setOnAction(event -> open(file, options.withCharset(Charset.forName(name))));
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
    if (block == null || block.isBlank()) {
      bench.tell(Notice.Sort.REFUSED, texts.get("paste.nothing"));
      return;
    }
    String name = texts.get("pasted", sources.size() + 1);
    read(name, null, ReadingOptions.DETECT, options -> SourceFile.pasted(name, block, options));
  }

  /** Reads a file and shows it. */
  public void open(Path file) {
    if (WholeSchema.is(file)) {
      bring(file);
    } else {
      open(file, ReadingOptions.DETECT);
    }
  }

  /** Adds the tables of a file that says a whole schema. */
  private void bring(Path file) {
    String name = String.valueOf(file.getFileName());
    this.<WholeSchema>start(
        name,
        progress ->
            WholeSchema.read(
                file,
                name,
                Optional.empty(),
                LiveDesign.USUAL_ROWS,
                (done, total, doing) -> {
                  progress.share((double) done / Math.max(1, total));
                  return !progress.stopped();
                }),
        schema -> brought(name, schema));
  }

  private void brought(String name, WholeSchema schema) {
    int tables = schema.draft().design().tables().size();
    if (tables > 0 && bench.apply(() -> new AddDesign(schema.draft()))) {
      bench.stageProperty().set(Stage.CONNECT);
      bench.tellDone(texts.get("brought", tables, name), texts.get("undo"));
    }
    if (tables == 0) {
      bench.tell(Notice.Sort.REFUSED, texts.get("brought.nothing", name));
    }
    if (!schema.notices().isEmpty()) {
      String some = schema.notices().stream().limit(MOST_TOLD).collect(Collectors.joining("\n"));
      int more = schema.notices().size() - MOST_TOLD;
      bench.tell(
          Notice.Sort.HINT,
          texts.get("brought.unread", name)
              + "\n"
              + some
              + (more > 0 ? "\n" + texts.get("brought.more", more) : ""));
    }
  }

  private void open(Path file, ReadingOptions options) {
    read(
        String.valueOf(file.getFileName()),
        file,
        options,
        withProgress -> SourceFile.read(file, withProgress));
  }

  /** Something that reads a source. */
  private interface Reading {
    Source read(ReadingOptions options) throws IOException, UnreadableFileException;
  }

  private void read(String name, @Nullable Path file, ReadingOptions options, Reading reading) {
    this.<ProfiledSource>start(
        name,
        progress -> {
          ReadingOptions told = options.stoppedBy(progress::stopped).telling(progress::share);
          return ProfiledSource.of(reading.read(told));
        },
        profiled -> opened(name, new Opened(file, options, profiled, new HashMap<>())));
  }

  /** Reads something in the background; a card shows how far that is until it ends. */
  private <T> void start(String name, Request.Work<T> work, Consumer<T> done) {
    var card = new WaitingCard();
    Runnable ended = () -> main.getChildren().remove(card.node);
    Job<T> job =
        bench
            .runner()
            .start(
                Request.<T>of(
                        "read " + name,
                        texts.get("reading", name),
                        work,
                        result -> {
                          ended.run();
                          done.accept(result);
                        },
                        failure -> {
                          ended.run();
                          failed(failure);
                        })
                    .whenStopped(ended));
    card.show(name, job);
    main.getChildren().addFirst(card.node);
  }

  private void opened(String name, Opened source) {
    sources.put(name, source);
    if (!chosen.getItems().contains(name)) {
      chosen.getItems().add(name);
    }
    if (name.equals(chosen.getValue())) {
      show(0);
    } else {
      chosen.setValue(name);
    }
  }

  /** A source that is being read. */
  private final class WaitingCard {
    private final VBox node = Parts.card(List.of());

    void show(String name, Job<?> job) {
      var bar = new ProgressBar();
      bar.progressProperty().bind(job.doneProperty());
      node.getChildren()
          .setAll(
              Parts.row(
                  10,
                  Parts.label(texts.get("reading", name)),
                  bar,
                  Parts.button(texts.get("cancel"), () -> bench.runner().stop(job))));
    }
  }

  private void failed(Failure failure) {
    bench.tell(
        new Failure(
            failure.doing(),
            texts.get("failed", failure.message()),
            failure.details(),
            failure.cause()));
  }

  private void add(SplitBench split) {
    split.addAsIs(
        table -> {
          bench.selectionProperty().set(Selection.of(table));
          bench.stageProperty().set(Stage.SHAPE);
          bench.tellDone(
              texts.get(
                  "added",
                  bench.design().table(table).label(),
                  bench.draft().rows().of(table).count()),
              texts.get("undo"));
        });
  }

  private void split(SplitBench split) {
    split.split(
        table -> {
          bench.stageProperty().set(Stage.CONNECT);
          bench.selectionProperty().set(Selection.of(table));
        });
  }
}
