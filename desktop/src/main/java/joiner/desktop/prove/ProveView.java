package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import joiner.audit.Hint;
import joiner.audit.Violation;
import joiner.desktop.shape.SampleGrid;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.StageView;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Failure;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;

/** The stage Prove: what in the sample rows breaks the design, and the cells themselves. */
public final class ProveView implements StageView {
  /** A line of the list: a violation, or a hint where there is none. */
  private record Line(
      TableId table,
      List<FieldId> fields,
      String tag,
      String message,
      List<Integer> rows,
      Optional<Violation> violation) {
    static Line of(Violation v, Texts texts) {
      return new Line(
          v.table(),
          v.fields(),
          texts.get("kind." + v.kind()),
          v.message(),
          v.rows(),
          Optional.of(v));
    }

    static Line of(Hint h, Texts texts) {
      return new Line(
          h.table(),
          List.of(h.field()),
          texts.get("look"),
          h.message(),
          h.rows(),
          Optional.empty());
    }
  }

  private static final double MESSAGE_WIDTH = 264;
  private static final PseudoClass STALE = PseudoClass.getPseudoClass("stale");

  private final Workbench bench;
  private final Texts texts = Texts.beside(ProveView.class);
  private final VBox main = new VBox();
  private final VBox side = new VBox();
  private final VBox detail = new VBox(8);
  private final ListView<Line> list = new ListView<>();
  private final SampleGrid samples;
  private Optional<Line> chosen = Optional.empty();
  private final WhenSeen seen = new WhenSeen(this::show);
  private boolean filling;

