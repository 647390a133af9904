package joiner.audit;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.Optional;
import java.util.OptionalLong;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.expression.Width;
import joiner.model.FieldType;

/**
 * How values of a type are kept as 64-bit numbers that are equal and in order where the values are:
 * whole numbers as they are, decimals as so many of their smallest unit, dates as days, times as
 * nanoseconds, moments as microseconds since 1970, truth as 1 and 0.
 *
 * @param kind what sort of values
 * @param scale how many decimals a number has; of other kinds 0
 * @param digits how many digits stand before the point at most; of other kinds than decimals 0
 * @param width of whole numbers; of others 64 bits
 */
record LongForm(Kind kind, int scale, int digits, Width width) {
  /** What is in {@link Cursor#value} when a text was read. */
  enum Read {
    VALUE,
    UNFIT,
    /** The short way does not tell; the long one does. */
    ASK
  }

  /** Where a value is put. */
  static final class Cursor {
    long value;
  }

  /** So many digits always fit 64 bits. */
  private static final int SAFE_DIGITS = 18;

  static final long MICROS_A_DAY = 86_400_000_000L;

  private static final long[] POWERS = new long[SAFE_DIGITS + 1];

  static {
    POWERS[0] = 1;
    for (int i = 1; i < POWERS.length; i++) {
      POWERS[i] = 10 * POWERS[i - 1];
    }
  }

  /** The form of a type; empty for types whose values are kept as they are. */
  static Optional<LongForm> of(FieldType type) {
    return switch (type) {
      case FieldType.WholeNumber t -> Optional.of(whole(t.width()));
      case FieldType.Counter t -> Optional.of(whole(t.width()));
      case FieldType.Decimal t -> decimal(t.precision(), t.scale());
      case FieldType.Money t -> decimal(t.precision(), t.scale());
      case FieldType.TrueFalse t -> Optional.of(of(Kind.BOOLEAN));
      case FieldType.Date t -> Optional.of(of(Kind.DATE));
      case FieldType.Time t -> Optional.of(of(Kind.TIME));
      case FieldType.DateTime t -> t.zoned() ? Optional.empty() : Optional.of(of(Kind.DATE_TIME));
      case FieldType.Text t -> Optional.empty();
      case FieldType.LongText t -> Optional.empty();
      case FieldType.Choice t -> Optional.empty();
      case FieldType.Email t -> Optional.empty();
      case FieldType.WebAddress t -> Optional.empty();
      case FieldType.Phone t -> Optional.empty();
      case FieldType.Secret t -> Optional.empty();
      case FieldType.FileReference t -> Optional.empty();
      case FieldType.Uuid t -> Optional.empty();
      case FieldType.Content t -> Optional.empty();
      case FieldType.AnyNumber t -> Optional.empty();
      case FieldType.Kept t -> Optional.empty();
    };
  }

  static LongForm whole(Width width) {
    return new LongForm(Kind.WHOLE, 0, 0, width);
  }

  private static Optional<LongForm> decimal(int precision, int scale) {
    return precision > SAFE_DIGITS
        ? Optional.empty()
        : Optional.of(new LongForm(Kind.NUMBER, scale, precision - scale, Width.BITS_64));
  }

  /** The form of dates, times, moments or truths. */
  static LongForm of(Kind kind) {
    return new LongForm(kind, 0, 0, Width.BITS_64);
  }

  /** Whether values of both forms are equal exactly where their numbers are. */
  boolean isComparable(LongForm other) {
    return scale == other.scale && (kind == other.kind || (isNumber() && other.isNumber()));
  }

  boolean isNumber() {
    return kind == Kind.WHOLE || kind == Kind.NUMBER;
  }

  /** 10 to that power, up to 18. */
  static long power(int exponent) {
    return POWERS[exponent];
  }

  /** Reads a text that is not empty, the short way. */
  Read read(char[] text, int at, int length, Cursor to) {
    return switch (kind) {
      case WHOLE -> readWhole(text, at, length, to);
      case NUMBER -> readDecimal(text, at, length, to);
      case DATE -> length == 10 && readDate(text, at, to) ? Read.VALUE : Read.ASK;
      case DATE_TIME -> readMoment(text, at, length, to);
      case BOOLEAN, TIME, TEXT, ZONED, UUID, INTERVAL, BYTES, NULL -> Read.ASK;
    };
  }

  private Read readWhole(char[] text, int at, int length, Cursor to) {
    int sign = text[at] == '-' || text[at] == '+' ? 1 : 0;
    if (length - sign > SAFE_DIGITS || length == sign) {
      return Read.ASK;
    }
    long number = digits(text, at + sign, at + length);
    if (number < 0) {
      return Read.ASK;
    }
    to.value = text[at] == '-' ? -number : number;
    return to.value >= width.min() && to.value <= width.max() ? Read.VALUE : Read.UNFIT;
  }

