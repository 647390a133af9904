package joiner.naming;

import java.util.Locale;

/** Numbers of things as people read them, the same everywhere. */
public final class Counts {
  private Counts() {}

  /** A number with a comma between thousands: 66,667. */
  public static String of(long number) {
    return String.format(Locale.ENGLISH, "%,d", number);
  }
}
