package joiner.rows;

import java.io.IOException;
import java.lang.reflect.Array;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import joiner.model.FieldId;
import org.jspecify.annotations.Nullable;

/**
 * The rows of one table: a column of texts per field, each cell as typed or absent (NULL).
 * Immutable; adding or dropping a field shares all other columns. Each row has an id that goes
 * along through all changes; rows are equal by what they hold, whatever their ids.
 */
public final class Rows {
  /** No rows. */
  public static final Rows NONE = new Rows(new long[0], Map.of());

  private static final Pattern HALF_PAIR = Pattern.compile("\\p{Cs}");

  /** The id that the next row made gets. */
  private static final AtomicLong NEXT = new AtomicLong();

  private final int count;

  /** The id of each row. */
  private final long[] ids;

  private final Map<FieldId, @Nullable String[]> columns;

  private Rows(long[] ids, Map<FieldId, @Nullable String[]> columns) {
    this.count = ids.length;
    this.ids = ids;
    this.columns = columns;
  }

  private static long[] newIds(int count) {
    long first = NEXT.getAndAdd(count);
    return LongStream.range(first, first + count).toArray();
  }

  /**
   * Rows given one by one.
   *
   * @param fields the fields, in the order of each row's cells
   * @param rows cells, empty meaning NULL; every row is as long as {@code fields}
   */
  public static Rows of(List<FieldId> fields, List<List<Optional<String>>> rows) {
    var builder = new Builder(fields);
    for (List<Optional<String>> row : rows) {
      if (row.size() != fields.size()) {
        throw new IllegalArgumentException(
            "row has " + row.size() + " cells for " + fields.size() + " fields");
      }
      for (int i = 0; i < fields.size(); i++) {
        int field = i;
        row.get(i).ifPresent(text -> builder.cell(field, text));
      }
      builder.endRow();
    }
    return builder.build();
  }

  /**
   * The rows of a source.
   *
   * @param fields the fields of its columns, in their order
   */
  public static Rows of(List<FieldId> fields, RowSource source) throws IOException {
    var builder = new Builder(fields);
    source.scan(builder);
    return builder.build();
  }

  /** Collects rows cell by cell; a cell that is not named is NULL, and so is the empty text. */
  public static final class Builder implements TableSink {
    private final List<FieldId> fields;
    private final List<@Nullable String[]> cells = new ArrayList<>();
    private int announced;
    private int count;

    /** Collects rows of those fields. */
    public Builder(List<FieldId> fields) {
      this.fields = List.copyOf(fields);
      fields.forEach(field -> cells.add(new String[16]));
    }

    /** The next of the fields, in their order. */
    @Override
    public int column(String header) {
      if (announced == fields.size()) {
        throw new IllegalArgumentException(header + " is one column too many");
      }
      return announced++;
    }

    @Override
    public void cell(int field, String text) {
      cells.get(field)[count] = kept(text);
    }

    @Override
    public void endRow(long line) {
      count++;
      if (!cells.isEmpty() && count == cells.getFirst().length) {
        cells.replaceAll(column -> Arrays.copyOf(column, 2 * count));
      }
    }

    /** All rows so far. */
    public Rows build() {
      Map<FieldId, @Nullable String[]> columns = new LinkedHashMap<>();
      for (int i = 0; i < fields.size(); i++) {
        columns.put(fields.get(i), Arrays.copyOf(cells.get(i), count));
      }
      return new Rows(newIds(count), columns);
    }
  }

  /** How many rows there are. */
  public int count() {
    return count;
  }

  /** Which row stands at a place, from 0. */
  public RowId id(int row) {
    return new RowId(ids[row]);
  }

  /** Where a row stands, from 0; empty if it is none of these. Linear in rows. */
  public OptionalInt place(RowId row) {
    return IntStream.range(0, count).filter(place -> ids[place] == row.value()).findFirst();
  }

  /** The fields that have a column; in all others every row is NULL. */
  public Set<FieldId> fields() {
    return Collections.unmodifiableSet(columns.keySet());
  }

  /** Whether a field has a value in any row. */
  public boolean has(FieldId field) {
    @Nullable String[] column = columns.get(field);
    return column != null && Arrays.stream(column).anyMatch(Objects::nonNull);
  }

  /** The cell of a row, from 0; empty where it is NULL or the field has no column yet. */
  public Optional<String> cell(int row, FieldId field) {
    @Nullable String[] column = columns.get(field);
    return column == null ? Optional.empty() : Optional.ofNullable(column[row]);
  }

  /**
   * An object that equals another only where the cells of that field are known to be the same,
   * without looking at them: rows share the columns a change leaves alone.
   */
  public Object identity(FieldId field) {
    @Nullable String[] column = columns.get(field);
    return column == null ? count : new Identity(column);
  }

