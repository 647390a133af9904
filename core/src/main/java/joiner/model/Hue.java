package joiner.model;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The six muted hues that mark things for the eye; never the only sign of anything. */
public enum Hue {
  PLUM,
  SLATE,
  CLAY,
  MOSS,
  STRAW,
  TEAL;

  /** What people and files call it: "plum". */
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }

  /** The one of that word. */
  public static Optional<Hue> of(String word) {
    return Arrays.stream(values()).filter(hue -> hue.word().equals(word)).findFirst();
  }
}
