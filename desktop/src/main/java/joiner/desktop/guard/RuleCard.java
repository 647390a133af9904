package joiner.desktop.guard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
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
import joiner.desktop.widget.CompletionList;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.widget.TypedText;
import joiner.desktop.work.Answer;
import joiner.expression.Formula;
import joiner.model.Rule;
import joiner.naming.WordList;
import joiner.reasoning.Understood;
import joiner.reasoning.Witness;

/**
 * One rule: its condition with errors as it is typed, and the sample rows it lets pass or refuses.
 * The card stays the same one while its rule changes, so that nobody who types in it is disturbed.
 */
final class RuleCard {
  private static final PseudoClass ERROR = PseudoClass.getPseudoClass("error");

  /** So many rows show what a rule lets pass, and what it refuses. */
  private static final int MOST_ROWS = 2;

  /** So many engines are named. */
  private static final int MOST_NAMED = 3;

  private static final double HALF = 200;

  /** So many characters of a condition stand in a line, and so many lines are shown at once. */
  private static final int LINE = 44;

  private static final int MOST_LINES = 6;

  private final RuleModel model;
  private final Texts texts;
  private final TextField label;
  private final TextArea condition;
  private final TextField message;
  private final VBox judged = new VBox(4);
  private final VBox messageJudged = new VBox();
  private final RuleSentence sentence;
  private final VBox trial = new VBox(3);

  /** What the rule means, whatever the rows are. */
  private final VBox meaning = new VBox(3);

  private final HBox node;

  RuleCard(RuleModel model, Texts texts) {
    this.model = model;
    this.texts = texts;
    Rule rule = model.rule();
    this.label = new TextField(rule.label());
    this.condition = new TextArea(rule.condition().map(Formula::text).orElse(""));
    this.message = new TextField(rule.message());
    this.sentence = new RuleSentence(model, texts);
    meaning.setId("meaning-" + rule.name());
    var left =
        new VBox(
            6, head(), sentence.node(), condition(), judged, message(), messageJudged, meaning);
    HBox.setHgrow(left, Priority.ALWAYS);
    left.setMinWidth(260);
    trial.setPrefWidth(258);
    trial.setMinWidth(200);
    this.node = new HBox(16, left, trial);
    node.getStyleClass().add("card");
    model.trialProperty().subscribe(this::showTrial);
    sentence.update();
    judge();
    judgeMessage();
  }

  /** Whether the rule is on each row, so that it has a condition of its own. */
  private boolean isOfRow() {
    return model.rule().condition().isPresent();
  }

  Node node() {
    return node;
  }

  /** Shows the rule as it is now, and tries it on the rows as they are now. */
  void update() {
    Rule rule = model.rule();
    TypedText.show(label, rule.label());
    TypedText.show(condition, rule.condition().map(Formula::text).orElse(""));
    TypedText.show(message, rule.message());
    sentence.update();
    judge();
    judgeMessage();
  }

  /**
   * Says what the rule means among the others.
   *
   * @param words of a row that shows it
   */
  void understood(Optional<Understood> known, Function<Witness, String> words) {
    meaning.getChildren().clear();
    if (known.isEmpty()
        || isOfRow()
            && !condition
                .getText()
                .equals(model.rule().condition().map(Formula::text).orElse(""))) {
      return;
    }
    Understood is = known.get();
    if (is.verdict() != Understood.Verdict.FINE) {
      String by = WordList.and(is.by().stream().map(Rule::label).toList());
      String colour = is.verdict().isWrong() ? "brick" : "oak";
      meaning.getChildren().add(Parts.prose(texts.get("means." + is.verdict(), by), colour));
    }
    is.notes()
        .forEach(note -> meaning.getChildren().add(Parts.prose(note.words(), "oak", "small")));
    if (is.passes().isEmpty() && is.fails().isEmpty()) {
      return;
    }
    var shown = new HBox(16);
    rows("means.passes", is.passes(), words, "spruce").ifPresent(shown.getChildren()::add);
    rows("means.fails", is.fails(), words, "brick").ifPresent(shown.getChildren()::add);
    meaning.getChildren().add(shown);
  }

