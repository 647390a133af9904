package joiner.discovery;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import joiner.rows.ValueForm;

/**
 * Tells in which forms a text may be read, and reads it in one of them. Common practice, no source,
 * but for two-digit years: 69 to 99 are 1969 to 1999, 00 to 68 are 2000 to 2068 (POSIX, strptime).
 */
final class FormReader {
  /** Pairs of words that mean true and false. */
  private static final Map<String, Boolean> TRUTH =
      Map.ofEntries(
          Map.entry("true", true),
          Map.entry("false", false),
          Map.entry("yes", true),
          Map.entry("no", false),
          Map.entry("y", true),
          Map.entry("n", false),
          Map.entry("t", true),
          Map.entry("f", false),
          Map.entry("on", true),
          Map.entry("off", false),
          Map.entry("ja", true),
          Map.entry("nein", false),
          Map.entry("oui", true),
          Map.entry("non", false),
          Map.entry("wahr", true),
          Map.entry("falsch", false));

  private static final DateTimeFormatter[] NAMED = {
    named("d[.] MMM[.] uuuu"),
    named("d[.] MMMM uuuu"),
    named("d-MMM-uuuu"),
    named("MMM d, uuuu"),
    named("MMMM d, uuuu")
  };

  /** Set by {@link #forms} where a number is written with leading zeros. */
  static final int LEADING_ZEROS = 1 << 30;

  /** Set by {@link #forms} where thousands are grouped. */
  static final int GROUPED = 1 << 29;

  /** Set by {@link #forms} where a year has two digits. */
  static final int SHORT_YEAR = 1 << 28;

  private FormReader() {}

  private static DateTimeFormatter named(String pattern) {
    return new DateTimeFormatterBuilder()
        .parseCaseInsensitive()
        .appendPattern(pattern)
        .toFormatter(Locale.ENGLISH);
  }

  /** Bits of the forms a text fits, apart from plain text, with the marks above. */
  static int forms(String raw) {
    String text = raw.strip();
    int length = text.length();
    if (length == 0 || length > 64) {
      return mayBeAddress(text) ? ValueForm.EMAIL.bit() : 0;
    }
    char first = text.charAt(0);
    int forms = 0;
    if (isDigit(first) || first == '-' || first == '+' || first == '.' || first == ',') {
      forms = NumberShape.forms(text) | (isDigit(first) && length >= 4 ? dateOrTime(text) : 0);
    } else if (length <= 6 && TRUTH.containsKey(text.toLowerCase(Locale.ROOT))) {
      forms = ValueForm.TRUTH.bit();
    }
    if (length == 36 && text.charAt(8) == '-' && isUuid(text)) {
      forms |= ValueForm.UUID.bit();
    }
    if (forms == 0 && mayBeAddress(text)) {
      forms = ValueForm.EMAIL.bit();
    }
    if (forms == 0 && length <= 20 && hasDigit(text) && namedDate(text).isPresent()) {
      forms = ValueForm.DATE_NAMED.bit();
    }
    return forms;
  }

  private static boolean hasDigit(String text) {
    return isDigit(text.charAt(text.length() - 1)) && text.indexOf(' ') + text.indexOf('-') > -2;
  }

  static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  private static boolean mayBeAddress(String text) {
    int at = text.indexOf('@');
    return at > 0
        && at == text.lastIndexOf('@')
        && at < text.length() - 1
        && text.chars().noneMatch(Character::isWhitespace);
  }

  private static boolean isUuid(String text) {
    try {
      return java.util.UUID.fromString(text).toString().equalsIgnoreCase(text);
    } catch (IllegalArgumentException e) {
      return false;
    }
  }

  private static int dateOrTime(String text) {
    int length = text.length();
    int first = digits(text, 0);
    if (first >= length || first == 0 || first > 4) {
      return 0;
    }
    char separator = text.charAt(first);
    if (separator == ':') {
      return length <= 12 && time(text).isPresent() ? ValueForm.TIME.bit() : 0;
    }
    if (separator != '-' && separator != '/' && separator != '.') {
      return 0;
    }
    int second = digits(text, first + 1);
    int end = digits(text, second + 1);
    if (second >= length || text.charAt(second) != separator || second == first + 1) {
      return 0;
    }
    int forms = date(text, first, second, end);
    if (forms == 0 || end == length) {
      return forms;
    }
    return withTime(text, end, forms);
  }

  private static int withTime(String text, int end, int forms) {
    char between = text.charAt(end);
    if (between != ' ' && between != 'T') {
      return 0;
    }
    String rest = text.substring(end + 1);
    if (time(rest).isPresent()) {
      int shifted = forms & SHORT_YEAR;
      shifted |= (forms & ValueForm.DATE_ISO.bit()) != 0 ? ValueForm.DATE_TIME.bit() : 0;
      shifted |=
          (forms & ValueForm.DATE_DAY_FIRST.bit()) != 0 ? ValueForm.DATE_TIME_DAY_FIRST.bit() : 0;
      shifted |=
          (forms & ValueForm.DATE_MONTH_FIRST.bit()) != 0
              ? ValueForm.DATE_TIME_MONTH_FIRST.bit()
              : 0;
      return shifted;
    }
    return (forms & ValueForm.DATE_ISO.bit()) != 0 && zoned(text).isPresent()
        ? ValueForm.DATE_TIME_ZONED.bit()
        : 0;
  }

