package joiner.audit;

import java.util.Optional;
import java.util.OptionalLong;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;

/**
 * The cells of one field in a batch as values of its type: as 64-bit numbers where its type has
 * that form, as the characters of the batch where they are the value, else one by one. What does
 * not fit its type is marked and counts as NULL.
 */
final class TypedCells {
  /** Nothing is there. */
  static final byte NONE = 0;

  /** There is a value, as a number or as characters. */
  static final byte PLAIN = 1;

  /** There is a value that is kept by itself. */
  static final byte APART = 2;

  /** What is there is no value of the type. */
  static final byte UNFIT = 3;

  private static final CellBatch NOTHING = new CellBatch(0, 1);

  private final Field field;
  private final int column;
  private final Optional<LongForm> form;
  private final boolean plainText;
  private final boolean isMail;
  private final byte[] states;
  private final long[] numbers;
  private final Value[] apart;
  private final LongForm.Cursor cursor = new LongForm.Cursor();
  private CellBatch batch = NOTHING;

  /**
   * The cells of a field.
   *
   * @param most how many rows a batch has
   */
  TypedCells(Field field, int column, int most) {
    this.field = field;
    this.column = column;
    this.states = new byte[most];
    this.apart = new Value[most];
    this.form = LongForm.of(field.type());
    this.plainText = form.isEmpty() && isPlainText(field.type());
    this.isMail = field.type() instanceof FieldType.Email;
    this.numbers = new long[form.isPresent() ? most : 0];
  }

  /** Types whose values are their texts, all of which fit but those with NUL. */
  private static boolean isPlainText(FieldType type) {
    return switch (type) {
      case FieldType.Text t -> true;
      case FieldType.LongText t -> true;
      case FieldType.Choice t -> true;
      case FieldType.Phone t -> true;
      case FieldType.Secret t -> true;
      case FieldType.FileReference t -> true;
      case FieldType.Email t -> true;
      default -> false;
    };
  }

  Field field() {
    return field;
  }

  /** How its values are kept as numbers, if they are. */
  Optional<LongForm> form() {
    return form;
  }

  /** Whether values that are not apart are their characters. */
  boolean isText() {
    return plainText;
  }

  /** Reads the cells of a batch. */
  void read(CellBatch other) {
    batch = other;
    long[] places = batch.places(column);
    if (form.isPresent()) {
      readNumbers(form.get(), places);
      return;
    }
    for (int row = 0; row < batch.rows(); row++) {
      int length = CellBatch.length(places[row]);
      boolean plain = plainText && length > 0 && isWhole(CellBatch.start(places[row]), length);
      states[row] = length == 0 ? NONE : plain ? PLAIN : readApart(row);
    }
  }

  private void readNumbers(LongForm as, long[] places) {
    char[] chars = batch.chars();
    for (int row = 0; row < batch.rows(); row++) {
      int length = CellBatch.length(places[row]);
      if (length == 0) {
        states[row] = NONE;
        continue;
      }
      LongForm.Read read = as.read(chars, CellBatch.start(places[row]), length, cursor);
      if (read == LongForm.Read.VALUE) {
        numbers[row] = cursor.value;
        states[row] = PLAIN;
      } else {
        states[row] = read == LongForm.Read.UNFIT ? UNFIT : readApart(row);
      }
    }
  }

  /** Whether the characters are a value without being asked further. */
  private boolean isWhole(int start, int length) {
    char[] chars = batch.chars();
    if (isMail) {
      return isAddress(chars, start, start + length);
    }
    int nul = 1;
    for (int i = start; i < start + length; i++) {
      nul = Math.min(nul, chars[i]);
    }
    return nul != 0;
  }

  /** A simple address: letters of ASCII without blanks, one @ with something on both sides. */
  private static boolean isAddress(char[] chars, int from, int to) {
    int at = -1;
    for (int i = from; i < to; i++) {
      if (chars[i] <= ' ' || chars[i] > '~' || (chars[i] == '@' && at >= 0)) {
        return false;
      }
      at = chars[i] == '@' ? i : at;
    }
    return at > from && at < to - 1;
  }

  private byte readApart(int row) {
    return switch (ValueReader.read(batch.text(column, row), field.type())) {
      case ReadValue.Fits fits -> keep(row, fits.value());
      case ReadValue.Unfit unfit -> UNFIT;
    };
  }

  private byte keep(int row, Value value) {
    if (form.isPresent()) {
      var number = form.get().of(value);
      if (number.isPresent()) {
        numbers[row] = number.getAsLong();
        return PLAIN;
      }
    } else if (plainText) {
      return PLAIN;
    }
    apart[row] = value;
    return APART;
  }

  /** Holds a value that was worked out, whatever stands in the cell. */
  void put(int row, Value value) {
    if (value instanceof Value.Null) {
      states[row] = NONE;
      return;
    }
    boolean mayNotFit =
        value instanceof Value.Num || value instanceof Value.Text(String text) && !text.isEmpty();
    // What the field holds is a value of its type, as a number's text is in a field of texts.
    Optional<Value> held =
        !mayNotFit
            ? Optional.of(value)
            : ValueReader.read(Evaluator.show(value), field.type()) instanceof ReadValue.Fits fits
                ? Optional.of(fits.value())
                : Optional.empty();
    apart[row] = held.orElse(value);
    OptionalLong number = held.flatMap(v -> form.map(of -> of.of(v))).orElse(OptionalLong.empty());
    if (number.isPresent()) {
      numbers[row] = number.getAsLong();
      states[row] = PLAIN;
    } else {
      states[row] = held.isPresent() ? APART : UNFIT;
    }
  }

  byte state(int row) {
    return states[row];
  }

  /** Whether there is a value that fits. */
  boolean hasValue(int row) {
    return states[row] == PLAIN || states[row] == APART;
  }

  /** Whether anything stands in the cell, a value or not. */
  boolean isFilled(int row) {
    return states[row] != NONE;
  }

  /** The number of a plain value. */
  long number(int row) {
    return numbers[row];
  }

  char[] chars() {
    return batch.chars();
  }

  int start(int row) {
    return CellBatch.start(batch.places(column)[row]);
  }

  int length(int row) {
    return CellBatch.length(batch.places(column)[row]);
  }

  /** The text of a cell as it stands there, or of the value that was worked out. */
  String text(int row) {
    return field.isComputed() ? Evaluator.show(apart[row]) : batch.text(column, row);
  }

  /** What a row came with, whatever was worked out. */
  String given(int row) {
    return batch.text(column, row);
  }

  /** The value in a row; NULL where there is none. */
  Value value(int row) {
    return switch (states[row]) {
      case PLAIN -> form.isPresent() ? form.get().value(numbers[row]) : new Value.Text(given(row));
      case APART -> apart[row];
      default -> Value.NULL;
    };
  }
}
