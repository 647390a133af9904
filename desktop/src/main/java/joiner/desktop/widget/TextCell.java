package joiner.desktop.widget;

import java.util.function.Predicate;
import javafx.scene.control.TableCell;

/** A cell that shows a text, and shows it as a prompt on rows that wait to be typed in. */
public final class TextCell<S> extends TableCell<S, String> {
  private final Predicate<S> isPrompt;

  /** A cell that prompts on such rows. */
  public TextCell(Predicate<S> isPrompt) {
    this.isPrompt = isPrompt;
  }

  @Override
  protected void updateItem(String text, boolean empty) {
    super.updateItem(text, empty);
    setText(empty ? null : text);
    S row = getTableRow() == null ? null : getTableRow().getItem();
    getStyleClass().remove("prompt");
    if (!empty && row != null && isPrompt.test(row)) {
      getStyleClass().add("prompt");
    }
  }
}
