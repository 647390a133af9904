package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.deletion.Chain;
import joiner.deletion.Outcome;
import joiner.desktop.prove.IfDeletedModel.Instead;
import joiner.desktop.prove.IfDeletedModel.Line;
import joiner.desktop.prove.IfDeletedModel.Told;
import joiner.desktop.widget.CompletionList;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.desktop.widget.WhenSeen;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Targets;
import joiner.desktop.work.Workbench;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.naming.WordList;

/** The face If deleted: what a delete would take along, unlink or be refused by, and what else. */
final class IfDeletedFace implements Face {
  private static final double ROW = 26;
  private static final int MOST_ROWS = 12;

  private final Workbench bench;
  private final Texts texts;
  private final RowsPick rows;
  private final IfDeletedModel model;
  private final VBox content = new VBox(10);
  private final ScrollPane main = Parts.scroll(content);
  private final VBox side = new VBox(8);
  private final FlowPane suppose = new FlowPane(8, 6);
  private final Button ofTable = Parts.button("", () -> {}, "picked");
  private final Button pick = Parts.button("", () -> {});
  private final TextField where = new TextField();
  private final VBox verdict = new VBox();
  private final TableView<Line> lines = new TableView<>();
  private final VBox instead = new VBox(6);
  private final VBox acting = new VBox(6);
  private final WhenSeen seen = new WhenSeen(this::show);

  IfDeletedFace(Workbench bench, Targets targets, Texts texts) {
    this.bench = bench;
    this.texts = texts;
    this.model = new IfDeletedModel(bench, texts);
    buildWhere();
    suppose.setId("suppose");
    rows = new RowsPick("deleted-of", bench, targets, texts, model::from);
    buildSuppose();
    lines.setId("reached");
    lines.setFixedCellSize(ROW);
    lines.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
    lines.setAccessibleText(texts.get("deleted.lines"));
    column("deleted.table", 130, Line::table);
    column("deleted.rows", 50, line -> Counts.of(line.rows()));
    column("deleted.happens", 180, Line::happens);
    column("deleted.because", 190, Line::because);
    column("deleted.example", 170, Line::example);
    lines.setRowFactory(view -> new FateRow());
    var below = new HBox(16, half("deleted.instead", instead), half("deleted.acting", acting));
    content.getChildren().setAll(suppose, where, verdict, lines, below);
    content.setPadding(new Insets(0, 10, 0, 0));
    bench.historyProperty().subscribe(value -> seen.changed());
    bench.selectionProperty().subscribe(value -> seen.changed());
    model.toldProperty().subscribe(value -> seen.changed());
  }

  private Node half(String heading, VBox nodes) {
    var half = new VBox(6, Parts.label(texts.get(heading), "strong"), nodes);
    half.setMinWidth(0);
    half.setPrefWidth(300);
    HBox.setHgrow(half, Priority.ALWAYS);
    return half;
  }

  private void column(String key, double width, Function<Line, String> text) {
    var column = new TableColumn<Line, String>(texts.get(key));
    column.setPrefWidth(width);
    column.setSortable(false);
    column.setReorderable(false);
    column.setCellValueFactory(line -> new ReadOnlyObjectWrapper<>(text.apply(line.getValue())));
    boolean table = lines.getColumns().isEmpty();
    boolean fate = lines.getColumns().size() == 2;
    boolean number = lines.getColumns().size() == 1;
    column.setCellFactory(
        view ->
            new TableCell<>() {
              @Override
              protected void updateItem(String words, boolean empty) {
                super.updateItem(words, empty);
                setText(empty ? null : words);
                getStyleClass().removeAll("strong", "number", "brick", "oak");
                Line line = getTableRow() == null ? null : getTableRow().getItem();
                if (empty || line == null) {
                  return;
                }
                if (table) {
                  getStyleClass().add("strong");
                  setText(below(line.depth()) + words);
                }
                if (number) {
                  getStyleClass().add("number");
                }
                if (fate && line.depth() > 0) {
                  getStyleClass().add(style(line.fate()));
                }
              }
            });
    lines.getColumns().add(column);
  }

  private static String below(int depth) {
    return depth == 0 ? "" : "\u2003".repeat(depth - 1) + "└ ";
  }

  private static String style(Chain.Fate fate) {
    return switch (fate) {
      case GONE, REFUSE, MAY_REFUSE -> "brick";
      case UNLINKED, DEFAULTED -> "oak";
    };
  }

  /** A row that says by its edge what becomes of its rows. */
  private static final class FateRow extends TableRow<Line> {
    @Override
    protected void updateItem(Line line, boolean empty) {
      super.updateItem(line, empty);
      setAccessibleText(
          empty || line == null
              ? ""
              : line.table() + ", " + Counts.of(line.rows()) + ", " + line.happens());
    }
  }

