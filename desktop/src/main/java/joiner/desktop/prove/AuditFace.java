package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import joiner.audit.AuditReport;
import joiner.audit.Violation;
import joiner.desktop.prove.AuditModel.Line;
import joiner.desktop.shape.SampleGrid;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Terms;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Glossary;
import joiner.desktop.work.Stage;
import joiner.desktop.work.Verdict;
import joiner.desktop.work.Workbench;
import joiner.entry.Mends;
import joiner.model.FieldId;
import joiner.model.Multiplicity;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.RowId;
import joiner.rows.Rows;

/** The face Audit: what in the sample rows breaks the design, and the cells themselves. */
final class AuditFace implements Face {
  private static final int MOST_ABOVE = 3;
  private static final double LIST = 320;
  private static final double LEAST_LIST = 200;
  private static final double LEAST_DETAIL = 300;

  /** What of a line is no room for its message. */
  private static final double AROUND_MESSAGE = 56;

  private static final PseudoClass STALE = PseudoClass.getPseudoClass("stale");

  private final Workbench bench;
  private final AuditModel model;
  private final Texts texts;
  private final VBox main = new VBox();
  private final VBox side = new VBox(8);
  private final VBox detail = new VBox(8);
  private final ListView<Line> list = new ListView<>();
  private final SampleGrid samples;
  private final SaidAgainSide again;
  private final WhenSeen seen = new WhenSeen(this::show);
  private final BiConsumer<Table, RowId> enter;
  private final HBox head = Parts.row(10);
  private final HBox body = new HBox(16, list, detail);
  private final Label counted = Parts.label("", "muted");
  private final Label state = Parts.label("", "oak");
  private final Label clean = Parts.label("", "muted");
  private final Button say;

  /** What is drawn now. */
  private Object drawn = "";

  private boolean filling;

  /** Where one says what decides what, while that is open. */
  private Optional<FactForm> saying = Optional.empty();

