package joiner.model;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** What lengths of time are counted in. A day has 24 hours. */
public enum SpanUnit {
  SECOND(1, "s", "sec", "second", "seconds"),
  MINUTE(60, "min", "m", "minute", "minutes"),
  HOUR(3_600, "h", "hr", "hour", "hours"),
  DAY(86_400, "d", "day", "days");

  private final long seconds;
  private final List<String> words;

  SpanUnit(long seconds, String... words) {
    this.seconds = seconds;
    this.words = List.of(words);
  }

  /** The sign of the unit (ISO 80000-3): "min". */
  public String sign() {
    return words.getFirst();
  }

  /** How many seconds it lasts. */
  public long seconds() {
    return seconds;
  }

  /** The unit of that sign; "m" is none, which is the metre's. */
  public static Optional<SpanUnit> ofSign(String sign) {
    return Arrays.stream(values()).filter(unit -> unit.sign().equals(sign)).findFirst();
  }

  /** The unit that is written so. */
  public static Optional<SpanUnit> of(String written) {
    return Arrays.stream(values()).filter(unit -> unit.words.contains(written)).findFirst();
  }

  /** So many seconds as a whole number of this unit; empty where they are none. */
  public Optional<String> exactly(BigDecimal span) {
    BigDecimal[] parts = span.divideAndRemainder(BigDecimal.valueOf(seconds));
    return parts[1].signum() == 0
        ? Optional.of(parts[0].toBigInteger().toString())
        : Optional.empty();
  }
}
