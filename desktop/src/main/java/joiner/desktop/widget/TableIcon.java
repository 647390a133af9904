package joiner.desktop.widget;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;

/** The pictures of tables; each has a name in the shipped set, and is never without a word. */
public final class TableIcon {
  /** Names in the set begin so. */
  private static final String PREFIX = "fth-";

  private TableIcon() {}

  /** Names of all there are, in the order of the alphabet. */
  public static List<String> all() {
    return Arrays.stream(Feather.values())
        .map(icon -> icon.getDescription().substring(PREFIX.length()))
        .sorted()
        .toList();
  }

  /** The picture of that name; empty where there is none. */
  public static Optional<Node> of(String name) {
    return Arrays.stream(Feather.values())
        .filter(icon -> icon.getDescription().equals(PREFIX + name))
        .findFirst()
        .map(FontIcon::new);
  }
}
