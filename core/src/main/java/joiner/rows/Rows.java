package joiner.rows;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import joiner.model.FieldId;
import org.jspecify.annotations.Nullable;

/**
 * The rows of one table: a column of texts per field, each cell as typed or absent (NULL).
 * Immutable; adding or dropping a field shares all other columns.
 */
public final class Rows {
  /** No rows. */
  public static final Rows NONE = new Rows(0, Map.of());

  private static final Pattern HALF_PAIR = Pattern.compile("\\p{Cs}");

  private final int count;
  private final Map<FieldId, @Nullable String[]> columns;

  private Rows(int count, Map<FieldId, @Nullable String[]> columns) {
    this.count = count;
    this.columns = columns;
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
        builder.cell(i, row.get(i).orElse(null));
      }
      builder.endRow();
    }
    return builder.build();
  }

  /** Collects rows cell by cell. */
  public static final class Builder {
    private final List<FieldId> fields;
    private final List<ArrayList<@Nullable String>> cells = new ArrayList<>();
    private int count;

    /** Collects rows of those fields. */
    public Builder(List<FieldId> fields) {
      this.fields = List.copyOf(fields);
      fields.forEach(field -> cells.add(new ArrayList<>()));
    }

    /** Adds the next cell of a field; {@code null} and the empty text are NULL. */
    public void cell(int field, @Nullable String text) {
      cells.get(field).add(kept(text));
    }

    /** Ends the row; every field must have got its cell. */
    public void endRow() {
      count++;
    }

    /** All rows so far. */
    public Rows build() {
      Map<FieldId, @Nullable String[]> columns = new LinkedHashMap<>();
      for (int i = 0; i < fields.size(); i++) {
        columns.put(fields.get(i), cells.get(i).toArray(new String[count]));
      }
      return new Rows(count, columns);
    }
  }

  /** How many rows there are. */
  public int count() {
    return count;
  }

  /** The fields that have a column; in all others every row is NULL. */
  public Set<FieldId> fields() {
    return Collections.unmodifiableSet(columns.keySet());
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
    return new Rows(count, changed);
  }

  /** Some of the rows: from one, counted from 0, to before another. */
  public Rows slice(int from, int to) {
    if (from == 0 && to == count) {
      return this;
    }
    Map<FieldId, @Nullable String[]> part = new LinkedHashMap<>();
    columns.forEach((field, column) -> part.put(field, Arrays.copyOfRange(column, from, to)));
    return new Rows(to - from, part);
  }

  /** These rows and then those of another with the same fields. */
  public Rows followedBy(Rows other, List<FieldId> fields) {
    Map<FieldId, @Nullable String[]> both = new LinkedHashMap<>();
    for (FieldId field : fields) {
      @Nullable String[] column = Arrays.copyOf(column(field), count + other.count);
      System.arraycopy(other.column(field), 0, column, count, other.count);
      both.put(field, column);
    }
    return new Rows(count + other.count, both);
  }

  /** The same rows where so many from a place on gave way to others. */
  public Rows spliced(int place, int gone, Rows others) {
    int length = count - gone + others.count;
    Map<FieldId, @Nullable String[]> changed = new LinkedHashMap<>();
    for (FieldId field : fieldsOfBoth(others)) {
      @Nullable String[] from = column(field);
      @Nullable String[] column = Arrays.copyOf(from, length);
      System.arraycopy(others.column(field), 0, column, place, others.count);
      System.arraycopy(from, place + gone, column, place + others.count, count - place - gone);
      changed.put(field, column);
    }
    return new Rows(length, changed);
  }

  /** The same rows without some, given by their places from 0. */
  public Rows without(Set<Integer> gone) {
    int[] kept = IntStream.range(0, count).filter(row -> !gone.contains(row)).toArray();
    Map<FieldId, @Nullable String[]> fewer = new LinkedHashMap<>();
    columns.forEach(
        (field, column) -> {
          @Nullable String[] cells = new String[kept.length];
          Arrays.setAll(cells, i -> column[kept[i]]);
          fewer.put(field, cells);
        });
    return new Rows(kept.length, fewer);
  }

  /** As many rows with that field alone. */
  public Rows only(FieldId field) {
    @Nullable String[] column = columns.get(field);
    return new Rows(count, column == null ? Map.of() : Map.of(field, column));
  }

  /** The same rows with other ids for their fields. */
  public Rows under(UnaryOperator<FieldId> other) {
    Map<FieldId, @Nullable String[]> renamed = new LinkedHashMap<>();
    columns.forEach((field, column) -> renamed.put(other.apply(field), column));
    return new Rows(count, renamed);
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
    return new Rows(count, kept);
  }

  /** The same rows with one cell changed. */
  public Rows withCell(int row, FieldId field, Optional<String> text) {
    @Nullable String[] column = columns.get(field);
    @Nullable String[] changed = column == null ? new String[count] : column.clone();
    changed[row] = kept(text.orElse(null));
    return withColumn(field, changed);
  }

  /** The same rows with one more at the end; fields not named are NULL. */
  public Rows withRow(Map<FieldId, String> cells) {
    Map<FieldId, @Nullable String[]> longer = new LinkedHashMap<>();
    columns.forEach((field, column) -> longer.put(field, Arrays.copyOf(column, count + 1)));
    cells.forEach(
        (field, text) ->
            longer.computeIfAbsent(field, f -> new String[count + 1])[count] = kept(text));
    return new Rows(count + 1, longer);
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
