package joiner.desktop.widget;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;

/**
 * A list to pick from that opens beside what it is about. Typing narrows it, the arrow keys move
 * through it, and only Enter or a click picks; Escape leaves everything as it was.
 */
public final class Picker<T> {
  private static final double ROW = 26;
  private static final int ROWS_SHOWN = 10;

  private final List<T> all;
  private final Function<T, String> words;
  private final BiConsumer<T, String> picked;
  private final boolean takesMore;

  /** What was typed behind the words of a thing. */
  private String more = "";

  private final Runnable goneOn;
  private final Popup popup = new Popup();
  private final TextField typed = new TextField();
  private final ListView<T> list = new ListView<>();

  private Picker(
      String prompt,
      List<T> all,
      Function<T, String> words,
      boolean takesMore,
      BiConsumer<T, String> picked,
      Runnable goneOn) {
    this.takesMore = takesMore;
    this.goneOn = goneOn;
    this.all = all;
    this.words = words;
    this.picked = picked;
    typed.setPromptText(prompt);
    typed.setAccessibleText(prompt);
    typed.setId("picker-text");
    typed.textProperty().subscribe(this::narrow);
    typed.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    list.setId("picker-list");
    list.setFocusTraversable(false);
    list.setFixedCellSize(ROW);
    list.setPlaceholder(new Label("–"));
    list.setCellFactory(view -> new WordsCell());
    list.setOnMouseClicked(event -> pick());
    var box = new VBox(4, typed, list);
    box.getStyleClass().add("picker");
    popup.getContent().add(box);
    popup.setAutoHide(true);
    popup.setAutoFix(true);
  }

  /**
   * Opens a list beside a node.
   *
   * @param now what is picked already and marked first; may be none of the list
   */
  public static <T> void open(
      Node beside,
      String prompt,
      List<T> all,
      Optional<T> now,
      Function<T, String> words,
      Consumer<T> picked) {
    BiConsumer<T, String> alone = (thing, more) -> picked.accept(thing);
    open(beside, now, "", new Picker<>(prompt, all, words, false, alone, () -> {}));
  }

  /**
   * Opens a list in which something may be typed behind what is picked, as a size behind a type.
   *
   * @param now what is picked already and marked first; may be none of the list
   * @param begun what was typed already
   * @param picked gets what was picked, and what was typed behind it
   * @param goneOn told when Tab picks, after what was picked
   */
  public static <T> void open(
      Node beside,
      String prompt,
      List<T> all,
      Optional<T> now,
      Function<T, String> words,
      String begun,
      BiConsumer<T, String> picked,
      Runnable goneOn) {
    open(beside, now, begun, new Picker<>(prompt, all, words, true, picked, goneOn));
  }

  private static <T> void open(Node beside, Optional<T> now, String begun, Picker<T> picker) {
    now.ifPresent(picker.list.getSelectionModel()::select);
    now.ifPresent(picker.list::scrollTo);
    Bounds at = beside.localToScreen(beside.getBoundsInLocal());
    picker.popup.getScene().getStylesheets().setAll(beside.getScene().getStylesheets());
    if (beside.getScene().getRoot().getStyleClass().contains("dark")) {
      picker.popup.getScene().getRoot().getStyleClass().add("dark");
    }
    picker.popup.getScene().getRoot().getStyleClass().add("root");
    picker.popup.show(beside, at.getMinX(), at.getMaxY());
    picker.typed.setText(begun);
    picker.typed.requestFocus();
    picker.typed.end();
  }

  private void narrow(String text) {
    String wanted = text.strip().toLowerCase(Locale.ROOT);
    List<T> fitting = fitting(wanted);
    more = "";
    for (int end = text.lastIndexOf(' ');
        takesMore && fitting.isEmpty() && end > 0;
        end = text.lastIndexOf(' ', end - 1)) {
      wanted = text.substring(0, end).strip().toLowerCase(Locale.ROOT);
      fitting = fitting(wanted);
      more = text.substring(end).strip();
    }
    show(fitting, wanted);
  }

  private List<T> fitting(String wanted) {
    return all.stream()
        .filter(one -> shown(one).contains(wanted))
        .sorted(Comparator.comparing(one -> !shown(one).startsWith(wanted)))
        .toList();
  }

  private void show(List<T> fitting, String wanted) {
    T before = list.getSelectionModel().getSelectedItem();
    list.getItems().setAll(fitting);
    list.setPrefHeight(ROW * Math.clamp(fitting.size(), 2, ROWS_SHOWN) + 4);
    if (before != null && wanted.isEmpty() && fitting.contains(before)) {
      list.getSelectionModel().select(before);
    } else {
      list.getSelectionModel().selectFirst();
    }
  }

  private String shown(T one) {
    return words.apply(one).toLowerCase(Locale.ROOT);
  }

  private void key(KeyEvent event) {
    int at = list.getSelectionModel().getSelectedIndex();
    int last = list.getItems().size() - 1;
    KeyCode code = event.getCode();
    if (code == KeyCode.ENTER) {
      pick();
    } else if (code == KeyCode.TAB) {
      pick();
      goneOn.run();
    } else if (code == KeyCode.ESCAPE) {
      popup.hide();
    } else if (code == KeyCode.DOWN || code == KeyCode.UP) {
      int next = Math.clamp(at + (code == KeyCode.DOWN ? 1 : -1), 0, Math.max(0, last));
      list.getSelectionModel().select(next);
      list.scrollTo(Math.max(0, next - 4));
    } else {
      return;
    }
    event.consume();
  }

  private void pick() {
    T chosen = list.getSelectionModel().getSelectedItem();
    popup.hide();
    if (chosen != null) {
      picked.accept(chosen, more);
    }
  }

  private final class WordsCell extends ListCell<T> {
    @Override
    protected void updateItem(T item, boolean empty) {
      super.updateItem(item, empty);
      setText(empty || item == null ? null : words.apply(item));
    }
  }
}
