package joiner.model;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Sizes of files as people write them: "2 MB", by powers of ten (ISO/IEC 80000-13). */
public final class ByteSize {
  private static final Pattern FORM =
      Pattern.compile("(\\d{1,10}(?:\\.\\d{1,9})?)\\s*(b|bytes?|kb|mb|gb)?");

  private ByteSize() {}

  /** So many bytes in the greatest unit that needs no more than three decimals. */
  public static String of(int bytes) {
    for (Unit unit : Unit.values()) {
      BigDecimal number = BigDecimal.valueOf(bytes).divide(BigDecimal.valueOf(unit.bytes));
      if (bytes >= unit.bytes && number.stripTrailingZeros().scale() <= 3) {
        return number.stripTrailingZeros().toPlainString() + " " + unit.sign;
      }
    }
    return bytes + " " + Unit.BYTE.sign;
  }

  /** About so many bytes, with one decimal at most. */
  public static String about(long bytes) {
    for (Unit unit : Unit.values()) {
      if (bytes >= unit.bytes) {
        BigDecimal number =
            BigDecimal.valueOf(bytes)
                .divide(BigDecimal.valueOf(unit.bytes), 1, RoundingMode.HALF_UP)
                .stripTrailingZeros();
        return number.toPlainString() + " " + unit.sign;
      }
    }
    return bytes + " " + Unit.BYTE.sign;
  }

  /** How many bytes a text says; empty where it is no size of 1 byte to 2,147,483,647. */
  public static OptionalInt read(String text) {
    Matcher form = FORM.matcher(text.strip().toLowerCase(Locale.ROOT));
    if (!form.matches()) {
      return OptionalInt.empty();
    }
    long unit =
        Optional.ofNullable(form.group(2))
            .flatMap(Unit::of)
            .map(found -> found.bytes)
            .orElse(Unit.BYTE.bytes);
    BigDecimal bytes =
        new BigDecimal(form.group(1)).multiply(BigDecimal.valueOf(unit)).stripTrailingZeros();
    boolean fits =
        bytes.scale() <= 0
            && bytes.signum() > 0
            && bytes.compareTo(BigDecimal.valueOf(Integer.MAX_VALUE)) <= 0;
    return fits ? OptionalInt.of(bytes.intValueExact()) : OptionalInt.empty();
  }

  private enum Unit {
    GIGABYTE(1_000_000_000, "GB"),
    MEGABYTE(1_000_000, "MB"),
    KILOBYTE(1_000, "kB"),
    BYTE(1, "bytes");

    private final long bytes;
    private final String sign;

    Unit(long bytes, String sign) {
      this.bytes = bytes;
      this.sign = sign;
    }

    static Optional<Unit> of(String written) {
      return switch (written) {
        case "gb" -> Optional.of(GIGABYTE);
        case "mb" -> Optional.of(MEGABYTE);
        case "kb" -> Optional.of(KILOBYTE);
        default -> Optional.of(BYTE);
      };
    }
  }
}
