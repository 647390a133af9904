package joiner.desktop.connect;

import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import joiner.desktop.map.MapView;
import joiner.desktop.map.MatrixView;
import joiner.desktop.widget.Command;
import joiner.desktop.widget.Faces;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.ShownAs;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import joiner.edit.GroupIntoAreas;
import joiner.edit.PinBoard;
import joiner.edit.Reading;
import joiner.edit.Relate;
import joiner.edit.RelateSentence;
import joiner.map.Detail;
import joiner.map.MapLayout;
import joiner.map.MapPicture;
import joiner.map.Matrix;
import joiner.map.PictureTheme;
import joiner.map.Scope;
import joiner.model.AreaId;
import joiner.model.Noun;
import joiner.model.Pin;
import joiner.model.Table;
import joiner.model.TableId;
import org.kordamp.ikonli.feather.Feather;

/** The stage Connect: the map, what it is focused on, and the relationship chosen. */
public final class ConnectView implements StageView {
  private enum Face {
    MAP,
    MATRIX
  }

  private final Workbench bench;
  private final ConnectModel model;
  private final Texts texts = Texts.beside(ConnectView.class);
  private final OnMap onMap = new OnMap();
  private final MapView map;
  private final MatrixView matrix;
  private final ComboBox<Integer> focus = new ComboBox<>();
  private final ComboBox<Optional<Detail>> detail = new ComboBox<>();
  private final Faces<Face> faces =
      new Faces<>(
          Face.values(),
          Face.MAP,
          face -> texts.get("face." + face),
          face -> face(face == Face.MATRIX));
  private final ComboBox<Optional<Scope.Areas>> areas = new ComboBox<>();
  private final TextField find = new TextField();
  private final HBox leftOut = new HBox(6);
  private final Button fit;
  private final Button larger;
  private final Button smaller;
  private final Button relate = Parts.button("", () -> {});
  private final BorderPane main;
  private final RelateModel relating;
  private final RelationshipSheet sheet;
  private final WhenSeen seen = new WhenSeen(this::layOut);
  private final Label state = Parts.prose("", "card");

  /** Builds the stage. */
  public ConnectView(Workbench bench) {
    this.bench = bench;
    this.model = new ConnectModel(bench, texts);
    this.relating = new RelateModel(bench);
    this.map = new MapView(onMap);
    this.matrix = new MatrixView(onMap, this::says);
    matrix.setVisible(false);
    model.matrixProperty().subscribe(this::showMatrix);
    this.sheet = new RelationshipSheet(bench, texts, relating);
    this.fit = Parts.iconButton(Feather.MAXIMIZE, texts.get("fit"), map::fit);
    this.larger = Parts.iconButton(Feather.PLUS, texts.get("larger"), () -> map.zoom(1.25));
    this.smaller = Parts.iconButton(Feather.MINUS, texts.get("smaller"), () -> map.zoom(0.8));
    var tools = tools();
    model.layoutProperty().subscribe(this::showLayout);
    state.setId("map-state");
    StackPane.setAlignment(state, Pos.TOP_LEFT);
    StackPane.setMargin(state, new Insets(12, 12, 0, 16));
    state.setMaxWidth(Region.USE_PREF_SIZE);
    var empty = empty();
    tools.getStyleClass().add("map-tools");
    leftOut.setMaxSize(Region.USE_PREF_SIZE, Region.USE_PREF_SIZE);
    leftOut.setVisible(false);
    StackPane.setAlignment(leftOut, Pos.TOP_RIGHT);
    StackPane.setMargin(leftOut, new Insets(12, 16, 0, 12));
    this.main = new BorderPane(new StackPane(map, matrix, empty, state, leftOut));
    main.setBottom(tools);
    bench.historyProperty().subscribe(value -> empty.setVisible(bench.design().tables().isEmpty()));
    bench.historyProperty().subscribe(value -> seen.changed());
    map.layoutBoundsProperty().subscribe(this::resized);
    bench.selectionProperty().subscribe(value -> selected());
  }

