package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
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
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;

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

  private final Workbench bench;
  private final Texts texts = Texts.beside(ProveView.class);
  private final VBox main = new VBox();
  private final VBox side = new VBox();
  private final VBox detail = new VBox(8);
  private final ListView<Line> list = new ListView<>();
  private final SampleGrid samples;
  private Optional<Line> chosen = Optional.empty();
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
    list.getSelectionModel().selectedItemProperty().subscribe(this::pick);
    HBox.setHgrow(detail, Priority.ALWAYS);
    VBox.setVgrow(samples.node(), Priority.ALWAYS);
    bench.verdictProperty().subscribe(this::show);
  }

  @Override
  public Node main() {
    return main;
  }

  @Override
  public Node side() {
    return side;
  }

  private void show(Verdict verdict) {
    var lines = new ArrayList<Line>();
    verdict.audit().violations().forEach(v -> lines.add(Line.of(v, texts)));
    verdict.audit().hints().forEach(h -> lines.add(Line.of(h, texts)));
    lines.removeIf(line -> bench.design().find(line.table()).isEmpty());
    if (lines.isEmpty()) {
      showClean(verdict);
      return;
    }
    filling = true;
    list.getItems().setAll(lines);
    filling = false;
    var body = new HBox(16, list, detail);
    VBox.setVgrow(body, Priority.ALWAYS);
    main.getChildren()
        .setAll(
            head(verdict), body, Parts.label(texts.get("clean.tables", clean(verdict)), "muted"));
    list.getSelectionModel().select(again(lines));
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

  private void showClean(Verdict verdict) {
    boolean any = verdict.audit().rows() > 0;
    main.getChildren()
        .setAll(
            Parts.label(texts.get(any ? "clean.title" : "none.title"), "title"),
            Parts.label(
                texts.get("count", verdict.audit().rows(), verdict.audit().tables().size()),
                "muted"),
            Parts.prose(texts.get("clean.why"), "muted"));
    side.getChildren().clear();
  }

  private Node head(Verdict verdict) {
    return Parts.row(
        10,
        Parts.label(texts.get("title"), "title"),
        Parts.label(
            texts.get("count", verdict.audit().rows(), verdict.audit().tables().size()), "muted"));
  }

  private static long clean(Verdict verdict) {
    return verdict.audit().tables().stream()
        .filter(t -> t.violations().isEmpty() && t.hints().isEmpty())
        .count();
  }

  private void pick(Line line) {
    if (filling || line == null) {
      return;
    }
    chosen = Optional.of(line);
    Table table = bench.design().table(line.table());
    samples.show(table);
    String rows =
        line.rows().stream().limit(12).map(String::valueOf).collect(Collectors.joining(", "));
    var title =
        Parts.row(
            8,
            Parts.label(table.label(), "strong"),
            Parts.label(texts.get("rows.named", line.rows().size(), rows), "muted"));
    detail.getChildren().setAll(title, samples.node());
    samples.reveal(line.rows().getFirst() - 1, line.fields());
    showSide(table, line);
    bench
        .selectionProperty()
        .set(
            line.fields().isEmpty()
                ? Selection.of(table.id())
                : Selection.of(table.id(), line.fields().getFirst()));
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
              nodes.add(Parts.fact(texts.get("side.rows"), String.valueOf(violation.count())));
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