  /** Equal to another of the very same object only. */
  private record Identity(Object same) {
    @Override
    public boolean equals(Object other) {
      return other instanceof Identity that && same == that.same;
    }

    @Override
    public int hashCode() {
      return System.identityHashCode(same);
    }
  }

  /** One whole row in the order of those fields. */
  public List<Optional<String>> row(int row, List<FieldId> fields) {
    return fields.stream().map(field -> cell(row, field)).toList();
  }

  /** The same rows with a column set to given values, one for each row. */
  public Rows withColumn(FieldId field, List<Optional<String>> values) {
    if (values.size() != count) {
      throw new IllegalArgumentException(values.size() + " values for " + count + " rows");
    }
    @Nullable String[] column = new String[count];
    for (int i = 0; i < count; i++) {
      column[i] = kept(values.get(i).orElse(null));
    }
    return withColumn(field, column);
  }

  /**
   * A cell as it is kept: the empty text is NULL, and half a surrogate pair, which no file and no
   * database can hold, is the replacement character (The Unicode Standard, section 3.9).
   */
  private static @Nullable String kept(@Nullable String text) {
    if (text == null || text.isEmpty()) {
      return null;
    }
    for (int i = 0; i < text.length(); i++) {
      if (Character.isSurrogate(text.charAt(i))) {
        return HALF_PAIR.matcher(text).replaceAll("\uFFFD");
      }
    }
    return text;
  }

  private Rows withColumn(FieldId field, @Nullable String[] column) {
    Map<FieldId, @Nullable String[]> changed = new LinkedHashMap<>(columns);
    changed.put(field, column);
    return new Rows(ids, changed);
  }

  /** Some of the rows: from one, counted from 0, to before another. */
  public Rows slice(int from, int to) {
    if (from == 0 && to == count) {
      return this;
    }
    Map<FieldId, @Nullable String[]> part = new LinkedHashMap<>();
    columns.forEach((field, column) -> part.put(field, Arrays.copyOfRange(column, from, to)));
    return new Rows(Arrays.copyOfRange(ids, from, to), part);
  }

  /** These rows and then those of another with the same fields. */
  public Rows followedBy(Rows other, List<FieldId> fields) {
    Map<FieldId, @Nullable String[]> both = new LinkedHashMap<>();
    for (FieldId field : fields) {
      both.put(field, joined(column(field), other.column(field)));
    }
    long[] all = Arrays.copyOf(ids, count + other.count);
    System.arraycopy(other.ids, 0, all, count, other.count);
    return new Rows(all, both);
  }

  private static @Nullable String[] joined(@Nullable String[] one, @Nullable String[] other) {
    @Nullable String[] both = Arrays.copyOf(one, one.length + other.length);
    System.arraycopy(other, 0, both, one.length, other.length);
    return both;
  }

  /** Those of the rows, in their order. */
  public Rows at(List<Stretch> places) {
    long[] some = new long[Stretch.count(places)];
    Map<FieldId, @Nullable String[]> fewer = new LinkedHashMap<>();
    columns.forEach((field, column) -> fewer.put(field, new String[some.length]));
    int filled = 0;
    for (Stretch stretch : places) {
      System.arraycopy(ids, stretch.first(), some, filled, stretch.count());
      for (Map.Entry<FieldId, @Nullable String[]> column : fewer.entrySet()) {
        System.arraycopy(
            column(column.getKey()), stretch.first(), column.getValue(), filled, stretch.count());
      }
      filled += stretch.count();
    }
    return new Rows(some, fewer);
  }

  /** The same rows without those. */
  public Rows without(List<Stretch> places) {
    var kept = new ArrayList<Stretch>();
    int next = 0;
    for (Stretch gone : places) {
      if (gone.first() > next) {
        kept.add(new Stretch(next, gone.first() - next));
      }
      next = gone.end();
    }
    if (next < count) {
      kept.add(new Stretch(next, count - next));
    }
    return places.isEmpty() ? this : at(kept);
  }

  /** The same rows without those, as far as they are there; linear in the rows. */
  public Rows without(Set<RowId> gone) {
    return without(
        Stretch.of(IntStream.range(0, count).filter(row -> gone.contains(new RowId(ids[row])))));
  }

  /** The places of those rows that are there; linear in the rows. */
  public Map<RowId, Integer> places(Set<RowId> some) {
    Map<RowId, Integer> places = HashMap.newHashMap(some.size());
    for (int row = 0; row < count; row++) {
      var id = new RowId(ids[row]);
      if (some.contains(id)) {
        places.put(id, row);
      }
    }
    return places;
  }

  /**
   * The same rows with others among them.
   *
   * @param places where the others then stand, in their order
   */
  public Rows with(List<Stretch> places, Rows others) {
    int length = count + others.count;
    long[] all = new long[length];
    merge(places, ids, others.ids, all);
    Map<FieldId, @Nullable String[]> more = new LinkedHashMap<>();
    for (FieldId field : fieldsOfBoth(others)) {
      @Nullable String[] column = new String[length];
      merge(places, column(field), others.column(field), column);
      more.put(field, column);
    }
    return new Rows(all, more);
  }