  private Node empty() {
    var gather =
        Parts.button(
            texts.get("empty.gather"), () -> bench.stageProperty().set(Stage.GATHER), "main");
    var box = new VBox(10, Parts.prose(texts.get("empty"), "muted"), gather);
    box.setMaxSize(420, Region.USE_PREF_SIZE);
    return box;
  }

  @Override
  public void shown(boolean visible) {
    model.look(visible);
    seen.look(visible);
    sheet.look(visible);
  }

  @Override
  public List<Command> commands() {
    var commands = new ArrayList<Command>();
    commands.add(Command.of(texts.get("fit"), map::fit));
    commands.add(Command.of(texts.get("save"), this::save));
    commands.add(Command.of(texts.get("show.map"), () -> faces.show(Face.MAP)));
    commands.add(Command.of(texts.get("show.matrix"), () -> faces.show(Face.MATRIX)));
    if (bench.design().tables().stream().anyMatch(table -> table.area().isEmpty())) {
      commands.add(Command.of(texts.get("group"), () -> bench.apply(new GroupIntoAreas())));
    }
    if (!bench.design().areas().isEmpty()) {
      commands.add(Command.of(texts.get("fold.all"), () -> foldAll(true)));
      commands.add(Command.of(texts.get("unfold.all"), () -> foldAll(false)));
    }
    bench
        .table()
        .ifPresent(
            table -> {
              commands.add(
                  Command.of(
                      texts.get("ways.from", table.label()),
                      () -> map.pickOther(MapView.Purpose.WAYS)));
              commands.add(
                  Command.of(texts.get("hide", table.label()), () -> onMap.hide(table.id())));
            });
    if (!bench.design().tables().isEmpty()) {
      commands.add(Command.of(relateWords(), this::relate));
    }
    return commands;
  }

  /** What is done on the map. */
  private final class OnMap implements MapView.Deeds {
    @Override
    public void pick(Selection selection) {
      bench.selectionProperty().set(selection);
    }

    @Override
    public void open(TableId table) {
      bench.selectionProperty().set(Selection.of(table));
      bench.stageProperty().set(Stage.SHAPE);
    }

    @Override
    public boolean relates() {
      return true;
    }

    @Override
    public void relate(MapView.End from, MapView.End to) {
      relating.begin(from, to);
    }

    @Override
    public void picking(TableId from, MapView.Purpose purpose) {
      String key = purpose == MapView.Purpose.RELATE ? "relate.other" : "ways.other";
      bench.tell(Notice.Sort.HINT, texts.get(key, label(from)));
    }

    @Override
    public void ways(TableId from, TableId to) {
      if (model.showWays(from, to)) {
        seen.changed();
      } else {
        bench.tell(Notice.Sort.REFUSED, texts.get("ways.none", label(from), label(to)));
      }
    }

    @Override
    public void fold(AreaId area, boolean folds) {
      model.fold(area, folds);
      seen.changed();
    }

    @Override
    public void foldOrUnfold(TableId table) {
      Optional<AreaId> area = bench.design().table(table).area();
      if (area.isEmpty()) {
        bench.tell(Notice.Sort.HINT, texts.get("fold.none", label(table)));
      }
      area.ifPresent(of -> fold(of, !map.layoutShown().folded().containsKey(table)));
    }

    @Override
    public void pin(TableId table, Pin at) {
      bench.apply(new PinBoard(table, label(table), Optional.of(at)));
    }

    @Override
    public boolean unpin(TableId table) {
      boolean isPinned = model.isPinned(table);
      if (isPinned) {
        bench.apply(new PinBoard(table, label(table), Optional.empty()));
      }
      return isPinned;
    }

    @Override
    public void hide(TableId table) {
      model.hide(table);
      seen.changed();
    }
  }

  private String label(TableId table) {
    return bench.design().table(table).label();
  }

  private void foldAll(boolean folds) {
    model.foldAll(folds);
    seen.changed();
  }

