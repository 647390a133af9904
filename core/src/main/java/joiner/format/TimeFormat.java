package joiner.format;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.time.format.TextStyle;
import java.time.temporal.ChronoField;
import java.time.temporal.TemporalAccessor;
import java.util.Locale;
import java.util.Optional;
import joiner.model.FieldType;

/**
 * Dates and times spelled by a pattern such as {@code %d/%m/%Y}, whose letters are those of
 * strptime (IEEE Std 1003.1) as the Data Package standard names them. The default spelling is ISO
 * 8601.
 */
final class TimeFormat implements CellForm.Spelling {
  private final DateTimeFormatter format;
  private final FieldType type;

  /**
   * Understands a pattern for fields of a type.
   *
   * @throws IllegalArgumentException saying what of it is not understood, to be read after the
   *     pattern
   */
  TimeFormat(String pattern, FieldType type) {
    this.type = type;
    var builder = new DateTimeFormatterBuilder();
    for (int i = 0; i < pattern.length(); i++) {
      if (pattern.charAt(i) != '%') {
        builder.appendLiteral(pattern.charAt(i));
      } else if (++i < pattern.length()) {
        append(builder, pattern.charAt(i));
      } else {
        throw new IllegalArgumentException("ends in the middle of a part");
      }
    }
    this.format = builder.toFormatter(Locale.ENGLISH).withResolverStyle(ResolverStyle.SMART);
  }

  private static void append(DateTimeFormatterBuilder builder, char letter) {
    switch (letter) {
      case 'Y' -> builder.appendValue(ChronoField.YEAR, 4);
      case 'y' -> builder.appendValueReduced(ChronoField.YEAR, 2, 2, LocalDate.of(1969, 1, 1));
      case 'm' -> builder.appendValue(ChronoField.MONTH_OF_YEAR, 2);
      case 'd' -> builder.appendValue(ChronoField.DAY_OF_MONTH, 2);
      case 'j' -> builder.appendValue(ChronoField.DAY_OF_YEAR, 3);
      case 'H' -> builder.appendValue(ChronoField.HOUR_OF_DAY, 2);
      case 'I' -> builder.appendValue(ChronoField.CLOCK_HOUR_OF_AMPM, 2);
      case 'M' -> builder.appendValue(ChronoField.MINUTE_OF_HOUR, 2);
      case 'S' -> builder.appendValue(ChronoField.SECOND_OF_MINUTE, 2);
      case 'f' -> builder.appendFraction(ChronoField.MICRO_OF_SECOND, 6, 6, false);
      case 'p' -> builder.appendText(ChronoField.AMPM_OF_DAY, TextStyle.SHORT);
      case 'b' -> builder.appendText(ChronoField.MONTH_OF_YEAR, TextStyle.SHORT);
      case 'B' -> builder.appendText(ChronoField.MONTH_OF_YEAR, TextStyle.FULL);
      case 'a' -> builder.appendText(ChronoField.DAY_OF_WEEK, TextStyle.SHORT);
      case 'A' -> builder.appendText(ChronoField.DAY_OF_WEEK, TextStyle.FULL);
      case 'z' -> builder.appendOffset("+HHMM", "+0000");
      case '%' -> builder.appendLiteral('%');
      default ->
          throw new IllegalArgumentException(
              "has the part %" + letter + ", which is not understood");
    }
  }

  @Override
  public Optional<String> read(String cell) {
    return converted(() -> iso(format.parse(cell)));
  }

  private String iso(TemporalAccessor found) {
    return switch (type) {
      case FieldType.Date t -> LocalDate.from(found).toString();
      case FieldType.Time t -> DateTimeFormatter.ISO_LOCAL_TIME.format(LocalTime.from(found));
      case FieldType.DateTime t ->
          t.zoned()
              ? DateTimeFormatter.ISO_OFFSET_DATE_TIME.format(OffsetDateTime.from(found))
              : DateTimeFormatter.ISO_LOCAL_DATE_TIME.format(LocalDateTime.from(found));
      default -> throw new DateTimeException("no date or time");
    };
  }

  @Override
  public Optional<String> write(String text) {
    return converted(() -> format.format(parsed(text)));
  }

  private TemporalAccessor parsed(String text) {
    return switch (type) {
      case FieldType.Date t -> LocalDate.parse(text);
      case FieldType.Time t -> LocalTime.parse(text);
      case FieldType.DateTime t ->
          t.zoned() ? OffsetDateTime.parse(text) : LocalDateTime.parse(text);
      default -> throw new DateTimeException("no date or time");
    };
  }

  private interface Conversion {
    String convert();
  }

  private static Optional<String> converted(Conversion conversion) {
    try {
      return Optional.of(conversion.convert());
    } catch (DateTimeException e) {
      return Optional.empty(); // It has not the form; the caller keeps the text as it stands.
    }
  }
}