  /** Where the digits that begin at a place end. */
  private static int digits(String text, int from) {
    int at = from;
    while (at < text.length() && isDigit(text.charAt(at))) {
      at++;
    }
    return at;
  }

  private static int date(String text, int first, int second, int end) {
    int a = value(text, 0, first);
    int b = value(text, first + 1, second);
    int c = value(text, second + 1, end);
    int lastLength = end - second - 1;
    if (first == 4) {
      return lastLength >= 1 && lastLength <= 2 && isDay(a, b, c) ? ValueForm.DATE_ISO.bit() : 0;
    }
    if (first > 2 || second - first > 3 || lastLength != 2 && lastLength != 4) {
      return 0;
    }
    int year = lastLength == 4 ? c : century(c);
    int forms = isDay(year, b, a) ? ValueForm.DATE_DAY_FIRST.bit() : 0;
    forms |= isDay(year, a, b) ? ValueForm.DATE_MONTH_FIRST.bit() : 0;
    return forms == 0 || lastLength == 4 ? forms : forms | SHORT_YEAR;
  }

  private static int century(int year) {
    return year < 69 ? 2000 + year : 1900 + year;
  }

  private static int value(String text, int from, int to) {
    int value = 0;
    for (int i = from; i < to && i < from + 8; i++) {
      value = value * 10 + text.charAt(i) - '0';
    }
    return value;
  }

  private static boolean isDay(int year, int month, int day) {
    return month >= 1
        && month <= 12
        && day >= 1
        && (day <= 28 || day <= java.time.YearMonth.of(year, month).lengthOfMonth());
  }

  private static Optional<LocalTime> time(String text) {
    try {
      return Optional.of(LocalTime.parse(text.indexOf(':') == 1 ? "0" + text : text));
    } catch (DateTimeException e) {
      return Optional.empty();
    }
  }

  private static Optional<OffsetDateTime> zoned(String text) {
    try {
      return Optional.of(OffsetDateTime.parse(text.replaceFirst(" ", "T").replace(" ", "")));
    } catch (DateTimeException e) {
      return Optional.empty();
    }
  }

  private static Optional<LocalDate> namedDate(String text) {
    for (DateTimeFormatter format : NAMED) {
      try {
        return Optional.of(LocalDate.parse(text, format));
      } catch (DateTimeException e) {
        continue; // The next way of writing it may fit.
      }
    }
    return Optional.empty();
  }

  /** The value as Joiner writes it, for a text that has that form. */
  static String canonical(String raw, ValueForm form) {
    String text = raw.strip();
    return switch (form) {
      case WHOLE -> plain(text);
      case NUMBER_POINT -> plain(text.replaceAll("[,\\s\\u00a0\\u202f']", ""));
      case NUMBER_COMMA -> plain(text.replaceAll("[.\\s\\u00a0\\u202f']", "").replace(',', '.'));
      case DATE_ISO, DATE_DAY_FIRST, DATE_MONTH_FIRST -> day(text, form).toString();
      case DATE_NAMED -> namedDate(text).map(LocalDate::toString).orElse(text);
      case DATE_TIME, DATE_TIME_DAY_FIRST, DATE_TIME_MONTH_FIRST -> dayAndTime(text, form);
      case DATE_TIME_ZONED -> text.replaceFirst(" ", "T").replace(" ", "");
      case TIME -> text.indexOf(':') == 1 ? "0" + text : text;
      case TRUTH -> String.valueOf(TRUTH.get(text.toLowerCase(Locale.ROOT)));
      case UUID, EMAIL -> text;
      case TEXT -> raw;
    };
  }

  /** Without a plus sign and with a digit on both sides of the point; all decimals stay. */
  private static String plain(String text) {
    String unsigned = text.startsWith("+") ? text.substring(1) : text;
    return unsigned.matches("-?\\d+(\\.\\d+)?")
        ? unsigned
        : new BigDecimal(unsigned.endsWith(".") ? unsigned + "0" : unsigned).toPlainString();
  }

  private static LocalDate day(String text, ValueForm form) {
    String[] parts = text.split("[-/.]");
    int a = Integer.parseInt(parts[0]);
    int b = Integer.parseInt(parts[1]);
    int c = Integer.parseInt(parts[2]);
    if (parts[0].length() == 4) {
      return LocalDate.of(a, b, c);
    }
    int year = parts[2].length() == 2 ? century(c) : c;
    return form == ValueForm.DATE_MONTH_FIRST || form == ValueForm.DATE_TIME_MONTH_FIRST
        ? LocalDate.of(year, a, b)
        : LocalDate.of(year, b, a);
  }

  private static String dayAndTime(String text, ValueForm form) {
    int at = Math.max(text.indexOf(' '), text.indexOf('T'));
    LocalTime time = time(text.substring(at + 1)).orElseThrow();
    return day(text.substring(0, at), form)
        + "T"
        + time.format(
            time.getNano() == 0
                ? DateTimeFormatter.ofPattern("HH:mm:ss")
                : DateTimeFormatter.ISO_LOCAL_TIME);
  }
}
