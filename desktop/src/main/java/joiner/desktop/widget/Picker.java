package joiner.desktop.widget;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Bounds;
import javafx.geometry.Rectangle2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import javafx.stage.PopupWindow;
import javafx.stage.Screen;
import joiner.desktop.widget.Offers.Offer;

/**
 * A list to pick from that opens beside what it is about. Typing narrows it, the arrow keys move
 * through it, and only Enter, Tab or a click picks; Escape leaves everything as it was.
 */
public final class Picker<T> {
  private static final double ROW = 26;
  private static final int ROWS_SHOWN = 12;
  private static final double GROUP_WIDTH = 76;

  private final Offers<T> offers;
  private Consumer<T> picked = thing -> {};
  private Runnable goneOn = () -> {};
  private Optional<T> now = Optional.empty();
  private Function<T, Optional<Node>> marks = thing -> Optional.empty();
  private String begun = "";
  private boolean grouped;
  private final Popup popup = new Popup();
  private final TextField typed = new TextField();
  private final ListView<Offer<T>> list = new ListView<>();

  /** A list that is not open yet. */
  public Picker(String prompt, Offers<T> offers) {
    this.offers = offers;
    typed.setPromptText(prompt);
    typed.setAccessibleText(prompt);
    typed.setId("picker-text");
    typed.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    list.setId("picker-list");
    list.setFocusTraversable(false);
    list.setFixedCellSize(ROW);
    list.setPlaceholder(new Label("–"));
    list.setCellFactory(view -> new OfferCell());
    list.setOnMouseClicked(event -> pick());
    var box = new VBox(4, typed, list);
    box.getStyleClass().add("picker");
    popup.getContent().add(box);
    popup.setAutoHide(true);
    popup.setAutoFix(true);
  }

  /**
   * A button that says what is picked of a few things, and lets another be picked.
   *
   * @param prompt what is picked
   */
  public static <T> Button button(
      String prompt, List<T> things, T now, Function<T, String> words, Consumer<T> picked) {
    Button button = Parts.button(words.apply(now), () -> {}, "picked");
    button.setMinWidth(0);
    button.setMaxWidth(Double.MAX_VALUE);
    button.setOnAction(
        event ->
            new Picker<>(prompt, Offers.among(things, words))
                .at(Optional.of(now))
                .open(button, picked));
    return button;
  }

  /** Marks what is picked already; it may be none of the list. */
  public Picker<T> at(Optional<T> thing) {
    now = thing;
    return this;
  }

  /** Goes on from what was typed before it opened. */
  public Picker<T> begunWith(String text) {
    begun = text;
    return this;
  }

  /** Puts a mark before each thing that has one. */
  public Picker<T> marked(Function<T, Optional<Node>> mark) {
    marks = mark;
    return this;
  }

  /** Tells when Tab picked, after what was picked. */
  public Picker<T> goingOn(Runnable next) {
    goneOn = next;
    return this;
  }

  /** Opens it beside a node. */
  public void open(Node beside, Consumer<T> taker) {
    picked = taker;
    Bounds at = beside.localToScreen(beside.getBoundsInLocal());
    popup.getScene().getStylesheets().setAll(beside.getScene().getStylesheets());
    if (beside.getScene().getRoot().getStyleClass().contains("dark")) {
      popup.getScene().getRoot().getStyleClass().add("dark");
    }
    popup.getScene().getRoot().getStyleClass().add("root");
    List<Offer<T>> all = offers.of("");
    grouped = all.stream().anyMatch(offer -> !offer.group().isEmpty());
    boolean told = all.stream().anyMatch(offer -> !offer.detail().isEmpty());
    popup.getContent().getFirst().getStyleClass().add(told || grouped ? "wide" : "narrow");
    boolean above = isMoreRoomAbove(at);
    popup.setAnchorLocation(
        above
            ? PopupWindow.AnchorLocation.CONTENT_BOTTOM_LEFT
            : PopupWindow.AnchorLocation.CONTENT_TOP_LEFT);
    popup.show(beside, at.getMinX(), above ? at.getMinY() : at.getMaxY());
    typed.textProperty().subscribe(this::narrow);
    typed.setText(begun);
    typed.requestFocus();
    typed.end();
  }

  /** Where a list that opens downwards would not fit, it stands on what it is about. */
  private static boolean isMoreRoomAbove(Bounds at) {
    Rectangle2D screen =
        Screen.getScreensForRectangle(at.getMinX(), at.getMinY(), 1, 1).stream()
            .findFirst()
            .orElseGet(Screen::getPrimary)
            .getVisualBounds();
    double below = screen.getMaxY() - at.getMaxY();
    return below < ROW * (ROWS_SHOWN + 2) && at.getMinY() - screen.getMinY() > below;
  }

  private void narrow(String text) {
    List<Offer<T>> fitting = offers.of(text);
    list.getItems().setAll(fitting);
    list.setPrefHeight(ROW * Math.clamp(fitting.size(), 2, ROWS_SHOWN) + 4);
    list.getSelectionModel().selectFirst();
    if (text.isBlank()) {
      fitting.stream()
          .filter(offer -> now.equals(Optional.of(offer.thing())))
          .findFirst()
          .ifPresent(
              offer -> {
                list.getSelectionModel().select(offer);
                list.scrollTo(offer);
              });
    }
  }

  private void key(KeyEvent event) {
    KeyCode code = event.getCode();
    if (code == KeyCode.ENTER) {
      pick();
    } else if (code == KeyCode.TAB) {
      pick();
      goneOn.run();
    } else if (code == KeyCode.ESCAPE) {
      popup.hide();
    } else if (code == KeyCode.DOWN || code == KeyCode.UP) {
      int last = list.getItems().size() - 1;
      int at = list.getSelectionModel().getSelectedIndex() + (code == KeyCode.DOWN ? 1 : -1);
      int next = Math.clamp(at, 0, Math.max(0, last));
      list.getSelectionModel().select(next);
      list.scrollTo(Math.max(0, next - 4));
    } else {
      return;
    }
    event.consume();
  }

  private void pick() {
    Offer<T> chosen = list.getSelectionModel().getSelectedItem();
    popup.hide();
    if (chosen != null) {
      picked.accept(chosen.thing());
    }
  }

  /** An offer; its group stands before the first of its group only. */
  private final class OfferCell extends ListCell<Offer<T>> {
    OfferCell() {
      setPrefWidth(0); // As wide as the list; what does not fit is shortened.
    }

    @Override
    protected void updateItem(Offer<T> offer, boolean empty) {
      super.updateItem(offer, empty);
      setText(null);
      setGraphic(empty || offer == null ? null : content(offer));
    }

    private Node content(Offer<T> offer) {
      var words = Parts.label(offer.words());
      var detail = Parts.shortened(offer.detail(), "muted", "small");
      var row = Parts.row(8, words, Parts.spring(), detail);
      marks.apply(offer.thing()).ifPresent(mark -> row.getChildren().addFirst(mark));
      if (grouped) {
        boolean first =
            getIndex() == 0 || !list.getItems().get(getIndex() - 1).group().equals(offer.group());
        var group = Parts.label(first ? offer.group() : "", "heading");
        group.setMinWidth(GROUP_WIDTH);
        group.setPrefWidth(GROUP_WIDTH);
        row.getChildren().addFirst(group);
      }
      return row;
    }
  }
}
