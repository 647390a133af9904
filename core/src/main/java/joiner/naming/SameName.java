package joiner.naming;

import java.util.Locale;

/** When people would call two things the same. */
public final class SameName {
  private SameName() {}

  /** A name as it is compared with others: without case, outer and further blanks. */
  public static String folded(String text) {
    return text.strip().replaceAll("\\s+", " ").toLowerCase(Locale.ROOT);
  }
}
