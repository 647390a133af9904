package joiner.desktop.frame;

import java.time.format.DateTimeFormatter;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Notices;

/** Everything that was told, newest first. */
final class MessageList {
  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm");

  private final Notices notices;
  private final Texts texts = Texts.beside(MessageList.class);
  private final StackPane veil = new StackPane();
  private final VBox lines = new VBox(6);

  MessageList(Notices notices) {
    this.notices = notices;
    veil.getStyleClass().add("veil");
    veil.setVisible(false);
    veil.setId("messages");
    veil.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            close();
            event.consume();
          }
        });
    Button close = Parts.button(texts.get("notice.close"), this::close);
    var scroll = Parts.scroll(lines);
    scroll.setPrefHeight(360);
    var box = new VBox(10, Parts.label(texts.get("messages.title"), "title"), scroll, close);
    box.getStyleClass().add("question");
    box.setMaxSize(560, VBox.USE_PREF_SIZE);
    StackPane.setAlignment(box, Pos.BOTTOM_RIGHT);
    StackPane.setMargin(box, new Insets(60, 16, 44, 16));
    veil.setOnMouseClicked(
        event -> {
          if (event.getTarget() == veil) {
            close();
          }
        });
    veil.getChildren().add(box);
  }

  Node node() {
    return veil;
  }

  void open() {
    veil.setVisible(true);
    refresh();
    veil.lookupAll(".button").stream().reduce((first, last) -> last).ifPresent(Node::requestFocus);
  }

  private void close() {
    veil.setVisible(false);
  }

  /** Shows what was told since; does nothing while nobody looks. */
  void refresh() {
    if (!veil.isVisible()) {
      return;
    }
    lines.getChildren().clear();
    for (Notice notice : notices.all()) {
      lines
          .getChildren()
          .add(
              Parts.prose(
                  TIME.format(notice.at()) + "  " + notice.text(),
                  notice.sort() == Notice.Sort.FAILED ? "brick" : "small"));
    }
    if (notices.all().isEmpty()) {
      lines.getChildren().add(Parts.label(texts.get("messages.none"), "muted"));
    }
  }
}
