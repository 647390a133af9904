package joiner.rows;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.model.Field;
import joiner.model.SpanUnit;
import joiner.shape.Marks;
import joiner.shape.PutRight;

/**
 * Reads what people type into a cell: the unit of a number may stand behind it ("12.5 %", "1240
 * °C"), a length of time may be written as people write it ("1:30", "2 h 15 min"), and a text may
 * lack the marks of its pattern; dates and times may be written as people write them ("14.3.2026
 * 18:05"). What is not understood stays as it was typed.
 */
public final class EnteredText {
  private static final Pattern NUMBER = Pattern.compile("[+-]?(?:\\d+(?:\\.\\d*)?|\\.\\d+)");
  private static final Pattern CLOCK = Pattern.compile("(\\d+):([0-5]\\d)(?::([0-5]\\d))?");
  private static final Pattern PART =
      Pattern.compile("\\G\\s*(\\d+(?:\\.\\d+)?)\\s*([\\p{L}]+)\\.?");

  private EnteredText() {}

  /** The text that a cell of a field is to hold. */
  public static String of(Field field, String typed) {
    String text = typed.strip();
    Optional<String> pattern = field.limits().seen();
    if (pattern.isPresent() && !typed.isEmpty()) {
      String right = PutRight.of(pattern.get(), typed);
      return field.limits().shown().flatMap(Marks::parted).map(m -> m.without(right)).orElse(right);
    }
    Optional<String> moment = EnteredMoment.of(field.type().kind(), typed);
    if (moment.isPresent()) {
      return moment.get();
    }
    if (!field.type().kind().isNumeric() || field.unit().isEmpty()) {
      return typed;
    }
    String unit = field.unit();
    if (text.endsWith(unit)) {
      String number = text.substring(0, text.length() - unit.length()).strip();
      if (NUMBER.matcher(number).matches()) {
        return number;
      }
    }
    return SpanUnit.ofSign(unit).flatMap(in -> seconds(text).flatMap(in::exactly)).orElse(typed);
  }

  private static Optional<BigDecimal> seconds(String text) {
    Matcher clock = CLOCK.matcher(text);
    if (clock.matches()) {
      return Optional.of(
          in(SpanUnit.HOUR, clock.group(1))
              .add(in(SpanUnit.MINUTE, clock.group(2)))
              .add(in(SpanUnit.SECOND, Optional.ofNullable(clock.group(3)).orElse("0"))));
    }
    Matcher part = PART.matcher(text);
    BigDecimal sum = BigDecimal.ZERO;
    int end = 0;
    while (part.find()) {
      Optional<SpanUnit> unit = SpanUnit.of(part.group(2).toLowerCase(Locale.ROOT));
      if (unit.isEmpty()) {
        return Optional.empty();
      }
      sum = sum.add(in(unit.get(), part.group(1)));
      end = part.end();
    }
    return end > 0 && text.substring(end).isBlank() ? Optional.of(sum) : Optional.empty();
  }

  private static BigDecimal in(SpanUnit unit, String number) {
    return new BigDecimal(number).multiply(BigDecimal.valueOf(unit.seconds()));
  }
}
