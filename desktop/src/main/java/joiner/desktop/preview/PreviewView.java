package joiner.desktop.preview;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.HPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.compare.Effect;
import joiner.compare.Foreseen;
import joiner.desktop.map.MapView;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Workbench;
import joiner.finding.Finding;
import joiner.finding.Severity;
import joiner.map.MapLayout;
import joiner.naming.Counts;

/** What a change would do: today and then as boards, counts, and what it costs. */
public final class PreviewView {
  private static final int MOST_EFFECTS = 12;
  private static final double LEAST_BOARDS = 96;
  private static final double MOST_BOARDS = 220;

  private final PreviewModel model;
  private final Texts texts = Texts.beside(PreviewView.class);
  private final BorderPane node = new BorderPane();
  private final VBox content = new VBox();
  private final Label title = Parts.prose("", "title");
  private final Label state = Parts.prose("", "muted");
  private final Button make;
  private final Button leave;

  /** Shows changes that are proposed on a bench. */
  public PreviewView(Workbench bench) {
    this.model = new PreviewModel(bench, texts);
    this.make = Parts.button(texts.get("make"), model::accept, "main");
    make.setId("preview-make");
    make.setDefaultButton(false);
    this.leave = Parts.button(texts.get("leave"), model::leave);
    leave.setId("preview-leave");
    content.getStyleClass().add("preview");
    content.setFillWidth(true);
    var buttons = Parts.row(8, make, leave, Parts.label(texts.get("undo"), "muted", "small"));
    buttons.setStyle("-fx-padding: 10 20 14 20;");
    node.setId("preview");
    node.setCenter(Parts.scroll(content));
    node.setBottom(buttons);
    node.setFocusTraversable(true);
    node.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    model.shownProperty().subscribe(this::show);
  }

  /** What stands in the middle of the window. */
  public Node node() {
    return node;
  }

  /** Tries a change and shows it. */
  public void open(Workbench.Proposal proposal) {
    String name = proposal.edit().name();
    title.setText(Character.toUpperCase(name.charAt(0)) + name.substring(1));
    node.setAccessibleText(title.getText() + ". " + texts.get("nothing"));
    make.setDisable(true);
    model.ask(proposal);
    node.requestFocus();
  }

  private void key(KeyEvent event) {
    if (event.getCode() == KeyCode.ESCAPE) {
      model.leave();
      event.consume();
    } else if (event.getCode() == KeyCode.ENTER) {
      if (event.getTarget() instanceof Button button) {
        button.fire();
      }
      event.consume();
    }
  }

  private void show(Answer<PreviewModel.Shown> answer) {
    content.getChildren().setAll(title, state);
    switch (answer) {
      case Answer.Current<PreviewModel.Shown>(PreviewModel.Shown shown) -> {
        state.setText(texts.get("nothing"));
        content.getChildren().addAll(of(shown));
        make.setDisable(false);
        // A table with its rows is not one Enter away.
        (shown.foreseen().losesTable() ? leave : make).requestFocus();
      }
      case Answer.Failed<PreviewModel.Shown> failed ->
          state.setText(texts.get("failed", failed.failure().message()));
      case Answer.Underway<PreviewModel.Shown> underway -> state.setText(texts.get("working"));
      case Answer.Stopped<PreviewModel.Shown> stopped -> state.setText(texts.get("stopped"));
      case Answer.Unasked<PreviewModel.Shown> unasked -> state.setText("");
    }
  }

  private List<Node> of(PreviewModel.Shown shown) {
    var nodes = new ArrayList<Node>();
    if (shown.today().isPresent() && shown.then().isPresent()) {
      nodes.add(beside(shown.today().get(), shown.then().get()));
    }
    if (!shown.foreseen().lines().isEmpty()) {
      nodes.add(counts(shown.foreseen().lines()));
    }
    shown.foreseen().back().ifPresent(back -> nodes.add(Parts.prose(back, "muted")));
    List<Effect> effects = shown.effects();
    if (!effects.isEmpty()) {
      nodes.add(Parts.label(texts.get("effects"), "heading"));
      effects.stream().limit(MOST_EFFECTS).map(PreviewView::effect).forEach(nodes::add);
      if (effects.size() > MOST_EFFECTS) {
        nodes.add(Parts.prose(texts.get("more", effects.size() - MOST_EFFECTS), "muted", "small"));
      }
    }
    List<Finding> findings = shown.foreseen().findings();
    if (!findings.isEmpty()) {
      nodes.add(Parts.label(texts.get("findings"), "heading"));
      for (Finding finding : findings) {
        boolean error = finding.severity() == Severity.ERROR;
        nodes.add(
            Parts.card(
                List.of(
                    Parts.prose(finding.message()), Parts.prose(finding.why(), "muted", "small")),
                error ? "error" : "attention"));
      }
    }
    return nodes;
  }

  /** Both at one height, each with half of the room. */
  private Node beside(MapLayout today, MapLayout then) {
    double height = Math.clamp(Math.max(today.height(), then.height()), LEAST_BOARDS, MOST_BOARDS);
    var box = new HBox(16, boards("today", today, height), boards("then", then, height));
    box.getChildren().forEach(half -> HBox.setHgrow(half, Priority.ALWAYS));
    return box;
  }

  private Node boards(String when, MapLayout placed, double height) {
    var map = new MapView(selection -> {});
    map.setId("preview-" + when);
    map.setFocusTraversable(false);
    map.setMouseTransparent(true);
    map.setMinHeight(height);
    map.setPrefHeight(height);
    map.show(placed);
    var half = new VBox(4, Parts.label(texts.get(when), "heading"), map);
    half.setPrefWidth(1); // Both grow from nothing, so that they end alike.
    half.setMinWidth(0);
    return half;
  }

  private GridPane counts(List<Foreseen.Line> lines) {
    var grid = new GridPane();
    grid.setId("preview-counts");
    grid.getStyleClass().add("preview-counts");
    var number = new ColumnConstraints();
    number.setHalignment(HPos.RIGHT);
    var wide = new ColumnConstraints();
    wide.setHgrow(Priority.ALWAYS);
    grid.getColumnConstraints().setAll(new ColumnConstraints(), number, number, wide);
    grid.addRow(
        0,
        new Label(),
        Parts.label(texts.get("today"), "muted", "small"),
        Parts.label(texts.get("then"), "muted", "small"),
        Parts.label(texts.get("becomes"), "muted", "small"));
    for (int i = 0; i < lines.size(); i++) {
      Foreseen.Line line = lines.get(i);
      Label becomes = Parts.prose(line.becomes());
      if (line.loses()) {
        becomes.getStyleClass().add("brick");
      }
      grid.addRow(
          i + 1,
          Parts.label(line.what()),
          Parts.label(line.today().map(Counts::of).orElse("–")),
          Parts.label(line.then().map(Counts::of).orElse("–")),
          becomes);
    }
    return grid;
  }

  private static Label effect(Effect effect) {
    String style =
        switch (effect.risk()) {
          case LOSES -> "brick";
          case REFUSES -> "oak";
          case REWRITES, ADDS, NONE -> "muted";
        };
    return Parts.prose(effect.message(), style);
  }
}