  /** The number of some digits; less than 0 where anything else stands between them. */
  private static long digits(char[] text, int from, int to) {
    long number = 0;
    for (int i = from; i < to; i++) {
      int digit = text[i] - '0';
      if (digit < 0 || digit > 9) {
        return -1;
      }
      number = number * 10 + digit;
    }
    return number;
  }

  private Read readDecimal(char[] text, int at, int length, Cursor to) {
    int end = at + length;
    int from = text[at] == '-' || text[at] == '+' ? at + 1 : at;
    int point = from;
    while (point < end && text[point] != '.') {
      point++;
    }
    int decimals = point == end ? 0 : end - point - 1;
    if (point == from || decimals > scale || point - from > digits || length > SAFE_DIGITS) {
      return Read.ASK;
    }
    long before = digits(text, from, point);
    long after = decimals == 0 ? 0 : digits(text, point + 1, end);
    if (before < 0 || after < 0) {
      return Read.ASK;
    }
    long number = before * POWERS[scale] + after * POWERS[scale - decimals];
    to.value = text[at] == '-' ? -number : number;
    return Read.VALUE;
  }

  /** A date as 2026-03-14, in the days that every month has; the others are asked for. */
  private static boolean readDate(char[] text, int at, Cursor to) {
    if (text[at + 4] != '-' || text[at + 7] != '-') {
      return false;
    }
    long year = digits(text, at, at + 4);
    long month = digits(text, at + 5, at + 7);
    long day = digits(text, at + 8, at + 10);
    if (year < 1 || month < 1 || month > 12 || day < 1 || day > 28) {
      return false;
    }
    to.value = epochDay((int) year, (int) month, (int) day);
    return true;
  }

  /** Days since 1970 in the Gregorian calendar; March counts as the first month of a year. */
  private static long epochDay(int year, int month, int day) {
    long y = month > 2 ? year : year - 1L;
    long era = Math.floorDiv(y, 400);
    long yearOfEra = y - era * 400;
    long dayOfYear = (153L * (month > 2 ? month - 3 : month + 9) + 2) / 5 + day - 1;
    return era * 146_097 + yearOfEra * 365 + yearOfEra / 4 - yearOfEra / 100 + dayOfYear - 719_468;
  }

  private static Read readMoment(char[] text, int at, int length, Cursor to) {
    boolean form = length == 19 && text[at + 10] == 'T' && text[at + 13] == ':';
    if (!form || text[at + 16] != ':' || !readDate(text, at, to)) {
      return Read.ASK;
    }
    long hour = digits(text, at + 11, at + 13);
    long minute = digits(text, at + 14, at + 16);
    long second = digits(text, at + 17, at + 19);
    boolean inDay = hour >= 0 && hour < 24 && minute >= 0 && minute < 60 && second >= 0;
    if (!inDay || second > 59) {
      return Read.ASK;
    }
    to.value = to.value * MICROS_A_DAY + ((hour * 60 + minute) * 60 + second) * 1_000_000;
    return Read.VALUE;
  }

  /** The number for a value of the kind; empty where it has none in this form. */
  OptionalLong of(Value value) {
    return switch (value) {
      case Value.Num num when isNumber() -> scaled(num.number());
      case Value.Bool bool when kind == Kind.BOOLEAN -> OptionalLong.of(bool.truth() ? 1 : 0);
      case Value.Date date when kind == Kind.DATE -> OptionalLong.of(date.date().toEpochDay());
      case Value.Time time when kind == Kind.TIME -> OptionalLong.of(time.time().toNanoOfDay());
      case Value.DateTime moment when kind == Kind.DATE_TIME -> micros(moment.at());
      default -> OptionalLong.empty();
    };
  }

  private OptionalLong scaled(BigDecimal number) {
    BigDecimal units = number.movePointRight(scale);
    boolean fits = units.stripTrailingZeros().scale() <= 0 && units.toBigInteger().bitLength() < 63;
    return fits ? OptionalLong.of(units.longValueExact()) : OptionalLong.empty();
  }

  private static OptionalLong micros(LocalDateTime at) {
    return at.getNano() % 1_000 == 0
        ? OptionalLong.of(at.toEpochSecond(ZoneOffset.UTC) * 1_000_000 + at.getNano() / 1_000)
        : OptionalLong.empty();
  }

  /** The value a number stands for. */
  Value value(long number) {
    return switch (kind) {
      case WHOLE -> Value.whole(number);
      case NUMBER -> new Value.Num(new BigDecimal(BigInteger.valueOf(number), scale), false);
      case BOOLEAN -> Value.of(number == 1);
      case DATE -> new Value.Date(LocalDate.ofEpochDay(number));
      case TIME -> new Value.Time(LocalTime.ofNanoOfDay(number));
      case DATE_TIME ->
          new Value.DateTime(
              LocalDateTime.ofEpochSecond(
                  Math.floorDiv(number, 1_000_000),
                  (int) Math.floorMod(number, 1_000_000) * 1_000,
                  ZoneOffset.UTC));
      case TEXT, ZONED, UUID, INTERVAL, BYTES, NULL -> throw new IllegalStateException(kind + "");
    };
  }
}