  /** Supposes that one row was deleted. */
  void suppose(IfDeletedModel.Row row) {
    model.only(row);
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
    model.refresh();
    Optional<Told> told = model.told();
    showSuppose(told);
    lines.getItems().setAll(told.map(Told::lines).orElse(List.of()));
    double height = 34 + ROW * (Math.clamp(lines.getItems().size(), 1, MOST_ROWS));
    lines.setPrefHeight(height);
    lines.setMinHeight(height);
    boolean any = told.filter(t -> !t.lines().isEmpty()).isPresent();
    Parts.toggle(lines, any);
    verdict.getChildren().setAll(told.map(this::verdict).orElseGet(this::notYet));
    showInstead(told);
    showActing(told);
    showSide(told);
  }

  private List<Node> notYet() {
    return switch (model.toldProperty().get()) {
      case Answer.Failed<Told> failed -> List.of(Parts.prose(failed.failure().message(), "brick"));
      default ->
          List.of(
              Parts.label(
                  texts.get(model.table().isEmpty() ? "deleted.none" : "deleted.working"),
                  "muted"));
    };
  }

  private void buildSuppose() {
    ofTable.setId("deleted-table");
    ofTable.setOnAction(
        event ->
            new Picker<>(
                    texts.get("deleted.pick.table"), Offers.among(model.tables(), Table::label))
                .at(model.table())
                .open(ofTable, model::choose));
    pick.setId("deleted-pick");
    pick.setOnAction(
        event ->
            model
                .table()
                .ifPresent(
                    table ->
                        new Picker<>(
                                texts.get("deleted.pick.row", table.noun().singular()),
                                model.rows())
                            .open(pick, model::add)));
    suppose
        .getChildren()
        .setAll(
            line("deleted.suppose"),
            ofTable,
            pick,
            line("deleted.were"),
            Parts.row(8, line("deleted.of"), rows));
  }

  /** Which rows of a database are read; the first ones may not be those somebody means. */
  private void buildWhere() {
    where.setId("deleted-where");
    where.setPromptText(texts.get("deleted.where"));
    where.setAccessibleText(texts.get("deleted.where"));
    CompletionList.on(where, model::completions);
    TypedText.settle(where, model::where, model::where);
  }

  /** What is picked stands between two buttons that stay, so that the focus does. */
  private void showSuppose(Optional<Told> told) {
    suppose.setVisible(model.table().isPresent());
    rows.show(model.rowsOf());
    Parts.toggle(where, model.isLive());
    TypedText.show(where, model.where());
    ofTable.setText(model.table().map(Table::label).orElse(""));
    pick.setText(texts.get(model.chosen().isEmpty() ? "deleted.pick" : "deleted.more"));
    if (told.isEmpty()) {
      return;
    }
    var between = new ArrayList<Node>();
    if (told.get().any() && !told.get().suppose().isEmpty()) {
      between.add(Parts.shortened(texts.get("deleted.worst", told.get().what()), "strong"));
    }
    model.chosen().forEach(row -> between.add(chip(row)));
    List<Node> all = suppose.getChildren();
    List<Node> before = all.subList(2, all.size() - 3);
    boolean hadFocus = before.stream().anyMatch(Node::isFocused);
    if (hadFocus) {
      pick.requestFocus();
    }
    before.clear();
    all.addAll(2, between);
  }

  private Node line(String key) {
    var label = Parts.label(texts.get(key), "muted");
    label.setMinHeight(28);
    return label;
  }

  private Node chip(IfDeletedModel.Row row) {
    Runnable remove = () -> model.remove(row.id());
    Button chip = Parts.chip(row.label() + "  ×", remove, remove);
    chip.setAccessibleText(texts.get("deleted.chip", row.label()));
    return chip;
  }

  private List<Node> verdict(Told told) {
    if (told.lines().isEmpty()) {
      return List.of(Parts.prose(texts.get("deleted.norows", told.table().label()), "muted"));
    }
    Chain chain = told.chain();
    Outcome.Verdict verdict = chain.outcome().verdict();
    String others = named(told, Chain.Fate.GONE);
    String freed = named(told, Chain.Fate.UNLINKED, Chain.Fate.DEFAULTED);
    String words =
        switch (verdict) {
          case DONE ->
              others.isEmpty() && freed.isEmpty()
                  ? texts.get("deleted.verdict.alone")
                  : texts.get("deleted.verdict.done")
                      + (others.isEmpty() ? "" : " " + texts.get("deleted.verdict.along", others))
                      + (freed.isEmpty() ? "" : " " + texts.get("deleted.verdict.freed", freed));
          case REFUSED -> texts.get("deleted.verdict.refused", named(told, Chain.Fate.REFUSE));
          case DEPENDS -> texts.get("deleted.verdict.depends");
        };
    var parts = new ArrayList<Node>();
    parts.add(Parts.prose(words));
    told.deletion()
        .ifPresent(
            edit -> {
              Button delete =
                  Parts.button(
                      texts.get("deleted.do", Counts.of(chain.outcome().count(), "row", "rows")),
                      () -> model.delete(edit));
              delete.setId("delete-now");
              parts.add(Parts.row(8, delete));
            });
    String look =
        switch (verdict) {
          case DONE -> "plain-card";
          case REFUSED -> "brick-card";
          case DEPENDS -> "oak-card";
        };
    VBox card = Parts.card(parts, look);
    card.setSpacing(6);
    card.setId("verdict");
    return List.of(card);
  }