  /** What is left out of the map, each with a way to have it back. */
  private void showLeftOut() {
    leftOut.getChildren().clear();
    model
        .between()
        .ifPresent(
            ends ->
                leaveOut(
                    "ways-shown",
                    texts.get("ways.shown", label(ends.from()), label(ends.to())),
                    model::showAllWays));
    int hidden = model.hidden().size();
    if (hidden > 0) {
      leaveOut("hidden-shown", texts.get("hidden", hidden), model::showHidden);
    }
    leftOut.setVisible(!leftOut.getChildren().isEmpty());
  }

  private void leaveOut(String id, String words, Runnable back) {
    Button button =
        Parts.button(
            words,
            () -> {
              back.run();
              seen.changed();
              map.requestFocus();
            });
    button.setId(id);
    leftOut.getChildren().add(button);
  }

  private void showMatrix(Answer<Matrix> answer) {
    answer
        .current()
        .ifPresent(
            found -> {
              matrix.show(found);
              matrix.mark(bench.selectionProperty().get());
            });
  }

  /** What a cell of the matrix says, read from the table that refers. */
  private String says(TableId child, List<Matrix.Tie> ties) {
    return String.join(
        " ",
        ties.stream()
            .map(tie -> Reading.of(bench.design(), tie.relationship()).getLast().sentence())
            .toList());
  }

  /** Shows the map or the matrix. */
  private void face(boolean isMatrix) {
    model.asMatrixProperty().set(isMatrix);
    map.setVisible(!isMatrix);
    matrix.setVisible(isMatrix);
    List.of(focus, detail, areas, find, fit, larger, smaller)
        .forEach(node -> node.setDisable(isMatrix));
    state.setVisible(false);
    seen.changed();
    if (bench.stageProperty().get() == Stage.CONNECT) {
      (isMatrix ? matrix : map).requestFocus();
    }
  }

