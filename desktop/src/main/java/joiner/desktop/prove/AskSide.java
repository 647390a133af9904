package joiner.desktop.prove;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import joiner.desktop.prove.AskModel.JoinDeed;
import joiner.desktop.prove.AskModel.State;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Picker;
import joiner.desktop.widget.SqlView;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Workbench;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.engine.Support;
import joiner.joining.Bound;
import joiner.joining.LineWords;

/** What is told beside a question: what each line means, what is left out, and the SQL. */
final class AskSide {
  private static final double SQL_HEIGHT = 250;

  private final Workbench bench;
  private final Texts texts;
  private final AskModel model;
  private final VBox side = new VBox(8);
  private final SqlView sql;
  private final Button engine;
  private Dialect dialect = Dialects.ALL.getFirst();

  AskSide(Workbench bench, Texts texts, AskModel model) {
    this.bench = bench;
    this.texts = texts;
    this.model = model;
    this.engine = Parts.button(dialect.engine(), this::pickEngine, "picked");
    engine.setId("question-engine");
    this.sql = new SqlView("question-sql", texts.get("ask.sql"));
    sql.node().getStyleClass().add("question-sql");
    sql.wrap();
    ((Region) sql.node()).setPrefHeight(SQL_HEIGHT);
    ((Region) sql.node()).setMinHeight(SQL_HEIGHT);
  }

  Node node() {
    return side;
  }

  /** Tells what is asked now. */
  void show(State state) {
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(texts.get("ask.title"), "title"));
    if (state.bound().isEmpty()) {
      nodes.add(Parts.prose(texts.get("ask.why"), "muted"));
      side.getChildren().setAll(nodes);
      return;
    }
    Bound bound = state.bound().get();
    nodes.add(Parts.label(texts.get("ask.line"), "heading"));
    nodes.add(Parts.card(List.of(Parts.prose(LineWords.of(bound)))));
    model
        .told()
        .filter(told -> !told.answer().leftOut().isEmpty())
        .ifPresent(
            told -> {
              nodes.add(Parts.label(texts.get("ask.left"), "heading"));
              told.answer().leftOut().forEach(left -> leftOut(bound, left, nodes));
            });
    nodes.add(Parts.label(texts.get("ask.sql"), "heading"));
    nodes.add(Parts.beside(texts.get("ask.engine"), engine));
    model
        .sql(dialect)
        .ifPresent(
            support -> {
              switch (support) {
                case Support.Kept(String query) -> {
                  sql.show(query);
                  nodes.add(sql.node());
                  nodes.add(Parts.button(texts.get("ask.copy"), () -> copy(query)));
                }
                case Support.Impossible(String loss) ->
                    nodes.add(
                        Parts.prose(texts.get("ask.unsaid", dialect.engine(), loss), "brick"));
              }
            });
    model
        .keptAs()
        .ifPresent(
            question ->
                nodes.add(Parts.button(texts.get("ask.drop", question.label()), model::drop)));
    side.getChildren().setAll(nodes);
  }

  private void leftOut(Bound bound, joiner.joining.Answer.LeftOut left, List<Node> nodes) {
    String role = bound.roles().get(left.without()).name();
    String from = bound.roles().get(left.role()).name();
    nodes.add(Parts.prose(LineWords.of(bound, left)));
    nodes.add(
        Parts.button(
            texts.get("ask.keep.rows", model.nouns(from)),
            () -> model.make(role, new JoinDeed.Keep(true))));
  }

  private void copy(String query) {
    var content = new ClipboardContent();
    content.putString(query);
    Clipboard.getSystemClipboard().setContent(content);
    bench.tell(Notice.Sort.DONE, texts.get("ask.copied"));
  }

  private void pickEngine() {
    new Picker<>(texts.get("ask.engine"), Offers.among(Dialects.ALL, Dialect::engine))
        .at(Optional.of(dialect))
        .open(
            engine,
            picked -> {
              dialect = picked;
              engine.setText(picked.engine());
              show(model.state());
              engine.requestFocus();
            });
  }
}
