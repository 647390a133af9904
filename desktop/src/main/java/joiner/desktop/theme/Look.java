package joiner.desktop.theme;

import java.util.Optional;
import javafx.scene.Scene;

/** How the window looks: its theme and the size of its text. */
public record Look(Theme theme, TextSize text) {
  /** How large the text is; the layout grows with it. */
  public enum TextSize {
    USUAL("100"),
    LARGER("125"),
    LARGEST("150");

    private final String percent;

    TextSize(String percent) {
      this.percent = percent;
    }
  }

  /** As it was chosen before; light and of usual size where nothing was. */
  public static Look from(Optional<String> theme, Optional<String> text) {
    return new Look(
        of(Theme.values(), theme, Theme.LIGHT), of(TextSize.values(), text, TextSize.USUAL));
  }

  private static <E extends Enum<E>> E of(E[] values, Optional<String> name, E usual) {
    for (E value : values) {
      if (name.filter(value.name()::equals).isPresent()) {
        return value;
      }
    }
    return usual;
  }

  /** Dresses a scene. */
  public void applyTo(Scene scene) {
    theme.applyTo(scene);
    scene.getStylesheets().removeIf(sheet -> sheet.contains("/text-"));
    if (text != TextSize.USUAL) {
      scene.getStylesheets().add(Theme.sheet("text-" + text.percent));
    }
  }

  /** The same in the other theme. */
  public Look otherTheme() {
    return new Look(theme.other(), text);
  }

  /** The same with larger text, if there is any. */
  public Look larger() {
    int next = Math.min(text.ordinal() + 1, TextSize.values().length - 1);
    return new Look(theme, TextSize.values()[next]);
  }

  /** The same with smaller text, if there is any. */
  public Look smaller() {
    return new Look(theme, TextSize.values()[Math.max(text.ordinal() - 1, 0)]);
  }
}
