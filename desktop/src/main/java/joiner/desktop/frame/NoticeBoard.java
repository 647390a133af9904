package joiner.desktop.frame;

import java.util.HashMap;
import java.util.Map;
import javafx.animation.PauseTransition;
import javafx.collections.ListChangeListener;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Notices;
import org.kordamp.ikonli.feather.Feather;

/** Notices over the stage: they move nothing, and go by themselves unless they need an answer. */
final class NoticeBoard {
  private static final Duration SHOWN = Duration.seconds(9);

  private final Notices notices;
  private final Texts texts = Texts.beside(NoticeBoard.class);
  private final VBox node = new VBox(8);
  private final Map<Notice, Node> cards = new HashMap<>();

  NoticeBoard(Notices notices) {
    this.notices = notices;
    node.setId("notices");
    node.setPickOnBounds(false);
    node.setMaxSize(560, Region.USE_PREF_SIZE);
    StackPane.setAlignment(node, Pos.BOTTOM_CENTER);
    StackPane.setMargin(node, new Insets(12, 12, 44, 12));
    notices.shown().addListener((ListChangeListener<Notice>) change -> show());
    show();
  }

  Node node() {
    return node;
  }

  private void show() {
    cards.keySet().retainAll(notices.shown());
    node.getChildren()
        .setAll(notices.shown().stream().map(n -> cards.computeIfAbsent(n, this::card)).toList());
  }

  private Node card(Notice notice) {
    var text = Parts.prose(notice.text());
    FlowPane buttons = buttons(notice);
    var left = new VBox(6, text);
    if (!buttons.getChildren().isEmpty()) {
      left.getChildren().add(buttons);
    }
    HBox.setHgrow(left, Priority.ALWAYS);
    var close =
        Parts.iconButton(Feather.X, texts.get("notice.close"), () -> notices.dismiss(notice));
    var card = new HBox(10, left, close);
    card.getStyleClass().addAll("notice", style(notice.sort()));
    card.setId("notice");
    card.setAccessibleText(notice.text());
    if (!notice.sort().stays()) {
      var going = new PauseTransition(SHOWN);
      going.setOnFinished(event -> notices.dismiss(notice));
      card.hoverProperty()
          .subscribe(
              over -> {
                if (over) {
                  going.pause();
                } else {
                  going.play();
                }
              });
    }
    return card;
  }

  private FlowPane buttons(Notice notice) {
    var buttons = new FlowPane(8, 6);
    for (Notice.Answer answer : notice.answers()) {
      buttons
          .getChildren()
          .add(
              Parts.button(
                  answer.label(),
                  () -> {
                    notices.dismiss(notice);
                    answer.action().run();
                  }));
    }
    notice
        .details()
        .ifPresent(
            details ->
                buttons
                    .getChildren()
                    .add(Parts.button(texts.get("notice.copy"), () -> copy(details))));
    return buttons;
  }

  private static String style(Notice.Sort sort) {
    return switch (sort) {
      case DONE -> "done";
      case HINT, REFUSED -> "attention";
      case FAILED -> "error";
    };
  }

  private static void copy(String details) {
    var content = new ClipboardContent();
    content.putString(details);
    Clipboard.getSystemClipboard().setContent(content);
  }
}
