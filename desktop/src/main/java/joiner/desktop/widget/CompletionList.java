package joiner.desktop.widget;

import java.util.List;
import java.util.function.BiFunction;
import javafx.application.Platform;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Popup;
import joiner.meaning.Completions.Completion;

/**
 * What a condition can go on with, in a list below where it is typed. It comes while a name is
 * typed, and Ctrl+Space brings it anywhere. It never takes a key from whoever types on: only once
 * an arrow key has gone into it, Enter and Tab put in what is picked.
 */
public final class CompletionList {
  private static final double ROW = 24;
  private static final int MOST_SHOWN = 8;
  private static final double FRAME = 16;

  private final TextInputControl control;
  private final BiFunction<String, Integer, List<Completion>> fitting;
  private final Popup popup = new Popup();
  private final ListView<Completion> list = new ListView<>();
  private boolean putting;

  private CompletionList(
      TextInputControl control, BiFunction<String, Integer, List<Completion>> fitting) {
    this.control = control;
    this.fitting = fitting;
    list.setId("completions");
    list.setFixedCellSize(ROW);
    list.setFocusTraversable(false);
    list.setPrefWidth(380);
    list.setCellFactory(view -> new CompletionCell());
    list.setOnMouseClicked(event -> put());
    popup.getContent().add(list);
    popup.setAutoHide(true);
    popup.setConsumeAutoHidingEvents(false);
    popup.setHideOnEscape(false);
  }

  /**
   * Offers completions where something is typed.
   *
   * @param fitting what fits a text and the place of the caret in it
   */
  public static void on(
      TextInputControl control, BiFunction<String, Integer, List<Completion>> fitting) {
    var completions = new CompletionList(control, fitting);
    control.addEventFilter(KeyEvent.KEY_PRESSED, completions::key);
    control.addEventHandler(KeyEvent.KEY_TYPED, completions::typed);
    control
        .focusedProperty()
        .subscribe(
            focused -> {
              if (!focused) {
                completions.popup.hide();
              }
            });
  }

  private void typed(KeyEvent event) {
    boolean letter =
        !event.getCharacter().isEmpty()
            && (Character.isLetterOrDigit(event.getCharacter().charAt(0))
                || "_.\'".contains(event.getCharacter()));
    if (!putting && letter && !event.isControlDown() && !event.isAltDown()) {
      Platform.runLater(() -> offer(false)); // Once the letter stands there.
    } else if (!event.isControlDown()) {
      popup.hide();
    }
  }

  private void key(KeyEvent event) {
    if (event.getCode() == KeyCode.SPACE && event.isControlDown()) {
      offer(true);
      event.consume();
      return;
    }
    if (!popup.isShowing()) {
      return;
    }
    boolean picked = list.getSelectionModel().getSelectedItem() != null;
    switch (event.getCode()) {
      case DOWN -> move(1, event);
      case UP -> move(-1, event);
      case ENTER, TAB -> {
        if (picked) {
          put();
          event.consume();
        } else {
          popup.hide();
        }
      }
      case ESCAPE -> {
        popup.hide();
        event.consume();
      }
      case LEFT, RIGHT, HOME, END -> popup.hide();
      default -> {}
    }
  }

  private void move(int by, KeyEvent event) {
    int next = list.getSelectionModel().getSelectedIndex() + by;
    list.getSelectionModel().select(Math.clamp(next, 0, list.getItems().size() - 1));
    list.scrollTo(Math.max(0, list.getSelectionModel().getSelectedIndex() - 3));
    event.consume();
  }

  private void offer(boolean asked) {
    String text = control.getText();
    int caret = Math.min(control.getCaretPosition(), text.length());
    List<Completion> all = fitting.apply(text, caret);
    boolean begun = asked || all.stream().anyMatch(one -> one.from() < caret);
    if (all.isEmpty() || !begun || !control.isFocused()) {
      popup.hide();
      return;
    }
    list.getItems().setAll(all);
    list.getSelectionModel().clearSelection();
    if (asked) {
      list.getSelectionModel().selectFirst();
    }
    list.setPrefHeight(ROW * Math.clamp(all.size(), 1, MOST_SHOWN) + FRAME);
    if (!popup.isShowing()) {
      show();
    }
  }

  private void show() {
    Bounds at = control.localToScreen(control.getBoundsInLocal());
    Scene window = control.getScene();
    popup.getScene().getStylesheets().setAll(window.getStylesheets());
    Node root = popup.getScene().getRoot();
    root.getStyleClass().setAll("root");
    if (window.getRoot().getStyleClass().contains("dark")) {
      root.getStyleClass().add("dark");
    }
    list.getStyleClass().add("picker");
    popup.show(control, at.getMinX(), at.getMaxY());
  }

  private void put() {
    Completion picked = list.getSelectionModel().getSelectedItem();
    popup.hide();
    if (picked != null) {
      putting = true;
      int caret = Math.min(control.getCaretPosition(), control.getText().length());
      control.replaceText(Math.min(picked.from(), caret), caret, picked.text());
      putting = false;
    }
  }

  private static final class CompletionCell extends ListCell<Completion> {
    @Override
    protected void updateItem(Completion one, boolean empty) {
      super.updateItem(one, empty);
      setText(null);
      setGraphic(
          empty || one == null
              ? null
              : Parts.row(
                  8,
                  Parts.label(one.text(), "mono"),
                  Parts.spring(),
                  Parts.shortened(one.detail(), "muted", "small")));
    }
  }
}
