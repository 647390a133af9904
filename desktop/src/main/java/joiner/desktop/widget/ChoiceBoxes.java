package joiner.desktop.widget;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;

/**
 * A few choices side by side, one of which is taken: by a click, by the arrow keys, or by the
 * letter it begins with. Delete takes none, where that is allowed; so does a click on what is
 * taken. For the keyboard it is one stop.
 */
public final class ChoiceBoxes extends HBox {
  private final List<String> choices;
  private final List<ToggleButton> boxes = new ArrayList<>();
  private final Consumer<String> taken;
  private final boolean optional;
  private final String name;
  private String now = "";

  /**
   * Boxes of which none is taken.
   *
   * @param name what is chosen
   * @param optional whether none may be taken
   * @param taken takes what was chosen; empty: none
   */
  public ChoiceBoxes(
      String name,
      List<String> choices,
      Function<String, String> words,
      boolean optional,
      Consumer<String> taken) {
    super(4);
    this.name = name;
    this.choices = List.copyOf(choices);
    this.optional = optional;
    this.taken = taken;
    getStyleClass().add("choice-boxes");
    setFocusTraversable(true);
    setAccessibleRole(AccessibleRole.COMBO_BOX);
    for (String choice : choices) {
      var box = new ToggleButton(words.apply(choice));
      box.setFocusTraversable(false);
      box.setOnAction(
          event -> {
            requestFocus();
            take(choice.equals(now) && optional ? "" : choice);
          });
      boxes.add(box);
    }
    getChildren().setAll(boxes);
    setOnKeyPressed(this::pressed);
    setOnKeyTyped(this::typed);
    addEventHandler(MouseEvent.MOUSE_PRESSED, event -> requestFocus());
    show("");
  }

  /** Puts a mark before each choice that has one. */
  public ChoiceBoxes marked(Function<String, Node> mark) {
    for (int i = 0; i < boxes.size(); i++) {
      boxes.get(i).setGraphic(mark.apply(choices.get(i)));
    }
    return this;
  }

  /** Shows what is taken; what is none of the choices is shown by no box. */
  public void show(String text) {
    now = text;
    for (int i = 0; i < boxes.size(); i++) {
      boxes.get(i).setSelected(choices.get(i).equals(text));
    }
    setAccessibleText(name + ": " + text);
  }

  private void take(String choice) {
    show(choice);
    taken.accept(choice);
  }

  private void pressed(KeyEvent event) {
    int at = choices.indexOf(now);
    KeyCode code = event.getCode();
    boolean plain = !event.isAltDown() && !event.isShortcutDown();
    if (plain && (code == KeyCode.RIGHT || code == KeyCode.DOWN)) {
      take(choices.get(Math.min(at + 1, choices.size() - 1)));
      event.consume();
    } else if (plain && (code == KeyCode.LEFT || code == KeyCode.UP)) {
      take(choices.get(at < 0 ? choices.size() - 1 : Math.max(at - 1, 0)));
      event.consume();
    } else if (optional && (code == KeyCode.DELETE || code == KeyCode.BACK_SPACE)) {
      take("");
      event.consume();
    }
  }

  /** The next of those that begin with the letter; the space bar takes the first, or goes on. */
  private void typed(KeyEvent event) {
    String letter = event.getCharacter().toLowerCase(Locale.ROOT);
    if (event.isAltDown() || event.isShortcutDown() || letter.isEmpty()) {
      return;
    }
    int at = choices.indexOf(now);
    for (int i = 1; i <= choices.size(); i++) {
      int next = (at + i) % choices.size();
      String text = boxes.get(next).getText().toLowerCase(Locale.ROOT);
      if (letter.equals(" ") || text.startsWith(letter)) {
        take(choices.get(next));
        event.consume();
        return;
      }
    }
  }
}