  /** Builds the stage. */
  public ProveView(Workbench bench) {
    this.bench = bench;
    this.samples = new SampleGrid(bench);
    main.getStyleClass().add("stage-area");
    side.getStyleClass().add("side-content");
    list.setId("violations");
    list.getStyleClass().add("violation-list");
    list.setCellFactory(view -> new LineCell());
    list.setPrefWidth(320);
    list.setMinWidth(310);
    list.setAccessibleText(texts.get("title"));
    list.getSelectionModel().selectedItemProperty().subscribe(this::picked);
    HBox.setHgrow(detail, Priority.ALWAYS);
    VBox.setVgrow(samples.node(), Priority.ALWAYS);
    bench.verdictProperty().subscribe(value -> seen.changed());
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

  private void show() {
    Verdict verdict = bench.verdict();
    var lines = new ArrayList<Line>();
    verdict.audit().violations().forEach(v -> lines.add(Line.of(v, texts)));
    verdict.audit().hints().forEach(h -> lines.add(Line.of(h, texts)));
    lines.removeIf(line -> isGone(line));
    if (lines.isEmpty()) {
      showNoLines(verdict);
      return;
    }
    Line chosenNow = again(lines);
    filling = true;
    if (!list.getItems().equals(lines)) {
      list.getItems().setAll(lines);
    }
    list.getSelectionModel().select(chosenNow);
    filling = false;
    var body = new HBox(16, list, detail);
    VBox.setVgrow(body, Priority.ALWAYS);
    main.getChildren()
        .setAll(
            head(verdict), body, Parts.label(texts.get("clean.tables", clean(verdict)), "muted"));
    showLine(chosenNow);
  }

  /** A line of an earlier audit may speak of what is not there any more. */
  private boolean isGone(Line line) {
    return bench
        .design()
        .find(line.table())
        .filter(table -> line.fields().stream().allMatch(table::hasField))
        .isEmpty();
  }

  private Line again(List<Line> lines) {
    return chosen
        .flatMap(before -> lines.stream().filter(line -> same(line, before)).findFirst())
        .or(
            () ->
                lines.stream()
                    .filter(
                        line ->
                            bench
                                .selectionProperty()
                                .get()
                                .table()
                                .equals(Optional.of(line.table())))
                    .findFirst())
        .orElse(lines.getFirst());
  }

  private static boolean same(Line line, Line before) {
    return line.table().equals(before.table())
        && line.fields().equals(before.fields())
        && line.tag().equals(before.tag());
  }

  private void showNoLines(Verdict verdict) {
    boolean any = bench.draft().rows().count() > 0;
    var nodes = new ArrayList<Node>();
    switch (verdict.state()) {
      case CHECKING -> nodes.add(Parts.label(texts.get("checking.title"), "title"));
      case FAILED -> {
        nodes.add(Parts.label(texts.get("failed.title"), "title"));
        nodes.add(Parts.prose(verdict.failure().map(Failure::message).orElse(""), "brick"));
      }
      case CURRENT -> {
        nodes.add(Parts.label(texts.get(any ? "clean.title" : "none.title"), "title"));
        nodes.add(count(verdict));
        nodes.add(Parts.prose(texts.get(any ? "clean.why" : "none.why"), "muted"));
        var enter =
            Parts.button(
                texts.get(any ? "clean.go" : "none.go"),
                () -> bench.stageProperty().set(Stage.SHAPE));
        nodes.add(Parts.row(8, enter));
      }
    }
    main.getChildren().setAll(nodes);
    side.getChildren().setAll(Parts.prose(texts.get("side.none"), "muted"));
  }

  private Node count(Verdict verdict) {
    return Parts.label(
        texts.get("count", verdict.audit().rows(), verdict.audit().tables().size()), "muted");
  }

  private Node head(Verdict verdict) {
    String state =
        switch (verdict.state()) {
          case CHECKING -> texts.get("checking");
          case FAILED -> texts.get("failed.title");
          case CURRENT -> "";
        };
    var row =
        Parts.row(
            10,
            Terms.explain(
                Parts.label(texts.get("title"), "title"), "Audit", Glossary.meaning("Audit")),
            count(verdict));
    if (!state.isEmpty()) {
      row.getChildren().add(Parts.label(state, "oak"));
    }
    list.pseudoClassStateChanged(STALE, !verdict.isCurrent());
    return row;
  }

  private static long clean(Verdict verdict) {
    return verdict.audit().tables().stream()
        .filter(t -> t.violations().isEmpty() && t.hints().isEmpty())
        .count();
  }

  /** Somebody moved to a line; the other stages follow. */
  private void picked(Line line) {
    if (filling || line == null) {
      return;
    }
    showLine(line);
    bench
        .selectionProperty()
        .set(
            line.fields().isEmpty()
                ? Selection.of(line.table())
                : Selection.of(line.table(), line.fields().getFirst()));
  }

  private void showLine(Line line) {
    chosen = Optional.of(line);
    Table table = bench.design().table(line.table());
    samples.show(table);
    String rows = line.rows().stream().limit(12).map(Counts::of).collect(Collectors.joining(", "));
    var title =
        Parts.row(
            8,
            Parts.label(table.label(), "strong"),
            Parts.shortened(texts.get("rows.named", line.rows().size(), rows), "muted"));
    detail.getChildren().setAll(title, samples.node());
    samples.reveal(line.rows().getFirst() - 1, line.fields());
    showSide(table, line);
  }

  private void showSide(Table table, Line line) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(table.label() + ": " + line.tag(), "title"));
    nodes.add(Parts.label(texts.get("side.what"), "heading"));
    nodes.add(Parts.card(List.of(Parts.prose(line.message()))));
    line.violation()
        .ifPresent(
            violation -> {
              nodes.add(Parts.prose(texts.get("side.why." + violation.kind()), "muted"));
              nodes.add(Parts.fact(texts.get("side.constraint"), violation.constraint(), "mono"));
              nodes.add(Parts.fact(texts.get("side.rows"), Counts.of(violation.count())));
            });
    side.getChildren().setAll(nodes);
  }

  private final class LineCell extends ListCell<Line> {
    @Override
    protected void updateItem(Line line, boolean empty) {
      super.updateItem(line, empty);
      setText(null);
      setPrefHeight(USE_COMPUTED_SIZE);
      if (empty || line == null || bench.design().find(line.table()).isEmpty()) {
        setGraphic(null);
        return;
      }
      String look = line.violation().isPresent() ? "brick" : "oak";
      var message = new Text(line.message());
      message.getStyleClass().add("violation-text");
      message.setWrappingWidth(
          MESSAGE_WIDTH); // A label's height is not known before it is shown; a text's is.
      var box =
          new VBox(
              2,
              Parts.row(
                  8,
                  Parts.label(bench.design().table(line.table()).label(), "strong"),
                  Parts.spring(),
                  Parts.label(line.tag(), look, "small")),
              message);
      box.setPadding(new javafx.geometry.Insets(6, 0, 6, 0));
      setGraphic(box);
    }
  }
}
