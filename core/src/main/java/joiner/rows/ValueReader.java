package joiner.rows;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.Base64;
import java.util.Optional;
import java.util.regex.Pattern;
import joiner.expression.Value;
import joiner.expression.Width;
import joiner.model.FieldType;

/**
 * Turns texts into values of a field's type. Lexical forms are those of the Data Package standard's
 * Table Schema (version 2); dates are strict ISO 8601. Texts are never trimmed.
 */
public final class ValueReader {
  private static final Pattern NUMBER =
      Pattern.compile("[+-]?(\\d+(\\.\\d*)?|\\.\\d+)([eE][+-]?\\d{1,3})?");
  private static final Pattern WHOLE = Pattern.compile("[+-]?\\d{1,1000}");
  private static final Pattern EMAIL = Pattern.compile("[^@\\s]+@[^@\\s]+");

  private ValueReader() {}

  /** Reads a non-empty text as a value of the type; its length is not looked at. */
  public static ReadValue read(String text, FieldType type) {
    return switch (type) {
      case FieldType.Text t -> fits(text);
      case FieldType.LongText t -> fits(text);
      case FieldType.Choice t -> fits(text);
      case FieldType.Phone t -> fits(text);
      case FieldType.Secret t -> fits(text);
      case FieldType.FileReference t -> fits(text);
      case FieldType.Email t ->
          EMAIL.matcher(text).matches() ? fits(text) : unfit("an address like mara@example.org");
      case FieldType.WebAddress t ->
          isAddress(text) ? fits(text) : unfit("an address like https://example.org");
      case FieldType.WholeNumber t -> whole(text, t.width());
      case FieldType.Counter t -> whole(text, t.width());
      case FieldType.Decimal t -> decimal(text, t.precision(), t.scale());
      case FieldType.Money t -> decimal(text, t.precision(), t.scale());
      case FieldType.AnyNumber t ->
          number(text)
              .<ReadValue>map(n -> new ReadValue.Fits(new Value.Num(n, false)))
              .orElse(unfit("a number"));
      case FieldType.TrueFalse t -> truth(text);
      case FieldType.Date t -> date(text);
      case FieldType.Time t -> time(text);
      case FieldType.DateTime t -> t.zoned() ? zoned(text) : dateTime(text);
      case FieldType.Uuid t ->
          Value.uuid(text)
              .<ReadValue>map(ReadValue.Fits::new)
              .orElseGet(() -> unfit("a UUID like 6f9619ff-8b86-4011-b42d-00c04fc964ff"));
      case FieldType.Content t -> content(text);
      case FieldType.Kept t -> KeptTypes.read(text, t.standardType());
    };
  }

  /**
   * Reads a bound of values of the type: any number for numbers, however many digits those have, a
   * value of the type itself otherwise.
   */
  public static ReadValue bound(String text, FieldType type) {
    return read(text, type.kind().isNumeric() ? new FieldType.AnyNumber() : type);
  }

  /** The value of a cell: NULL where it is empty or does not fit the type. */
  public static Value valueOrNull(Optional<String> cell, FieldType type) {
    return cell.map(
            text -> read(text, type) instanceof ReadValue.Fits fits ? fits.value() : Value.NULL)
        .orElse(Value.NULL);
  }

  /** No database holds the character NUL in a text. */
  private static ReadValue fits(String text) {
    return text.indexOf(0) < 0
        ? new ReadValue.Fits(new Value.Text(text))
        : unfit("a text without the character NUL");
  }

  private static ReadValue unfit(String expected) {
    return new ReadValue.Unfit(expected);
  }

  private static ReadValue content(String text) {
    try {
      byte[] content = Base64.getDecoder().decode(text);
      return new ReadValue.Fits(new Value.Bytes(Base64.getEncoder().encodeToString(content)));
    } catch (IllegalArgumentException e) {
      return unfit("the bytes of a file, written in Base64");
    }
  }

  private static boolean isAddress(String text) {
    try {
      var uri = new URI(text);
      return uri.isAbsolute() && uri.getSchemeSpecificPart().length() > 2;
    } catch (URISyntaxException e) {
      return false;
    }
  }

  private static ReadValue whole(String text, Width width) {
    if (!WHOLE.matcher(text).matches()) {
      return unfit("a whole number");
    }
    var number = new BigInteger(text.startsWith("+") ? text.substring(1) : text);
    boolean inRange =
        number.compareTo(BigInteger.valueOf(width.min())) >= 0
            && number.compareTo(BigInteger.valueOf(width.max())) <= 0;
    return inRange
        ? new ReadValue.Fits(new Value.Num(new BigDecimal(number), true))
        : unfit("a whole number from " + width.min() + " to " + width.max());
  }

  private static ReadValue decimal(String text, int precision, int scale) {
    Optional<BigDecimal> number = number(text);
    if (number.isEmpty()) {
      return unfit("a number");
    }
    BigDecimal plain = number.get().stripTrailingZeros();
    int decimals = Math.max(plain.scale(), 0);
    boolean zero = plain.signum() == 0; // Zero has no digit before its point.
    int wholeDigits = zero ? 0 : Math.max(plain.precision() - plain.scale(), 0);
    return decimals <= scale && wholeDigits <= precision - scale
        ? new ReadValue.Fits(new Value.Num(plain, false))
        : unfit(
            "a number of at most " + (precision - scale) + " digits and " + scale + " decimals");
  }

  private static Optional<BigDecimal> number(String text) {
    return NUMBER.matcher(text).matches() ? Optional.of(new BigDecimal(text)) : Optional.empty();
  }

  private static ReadValue truth(String text) {
    return switch (text) {
      case "true", "True", "TRUE", "1" -> new ReadValue.Fits(Value.TRUE);
      case "false", "False", "FALSE", "0" -> new ReadValue.Fits(Value.FALSE);
      default -> unfit("true or false");
    };
  }

  private static ReadValue date(String text) {
    try {
      LocalDate date = LocalDate.parse(text);
      return calendar(date.getYear(), new Value.Date(date));
    } catch (DateTimeParseException e) {
      return unfit("a date like 2026-03-14");
    }
  }

  private static ReadValue calendar(int year, Value value) {
    return Value.isInCalendar(year) ? new ReadValue.Fits(value) : unfit("a year from 0001 to 9999");
  }

  private static ReadValue time(String text) {
    try {
      return new ReadValue.Fits(new Value.Time(LocalTime.parse(text)));
    } catch (DateTimeParseException e) {
      return unfit("a time of day like 18:05");
    }
  }

  private static ReadValue dateTime(String text) {
    try {
      String local = text.endsWith("Z") ? text.substring(0, text.length() - 1) : text;
      LocalDateTime at = LocalDateTime.parse(local);
      return calendar(at.getYear(), new Value.DateTime(at));
    } catch (DateTimeParseException e) {
      return unfit("a date and time like 2026-03-14T18:05:00");
    }
  }

  private static ReadValue zoned(String text) {
    try {
      OffsetDateTime at = OffsetDateTime.parse(text);
      return calendar(at.withOffsetSameInstant(ZoneOffset.UTC).getYear(), new Value.Zoned(at));
    } catch (DateTimeException e) {
      return unfit("a date and time with its offset, like 2026-03-14T18:05:00+01:00");
    }
  }
}
