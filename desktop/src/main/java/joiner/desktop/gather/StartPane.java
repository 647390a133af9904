package joiner.desktop.gather;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import joiner.desktop.widget.Parts;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Recovery;
import joiner.desktop.work.Settings;

/** What a window with nothing in it offers: unsaved and recent designs, another one, the demo. */
final class StartPane {
  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("d MMM, HH:mm");
  private static final int MOST = 6;

  private final Texts texts;
  private final StartChoices starts;

  StartPane(Texts texts, StartChoices starts) {
    this.texts = texts;
    this.starts = starts;
  }

  List<Node> nodes() {
    var nodes = new ArrayList<Node>();
    List<Recovery.Kept> kept = starts.keptProperty().get();
    if (!kept.isEmpty()) {
      nodes.add(Parts.label(texts.get("start.kept"), "title"));
      nodes.add(Parts.prose(texts.get("start.kept.why"), "muted"));
      for (Recovery.Kept one : kept.stream().limit(MOST).toList()) {
        var go = Parts.button(texts.get("start.recover"), () -> starts.recover(one));
        go.setId("recover");
        go.setAccessibleText(texts.get("start.recover") + " " + one.title());
        nodes.add(
            line(
                one.title(),
                texts.get("start.kept.one", one.tables(), TIME.format(one.changed())),
                go));
      }
    }
    nodes.add(Parts.label(texts.get("start.title"), "title"));
    nodes.add(
        Parts.row(
            8,
            Parts.button(texts.get("start.open"), starts::open),
            Parts.button(texts.get("start.demo"), starts::openDemo)));
    List<Settings.Recent> recent = starts.recent();
    if (!recent.isEmpty()) {
      nodes.add(Parts.label(texts.get("start.recent"), "heading"));
    }
    for (Settings.Recent one : recent.stream().limit(MOST).toList()) {
      var go = Parts.button(texts.get("start.again"), () -> starts.open(one));
      go.setAccessibleText(texts.get("start.again") + " " + one.title());
      nodes.add(line(one.title(), String.valueOf(one.folder()), go));
    }
    return nodes;
  }

  private static Node line(String title, String below, Node go) {
    var words =
        new VBox(0, Parts.shortened(title, "strong"), Parts.shortened(below, "muted", "small"));
    words.setMinWidth(0);
    var row = Parts.row(12, words, Parts.spring(), go);
    row.getStyleClass().add("card");
    return row;
  }
}