  private Optional<Node> rows(
      String key, List<Witness> rows, Function<Witness, String> words, String style) {
    if (rows.isEmpty()) {
      return Optional.empty();
    }
    var box = new VBox(2, Parts.label(texts.get(key), style, "strong", "small"));
    rows.stream()
        .limit(MOST_ROWS)
        .forEach(row -> box.getChildren().add(Parts.prose(words.apply(row), "small")));
    box.setPrefWidth(HALF);
    box.setMinWidth(0);
    HBox.setHgrow(box, Priority.ALWAYS);
    return Optional.of(box);
  }

  /** Puts the typing into the condition, or the first part of the sentence that writes it. */
  void type() {
    if (sentence.isThere()) {
      sentence.type();
    } else {
      condition.requestFocus();
    }
  }

  private Node head() {
    TypedText.settle(label, () -> model.rule().label(), model::label);
    label.getStyleClass().add("strong");
    label.setAccessibleText(texts.get("label"));
    HBox.setHgrow(label, Priority.ALWAYS);
    var remove = Parts.button(texts.get("remove"), model::remove, "plain");
    remove.setAccessibleText(texts.get("remove.named", model.rule().label()));
    return Parts.row(8, label, remove);
  }

  private TextArea condition() {
    condition.getStyleClass().add("condition");
    condition.setWrapText(true);
    condition.textProperty().subscribe(this::grow);
    condition.setAccessibleText(texts.get("condition"));
    condition.setId("condition-" + model.rule().name());
    condition.setVisible(isOfRow());
    condition.setManaged(isOfRow());
    condition.textProperty().addListener((property, was, is) -> judge());
    CompletionList.on(condition, model::completions); // Before those that leave with these keys.
    condition.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          boolean leaves = event.getCode() == KeyCode.ENTER && !event.isShiftDown();
          if (leaves && !event.isConsumed()) {
            message.requestFocus();
            event.consume();
          }
        });
    TypedText.leaveWithTab(condition);
    TypedText.settle(
        condition,
        () -> model.rule().condition().map(Formula::text).orElse(""),
        text -> {
          model.forget();
          model.condition(text);
        });
    return condition;
  }

  /** As many lines as there are, and a little more than the longest take. */
  private void grow(String text) {
    long lines = text.lines().mapToLong(line -> line.length() / LINE + 1).sum();
    int rows = Math.clamp(lines, 1, MOST_LINES);
    if (condition.getPrefRowCount() != rows) {
      condition.setPrefRowCount(rows);
    }
  }

  private Node message() {
    TypedText.settle(message, () -> model.rule().message(), model::message);
    message.textProperty().subscribe(text -> judgeMessage());
    message.setPromptText(texts.get("message.prompt"));
    message.setAccessibleText(texts.get("message"));
    message.setId("message-" + model.rule().name());
    return message;
  }

  private void judgeMessage() {
    messageJudged
        .getChildren()
        .setAll(
            model.ofMessage(message.getText()).stream()
                .map(what -> Parts.prose(what, "oak", "small"))
                .toList());
  }

  /** Shows what the language says of the condition as it stands in the card. */
  private void judge() {
    if (!isOfRow()) {
      judgeDemand();
      return;
    }
    String text = condition.getText();
    RuleModel.Judgement judgement = model.judge(text);
    boolean faulty = judgement instanceof RuleModel.Judgement.Faulty;
    condition.pseudoClassStateChanged(ERROR, faulty);
    judged.getChildren().setAll(words(judgement));
    if (!(judgement instanceof RuleModel.Judgement.Sound)) {
      trial.getChildren().clear();
    }
  }

  /** What is demanded of several rows is tried by the audit. */
  private void judgeDemand() {
    RuleModel.Judgement judgement = model.judge();
    judged.getChildren().setAll(words(judgement));
    if (!(judgement instanceof RuleModel.Judgement.Sound)) {
      trial.getChildren().clear();
      return;
    }
    trial
        .getChildren()
        .setAll(
            model
                .refused()
                .map(says -> Parts.prose(says, "brick", "small"))
                .orElseGet(() -> Parts.prose(texts.get("rows.keep"), "muted", "small")));
  }

  private List<Node> words(RuleModel.Judgement judgement) {
    return switch (judgement) {
      case RuleModel.Judgement.Blank blank -> List.of(Parts.prose(blank.what(), "muted", "small"));
      case RuleModel.Judgement.Faulty faulty ->
          Stream.concat(marked(faulty.faults()).stream(), faulty.faults().stream().map(this::fault))
              .toList();
      case RuleModel.Judgement.Sound sound -> List.of(badges(sound));
    };
  }

  /** A line below the condition that marks what is wrong with it, where it stands in one line. */
  private Optional<Node> marked(List<RuleModel.Fault> faults) {
    String text = condition.getText();
    if (text.length() > LINE || text.contains("\n")) {
      return Optional.empty();
    }
    var marks = new StringBuilder(" ".repeat(text.length() + 1));
    for (RuleModel.Fault fault : faults) {
      int from = Math.min(fault.at() - 1, text.length());
      int until = Math.min(from + Math.max(1, fault.piece().length()), marks.length());
      marks.replace(from, until, "▔".repeat(until - from));
    }
    var line = Parts.label(marks.toString(), "mono", "brick", "mark");
    line.setAccessibleText("");
    line.setId("mark-" + model.rule().name());
    return Optional.of(line);
  }

  private Node fault(RuleModel.Fault fault) {
    String place =
        fault.piece().isBlank()
            ? texts.get("at", fault.at())
            : texts.get("at.piece", fault.at(), fault.piece());
    return Parts.prose(place + " " + fault.message(), "brick", "small");
  }

  private Node badges(RuleModel.Judgement.Sound sound) {
    var badges = new FlowPane(6, 4);
    if (sound.nowhere()) {
      var badge = Parts.label(texts.get("badge.none"), "badge", "partly");
      badge.setTooltip(new Tooltip(sound.losses().getFirst().why()));
      badges.getChildren().add(badge);
      return badges;
    }
    sound
        .by()
        .forEach(
            (means, engines) -> {
              String who =
                  sound.everywhere() && sound.by().size() == 1
                      ? texts.get("badge.all", engines.size())
                      : engines.size() > MOST_NAMED
                          ? texts.get("badge.some", engines.size())
                          : String.join(", ", engines);
              var badge = Parts.label(texts.get("badge.by", means.words(), who), "badge");
              badge.setTooltip(new Tooltip(String.join(", ", engines)));
              badges.getChildren().add(badge);
            });
    Map<String, List<String>> lost = new LinkedHashMap<>();
    sound
        .losses()
        .forEach(
            loss ->
                lost.computeIfAbsent(loss.why(), why -> new ArrayList<>())
                    .add(loss.dialect().engine()));
    if (!lost.isEmpty()) {
      List<String> engines = lost.values().stream().flatMap(List::stream).toList();
      var badge =
          Parts.label(texts.get("badge.not", String.join(", ", engines)), "badge", "partly");
      badge.setTooltip(
          new Tooltip(
              lost.entrySet().stream()
                  .map(e -> String.join(", ", e.getValue()) + ": " + e.getKey())
                  .collect(Collectors.joining("\n"))));
      badges.getChildren().add(badge);
    }
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
    result
        .says()
        .ifPresent(says -> nodes.add(Parts.prose(texts.get("reads", says), "muted", "small")));
    if (result.readsClock()) {
      nodes.add(Parts.prose(texts.get("clock"), "muted", "small"));
    }
    return nodes;
  }
}
