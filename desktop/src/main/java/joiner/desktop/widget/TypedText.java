package joiner.desktop.widget;

import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.TraversalDirection;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** Text that counts once typing is over: on Enter or on leaving; Escape gives the old text back. */
public final class TypedText {
  /** Under what a control keeps the text that it was given last. */
  private static final String SHOWN = "joiner.shown";

  private TypedText() {}

  /** A field with a text. */
  public static TextField of(String text, Consumer<String> changed) {
    var field = new TextField(text);
    var told = new AtomicReference<>(text);
    settle(
        field,
        told::get,
        typed -> {
          told.set(typed); // Leaving after Enter must not tell the same text again.
          changed.accept(typed);
        });
    return field;
  }

  /**
   * Lets any text control tell when its text has changed from what it was.
   *
   * @param before the text as the design has it now
   */
  public static void settle(
      TextInputControl control, Supplier<String> before, Consumer<String> changed) {
    control.getProperties().put(SHOWN, control.getText());
    control
        .focusedProperty()
        .subscribe(
            (was, is) -> {
              if (was && !is) {
                commit(control, before, changed);
              }
            });
    control.addEventHandler(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            control.setText(before.get());
          }
        });
    if (control instanceof TextField field) {
      field.setOnAction(event -> commit(control, before, changed));
    }
  }

  private static void commit(
      TextInputControl control, Supplier<String> before, Consumer<String> changed) {
    boolean inWindow = control.getScene() != null;
    if (inWindow && !control.getText().equals(before.get())) {
      changed.accept(control.getText());
    }
  }

  /**
   * Shows the text the design has now, unless somebody types here just now. Who only is here, and
   * has typed nothing, must not give an older text back on leaving.
   */
  public static void show(TextInputControl control, String text) {
    boolean untouched = control.getText().equals(control.getProperties().get(SHOWN));
    if ((!control.isFocused() || untouched) && !control.getText().equals(text)) {
      control.setText(text);
    }
    control.getProperties().put(SHOWN, text);
  }

  /** Lets Tab leave a text area, as it leaves every other control. */
  public static void leaveWithTab(TextArea area) {
    area.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          boolean leaves = event.getCode() == KeyCode.TAB && !event.isControlDown();
          if (leaves && !event.isConsumed()) {
            area.requestFocusTraversal(
                event.isShiftDown() ? TraversalDirection.PREVIOUS : TraversalDirection.NEXT);
            event.consume();
          }
        });
  }
}
