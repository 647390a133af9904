package joiner.desktop.widget;

import java.util.function.Predicate;
import javafx.scene.control.TableCell;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/** A cell to type in: Enter, Tab or leaving keeps what is typed, Escape does not. */
public final class EditingCell<S> extends TableCell<S, String> {
  private final Predicate<S> isPrompt;
  private final boolean promptEditable;
  private final TextField field = new TextField();

  /**
   * A cell that starts empty on rows that only prompt.
   *
   * @param promptEditable whether it can be typed in on such rows
   */
  public EditingCell(Predicate<S> isPrompt, boolean promptEditable) {
    this.isPrompt = isPrompt;
    this.promptEditable = promptEditable;
    field.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    field
        .focusedProperty()
        .subscribe(
            (was, is) -> {
              if (was && !is && isEditing()) {
                commitEdit(field.getText());
              }
            });
  }

  private void key(KeyEvent event) {
    if (event.getCode() == KeyCode.ESCAPE) {
      cancelEdit();
      event.consume();
    } else if (event.getCode() == KeyCode.ENTER || event.getCode() == KeyCode.TAB) {
      commitEdit(field.getText());
      getTableView().requestFocus();
      event.consume();
    }
  }

  private boolean prompts() {
    return getTableRow() != null
        && getTableRow().getItem() != null
        && isPrompt.test(getTableRow().getItem());
  }

  @Override
  public void startEdit() {
    if (prompts() && !promptEditable) {
      return;
    }
    super.startEdit();
    field.setText(prompts() ? "" : getItem());
    setText(null);
    setGraphic(field);
    field.selectAll();
    field.requestFocus();
  }

  @Override
  public void cancelEdit() {
    super.cancelEdit();
    setGraphic(null);
    setText(getItem());
  }

  @Override
  protected void updateItem(String text, boolean empty) {
    super.updateItem(text, empty);
    if (isEditing() && !empty) {
      return;
    }
    setGraphic(null);
    setText(empty ? null : text);
    getStyleClass().remove("prompt");
    if (!empty && prompts()) {
      getStyleClass().add("prompt");
    }
  }
}
