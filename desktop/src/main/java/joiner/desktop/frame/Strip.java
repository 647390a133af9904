package joiner.desktop.frame;

import java.util.EnumMap;
import java.util.Map;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.Shape;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTitle;
import joiner.finding.Finding;
import joiner.finding.Severity;
import joiner.finding.Topic;
import joiner.naming.Counts;
import org.kordamp.ikonli.feather.Feather;

/** The head of the window: the design, the stages with their counts, the finder, undo and redo. */
final class Strip {
  private static final PseudoClass STALE = PseudoClass.getPseudoClass("stale");

  private final Workbench bench;
  private final Texts texts = Texts.beside(Strip.class);
  private final Map<Stage, ToggleButton> tabs = new EnumMap<>(Stage.class);
  private final Map<Stage, Label> counts = new EnumMap<>(Stage.class);
  private final Button undo;
  private final Button redo;
  private final TextField title = new TextField();
  private final HBox node;

  Strip(Workbench bench, Runnable openFinder) {
    this.bench = bench;
    this.undo = Parts.iconButton(Feather.CORNER_UP_LEFT, texts.get("undo"), bench::undo);
    this.redo = Parts.iconButton(Feather.CORNER_UP_RIGHT, texts.get("redo"), bench::redo);
    var stages = new HBox(22);
    stages.setAlignment(Pos.CENTER_LEFT);
    var group = new ToggleGroup();
    for (Stage stage : Stage.values()) {
      stages.getChildren().add(tab(stage, group));
    }
    var name = Parts.row(9, mark(), title);
    title.getStyleClass().add("design-title");
    title.setId("design-title");
    title.setAccessibleText(texts.get("title"));
    title.setTooltip(new Tooltip(texts.get("title")));
    title.setPrefColumnCount(14);
    title.setFocusTraversable(true);
    title.focusedProperty().subscribe(this::titleLeft);
    title.setOnAction(event -> stages.getChildren().getFirst().requestFocus());
    title.setOnKeyPressed(
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            title.setText(bench.design().title());
          }
        });
    name.setMinWidth(212);
    this.node = Parts.row(12, name, stages, Parts.spring(), finder(openFinder), undo, redo);
    node.getStyleClass().add("strip");
    bench.stageProperty().subscribe(stage -> tabs.get(stage).setSelected(true));
    bench.historyProperty().subscribe(this::showHistory);
    bench.verdictProperty().subscribe(this::showCounts);
  }

  Node node() {
    return node;
  }

  private void titleLeft(boolean was, boolean is) {
    if (was && !is && !title.getText().equals(bench.design().title())) {
      bench.apply(new ChangeTitle(title.getText()));
      title.setText(bench.design().title());
    }
  }

  /** A mortise with its tenon. */
  private static Node mark() {
    var mortise = Shape.subtract(new Rectangle(18, 18), new Rectangle(6, 6, 6, 12));
    mortise.getStyleClass().add("map-probe-spruce");
    var tenon = new Rectangle(7, 8, 4, 10);
    tenon.getStyleClass().add("map-probe-oak");
    return new Group(mortise, tenon);
  }

  private ToggleButton tab(Stage stage, ToggleGroup group) {
    var name = Parts.label(texts.get("stage." + stage), "stage-name");
    var count = Parts.label("", "count");
    count.setVisible(false);
    count.setManaged(false);
    counts.put(stage, count);
    var head = Parts.row(7, name, count);
    var comb = new HBox(4);
    for (int tenon = 0; tenon < 4; tenon++) {
      var tooth = new Rectangle(10, 6);
      tooth.getStyleClass().add("tenon");
      comb.getChildren().add(tooth);
    }
    comb.setMaxHeight(6);
    StackPane.setAlignment(comb, Pos.BOTTOM_LEFT);
    var face = new StackPane(head, comb);
    face.setMinHeight(47);
    face.setPrefHeight(47);
    var tab = new ToggleButton();
    tab.setGraphic(face);
    tab.setId("stage-" + stage);
    tab.getStyleClass().add("stage-tab");
    tab.setToggleGroup(group);
    tab.setAccessibleText(texts.get("stage." + stage));
    tab.setTooltip(new Tooltip("Alt+" + (stage.ordinal() + 1)));
    tab.setOnAction(
        event -> {
          tab.setSelected(true);
          bench.stageProperty().set(stage);
        });
    tabs.put(stage, tab);
    return tab;
  }

  private Button finder(Runnable open) {
    var button = Parts.button("", open, "finder-button");
    button.setGraphic(
        Parts.row(
            60, Parts.label(texts.get("finder.button"), "muted"), Parts.label("Ctrl K", "key")));
    button.setAccessibleText(texts.get("finder.button"));
    button.setId("finder-button");
    return button;
  }

  private void showHistory(joiner.edit.History history) {
    if (!title.isFocused()) {
      title.setText(history.present().design().title());
    }
    undo.setDisable(history.undoName().isEmpty());
    redo.setDisable(history.redoName().isEmpty());
    undo.getTooltip()
        .setText(history.undoName().map(n -> texts.get("undo.named", n)).orElse(texts.get("undo")));
    redo.getTooltip()
        .setText(history.redoName().map(n -> texts.get("redo.named", n)).orElse(texts.get("redo")));
  }

  private void showCounts(Verdict verdict) {
    show(Stage.SHAPE, verdict, Topic.SHAPE);
    show(Stage.CONNECT, verdict, Topic.CONNECT);
    show(Stage.GUARD, verdict, Topic.GUARD);
    long wrong = verdict.audit().wrong();
    long asked = verdict.findings().stream().filter(f -> f.topic() == Topic.PROVE).count();
    show(Stage.PROVE, wrong + asked, wrong > 0);
    for (Label count : counts.values()) {
      count.pseudoClassStateChanged(STALE, !verdict.isCurrent());
    }
  }

  private void show(Stage stage, Verdict verdict, Topic topic) {
    var own = verdict.findings().stream().filter(finding -> finding.topic() == topic).toList();
    show(stage, own.size(), own.stream().map(Finding::severity).anyMatch(Severity.ERROR::equals));
  }

  private void show(Stage stage, long number, boolean errors) {
    Label count = counts.get(stage);
    count.setText(Counts.of(number));
    count.setVisible(number > 0);
    count.setManaged(number > 0);
    count.getStyleClass().remove("errors");
    if (errors) {
      count.getStyleClass().add("errors");
    }
  }
}