  /** Puts the elements of two arrays into a third: of the second at those places. */
  private static void merge(List<Stretch> places, Object here, Object others, Object all) {
    int filled = 0;
    int taken = 0;
    for (Stretch stretch : places) {
      int own = stretch.first() - filled;
      System.arraycopy(here, filled - taken, all, filled, own);
      System.arraycopy(others, taken, all, stretch.first(), stretch.count());
      taken += stretch.count();
      filled = stretch.end();
    }
    System.arraycopy(here, filled - taken, all, filled, Array.getLength(all) - filled);
  }

  /** As many rows with that field alone. */
  public Rows only(FieldId field) {
    @Nullable String[] column = columns.get(field);
    return new Rows(ids, column == null ? Map.of() : Map.of(field, column));
  }

  /** The same rows with other ids for their fields. */
  public Rows under(UnaryOperator<FieldId> other) {
    Map<FieldId, @Nullable String[]> renamed = new LinkedHashMap<>();
    columns.forEach((field, column) -> renamed.put(other.apply(field), column));
    return new Rows(ids, renamed);
  }

  /** The same rows with the values another, as long as this, has in a field. */
  public Rows withColumnOf(FieldId field, Rows other) {
    return withColumn(field, other.column(field));
  }

  /** How many rows from the first on are the same in both. */
  public int sameAtStart(Rows other) {
    int same = Math.min(count, other.count);
    for (FieldId field : fieldsOfBoth(other)) {
      int differing = Arrays.mismatch(column(field), 0, same, other.column(field), 0, same);
      same = differing < 0 ? same : differing;
    }
    return same;
  }

  /** How many rows from the last back are the same in both. */
  public int sameAtEnd(Rows other) {
    int same = Math.min(count, other.count);
    for (FieldId field : fieldsOfBoth(other)) {
      @Nullable String[] here = column(field);
      @Nullable String[] there = other.column(field);
      int equal = 0;
      while (equal < same
          && Objects.equals(here[count - 1 - equal], there[other.count - 1 - equal])) {
        equal++;
      }
      same = equal;
    }
    return same;
  }

  private Set<FieldId> fieldsOfBoth(Rows other) {
    var fields = new LinkedHashSet<>(columns.keySet());
    fields.addAll(other.columns.keySet());
    return fields;
  }

  private @Nullable String[] column(FieldId field) {
    @Nullable String[] column = columns.get(field);
    return column == null ? new String[count] : column;
  }

  /** The same rows without that column. */
  public Rows withoutColumn(FieldId field) {
    Map<FieldId, @Nullable String[]> kept = new LinkedHashMap<>(columns);
    kept.remove(field);
    return new Rows(ids, kept);
  }

  /** The same rows with one cell changed. */
  public Rows withCell(int row, FieldId field, Optional<String> text) {
    return withCells(field, Map.of(row, text));
  }

  /**
   * The same rows with many cells of one column changed at once.
   *
   * @param cells by the places of their rows
   */
  public Rows withCells(FieldId field, Map<Integer, Optional<String>> cells) {
    if (cells.isEmpty()) {
      return this;
    }
    @Nullable String[] column = columns.get(field);
    @Nullable String[] changed = column == null ? new String[count] : column.clone();
    cells.forEach((row, text) -> changed[row] = kept(text.orElse(null)));
    return withColumn(field, changed);
  }

  /** The same rows where a column holds another text instead of one. */
  public Rows replaced(FieldId field, String before, String after) {
    @Nullable String[] changed = column(field).clone();
    for (int row = 0; row < count; row++) {
      changed[row] = before.equals(changed[row]) ? kept(after) : changed[row];
    }
    return withColumn(field, changed);
  }

  /** The same rows with one more at the end; fields not named are NULL. */
  public Rows withRow(Map<FieldId, String> cells) {
    Map<FieldId, @Nullable String[]> one = new LinkedHashMap<>();
    cells.forEach((field, text) -> one.put(field, new String[] {kept(text)}));
    return with(List.of(new Stretch(count, 1)), new Rows(newIds(1), one));
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Rows that && count == that.count && sameColumns(that);
  }

  /** A field without a column is NULL in every row. */
  private boolean sameColumns(Rows that) {
    if (count == 0 || columns == that.columns) {
      return true;
    }
    @Nullable String[] none = new String[count];
    return fieldsOfBoth(that).stream()
        .allMatch(
            f -> Arrays.equals(columns.getOrDefault(f, none), that.columns.getOrDefault(f, none)));
  }

  @Override
  public int hashCode() {
    return count;
  }
}
