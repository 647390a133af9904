package joiner.rows;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.expression.Kind;

/**
 * Dates and moments as people type them, in the form of ISO 8601: parts may lack their zeros, a
 * space may stand for the T, seconds may be left out, and a date with points has its day first.
 * Dates with slashes are read one way here and another there, so they stay as they were typed.
 */
final class EnteredMoment {
  private static final Pattern MOMENT =
      Pattern.compile(
          "(?:(\\d{4})-(\\d{1,2})-(\\d{1,2})|(\\d{1,2})\\.\\s?(\\d{1,2})\\.\\s?(\\d{4}))"
              + "(?:[ T,]+(\\d{1,2}):(\\d{2})(?::(\\d{2}))?(Z|[+-]\\d{2}:\\d{2})?)?");
  private static final Pattern TIME = Pattern.compile("(\\d{1,2}):(\\d{2})(?::(\\d{2}))?");

  private EnteredMoment() {}

  /** The text in the form of a kind; empty where it cannot be read as one. */
  static Optional<String> of(Kind kind, String typed) {
    Matcher moment = MOMENT.matcher(typed.strip());
    return switch (kind) {
      case DATE ->
          moment.matches() && moment.group(7) == null
              ? Optional.of(date(moment))
              : Optional.empty();
      case DATE_TIME ->
          moment.matches() && moment.group(7) != null && moment.group(10) == null
              ? Optional.of(date(moment) + "T" + time(moment, 7))
              : Optional.empty();
      case ZONED ->
          moment.matches() && moment.group(10) != null
              ? Optional.of(date(moment) + "T" + time(moment, 7) + moment.group(10))
              : Optional.empty();
      case TIME -> {
        Matcher time = TIME.matcher(typed.strip());
        yield time.matches() ? Optional.of(time(time, 1)) : Optional.empty();
      }
      case BOOLEAN, WHOLE, NUMBER, TEXT, UUID, INTERVAL, BYTES, NULL -> Optional.empty();
    };
  }

  private static String date(Matcher found) {
    boolean points = found.group(1) == null;
    return (points ? found.group(6) : found.group(1))
        + "-"
        + two(points ? found.group(5) : found.group(2))
        + "-"
        + two(points ? found.group(4) : found.group(3));
  }

  private static String time(Matcher found, int hours) {
    String seconds = found.group(hours + 2);
    return two(found.group(hours))
        + ":"
        + found.group(hours + 1)
        + ":"
        + (seconds == null ? "00" : seconds);
  }

  private static String two(String number) {
    return number.length() == 1 ? "0" + number : number;
  }
}
