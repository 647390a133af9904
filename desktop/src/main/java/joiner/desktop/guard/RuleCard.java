package joiner.desktop.guard;

import java.util.ArrayList;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.ddl.Lowered;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.desktop.work.Answer;
import joiner.desktop.work.Computed;
import joiner.desktop.work.Lane;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTable;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Problem;
import joiner.meaning.TableMeaning;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.rows.Rows;

/**
 * One rule: its condition with errors as it is typed, and the sample rows it lets pass or refuses.
 * The card stays the same one while its rule changes, so that nobody who types in it is disturbed.
 */
final class RuleCard {
  private static final PseudoClass ERROR = PseudoClass.getPseudoClass("error");

  private final Workbench bench;
  private final Texts texts;
  private final TextField label;
  private final TextArea condition;
  private final TextField message;
  private final VBox judged = new VBox(4);
  private final VBox trial = new VBox(3);
  private final HBox node;
  private final Computed<RuleTrial.Question, RuleTrial> tried;
  private Table table;
  private TableMeaning meaning;
  private Rule rule;
  private Rows rows;

  RuleCard(Workbench bench, Texts texts, Table table, Rule rule, Rows rows) {
    this.bench = bench;
    this.texts = texts;
    this.table = table;
    this.meaning = bench.draft().meaning().of(table);
    this.rule = rule;
    this.rows = rows;
    this.tried =
        new Computed<>(
            bench.runner(),
            texts.get("trying", rule.label()),
            Lane.WORKING,
            RuleTrial.Question::isSame,
            RuleTrial::of);
    tried.answerProperty().subscribe(this::showTrial);
    this.label = new TextField(rule.label());
    this.condition = new TextArea(rule.condition().text());
    this.message = new TextField(rule.message());
    var left = new VBox(6, head(), condition(), judged, message());
    HBox.setHgrow(left, Priority.ALWAYS);
    left.setMinWidth(260);
    trial.setPrefWidth(258);
    trial.setMinWidth(200);
    this.node = new HBox(16, left, trial);
    node.getStyleClass().add("card");
    judge();
  }

  Node node() {
    return node;
  }

  /** Shows the rule as it is now, and tries it on the rows as they are now. */
  void update(Table otherTable, Rule other, Rows otherRows) {
    table = otherTable;
    meaning = bench.draft().meaning().of(otherTable);
    rule = other;
    rows = otherRows;
    TypedText.show(label, rule.label());
    TypedText.show(condition, rule.condition().text());
    TypedText.show(message, rule.message());
    judge();
  }

  /** Puts the typing into the condition. */
  void type() {
    condition.requestFocus();
  }

  /** Says whether somebody looks at the card. */
  void look(boolean now) {
    tried.look(now);
  }

  private Node head() {
    TypedText.settle(
        label,
        () -> rule.label(),
        text -> change(texts.get("undo.label", text), rule.withLabel(text.strip())));
    label.getStyleClass().add("strong");
    label.setAccessibleText(texts.get("label"));
    HBox.setHgrow(label, Priority.ALWAYS);
    var remove =
        Parts.button(
            texts.get("remove"),
            () -> {
              bench.apply(ChangeTable.removeRule(table, rule));
              bench.tellDone(texts.get("removed", rule.label()), texts.get("undo"));
            },
            "plain");
    remove.setAccessibleText(texts.get("remove.named", rule.label()));
    return Parts.row(8, label, remove);
  }

