package joiner.desktop.prove;

import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import joiner.desktop.prove.AskModel.JoinDeed;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.model.Question;
import joiner.model.Table;
import joiner.naming.Counts;

/** The tables of a question as boards with joints between, and those that could be joined next. */
final class AskJoins {
  private static final int MOST_NEAR = 16;

  private final Workbench bench;
  private final Texts texts;
  private final AskModel model;
  private final Consumer<String> show;
  private final FlowPane joins = new FlowPane(0, 8);

  /**
   * Boards of no question yet.
   *
   * @param show shows a column that was picked at a board
   */
  AskJoins(Workbench bench, Texts texts, AskModel model, Consumer<String> show) {
    this.bench = bench;
    this.texts = texts;
    this.model = model;
    this.show = show;
  }

  Node node() {
    return joins;
  }

  /** Shows how the tables of a question are joined, and which could be next. */
  void show(Question question) {
    joins.getChildren().clear();
    String before = "";
    for (Question.Role role : question.roles()) {
      if (bench.design().find(role.table()).isEmpty()) {
        continue;
      }
      var joined = new HBox(board(role, before));
      if (role.link().isPresent() && bench.design().find(role.link().get().over()).isPresent()) {
        var mark = new JoinMark(model.multiplicity(role), role.link().get().down());
        joined.getChildren().addFirst(mark); // They stand together when the line is full.
      }
      joins.getChildren().add(joined);
      before = role.name();
    }
    List<Table> near = model.near();
    for (Table table : near.stream().limit(MOST_NEAR).toList()) {
      Node board = near(table);
      FlowPane.setMargin(board, new Insets(0, 0, 0, joins.getChildren().isEmpty() ? 0 : 6));
      joins.getChildren().add(board);
    }
    if (near.size() > MOST_NEAR) {
      joins
          .getChildren()
          .add(Parts.label(texts.get("ask.near.more", near.size() - MOST_NEAR), "muted"));
    }
    Parts.toggle(joins, !joins.getChildren().isEmpty());
  }

  /** A table that could be joined: a click picks what is shown of it. */
  private Node near(Table table) {
    Button board = Parts.button(table.label(), () -> {}, "join-board", "near");
    board.setId("near-" + table.name());
    board.setAccessibleText(texts.get("ask.near", table.label()));
    board.setTooltip(new Tooltip(texts.get("ask.near", table.label())));
    board.setOnAction(
        event -> new Picker<>(texts.get("ask.pick.prompt"), model.fields(table)).open(board, show));
    return board;
  }

  /** A table as it is joined; where it hangs on another than the one before, that is said. */
  private Node board(Question.Role role, String before) {
    var table = bench.design().table(role.table());
    var words = new VBox(Parts.label(table.label(), "strong"));
    String rows = Counts.of(bench.draft().rows().of(table.id()).count(), "row", "rows");
    String how =
        role.link()
            .map(
                link ->
                    texts.get(
                        link.from().equals(before) ? "ask.join" : "ask.join.from",
                        model.words(role),
                        model.noun(link.from())))
            .orElse(rows);
    words.getChildren().add(Parts.label(how, "muted", "small"));
    if (role.link().filter(Question.Link::kept).isPresent()) {
      words
          .getChildren()
          .add(
              Parts.label(
                  texts.get("ask.kept.rows", model.nouns(role.link().get().from())),
                  "oak",
                  "small"));
    }
    var board = new Button();
    board.setGraphic(words);
    board.getStyleClass().add("join-board");
    board.setId("role-" + role.name());
    board.setAccessibleText(table.label() + ", " + how);
    board.setOnAction(
        event ->
            new Picker<>(
                    texts.get("ask.join.prompt"),
                    Offers.among(model.joinDeeds(role.name()), deed -> words(role, deed)))
                .open(board, deed -> model.make(role.name(), deed)));
    return board;
  }

  private String words(Question.Role role, JoinDeed deed) {
    return switch (deed) {
      case JoinDeed.Instead(var other) -> texts.get("ask.join.instead", model.words(other));
      case JoinDeed.Keep(boolean kept) ->
          texts.get(
              kept ? "ask.join.keep" : "ask.join.drop",
              model.nouns(role.link().orElseThrow().from()),
              model.nouns(role.name()));
      case JoinDeed.Apart(boolean apart) ->
          texts.get(apart ? "ask.join.apart" : "ask.join.together", model.nouns(role.name()));
      case JoinDeed.Show(String column, String label) -> texts.get("ask.join.show", label);
      case JoinDeed.LeaveOut out -> texts.get("ask.join.out", model.nouns(role.name()));
    };
  }
}
