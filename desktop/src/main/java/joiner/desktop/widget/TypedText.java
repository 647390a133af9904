package joiner.desktop.widget;

import java.util.function.Consumer;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** Text that counts once typing is over: on Enter or on leaving; Escape gives the old text back. */
public final class TypedText {
  private TypedText() {}

  /** A field with a text. */
  public static TextField of(String text, Consumer<String> changed) {
    var field = new TextField(text);
    settle(field, text, changed);
    field.setOnAction(event -> commit(field, text, changed));
    return field;
  }

  /** Lets any text control tell when its text has changed from what it was. */
  public static void settle(TextInputControl control, String before, Consumer<String> changed) {
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
            control.setText(before);
          }
        });
  }

  private static void commit(TextInputControl control, String before, Consumer<String> changed) {
    boolean inWindow = control.getScene() != null;
    if (inWindow && !control.getText().equals(before)) {
      changed.accept(control.getText());
    }
  }
}
