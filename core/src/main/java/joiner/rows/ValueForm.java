package joiner.rows;

import java.util.List;

/**
 * A way in which values of a column may be written. Constants stand in the order in which they are
 * preferred where a column fits several.
 */
public enum ValueForm {
  WHOLE("whole numbers"),
  NUMBER_POINT("numbers with a decimal point"),
  NUMBER_COMMA("numbers with a decimal comma"),
  DATE_ISO("dates as year-month-day"),
  DATE_DAY_FIRST("dates, day first"),
  DATE_MONTH_FIRST("dates, month first"),
  DATE_NAMED("dates with the month's name"),
  DATE_TIME("dates with a time"),
  DATE_TIME_DAY_FIRST("dates with a time, day first"),
  DATE_TIME_MONTH_FIRST("dates with a time, month first"),
  DATE_TIME_ZONED("dates with a time and its offset"),
  TIME("times of day"),
  TRUTH("true/false words"),
  UUID("UUIDs"),
  EMAIL("e-mail addresses"),
  TEXT("text");

  private static final List<ValueForm> ALL = List.of(values());

  private final String words;

  ValueForm(String words) {
    this.words = words;
  }

  /** As it is told to people. */
  public String words() {
    return words;
  }

  /** This form alone in a set of forms. */
  public int bit() {
    return 1 << ordinal();
  }

  /** All forms, the preferred ones first. */
  public static List<ValueForm> all() {
    return ALL;
  }

  /** Whether values are numbers. */
  public boolean isNumber() {
    return this == WHOLE || this == NUMBER_POINT || this == NUMBER_COMMA;
  }
}
