package joiner.audit;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalLong;
import joiner.expression.Kind;
import joiner.expression.Value;

/**
 * The values of some fields of a row as bytes that are equal exactly where the values are, one
 * after another. Belongs to one thread; the bytes are those of the row read last.
 */
final class KeyForm {
  private static final byte NUMBER = 'n';
  private static final byte LARGE_NUMBER = 'N';
  private static final byte TRUTH = 'b';
  private static final byte DATE = 'd';
  private static final byte TIME = 't';
  private static final byte MOMENT = 'm';
  private static final byte FINE_MOMENT = 'M';
  private static final byte INSTANT = 'i';
  private static final byte ASCII = 'a';
  private static final byte TEXT = 'u';

  private static final LongForm MOMENTS = LongForm.of(Kind.DATE_TIME);

  private static final VarHandle INTS =
      MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.BIG_ENDIAN);
  private static final VarHandle LONGS =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.BIG_ENDIAN);

  private final TypedCells[] cells;
  private byte[] bytes = new byte[64];
  private int length;

  /** The key of a row in the cells of those fields, in their order. */
  KeyForm(List<TypedCells> cells) {
    this.cells = cells.toArray(new TypedCells[0]);
  }

  /** The bytes, up to {@link #length}. */
  byte[] bytes() {
    return bytes;
  }

  int length() {
    return length;
  }

  /** Reads a row; false where one of the fields has no value. */
  boolean read(int row) {
    length = 0;
    for (TypedCells field : cells) {
      if (!field.hasValue(row)) {
        return false;
      }
      if (field.state(row) == TypedCells.APART) {
        add(field.value(row));
      } else if (field.form().isPresent()) {
        add(field.form().get(), field.number(row));
      } else {
        addText(field.chars(), field.start(row), field.length(row));
      }
    }
    return true;
  }

  /** Puts a number in the place of a row's values. */
  void set(LongForm form, long number) {
    length = 0;
    add(form, number);
  }

  /** The number of that form which the bytes stand for; they stand for one. */
  static long number(byte[] key, LongForm form) {
    long number = number(key, 1, 8);
    return key[0] == NUMBER ? number * LongForm.power(form.scale() - key[9]) : number;
  }

  /** Whether the bytes stand for a number of that form. */
  static boolean isNumber(byte[] key, LongForm form) {
    return switch (form.kind()) {
      case WHOLE, NUMBER -> key[0] == NUMBER && key.length == 10;
      case BOOLEAN, DATE, TIME, DATE_TIME -> key.length == 9;
      case TEXT, ZONED, UUID, INTERVAL, BYTES, NULL -> false;
    };
  }

  private void makeRoom(int more) {
    if (length + more > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(length + more, 2 * bytes.length));
    }
  }

  private void add(LongForm form, long number) {
    switch (form.kind()) {
      case WHOLE, NUMBER -> addNumber(number, form.scale());
      case BOOLEAN -> addLong(TRUTH, number);
      case DATE -> addLong(DATE, number);
      case TIME -> addLong(TIME, number);
      case DATE_TIME -> addLong(MOMENT, number);
      case TEXT, ZONED, UUID, INTERVAL, BYTES, NULL -> throw new IllegalStateException(form + "");
    }
  }

  /** Numbers are equal whatever their scale: no zero is kept at the end of the decimals. */
  private void addNumber(long units, int scale) {
    long number = units;
    int decimals = scale;
    while (decimals > 0 && number % 10 == 0) {
      number /= 10;
      decimals--;
    }
    addLong(NUMBER, number);
    makeRoom(1);
    bytes[length++] = (byte) decimals;
  }

  private void addLong(byte kind, long number) {
    makeRoom(9);
    bytes[length] = kind;
    LONGS.set(bytes, length + 1, number);
    length += 9;
  }

  /** Characters of ASCII take a byte each, others make the whole text take two. */
  private void addText(char[] chars, int start, int count) {
    makeRoom(5 + count);
    int head = length;
    length += 5;
    byte[] to = bytes;
    int at = length;
    int all = 0;
    for (int i = start; i < start + count; i++) {
      all |= chars[i];
      to[at++] = (byte) chars[i];
    }
    if (all > 127) {
      length = head;
      addWide(chars, start, count);
      return;
    }
    length = at;
    addHead(head, ASCII, count);
  }

  private void addWide(char[] chars, int start, int count) {
    makeRoom(5 + 2 * count);
    int head = length;
    length += 5;
    for (int i = start; i < start + count; i++) {
      bytes[length++] = (byte) (chars[i] >>> 8);
      bytes[length++] = (byte) chars[i];
    }
    addHead(head, TEXT, count);
  }

  private void addHead(int at, byte kind, int count) {
    bytes[at] = kind;
    INTS.set(bytes, at + 1, count);
  }

  private void add(Value value) {
    switch (value) {
      case Value.Text text -> addText(text.text().toCharArray(), 0, text.text().length());
      case Value.Num num -> addNumber(num.number());
      case Value.Bool bool -> addLong(TRUTH, bool.truth() ? 1 : 0);
      case Value.Date date -> addLong(DATE, date.date().toEpochDay());
      case Value.Time time -> addLong(TIME, time.time().toNanoOfDay());
      case Value.DateTime moment -> addMoment(moment.at());
      case Value.Zoned zoned -> addInstant(zoned.at().toInstant());
      case Value.Bytes content ->
          addText(content.base64().toCharArray(), 0, content.base64().length());
      case Value.Interval interval -> throw new IllegalArgumentException("no key has intervals");
      case Value.Null none -> throw new IllegalArgumentException("NULL is no part of a key");
    }
  }

  private void addNumber(BigDecimal number) {
    BigDecimal plain = number.signum() == 0 ? BigDecimal.ZERO : number.stripTrailingZeros();
    int scale = Math.max(plain.scale(), 0);
    BigInteger units = plain.setScale(scale).unscaledValue();
    if (units.bitLength() < 63 && scale < 127) {
      addNumber(units.longValueExact(), scale);
    } else {
      byte[] large = plain.toString().getBytes(StandardCharsets.US_ASCII);
      makeRoom(5 + large.length);
      addHead(length, LARGE_NUMBER, large.length);
      System.arraycopy(large, 0, bytes, length + 5, large.length);
      length += 5 + large.length;
    }
  }

  /** As the numbers of moments are kept where there is nothing finer than a microsecond. */
  private void addMoment(LocalDateTime at) {
    OptionalLong micros = MOMENTS.of(new Value.DateTime(at));
    if (micros.isPresent()) {
      addLong(MOMENT, micros.getAsLong());
    } else {
      addLong(FINE_MOMENT, at.toEpochSecond(ZoneOffset.UTC));
      addLong(FINE_MOMENT, at.getNano());
    }
  }

  private void addInstant(Instant at) {
    addLong(INSTANT, at.getEpochSecond());
    addLong(INSTANT, at.getNano());
  }

  /** The values that bytes of this form stand for. */
  static List<Value> values(byte[] bytes) {
    var values = new ArrayList<Value>();
    int at = 0;
    while (at < bytes.length) {
      byte kind = bytes[at];
      switch (kind) {
        case ASCII, TEXT, LARGE_NUMBER -> {
          int count = (int) number(bytes, at + 1, 4);
          int size = kind == TEXT ? 2 * count : count;
          values.add(text(bytes, kind, at + 5, count));
          at += 5 + size;
        }
        case NUMBER -> {
          long units = number(bytes, at + 1, 8);
          values.add(new Value.Num(BigDecimal.valueOf(units, bytes[at + 9]), false));
          at += 10;
        }
        case INSTANT, FINE_MOMENT -> {
          long seconds = number(bytes, at + 1, 8);
          values.add(moment(kind, seconds, (int) number(bytes, at + 10, 8)));
          at += 18;
        }
        default -> {
          values.add(plain(kind, number(bytes, at + 1, 8)));
          at += 9;
        }
      }
    }
    return values;
  }

  private static Value text(byte[] bytes, byte kind, int at, int count) {
    var text = new StringBuilder(count);
    for (int i = 0; i < count; i++) {
      text.append(
          kind == TEXT
              ? (char) (bytes[at + 2 * i] << 8 | bytes[at + 2 * i + 1] & 0xFF)
              : (char) bytes[at + i]);
    }
    return kind == LARGE_NUMBER
        ? new Value.Num(new BigDecimal(text.toString()), false)
        : new Value.Text(text.toString());
  }

  private static Value moment(byte kind, long seconds, int nanos) {
    return kind == INSTANT
        ? new Value.Zoned(Instant.ofEpochSecond(seconds, nanos).atOffset(ZoneOffset.UTC))
        : new Value.DateTime(LocalDateTime.ofEpochSecond(seconds, nanos, ZoneOffset.UTC));
  }

  private static Value plain(byte kind, long number) {
    return switch (kind) {
      case TRUTH -> Value.of(number == 1);
      case DATE -> new Value.Date(LocalDate.ofEpochDay(number));
      case TIME -> new Value.Time(LocalTime.ofNanoOfDay(number));
      case MOMENT -> MOMENTS.value(number);
      default -> throw new IllegalArgumentException("no key begins with " + kind);
    };
  }

  private static long number(byte[] bytes, int at, int size) {
    long number = 0;
    for (int i = 0; i < size; i++) {
      number = number << 8 | bytes[at + i] & 0xFF;
    }
    return number;
  }
}