  /** Saves what the map shows as a picture, of the kind that the file's name says. */
  private void save() {
    var chooser = new FileChooser();
    chooser.setTitle(texts.get("save"));
    chooser.setInitialFileName(bench.design().name() + ".svg");
    for (MapPicture.Format format : MapPicture.Format.values()) {
      String ending = "*." + format.name().toLowerCase(Locale.ROOT);
      chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter(format.name(), ending));
    }
    Optional.ofNullable(chooser.showSaveDialog(main.getScene().getWindow()))
        .map(File::toPath)
        .ifPresent(this::save);
  }

  private void save(Path file) {
    Optional<MapPicture.Format> format = MapPicture.Format.of(file);
    if (format.isEmpty()) {
      bench.tell(Notice.Sort.REFUSED, texts.get("save.ending", file.getFileName()));
      return;
    }
    boolean dark = main.getScene().getRoot().getStyleClass().contains("dark");
    model.save(
        file,
        format.get(),
        dark ? PictureTheme.DARK : PictureTheme.LIGHT,
        saved -> bench.tell(Notice.Sort.DONE, texts.get("save.done", saved)));
  }

  private void resized(Bounds size) {
    if (size.getWidth() > 0 && model.resize(size.getWidth(), size.getHeight())) {
      seen.changed();
    }
  }

  @Override
  public List<Command> commandsFor(String typed) {
    return RelateSentence.read(bench.design(), typed).stream()
        .map(
            relate ->
                Command.of(
                    texts.get(
                        "relate.said",
                        bench.design().table(relate.one().table()).noun().singular(),
                        relate.one().verb(),
                        relate.one().quantity().words(),
                        noun(relate)),
                    () -> relating.begin(relate)))
        .toList();
  }

  private String noun(Relate relate) {
    Noun noun = bench.design().table(relate.other().table()).noun();
    return relate.one().quantity().isPlural() ? noun.plural() : noun.singular();
  }

  private void showLayout(Answer<MapLayout> answer) {
    answer.current().ifPresent(this::draw);
    String words =
        switch (answer) {
          case Answer.Unasked<MapLayout> u -> "";
          case Answer.Current<MapLayout> c -> "";
          case Answer.Underway<MapLayout> u -> texts.get("layout.working");
          case Answer.Stopped<MapLayout> s -> texts.get("layout.stopped");
          case Answer.Failed<MapLayout> f -> texts.get("layout.failed", f.failure().message());
        };
    state.setText(words);
    state.setVisible(!words.isEmpty());
  }

  private void draw(MapLayout drawn) {
    map.show(drawn);
    map.find(model.named(find.getText()));
    map.mark(bench.selectionProperty().get());
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return sheet.node();
  }

  /** In a narrow window the tools take two lines; nothing is cut, and nothing pushes the map. */
  private FlowPane tools() {
    List<Integer> steps = IntStream.rangeClosed(0, ConnectModel.FARTHEST).boxed().toList();
    offer(focus, "focus", steps, this::focusWords, model.stepsProperty()::set);
    offer(
        detail,
        "detail",
        orAsItFits(Detail.values()),
        told -> texts.get("detail." + told.map(Detail::name).orElse("FITTING")),
        model.detailProperty()::set);
    offer(
        areas,
        "areas",
        orAsItFits(Scope.Areas.values()),
        how -> texts.get("areas." + how.map(Scope.Areas::name).orElse("FITTING")),
        model.areasProperty()::set);
    find.setId("find-on-map");
    find.setPromptText(texts.get("find"));
    find.setAccessibleText(texts.get("find"));
    find.setPrefColumnCount(10);
    find.textProperty().subscribe(text -> map.find(model.named(text)));
    find.setOnAction(event -> takeFound());
    relate.setId("relate");
    relate.setOnAction(event -> relate());
    relate.setText(texts.get("relate.open"));
    relate.setTooltip(new Tooltip(texts.get("relate.hint")));
    for (Region tool : List.of(focus, areas, detail)) {
      tool.setMinWidth(Region.USE_PREF_SIZE);
    }
    return new FlowPane(
        8, 6, faces.node(), focus, areas, detail, find, fit, larger, smaller, relate);
  }

  /** One of some is always picked, the first to begin with. */
  private <T> void offer(
      ComboBox<T> box, String id, List<T> all, Function<T, String> words, Consumer<T> picked) {
    box.getItems().setAll(all);
    box.setValue(all.getFirst());
    box.setId(id);
    box.setAccessibleText(texts.get(id));
    box.setConverter(new ShownAs<>(words));
    box.valueProperty()
        .subscribe(
            value -> {
              picked.accept(value);
              seen.changed();
            });
  }

  private static <T> List<Optional<T>> orAsItFits(T[] all) {
    return Stream.concat(Stream.of(Optional.<T>empty()), Arrays.stream(all).map(Optional::of))
        .toList();
  }

  /** Chooses the next table that is looked for. */
  private void takeFound() {
    List<TableId> found = model.named(find.getText());
    if (found.isEmpty()) {
      if (!find.getText().isBlank()) {
        bench.tell(Notice.Sort.REFUSED, texts.get("find.none", find.getText().strip()));
      }
      return;
    }
    int at = bench.table().map(Table::id).map(found::indexOf).orElse(-1);
    bench.selectionProperty().set(Selection.of(found.get((at + 1) % found.size())));
  }

  private String focusWords(Integer steps) {
    String table = bench.table().map(Table::label).orElse("");
    return steps == 0
        ? texts.get("focus") + " " + texts.get("focus.all")
        : texts.get("focus.step", steps, table);
  }

  private void selected() {
    map.mark(bench.selectionProperty().get());
    matrix.mark(bench.selectionProperty().get());
    Optional<Table> table = bench.table();
    relate.setAccessibleText(relateWords()); // Its width stays, and so does the map's.
    table.ifPresent(t -> map.reveal(t.id()));
    if (model.stepsProperty().get() > 0) {
      seen.changed();
    }
  }

  private String relateWords() {
    return bench
        .table()
        .map(table -> texts.get("relate.from", table.label()))
        .orElseGet(() -> texts.get("relate.open"));
  }

  /** Begins with the chosen table, or the first there is. */
  private void relate() {
    bench
        .table()
        .or(() -> bench.design().tables().stream().findFirst())
        .ifPresent(table -> relating.begin(table.id(), Optional.empty()));
  }

  private void layOut() {
    showLeftOut();
    model.layOut();
  }
}
