package joiner.reasoning;

import com.microsoft.z3.Expr;
import com.microsoft.z3.IntNum;
import com.microsoft.z3.RatNum;
import java.math.BigDecimal;
import java.math.MathContext;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.expression.Kind;
import joiner.expression.Value;

/** Values that the solver found, as Joiner has them. */
final class Solved {
  private static final Pattern CODED = Pattern.compile("\\\\u\\{([0-9a-fA-F]+)}");

  private Solved() {}

  /** A value; empty where it is none that Joiner can show. */
  static Optional<Value> value(Expr<?> of, Kind kind) {
    return switch (kind) {
      case BOOLEAN -> Optional.of(Value.of(of.isTrue()));
      case WHOLE -> Optional.of(new Value.Num(new BigDecimal(((IntNum) of).getBigInteger()), true));
      case NUMBER -> number(of).map(number -> new Value.Num(number, false));
      case TEXT ->
          Optional.of(text(of.getString())).filter(Solved::isReadable).map(Value.Text::new);
      case UUID -> Value.uuid(text(of.getString())).map(value -> value);
      case DATE -> Optional.of(new Value.Date(LocalDate.ofEpochDay(whole(of))));
      case TIME -> Optional.of(new Value.Time(LocalTime.ofNanoOfDay(whole(of) * 1_000)));
      case DATE_TIME -> Optional.of(new Value.DateTime(moment(whole(of))));
      case ZONED -> Optional.of(new Value.Zoned(moment(whole(of)).atOffset(ZoneOffset.UTC)));
      case BYTES, INTERVAL, NULL -> Optional.empty();
    };
  }

  private static long whole(Expr<?> of) {
    return ((IntNum) of).getBigInteger().longValueExact();
  }

  private static LocalDateTime moment(long micros) {
    return LocalDateTime.ofEpochSecond(
        Math.floorDiv(micros, Logic.MICROS),
        (int) Math.floorMod(micros, Logic.MICROS) * 1_000,
        ZoneOffset.UTC);
  }

  private static Optional<BigDecimal> number(Expr<?> of) {
    if (!(of instanceof RatNum ratio)) {
      return Optional.empty();
    }
    try {
      return Optional.of(
          new BigDecimal(ratio.getBigIntNumerator())
              .divide(new BigDecimal(ratio.getBigIntDenominator()), MathContext.UNLIMITED));
    } catch (ArithmeticException endless) {
      return Optional.empty();
    }
  }

  /**
   * Nobody learns from a row of control characters, and not every engine takes it; a text of no
   * character cannot be told from none in a file, nor in Oracle.
   */
  private static boolean isReadable(String text) {
    return !text.isEmpty() && text.codePoints().allMatch(Solved::isReadable);
  }

  private static boolean isReadable(int point) {
    return !Character.isISOControl(point)
        && Character.isDefined(point)
        && Character.getType(point) != Character.SURROGATE;
  }

  /** The solver writes other characters than ASCII by their numbers. */
  private static String text(String written) {
    Matcher coded = CODED.matcher(written);
    var text = new StringBuilder();
    int from = 0;
    while (coded.find()) {
      text.append(written, from, coded.start());
      text.appendCodePoint(Integer.parseInt(coded.group(1), 16));
      from = coded.end();
    }
    return text.append(written.substring(from)).toString();
  }
}
