package joiner.naming;

import java.util.Locale;

/** Numbers of things as people read them, the same everywhere. */
public final class Counts {
  private Counts() {}

  /** A number with a comma between thousands: 66,667. */
  public static String of(long number) {
    return String.format(Locale.ENGLISH, "%,d", number);
  }

  /** A number of things: 1 row, 66,667 rows. */
  public static String of(long number, String singular, String plural) {
    return of(number) + " " + (number == 1 ? singular : plural);
  }
}