  /**
   * Audits nothing yet.
   *
   * @param enter goes where a row is entered
   */
  AuditFace(Workbench bench, Texts texts, BiConsumer<Table, RowId> enter) {
    this.bench = bench;
    this.texts = texts;
    this.enter = enter;
    this.model = new AuditModel(bench, texts);
    this.again = new SaidAgainSide(bench, model.saidAgain(), texts);
    this.samples = new SampleGrid(bench);
    this.say = Parts.button(texts.get("fact.open"), this::openFacts);
    say.setId("fact-open");
    VBox.setVgrow(body, Priority.ALWAYS);
    main.setSpacing(10);
    list.setId("violations");
    list.getStyleClass().add("violation-list");
    list.setCellFactory(view -> new LineCell());
    list.setPrefWidth(LIST);
    list.setMinWidth(LEAST_LIST);
    list.widthProperty().subscribe(width -> list.refresh());
    detail.setMinWidth(0);
    detail.setPrefWidth(LEAST_DETAIL);
    list.setAccessibleText(texts.get("title"));
    list.getSelectionModel().selectedItemProperty().subscribe(this::picked);
    HBox.setHgrow(detail, Priority.ALWAYS);
    VBox.setVgrow(samples.node(), Priority.ALWAYS);
    bench.verdictProperty().subscribe(value -> seen.changed());
    model.waysProperty().subscribe(value -> seen.changed());
    model.saidAgain().changedProperty().subscribe(value -> seen.changed());
    model.aboveProperty().subscribe(value -> seen.changed());
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
  public void look(boolean visible) {
    model.look(visible);
    seen.look(visible);
  }

  private void show() {
    switch (model.shown()) {
      case AuditModel.Shown.Lines lines -> showLines(lines);
      case AuditModel.Shown.Looking looking ->
          showInstead("looking", () -> List.of(Parts.label(texts.get("checking.title"), "title")));
      case AuditModel.Shown.Failed failed ->
          showInstead(
              failed,
              () ->
                  List.of(
                      Parts.label(texts.get("failed.title"), "title"),
                      Parts.prose(failed.why(), "brick")));
      case AuditModel.Shown.Clean clean -> showNothing("clean");
      case AuditModel.Shown.NoRows none -> showNothing("none");
    }
  }

  private void showLines(AuditModel.Shown.Lines shown) {
    filling = true;
    if (!list.getItems().equals(shown.lines())) {
      list.getItems().setAll(shown.lines());
    }
    list.getSelectionModel().select(shown.chosen());
    filling = false;
    list.pseudoClassStateChanged(STALE, shown.state() != Verdict.State.CURRENT);
    counted.setText(countText());
    state.setText(stateText(shown.state()));
    clean.setText(texts.get("clean.tables", shown.clean()));
    draw(
        "lines",
        () -> {
          Node title =
              Terms.explain(
                  Parts.label(texts.get("title"), "title"), "Audit", Glossary.meaning("Audit"));
          head.getChildren().setAll(title, counted, state, Parts.spring(), say);
          return List.of(head, body, clean);
        });
    showLine(shown.chosen());
  }

  private void showInstead(Object what, Supplier<List<Node>> nodes) {
    draw(what, nodes);
    showSide(List.of(Parts.prose(texts.get("side.none"), "muted")));
  }

  /** Draws something else than before; where it is the same its nodes stay, and the focus. */
  private void draw(Object what, Supplier<List<Node>> nodes) {
    say.setDisable(bench.design().tables().isEmpty());
    if (!what.equals(drawn)) {
      drawn = what;
      boolean saying = say.isFocused();
      main.getChildren().setAll(nodes.get());
      if (saying) {
        say.requestFocus();
      }
    }
  }

  /** What is said of a line, unless somebody says something just now. */
  private void showSide(List<Node> nodes) {
    saying.ifPresentOrElse(FactForm::show, () -> drawSide(nodes));
  }

  /** Whoever stands on a way that is still there stays on it. */
  private void drawSide(List<Node> nodes) {
    Optional<String> way =
        side.getChildren().stream()
            .filter(Node::isFocused)
            .filter(Button.class::isInstance)
            .map(node -> ((Button) node).getText())
            .findFirst();
    side.getChildren().setAll(nodes);
    nodes.stream()
        .filter(node -> node instanceof Button button && way.equals(Optional.of(button.getText())))
        .findFirst()
        .ifPresent(Node::requestFocus);
  }

  private void openFacts() {
    TableId table =
        model.shown() instanceof AuditModel.Shown.Lines lines
            ? lines.chosen().table()
            : bench
                .selectionProperty()
                .get()
                .table()
                .filter(id -> bench.design().has(id, List.of()))
                .orElseGet(() -> bench.design().tables().iterator().next().id());
    var form = new FactForm(bench, model.saidAgain(), texts, table, this::closeFacts);
    saying = Optional.of(form);
    side.getChildren().setAll(form.node());
    form.focus();
  }

  private void closeFacts() {
    saying = Optional.empty();
    show();
    say.requestFocus();
  }

  private void showNothing(String what) {
    boolean looked = model.saidAgain().isLooked();
    String count = countText();
    showInstead(
        List.of(what, count, looked),
        () -> {
          var enter =
              Parts.button(texts.get(what + ".go"), () -> bench.stageProperty().set(Stage.SHAPE));
          var further = Parts.label(texts.get("anomaly.working"), "muted");
          further.setVisible(!looked); // What is said again is not broken, but worth knowing.
          return List.of(
              Parts.label(texts.get(what + ".title"), "title"),
              Parts.label(count, "muted"),
              Parts.prose(texts.get(what + ".why"), "muted"),
              Parts.row(8, enter, say),
              further);
        });
  }

  private String countText() {
    AuditReport audit = bench.verdict().audit();
    return texts.get("count", audit.rows(), audit.tables().size());
  }

  private String stateText(Verdict.State state) {
    return switch (state) {
      case CHECKING -> texts.get("checking");
      case FAILED -> texts.get("failed.title");
      case CURRENT -> "";
    };
  }

  /** Somebody moved to a line. */
  private void picked(Line line) {
    if (!filling && line != null) {
      saying = Optional.empty();
      showLine(line);
      model.choose(line);
    }
  }

  private String tag(Line line) {
    return line.kind()
        .map(kind -> texts.get("kind." + kind))
        .or(
            () ->
                line.anomaly()
                    .map(told -> texts.get(told.disputes().isEmpty() ? "anomaly" : "disputed")))
        .orElseGet(() -> texts.get(line.isUnread() ? "unread" : "look"));
  }

  private void showLine(Line line) {
    Table table = bench.design().table(line.table());
    if (line.isUnread()) {
      detail
          .getChildren()
          .setAll(
              Parts.label(table.label(), "strong"),
              Parts.prose(texts.get("unread.why")),
              Parts.row(
                  8,
                  Parts.button(
                      texts.get("unread.go"),
                      () -> {
                        model.choose(line);
                        bench.stageProperty().set(Stage.SHAPE);
                      })));
      showSide(table, line);
      return;
    }
    samples.show(table);
    samples.lead(
        leading(table, line),
        table.primaryKey().size()); // What a row is known by stays beside what is wrong.
    String rows = line.rows().stream().limit(12).map(Counts::of).collect(Collectors.joining(", "));
    var title =
        Parts.row(
            8,
            Parts.label(table.label(), "strong"),
            Parts.shortened(texts.get("rows.named", line.rows().size(), rows), "muted"));
    detail.getChildren().setAll(title, samples.node());
    if (line.kind().equals(Optional.of(Violation.Kind.ORPHAN))) {
      around(table).ifPresent(detail.getChildren()::add);
    }
    line.rows().stream().findFirst().ifPresent(row -> samples.reveal(row - 1, line.fields()));
    showSide(table, line);
  }

  private static List<FieldId> leading(Table table, Line line) {
    return Stream.concat(table.primaryKey().stream(), line.fields().stream()).distinct().toList();
  }

  /** The tables whose rows are looked for, and how many of them are found. */
  private Optional<Node> around(Table table) {
    List<AuditModel.Up> ups = model.above(table.id()).stream().limit(MOST_ABOVE).toList();
    if (ups.isEmpty()) {
      return Optional.empty();
    }
    var parents = new VBox(8);
    for (AuditModel.Up up : ups) {
      Table parent = bench.design().table(up.over().parent());
      boolean whole = up.found() == up.referring();
      String words =
          whole
              ? texts.get("map.all", Counts.of(up.found()))
              : texts.get("map.some", Counts.of(up.found()), Counts.of(up.referring()));
      var mark = new JoinMark(Multiplicity.of(bench.design(), up.over()), true);
      var row = new HBox(board(parent.label(), words, whole ? "muted" : "brick"), mark);
      row.setAlignment(Pos.CENTER_RIGHT);
      parents.getChildren().add(row);
    }
    String rows = Counts.of(bench.draft().rows().of(table.id()).count(), "row", "rows");
    var around = new HBox(parents, board(table.label(), rows, "muted"));
    around.setAlignment(Pos.CENTER_LEFT);
    around.setId("audit-around");
    return Optional.of(around);
  }

  private static Node board(String name, String words, String style) {
    var board = new VBox(Parts.label(name, "strong"), Parts.label(words, style, "small"));
    board.getStyleClass().add("join-board");
    board.setMinWidth(120);
    return board;
  }

  private void showSide(Table table, Line line) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(table.label() + ": " + tag(line), "title"));
    nodes.add(Parts.label(texts.get("side.what"), "heading"));
    nodes.add(Parts.card(List.of(Parts.prose(line.message()))));
    line.violation()
        .ifPresent(
            violation -> {
              nodes.add(Parts.prose(texts.get("side.why." + violation.kind()), "muted"));
              nodes.add(Parts.fact(texts.get("side.constraint"), violation.constraint(), "mono"));
              nodes.add(Parts.fact(texts.get("side.rows"), Counts.of(violation.count())));
            });
    line.violation().ifPresent(violation -> ways(table, violation, nodes));
    line.anomaly().ifPresent(told -> again.show(told, nodes));
    showSide(nodes);
  }

  /** What can be done about it, for all its rows alike or for its first by hand. */
  private void ways(Table table, Violation violation, List<Node> nodes) {
    model.seek(violation);
    nodes.add(Parts.label(texts.get("ways"), "heading"));
    if (violation.rows().size() > 1) {
      nodes.add(Parts.beside(texts.get("ways.of"), whichRows(violation)));
    }
    Optional<AuditModel.Ways> ways = model.ways(violation);
    if (ways.isEmpty()) {
      nodes.add(Parts.label(texts.get("ways.working"), "muted"));
      return;
    }
    for (Mends.Mend mend : ways.get().mends()) {
      nodes.add(Parts.way(mend.words(), () -> model.mend(mend)));
    }
    ways.get()
        .elsewhere()
        .ifPresent(
            elsewhere -> {
              String parent = bench.design().table(elsewhere.over().parent()).noun().singular();
              Button point = Parts.way(texts.get("ways.point", parent), () -> {});
              point.setOnAction(
                  event ->
                      new Picker<>(texts.get("ways.point.prompt", parent), model.takers(elsewhere))
                          .open(point, to -> model.point(elsewhere, to)));
              nodes.add(point);
            });
    int first = model.rows(violation).getFirst() - 1;
    Rows rows = bench.draft().rows().of(table.id());
    if (first < rows.count()) {
      nodes.add(
          Parts.way(
              texts.get("ways.enter", Counts.of(first + 1)),
              () -> enter.accept(table, rows.id(first))));
    }
    nodes.add(Parts.prose(texts.get("ways.undo"), "muted"));
  }

  /** All rows alike, or one of them. */
  private Button whichRows(Violation violation) {
    Button which = Parts.button(rows(violation, model.rows(violation)), () -> {}, "picked");
    which.setId("ways-of");
    which.setMaxWidth(Double.MAX_VALUE);
    var all = new ArrayList<Optional<Integer>>();
    all.add(Optional.empty());
    violation.rows().forEach(row -> all.add(Optional.of(row)));
    which.setOnAction(
        event ->
            new Picker<>(
                    texts.get("ways.of"),
                    Offers.among(
                        all, row -> rows(violation, row.map(List::of).orElse(violation.rows()))))
                .open(
                    which,
                    row -> {
                      model.only(row);
                      seen.changed();
                      row.ifPresent(number -> samples.reveal(number - 1, violation.fields()));
                      Optional.ofNullable(side.lookup("#ways-of")).ifPresent(Node::requestFocus);
                    }));
    return which;
  }

  private String rows(Violation violation, List<Integer> some) {
    return some.size() == violation.rows().size()
        ? texts.get("ways.all", some.size())
        : texts.get("ways.row", some.getFirst());
  }

  private final class LineCell extends ListCell<Line> {
    @Override
    protected void updateItem(Line line, boolean empty) {
      super.updateItem(line, empty);
      setText(null);
      setPrefHeight(USE_COMPUTED_SIZE);
      if (empty || line == null || !model.isThere(line)) {
        setGraphic(null);
        return;
      }
      String look = line.violation().isPresent() || line.isUnread() ? "brick" : "oak";
      var message = new Text(line.message());
      message.getStyleClass().add("violation-text");
      // A label's height is not known before it is shown; a text's is.
      message.setWrappingWidth(Math.max(LEAST_LIST, list.getWidth()) - AROUND_MESSAGE);
      var box =
          new VBox(
              2,
              Parts.row(
                  8,
                  Parts.label(bench.design().table(line.table()).label(), "strong"),
                  Parts.spring(),
                  Parts.label(tag(line), look, "small")),
              message);
      box.setPadding(new Insets(6, 0, 6, 0));
      setGraphic(box);
    }
  }
}