  private TextArea condition() {
    condition.getStyleClass().add("condition");
    condition.setWrapText(true);
    condition.setPrefRowCount(Math.clamp(rule.condition().text().length() / 34 + 1, 1, 5));
    condition.setAccessibleText(texts.get("condition"));
    condition.setId("condition-" + rule.name());
    condition.textProperty().addListener((property, was, is) -> judge());
    condition.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ENTER && !event.isShiftDown()) {
            message.requestFocus();
            event.consume();
          }
        });
    TypedText.leaveWithTab(condition);
    TypedText.settle(
        condition,
        () -> rule.condition().text(),
        text -> change("", rule.withCondition(new Formula(text.strip()))));
    return condition;
  }

  private Node message() {
    TypedText.settle(
        message, () -> rule.message(), text -> change("", rule.withMessage(text.strip())));
    message.setPromptText(texts.get("message.prompt"));
    message.setAccessibleText(texts.get("message"));
    message.setId("message-" + rule.name());
    return message;
  }

  private void change(String name, Rule changed) {
    var edit = ChangeTable.changeRule(table, changed);
    bench.apply(name.isEmpty() ? edit : edit.called(name));
  }

  /** Shows what the language says of a condition as it stands in the card. */
  private void judge() {
    String text = condition.getText();
    switch (new Formula(text).condition(meaning.scope())) {
      case Checked.Faulty faulty -> {
        condition.pseudoClassStateChanged(ERROR, !text.isBlank());
        judged
            .getChildren()
            .setAll(faulty.problems().stream().map(problem -> problem(text, problem)).toList());
        tried.stop();
        trial.getChildren().clear();
      }
      case Checked.Sound sound -> {
        condition.pseudoClassStateChanged(ERROR, false);
        judged.getChildren().setAll(badges(sound));
        tried.ask(new RuleTrial.Question(bench.draft(), table.id(), sound, bench.clock()));
      }
    }
  }

  private Node problem(String text, Problem problem) {
    if (text.isBlank()) {
      return Parts.prose(problem.message(), "muted", "small");
    }
    int at = Math.min(problem.span().start(), text.length());
    String piece = text.substring(at, Math.clamp(problem.span().end(), at, text.length()));
    String place = piece.isBlank() ? texts.get("at", at + 1) : texts.get("at.piece", at + 1, piece);
    return Parts.prose(place + " " + problem.message(), "brick", "small");
  }

  private Node badges(Checked.Sound sound) {
    var badges = new FlowPane(6, 4);
    int kept = 0;
    for (Dialect dialect : Dialects.ALL) {
      switch (Lowered.support(bench.draft(), table.id(), sound, dialect)) {
        case Support.Kept k -> kept++;
        case Support.Impossible impossible -> {
          var badge = Parts.label(texts.get("badge.not", dialect.engine()), "badge", "partly");
          badge.setTooltip(new Tooltip(impossible.loss()));
          badges.getChildren().add(badge);
        }
      }
    }
    String all = kept == Dialects.ALL.size() ? "badge.all" : "badge.others";
    badges.getChildren().addFirst(Parts.label(texts.get(all, kept), "badge"));
    return badges;
  }

  private void showTrial(Answer<RuleTrial> answer) {
    switch (answer) {
      case Answer.Current<RuleTrial>(RuleTrial result) -> trial.getChildren().setAll(words(result));
      case Answer.Underway<RuleTrial> underway ->
          trial.getChildren().setAll(Parts.label(texts.get("trying.now"), "muted", "small"));
      case Answer.Failed<RuleTrial> failed ->
          trial.getChildren().setAll(Parts.prose(failed.failure().message(), "brick", "small"));
      case Answer.Stopped<RuleTrial> stopped -> trial.getChildren().clear();
      case Answer.Unasked<RuleTrial> unasked -> {}
    }
  }

  private List<Node> words(RuleTrial result) {
    if (result.passing() + result.refused() == 0) {
      return List.of(Parts.prose(texts.get("rows.none"), "muted", "small"));
    }
    var nodes = new ArrayList<Node>();
    if (result.passing() > 0) {
      nodes.add(Parts.label(texts.get("passes"), "spruce", "strong", "small"));
    }
    result.passingExamples().forEach(example -> nodes.add(Parts.prose(example, "small")));
    nodes.add(Parts.label(texts.get("rows.pass", result.passing()), "muted", "small"));
    if (result.refused() > 0) {
      nodes.add(Parts.label(texts.get("refused", result.refused()), "brick", "strong", "small"));
      result
          .refusedExamples()
          .forEach(example -> nodes.add(Parts.prose(example, "brick", "small")));
    }
    if (result.readsClock()) {
      nodes.add(Parts.prose(texts.get("clock"), "muted", "small"));
    }
    return nodes;
  }
}