  /** The rows below those that were chosen which have one of some fates, by what they are. */
  private static String named(Told told, Chain.Fate... fates) {
    return told.lines().stream()
        .filter(line -> line.depth() > 0 && List.of(fates).contains(line.fate()))
        .map(line -> Counts.of(line.rows(), line.noun().singular(), line.noun().plural()))
        .collect(Collectors.collectingAndThen(Collectors.toList(), WordList::and));
  }

  private void showInstead(Optional<Told> told) {
    instead.getChildren().clear();
    if (told.isEmpty()) {
      return;
    }
    for (Instead way : told.get().instead()) {
      Button button = Parts.way(way.words(), () -> {});
      switch (way) {
        case Instead.Now now -> button.setOnAction(event -> model.make(now));
        case Instead.To to ->
            button.setOnAction(
                event ->
                    new Picker<>(
                            texts.get("deleted.hand.to", told.get().table().noun().singular()),
                            model.takers(told.get()))
                        .open(button, row -> model.hand(to, row)));
      }
      instead.getChildren().add(button);
    }
    if (instead.getChildren().isEmpty()) {
      boolean live = told.get().of() instanceof RowsOf.Live;
      instead
          .getChildren()
          .add(
              Parts.prose(
                  texts.get(live ? "deleted.instead.live" : "deleted.instead.none"), "muted"));
    }
  }

  private void showActing(Optional<Told> told) {
    acting.getChildren().clear();
    for (Relationship r : told.map(IfDeletedModel::deciding).orElse(List.of())) {
      Table child = bench.design().table(r.child());
      Table parent = bench.design().table(r.parent());
      var choice = new MenuButton(texts.get("deleted.action." + r.onDelete()));
      choice.setId("on-delete-" + r.name());
      choice.setMinWidth(MenuButton.USE_PREF_SIZE);
      choice.setAccessibleText(texts.get("deleted.action.of", child.noun().plural()));
      for (ReferentialAction action : ReferentialAction.values()) {
        var item = new MenuItem(texts.get("deleted.action." + action));
        item.setMnemonicParsing(false);
        item.setOnAction(event -> model.act(r, action));
        choice.getItems().add(item);
      }
      var words =
          Parts.prose(
              texts.get(
                  "deleted.their",
                  parent.noun().singular(),
                  child.noun().plural(),
                  String.join(", ", child.labelsOf(r.childFields()))));
      HBox.setHgrow(words, Priority.ALWAYS);
      words.setMaxWidth(Double.MAX_VALUE);
      acting.getChildren().add(Parts.row(8, words, choice));
    }
    if (acting.getChildren().isEmpty()) {
      acting.getChildren().add(Parts.prose(texts.get("deleted.acting.none"), "muted"));
    }
  }

  private void showSide(Optional<Told> told) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(texts.get("deleted.title"), "title"));
    if (told.isEmpty() || told.get().lines().isEmpty()) {
      nodes.add(Parts.prose(texts.get("deleted.why"), "muted"));
      side.getChildren().setAll(nodes);
      return;
    }
    if (told.get().part()) {
      nodes.add(
          Parts.prose(
              texts.get(
                  "deleted.part",
                  Counts.of(told.get().rows().size()),
                  told.get().table().noun().plural()),
              "muted"));
    }
    Chain chain = told.get().chain();
    nodes.add(Parts.label(texts.get("deleted.side.go"), "heading"));
    nodes.add(Parts.fact(texts.get("deleted.side.gone"), Counts.of(chain.outcome().count())));
    nodes.add(Parts.fact(texts.get("deleted.side.links"), Counts.of(chain.outcome().links())));
    nodes.add(
        Parts.fact(
            texts.get("deleted.side.refusing"),
            Counts.of(chain.outcome().refusing()),
            chain.outcome().refusing() > 0 ? "brick" : "muted"));
    nodes.add(Parts.label(texts.get("deleted.side.order"), "heading"));
    nodes.add(
        Parts.card(List.of(Parts.prose(texts.get("deleted.order." + chain.outcome().verdict())))));
    int last =
        chain.steps().stream()
            .filter(step -> step.depth() > 1 && step.fate() == Chain.Fate.GONE)
            .mapToInt(step -> step.rows().cardinality())
            .sum();
    if (last > 0) {
      nodes.add(Parts.label(texts.get("deleted.side.consider"), "heading"));
      nodes.add(
          Parts.card(
              List.of(
                  Parts.prose(
                      texts.get(
                          "deleted.side.deep",
                          Counts.of(last, "row goes", "rows go"),
                          told.get().table().noun().indefinite()))),
              "oak-card"));
    }
    side.getChildren().setAll(nodes);
  }
}
