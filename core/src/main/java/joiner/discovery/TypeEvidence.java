package joiner.discovery;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import joiner.model.FieldType;
import joiner.model.FieldType.Width;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;

/** Narrows down, value by value, which types a column can have. */
final class TypeEvidence {
  private static final Pattern LEADING_ZERO = Pattern.compile("[+-]?0\\d.*");

  /** Types in the order they are preferred; a type stays while every value fits. */
  private final List<FieldType> candidates =
      new ArrayList<>(
          List.of(
              new FieldType.WholeNumber(Width.BITS_32),
              new FieldType.WholeNumber(Width.BITS_64),
              new FieldType.AnyNumber(),
              new FieldType.TrueFalse(),
              new FieldType.Date(),
              new FieldType.DateTime(false),
              new FieldType.DateTime(true),
              new FieldType.Time(),
              new FieldType.Uuid(),
              new FieldType.Email(254)));

  private int longest;
  private int seen;
  private int wholeDigits;
  private int decimals;
  private boolean leadingZeros;
  private boolean numeric = true;

  void see(String text) {
    seen++;
    longest = Math.max(longest, text.codePointCount(0, text.length()));
    if (candidates.isEmpty()) {
      return;
    }
    candidates.removeIf(type -> !(ValueReader.read(text, type) instanceof ReadValue.Fits));
    numeric = candidates.stream().anyMatch(FieldType.AnyNumber.class::isInstance);
    if (numeric) {
      measure(text);
    }
  }

  private void measure(String text) {
    leadingZeros = leadingZeros || LEADING_ZERO.matcher(text).matches();
    var number = new BigDecimal(text).stripTrailingZeros();
    decimals = Math.max(decimals, Math.max(0, new BigDecimal(text).scale()));
    wholeDigits = Math.max(wholeDigits, Math.max(1, number.precision() - number.scale()));
  }

  int longest() {
    return longest;
  }

  boolean numberLike() {
    return seen > 0 && numeric && leadingZeros;
  }

  FieldType type() {
    if (seen == 0 || candidates.isEmpty() || numberLike()) {
      return text();
    }
    FieldType first = candidates.getFirst();
    return switch (first) {
      case FieldType.AnyNumber number -> decimal();
      case FieldType.Email email -> new FieldType.Email(roomy());
      default -> first;
    };
  }

  private FieldType decimal() {
    int precision = wholeDigits + 2 + decimals;
    return precision <= 38 && decimals <= 12
        ? new FieldType.Decimal(precision, decimals)
        : new FieldType.AnyNumber();
  }

  private FieldType text() {
    return longest > 1000 ? new FieldType.LongText() : new FieldType.Text(roomy());
  }

  /** What was seen with a quarter of head-room, rounded up to a multiple of 5. */
  private int roomy() {
    return longest == 0 ? 40 : Math.max(4, (int) Math.ceil(longest * 1.25 / 5) * 5);
  }
}
