package joiner.desktop.frame;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.animation.PauseTransition;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import joiner.desktop.widget.Parts;

/**
 * Asks one thing at a time, over the window. Escape gives the last answer, which changes nothing.
 */
final class Questions {
  private final StackPane veil = new StackPane();

  /** How long nobody types before something is asked that nobody waits for. */
  private static final long PAUSE_MILLIS = 1_000;

  private long lastKey = System.nanoTime() - PAUSE_MILLIS * 1_000_000;
  private Optional<Question> asked = Optional.empty();
  private Optional<Node> before = Optional.empty();

  /**
   * A question.
   *
   * @param lines what there is to know, a sentence each
   * @param answers the first is the one that is usual, the last one changes nothing
   */
  record Question(String title, String text, List<String> lines, List<Answer> answers) {
    Question {
      lines = List.copyOf(lines);
      answers = List.copyOf(answers);
    }

    static Question of(String title, String text, Answer... answers) {
      return new Question(title, text, List.of(), List.of(answers));
    }
  }

  /** An answer as a button. */
  record Answer(String id, String label, Runnable action) {}

  Questions() {
    veil.getStyleClass().add("veil");
    veil.setVisible(false);
    veil.setId("question");
    veil.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
  }

  Node node() {
    return veil;
  }

  /** Hears that a key was pressed somewhere in the window. */
  void typed() {
    lastKey = System.nanoTime();
  }

  /**
   * Asks what nobody waits for: once no key was pressed for a while, so that nothing typed is lost,
   * and without choosing an answer, so that a key meant for something else gives none.
   */
  void raise(Question question) {
    long quiet = (System.nanoTime() - lastKey) / 1_000_000;
    if (quiet < PAUSE_MILLIS) {
      var later = new PauseTransition(Duration.millis(PAUSE_MILLIS - quiet));
      later.setOnFinished(event -> raise(question));
      later.play();
      return;
    }
    ask(question);
    veil.getChildren().getFirst().requestFocus();
  }

  /** Asks; a question that is still open is answered as by Escape first. */
  void ask(Question question) {
    asked.ifPresent(open -> give(open.answers().getLast()));
    asked = Optional.of(question);
    before = Optional.ofNullable(veil.getScene()).map(javafx.scene.Scene::getFocusOwner);
    var buttons = new FlowPane(8, 8);
    for (Answer answer : question.answers()) {
      boolean first = answer == question.answers().getFirst();
      Button button =
          Parts.button(answer.label(), () -> give(answer), first ? "main" : "plain-button");
      button.setId("answer-" + answer.id());
      button.setDefaultButton(false);
      buttons.getChildren().add(button);
    }
    var nodes = new ArrayList<Node>();
    nodes.add(Parts.prose(question.title(), "title"));
    nodes.add(Parts.prose(question.text()));
    if (!question.lines().isEmpty()) {
      var lines = new VBox(3);
      question.lines().forEach(line -> lines.getChildren().add(Parts.prose(line, "small")));
      var scroll = Parts.scroll(lines);
      scroll.setMaxHeight(190);
      scroll.setPrefHeight(Math.min(190, 22.0 * question.lines().size() + 6));
      nodes.add(scroll);
    }
    nodes.add(buttons);
    var box = new VBox(10);
    box.getChildren().addAll(nodes);
    box.getStyleClass().add("question");
    box.setFocusTraversable(true);
    box.setAccessibleText(question.title() + " " + question.text());
    box.setMaxSize(520, VBox.USE_PREF_SIZE);
    StackPane.setAlignment(box, Pos.TOP_CENTER);
    StackPane.setMargin(box, new Insets(110, 24, 24, 24));
    veil.getChildren().setAll(box);
    veil.setVisible(true);
    buttons.getChildren().getFirst().requestFocus();
  }

  boolean isAsking() {
    return asked.isPresent();
  }

  private void key(KeyEvent event) {
    if (event.getCode() == KeyCode.ESCAPE) {
      asked.ifPresent(open -> give(open.answers().getLast()));
      event.consume();
    } else if (event.getCode() == KeyCode.ENTER && event.getTarget() instanceof Button button) {
      button.fire();
      event.consume();
    }
  }

  private void give(Answer answer) {
    asked = Optional.empty();
    veil.setVisible(false);
    veil.getChildren().clear();
    before.ifPresent(Node::requestFocus);
    answer.action().run();
  }
}
