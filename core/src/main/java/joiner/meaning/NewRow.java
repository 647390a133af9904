package joiner.meaning;

import java.nio.ByteBuffer;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.random.RandomGenerator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Origin;
import joiner.model.Table;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * What a row holds of itself when it is made or changed: what is counted, generated or stamped, and
 * defaults.
 */
public final class NewRow {
  private static final int TIMED = 7;
  private static final int BITS_OF_MILLIS = 48;
  private static final long VERSION_AND_RANDOM = 0xFFFFL;
  private static final long VARIANT = 0x8000_0000_0000_0000L;
  private static final long BEHIND_VARIANT = 0x3FFF_FFFF_FFFF_FFFFL;
  private static final int BITS_OF_RANDOM_BESIDE = 12;
  private static final long RANDOM_BESIDE = 0xFFFL;

  private final Table table;
  private final TableMeaning meaning;
  private final Clock clock;
  private final RandomGenerator chance;

  /** A row of a table. */
  public NewRow(Table table, Clock clock, RandomGenerator chance) {
    this(TableMeaning.of(table), clock, chance);
  }

  /** A row of a table whose meaning is known. */
  public NewRow(TableMeaning meaning, Clock clock, RandomGenerator chance) {
    this.table = meaning.table();
    this.meaning = meaning;
    this.clock = clock;
    this.chance = chance;
  }

  /**
   * The cells of a row that is made. Linear in the rows where numbers are counted.
   *
   * @param rows those that are there
   */
  public Map<FieldId, String> made(Rows rows) {
    Map<FieldId, String> cells = new LinkedHashMap<>();
    for (Field field : table.fields()) {
      value(field, rows).ifPresent(text -> cells.put(field.id(), text));
    }
    return cells;
  }

  /**
   * One row from which it is counted on as from all of some, so that many rows can be made one
   * after the other in linear time.
   */
  public Rows last(Rows rows) {
    Map<FieldId, String> cells = new LinkedHashMap<>();
    for (Field field : table.fields()) {
      if (field.origin() instanceof Origin.Generated(Generator.Coded coded)) {
        coded
            .number()
            .last(texts(field, rows), LocalDate.now(clock))
            .ifPresent(text -> cells.put(field.id(), text));
      } else if (isCounted(field)) {
        cells.put(field.id(), String.valueOf(greatest(field, rows)));
      }
    }
    return Rows.NONE.withRow(cells);
  }

  private static boolean isCounted(Field field) {
    return field.origin() instanceof Origin.Typed && field.type() instanceof FieldType.Counter;
  }

  private static Stream<String> texts(Field field, Rows rows) {
    return IntStream.range(0, rows.count())
        .mapToObj(row -> rows.cell(row, field.id()))
        .flatMap(Optional::stream);
  }

  /** The cells of a row that change when something else of it does. */
  public Map<FieldId, String> changed() {
    List<Field> following = table.fields().stream().filter(NewRow::follows).toList();
    if (following.isEmpty()) {
      return Map.of();
    }
    Map<FieldId, String> cells = new LinkedHashMap<>();
    for (Field field : following) {
      byDefault(field).ifPresent(text -> cells.put(field.id(), text));
    }
    return cells;
  }

  private static boolean follows(Field field) {
    return field.origin() instanceof Origin.Stamped stamped && stamped.stamp().follows();
  }

  private Optional<String> value(Field field, Rows rows) {
    return switch (field.origin()) {
      case Origin.Stamped stamped -> byDefault(field);
      case Origin.Generated(Generator.Uuid(boolean timed)) ->
          Optional.of((timed ? timed(clock.millis(), chance) : byChance(chance)).toString());
      case Origin.Generated(Generator.Coded coded) ->
          coded.number().next(texts(field, rows), LocalDate.now(clock));
      case Origin.Generated(Generator.Drawn drawn) -> Optional.of(drawn.code().drawn(chance));
      case Origin.Typed typed ->
          isCounted(field)
              ? Optional.of(String.valueOf(greatest(field, rows) + 1))
              : byDefault(field);
      case Origin.Copied copied -> Optional.empty(); // Nothing is referred to yet.
      case Origin.Computed computed -> Optional.empty();
      case Origin.SummedUp summed -> Optional.empty();
    };
  }

  /** The greatest number that is there; 0 where none is. */
  private static long greatest(Field counter, Rows rows) {
    return texts(counter, rows)
        .map(text -> ValueReader.read(text, counter.type()))
        .mapToLong(read -> read instanceof ReadValue.Fits(Value.Num n) ? n.number().longValue() : 0)
        .reduce(0, Math::max);
  }

  private Optional<String> byDefault(Field field) {
    Clock seconds = Clock.tick(clock, Duration.ofSeconds(1)); // Nobody reads parts of them.
    return meaning.valueByDefault(field.id(), new Evaluator(seconds)).map(Evaluator::show);
  }

  /** A UUID of version 4: RFC 9562, section 5.4. */
  static UUID byChance(RandomGenerator chance) {
    var bytes = new byte[2 * Long.BYTES];
    chance.nextBytes(bytes);
    ByteBuffer bits = ByteBuffer.wrap(bytes);
    long most = bits.getLong() & ~0xF000L | 0x4000L;
    return new UUID(most, bits.getLong() & BEHIND_VARIANT | VARIANT);
  }

  /**
   * A UUID of version 7: RFC 9562, section 5.7.
   *
   * @param millis since the Unix epoch
   */
  static UUID timed(long millis, RandomGenerator chance) {
    long random = chance.nextLong();
    long most =
        millis << (Long.SIZE - BITS_OF_MILLIS)
            | ((long) TIMED << BITS_OF_RANDOM_BESIDE | random & RANDOM_BESIDE) & VERSION_AND_RANDOM;
    return new UUID(most, chance.nextLong() & BEHIND_VARIANT | VARIANT);
  }
}
