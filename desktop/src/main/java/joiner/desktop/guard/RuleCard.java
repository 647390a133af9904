package joiner.desktop.guard;

import java.util.List;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import joiner.ddl.Dialect;
import joiner.ddl.Dialects;
import joiner.ddl.Support;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTable;
import joiner.expression.Checked;
import joiner.expression.Problem;
import joiner.expression.RuleLanguage;
import joiner.model.Rule;
import joiner.model.Table;

/**
 * One rule: its condition with errors as it is typed, and the sample rows it lets pass or refuses.
 */
final class RuleCard {
  private static final PseudoClass ERROR = PseudoClass.getPseudoClass("error");

  private final Workbench bench;
  private final Texts texts;
  private final Table table;
  private final Rule rule;
  private final TextArea condition;
  private final VBox judged = new VBox(4);
  private final VBox trial = new VBox(3);
  private final HBox node;

  RuleCard(Workbench bench, Texts texts, Table table, Rule rule) {
    this.bench = bench;
    this.texts = texts;
    this.table = table;
    this.rule = rule;
    this.condition = condition();
    var left = new VBox(6, head(), condition, judged, message());
    HBox.setHgrow(left, Priority.ALWAYS);
    left.setMinWidth(300);
    trial.setPrefWidth(258);
    trial.setMinWidth(220);
    this.node = new HBox(16, left, trial);
    node.getStyleClass().add("card");
    judge(rule.condition());
  }

  Node node() {
    return node;
  }

  private Node head() {
    TextField label =
        TypedText.of(
            rule.label(),
            text -> change(texts.get("undo.label", text), rule.withLabel(text.strip())));
    label.getStyleClass().add("strong");
    label.setAccessibleText(texts.get("label"));
    HBox.setHgrow(label, Priority.ALWAYS);
    var remove =
        Parts.button(
            texts.get("remove"), () -> bench.apply(ChangeTable.removeRule(table, rule)), "plain");
    return Parts.row(8, label, remove);
  }

  private TextArea condition() {
    var area = new TextArea(rule.condition());
    area.getStyleClass().add("condition");
    area.setWrapText(true);
    area.setPrefRowCount(Math.clamp(rule.condition().length() / 52 + 1, 1, 4));
    area.setAccessibleText(texts.get("condition"));
    area.setId("condition-" + rule.name());
    area.textProperty().subscribe(this::judge);
    area.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ENTER && !event.isShiftDown()) {
            area.getParent().requestFocus();
            event.consume();
          }
        });
    TypedText.settle(area, rule.condition(), text -> change("", rule.withCondition(text.strip())));
    return area;
  }

  private Node message() {
    TextField message =
        TypedText.of(rule.message(), text -> change("", rule.withMessage(text.strip())));
    message.setPromptText(texts.get("message.prompt"));
    message.setAccessibleText(texts.get("message"));
    message.setId("message-" + rule.name());
    return message;
  }

  private void change(String name, Rule changed) {
    var edit = ChangeTable.changeRule(table, rule.name(), changed);
    bench.apply(name.isEmpty() ? edit : new ChangeTable(name, edit.table(), edit.change()));
  }

  /** Shows what the language says of a condition as it stands in the card. */
  private void judge(String text) {
    if (condition == null) {
      return; // The text property speaks once while the card is being built.
    }
    switch (RuleLanguage.condition(text, table)) {
      case Checked.Faulty faulty -> {
        condition.pseudoClassStateChanged(ERROR, !text.isBlank());
        judged
            .getChildren()
            .setAll(faulty.problems().stream().map(problem -> problem(text, problem)).toList());
        trial.getChildren().clear();
      }
      case Checked.Sound sound -> {
        condition.pseudoClassStateChanged(ERROR, false);
        judged.getChildren().setAll(badges(sound));
        trial.getChildren().setAll(tried(sound));
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
    for (Dialect dialect : Dialects.ALL) {
      Support support = dialect.support(sound);
      var badge = Parts.label(texts.get("badge", dialect.engine(), support.words()), "badge");
      if (support instanceof Support.Impossible impossible) {
        badge.getStyleClass().add("partly");
        badge.setTooltip(new javafx.scene.control.Tooltip(impossible.loss()));
      }
      badges.getChildren().add(badge);
    }
    return badges;
  }

  private List<Node> tried(Checked.Sound sound) {
    RuleTrial result = RuleTrial.of(bench, table, sound);
    var nodes = new java.util.ArrayList<Node>();
    if (result.passing() + result.refused() == 0) {
      return List.of(Parts.prose(texts.get("rows.none"), "muted", "small"));
    }
    nodes.add(Parts.label(texts.get("passes"), "spruce", "strong", "small"));
    result.passingExamples().forEach(example -> nodes.add(Parts.prose(example, "small")));
    nodes.add(Parts.label(texts.get("rows.pass", result.passing()), "muted", "small"));
    if (result.refused() > 0) {
      nodes.add(
          Parts.label(result.refused() + " " + texts.get("refused"), "brick", "strong", "small"));
      result
          .refusedExamples()
          .forEach(example -> nodes.add(Parts.prose(example, "brick", "small")));
    }
    if (sound.readsClock()) {
      nodes.add(Parts.prose(texts.get("clock"), "muted", "small"));
    }
    return nodes;
  }
}
