package joiner.desktop.widget;

import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Tooltip;
import javafx.util.Duration;

/** Ties words of the trade to the places where they stand, for a rest of the mouse and for F1. */
public final class Terms {
  private static final String WORD = "joiner.word";
  private static final double WIDEST = 320;

  private Terms() {}

  /** Says which word a node is about; its meaning shows when the mouse rests on it. */
  public static <N extends Node> N explain(N node, String word, String meaning) {
    node.getProperties().put(WORD, word);
    var tooltip = new Tooltip(meaning);
    tooltip.setWrapText(true);
    tooltip.setMaxWidth(WIDEST);
    tooltip.setShowDelay(Duration.millis(500));
    tooltip.setShowDuration(Duration.seconds(30));
    Tooltip.install(node, tooltip);
    return node;
  }

  /** The word a node, or what it stands in, is about. */
  public static Optional<String> wordOf(Node node) {
    for (Node at = node; at != null; at = at.getParent()) {
      if (at.getProperties().get(WORD) instanceof String word) {
        return Optional.of(word);
      }
    }
    return Optional.empty();
  }
}
