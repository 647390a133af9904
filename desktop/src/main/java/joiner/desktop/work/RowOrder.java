package joiner.desktop.work;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.UnaryOperator;
import joiner.expression.Value;
import joiner.meaning.ParentRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Listing.By;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.SeenText;
import joiner.rows.ValueReader;

/**
 * Which rows are shown, and in which order.
 *
 * @param words each of them stands in some cell of a row that is shown, in whatever case
 * @param sorts what rows are ordered by, the first first; what is no value of a field and then what
 *     is empty comes last, and what is alike stands as it was entered
 */
public record RowOrder(List<String> words, List<By> sorts) {
  /** All rows, as they were entered. */
  public static final RowOrder AS_ENTERED = new RowOrder(List.of(), List.of());

  /** How often it is asked whether to go on. */
  private static final int STRETCH = 2_000;

  public RowOrder {
    words = List.copyOf(words);
    sorts = List.copyOf(sorts);
  }

  /** The same for rows that hold the words of a text. */
  public RowOrder withFilter(String text) {
    List<String> split =
        Arrays.stream(text.strip().split("\\s+"))
            .filter(w -> !w.isEmpty())
            .map(RowOrder::folded)
            .toList();
    return new RowOrder(split, sorts);
  }

  /** The same in another order. */
  public RowOrder withSorts(List<By> others) {
    return new RowOrder(words, others);
  }

  /**
   * Places of the rows that are shown, from 0, in their order; linear in cells, and in rows times
   * their logarithm where they are sorted. None where it is not to go on.
   *
   * @param parents of fields that refer to rows, those rows: people look for what they read
   */
  public List<Integer> of(
      Rows rows, List<Field> fields, Map<FieldId, ParentRows> parents, BooleanSupplier goesOn) {
    var read = new Read(rows, parents, SeenText.of(fields));
    var places = new ArrayList<Integer>();
    for (int row = 0; row < rows.count(); row++) {
      if (row % STRETCH == 0 && !goesOn.getAsBoolean()) {
        return List.of();
      }
      if (holds(read, fields, row)) {
        places.add(row);
      }
    }
    for (By sort : sorts.reversed()) {
      Optional<Field> field = fields.stream().filter(f -> f.id().equals(sort.field())).findFirst();
      if (field.isPresent() && goesOn.getAsBoolean()) {
        places.sort(comparing(keys(read, field.get(), places), sort.descending()));
      }
    }
    return places;
  }

  private boolean holds(Read rows, List<Field> fields, int row) {
    return words.stream()
        .allMatch(word -> fields.stream().anyMatch(f -> rows.holds(row, f.id(), word)));
  }

  /** Rows as people read them. */
  private record Read(
      Rows rows, Map<FieldId, ParentRows> parents, Map<FieldId, UnaryOperator<String>> seen) {
    Optional<String> label(int row, FieldId field) {
      return Optional.ofNullable(parents.get(field))
          .flatMap(of -> of.find(rows, row))
          .map(ParentRows.Parent::label);
    }

    boolean holds(int row, FieldId field, String word) {
      UnaryOperator<String> as = seen.getOrDefault(field, text -> text);
      return rows.cell(row, field).map(as).filter(t -> folded(t).contains(word)).isPresent()
          || label(row, field).filter(text -> folded(text).contains(word)).isPresent();
    }
  }

  private static String folded(String text) {
    return text.toLowerCase(Locale.ROOT);
  }

  /**
   * What a cell is ordered by.
   *
   * @param group 0 for values, 1 for what is none, 2 for nothing
   */
  private record Key(int group, Comparable<?> value) {}

  /** By row; only of those that are shown. */
  private static Key[] keys(Read read, Field field, List<Integer> places) {
    var keys = new Key[read.rows.count()];
    for (int row : places) {
      keys[row] = key(read, row, field);
    }
    return keys;
  }

  /** Of a reference what leads nowhere comes after what leads somewhere. */
  private static Key key(Read read, int row, Field field) {
    Optional<String> text = read.rows.cell(row, field.id());
    if (text.isEmpty()) {
      return new Key(2, "");
    }
    return read.parents.containsKey(field.id())
        ? read.label(row, field.id())
            .map(label -> new Key(0, folded(label)))
            .orElseGet(() -> new Key(1, text.get()))
        : key(text.get(), field.type());
  }

  private static Key key(String text, FieldType type) {
    if (type instanceof FieldType.Choice choice) {
      int place = choice.values().indexOf(text);
      return place < 0 ? new Key(1, text) : new Key(0, place);
    }
    return ValueReader.read(text, type) instanceof ReadValue.Fits fits
        ? new Key(0, comparable(fits.value()))
        : new Key(1, text);
  }

  private static Comparable<?> comparable(Value value) {
    return switch (value) {
      case Value.Text v -> folded(v.text());
      case Value.Num v -> v.number();
      case Value.Bool v -> v.truth();
      case Value.Date v -> v.date();
      case Value.Time v -> v.time();
      case Value.DateTime v -> v.at();
      case Value.Zoned v -> v.at().toInstant();
      case Value.Bytes v -> BigDecimal.valueOf(v.count());
      case Value.Interval v -> BigDecimal.ZERO; // No field holds one.
      case Value.Null v -> "";
    };
  }

  /** Only values turn round; what is none stays last. */
  private static Comparator<Integer> comparing(Key[] keys, boolean descending) {
    return (left, right) -> {
      Key one = keys[left];
      Key other = keys[right];
      if (one.group != other.group) {
        return Integer.compare(one.group, other.group);
      }
      int order = compare(one.value, other.value);
      return descending && one.group == 0 ? -order : order;
    };
  }

  /** Both are of one type, for they are of one group of one field. */
  @SuppressWarnings("unchecked")
  private static <T extends Comparable<T>> int compare(Comparable<?> left, Comparable<?> right) {
    return ((T) left).compareTo((T) right);
  }
}
