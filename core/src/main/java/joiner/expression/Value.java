package joiner.expression;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.Period;
import java.util.Base64;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * One typed value. Equality of the records is SQL equality: numbers compare by value, text exactly.
 */
public sealed interface Value {
  /** SQL's NULL; as a truth value, unknown. */
  Value NULL = new Null();

  /** The truth value true. */
  Value TRUE = new Bool(true);

  /** The truth value false. */
  Value FALSE = new Bool(false);

  /** No value. */
  record Null() implements Value {}

  /** A text, compared code point by code point. */
  record Text(String text) implements Value {}

  /**
   * A number.
   *
   * @param number its value, without trailing zeros
   * @param whole whether its type is a whole number, so that division truncates
   */
  record Num(BigDecimal number, boolean whole) implements Value {
    public Num {
      number = number.signum() == 0 ? BigDecimal.ZERO : number.stripTrailingZeros();
    }

    @Override
    public boolean equals(Object other) {
      return other instanceof Num that && number.equals(that.number);
    }

    @Override
    public int hashCode() {
      return number.hashCode();
    }
  }

  /** A truth value. */
  record Bool(boolean truth) implements Value {}

  /** A calendar date. */
  record Date(LocalDate date) implements Value {}

  /** A time of day. */
  record Time(LocalTime time) implements Value {}

  /** A date with a time of day, without a zone. */
  record DateTime(LocalDateTime at) implements Value {}

  /** A point in time; two offsets of the same instant are equal. */
  record Zoned(OffsetDateTime at) implements Value {
    @Override
    public boolean equals(Object other) {
      return other instanceof Zoned that && at.isEqual(that.at);
    }

    @Override
    public int hashCode() {
      return at.toInstant().hashCode();
    }
  }

  /** A length of time: months and days, or seconds. */
  record Interval(Period period, Duration duration) implements Value {}

  /**
   * The bytes of a file.
   *
   * @param base64 as text, in the one form RFC 4648, section 4 gives them
   */
  record Bytes(String base64) implements Value {
    /** The bytes themselves. */
    public byte[] content() {
      return Base64.getDecoder().decode(base64);
    }

    /** How many they are. */
    public int count() {
      int padding = base64.endsWith("==") ? 2 : base64.endsWith("=") ? 1 : 0;
      return base64.length() / 4 * 3 - padding;
    }

    /** As digits to the base 16, two for each. */
    public String hex() {
      return HexFormat.of().formatHex(content());
    }
  }

  /** Whether a year is in SQL's calendar, from 1 to 9999 (ISO/IEC 9075-2, datetime). */
  static boolean isInCalendar(int year) {
    return year >= 1 && year <= 9999;
  }

  /** A UUID as it is written everywhere, with small letters; empty where the text is none. */
  static Optional<Text> uuid(String text) {
    return Uuids.FORM.matcher(text).matches()
        ? Optional.of(new Text(text.toLowerCase(Locale.ROOT)))
        : Optional.empty();
  }

  /** The form of UUIDs (RFC 9562). */
  final class Uuids {
    private static final Pattern FORM =
        Pattern.compile("[0-9a-fA-F]{8}(-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}");

    private Uuids() {}
  }

  /** The whole number {@code number}. */
  static Num whole(long number) {
    return new Num(BigDecimal.valueOf(number), true);
  }

  /** {@link #TRUE} or {@link #FALSE}. */
  static Value of(boolean truth) {
    return truth ? TRUE : FALSE;
  }
}
