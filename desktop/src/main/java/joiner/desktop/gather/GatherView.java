package joiner.desktop.gather;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Background;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.discovery.ColumnProfile;
import joiner.edit.AddTable;
import joiner.finding.TypeWords;
import joiner.format.CsvSource;
import joiner.format.UnreadableFileException;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;

/** The stage Gather: open a file, see what is in it, make it a table. */
public final class GatherView implements StageView {
  private final Workbench bench;
  private final Background background;
  private final Texts texts = Texts.beside(GatherView.class);
  private final VBox main = new VBox();
  private final VBox side = new VBox();
  private final Map<String, CsvSource> sources = new LinkedHashMap<>();
  private final ComboBox<String> chosen = new ComboBox<>();

  /** Builds the stage. */
  public GatherView(Workbench bench, Background background) {
    this.bench = bench;
    this.background = background;
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
    chosen.setAccessibleText(texts.get("sources"));
    chosen.valueProperty().subscribe(value -> show());
    show();
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return side;
  }

  private void show() {
    CsvSource source = chosen.getValue() == null ? null : sources.get(chosen.getValue());
    if (source == null) {
      var open = Parts.button(texts.get("open"), this::choose, "main");
      main.getChildren()
          .setAll(
              Parts.label(texts.get("empty.title"), "title"),
              Parts.prose(texts.get("empty.why"), "muted"),
              open);
      side.getChildren()
          .setAll(
              Parts.label(texts.get("sources"), "title"), Parts.label(texts.get("none"), "muted"));
    } else {
      main.getChildren().setAll(head(source), grid(source));
      side.getChildren().setAll(becomes(source));
    }
  }

  private Node head(CsvSource source) {
    String facts =
        texts.get(
            "found", source.rows().count(), source.columns().size(), separator(source.separator()));
    var add = Parts.button(texts.get("add"), () -> add(source), "main");
    add.setId("add-as-table");
    return Parts.row(
        10,
        chosen,
        Parts.label(facts, "muted"),
        Parts.spring(),
        Parts.button(texts.get("open"), this::choose),
        add);
  }

  private String separator(char separator) {
    return texts.get(
        switch (separator) {
          case ';' -> "semicolon";
          case '\t' -> "tab";
          case '|' -> "bar";
          default -> "comma";
        });
  }

  private TableView<Integer> grid(CsvSource source) {
    var grid = new TableView<Integer>();
    for (int i = 0; i < source.columns().size(); i++) {
      int index = i;
      var column = new TableColumn<Integer, String>();
      column.setGraphic(profile(source.columns().get(i)));
      column.setSortable(false);
      column.setReorderable(false);
      column.setPrefWidth(Math.clamp(source.columns().get(i).longest() * 7.5 + 24, 160, 240));
      column.setCellValueFactory(
          row ->
              new ReadOnlyStringWrapper(
                  source.rows().cell(row.getValue(), source.column(index)).orElse("")));
      grid.getColumns().add(column);
    }
    IntStream.range(0, source.rows().count()).forEach(grid.getItems()::add);
    VBox.setVgrow(grid, Priority.ALWAYS);
    return grid;
  }

  private Node profile(ColumnProfile column) {
    var lines =
        new VBox(
            Parts.label(column.header(), "strong"),
            Parts.label(TypeWords.of(column.type()), "muted"),
            Parts.label(texts.get("rows", column.rows() - column.blank(), column.rows()), "muted"),
            Parts.label(
                column.unique() ? texts.get("unique") : texts.get("different", column.distinct()),
                "muted"),
            Parts.label(
                column.numberLike() ? texts.get("zeros") : texts.get("longest", column.longest()),
                column.numberLike() ? "oak" : "muted"));
    lines.getStyleClass().add("profile-head");
    lines.setPadding(new javafx.geometry.Insets(6, 4, 6, 0));
    return lines;
  }

  private List<Node> becomes(CsvSource source) {
    Map.Entry<Table, Rows> table = source.asTable(names());
    var nodes = new java.util.ArrayList<Node>();
    nodes.add(Parts.label(texts.get("becomes"), "title"));
    nodes.add(Parts.prose(texts.get("becomes.why"), "muted", "small"));
    for (Field field : table.getKey().fields()) {
      nodes.add(Parts.fact(field.name(), TypeWords.of(field.type())));
    }
    return nodes;
  }

  private java.util.Set<String> names() {
    return bench.design().tables().stream().map(Table::name).collect(Collectors.toSet());
  }

  private void choose() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("choose"));
    chooser
        .getExtensionFilters()
        .add(new FileChooser.ExtensionFilter(texts.get("csv"), "*.csv", "*.tsv", "*.txt"));
    List<File> files = chooser.showOpenMultipleDialog(main.getScene().getWindow());
    Optional.ofNullable(files).orElse(List.of()).forEach(file -> open(file.toPath()));
  }

  /** Reads a file and shows it. */
  public void open(Path file) {
    background.compute(
        () -> CsvSource.read(file),
        source -> {
          String name = String.valueOf(file.getFileName());
          sources.put(name, source);
          if (!chosen.getItems().contains(name)) {
            chosen.getItems().add(name);
          }
          chosen.setValue(name);
          show();
        },
        this::failed);
  }

  private void failed(Throwable failure) {
    if (!(failure instanceof UnreadableFileException) && !(failure instanceof IOException)) {
      throw new IllegalStateException(failure);
    }
    bench.tell(texts.get("failed", failure.getMessage()));
  }

  private void add(CsvSource source) {
    Map.Entry<Table, Rows> table = source.asTable(names());
    bench.apply(new AddTable(table.getKey(), table.getValue()));
    bench.selectionProperty().set(Selection.of(table.getKey().id()));
    bench.stageProperty().set(Stage.SHAPE);
    bench.tell(texts.get("added", table.getKey().label(), table.getValue().count()));
  }
}
