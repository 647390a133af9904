package joiner.desktop.frame;

import java.nio.file.Path;
import java.util.EnumMap;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import joiner.desktop.connect.ConnectView;
import joiner.desktop.gather.GatherView;
import joiner.desktop.guard.GuardView;
import joiner.desktop.prove.ProveView;
import joiner.desktop.shape.ShapeView;
import joiner.desktop.ship.ShipView;
import joiner.desktop.theme.Theme;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.StageView;
import joiner.desktop.work.Background;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Workbench;
import org.kordamp.ikonli.feather.Feather;

/** The whole window: everything but the stages themselves. Stages are built when first shown. */
public final class Frame {
  private final Workbench bench;
  private final Background background;
  private final Map<Stage, StageView> stages = new EnumMap<>(Stage.class);
  private final StackPane middle = new StackPane();
  private final StackPane side = new StackPane();
  private final StackPane root = new StackPane();
  private final DesignFiles files;
  private final Actions actions;
  private final Finder finder;
  private final Map<KeyCombination, Runnable> shortcuts;
  private Theme theme;

  /** Builds the window's content. */
  public Frame(Workbench bench, Background background, Theme theme) {
    this.bench = bench;
    this.background = background;
    this.theme = theme;
    this.files = new DesignFiles(bench, background, () -> root.getScene().getWindow());
    this.actions = new Actions(bench, files, new Gathered(), this::switchTheme);
    this.finder = new Finder(actions);
    this.shortcuts = shortcuts();
    side.getStyleClass().add("side-sheet");
    side.setPrefWidth(292);
    side.setMinWidth(292);
    var centre = new VBox(notice(), middle);
    centre.setMinSize(0, 0);
    middle.setMinSize(0, 0);
    var pane = new BorderPane(centre);
    pane.setMinSize(0, 0); // Long names are shortened; they never push the window's parts aside.
    VBox.setVgrow(middle, javafx.scene.layout.Priority.ALWAYS);
    pane.setTop(new Strip(bench, finder::open).node());
    pane.setLeft(new TableList(bench, actions::addTable).node());
    pane.setRight(side);
    pane.setBottom(new StatusLine(bench).node());
    root.getChildren().addAll(pane, finder.node());
    root.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    bench.stageProperty().subscribe(this::show);
    bench.selectionProperty().subscribe(value -> leaveGather());
  }

  /** What the scene shows. */
  public Parent root() {
    return root;
  }

  /** Dresses the scene; call after the root is in it. */
  public void dress(Scene scene) {
    theme.applyTo(scene);
  }

  /** Goes to Gather and opens a file there. */
  public void gather(Path file) {
    gather().open(file);
  }

  private GatherView gather() {
    bench.stageProperty().set(Stage.GATHER);
    return (GatherView) stages.get(Stage.GATHER);
  }

  /** Sources as the finder reaches them. */
  private final class Gathered implements Actions.Sources {
    @Override
    public void choose() {
      gather().choose();
    }

    @Override
    public void paste() {
      gather().paste();
    }
  }

  private void switchTheme() {
    theme = theme.other();
    theme.applyTo(root.getScene());
  }

  /** A table chosen while files are gathered is wanted in its own shape. */
  private void leaveGather() {
    boolean chosen = bench.selectionProperty().get().table().isPresent();
    if (chosen && bench.stageProperty().get() == Stage.GATHER && !stages.isEmpty()) {
      bench.stageProperty().set(Stage.SHAPE);
    }
  }

  private Node notice() {
    var text = new Label();
    text.setWrapText(true);
    var close = Parts.iconButton(Feather.X, "Dismiss", bench::dismissNotice);
    HBox bar = Parts.row(8, text, Parts.spring(), close);
    bar.getStyleClass().addAll("card", "attention");
    bar.setId("notice");
    bench
        .noticeProperty()
        .subscribe(
            told -> {
              text.setText(told.orElse(""));
              bar.setVisible(told.isPresent());
              bar.setManaged(told.isPresent());
            });
    return bar;
  }

  private void show(Stage stage) {
    StageView view = stages.computeIfAbsent(stage, this::build);
    middle.getChildren().setAll(view.main());
    side.getChildren().setAll(Parts.scroll(view.side()));
  }

  private StageView build(Stage stage) {
    return switch (stage) {
      case GATHER -> new GatherView(bench, background);
      case SHAPE -> new ShapeView(bench);
      case CONNECT -> new ConnectView(bench, background);
      case GUARD -> new GuardView(bench);
      case PROVE -> new ProveView(bench);
      case SHIP -> new ShipView(bench, background);
    };
  }

  private void key(KeyEvent event) {
    for (Map.Entry<KeyCombination, Runnable> shortcut : shortcuts.entrySet()) {
      if (shortcut.getKey().match(event)) {
        commitTyping(event);
        shortcut.getValue().run();
        event.consume();
        return;
      }
    }
  }

  /**
   * Undo inside a text that is being typed belongs to the text only while it differs from the
   * design.
   */
  private static void commitTyping(KeyEvent event) {
    if (event.getTarget() instanceof TextInputControl text && text.getParent() != null) {
      text.getParent().requestFocus();
    }
  }

  private Map<KeyCombination, Runnable> shortcuts() {
    var control = KeyCombination.SHORTCUT_DOWN;
    var shift = KeyCombination.SHIFT_DOWN;
    var map = new java.util.LinkedHashMap<KeyCombination, Runnable>();
    map.put(new KeyCodeCombination(KeyCode.K, control), finder::open);
    map.put(new KeyCodeCombination(KeyCode.Z, control), bench::undo);
    map.put(new KeyCodeCombination(KeyCode.Z, control, shift), bench::redo);
    map.put(new KeyCodeCombination(KeyCode.T, control), actions::addTable);
    map.put(new KeyCodeCombination(KeyCode.L, control, shift), this::switchTheme);
    map.put(new KeyCodeCombination(KeyCode.O, control), files::open);
    map.put(new KeyCodeCombination(KeyCode.N, control), files::startEmpty);
    map.put(new KeyCodeCombination(KeyCode.S, control), files::saveAs);
    map.put(new KeyCodeCombination(KeyCode.G, control), () -> gather().choose());
    map.put(new KeyCodeCombination(KeyCode.V, control, shift), () -> gather().paste());
    for (Stage stage : Stage.values()) {
      KeyCode digit = KeyCode.valueOf("DIGIT" + (stage.ordinal() + 1));
      map.put(
          new KeyCodeCombination(digit, KeyCombination.ALT_DOWN),
          () -> bench.stageProperty().set(stage));
    }
    return map;
  }
}
