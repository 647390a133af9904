package joiner.discovery;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import joiner.dependency.AttributeSet;
import joiner.discovery.FoundInclusion.Reading;
import joiner.rows.EncodedColumn;
import joiner.rows.EncodedTable;

/**
 * Finds which columns hold only values of which others, across tables. All pairs of single columns
 * are decided at once by going through the different values, each with the columns it occurs in
 * (Fabien De Marchi, Stéphane Lopes, Jean-Marc Petit, "Unary and n-ary inclusion dependency
 * discovery in relational databases", 2009); time grows with the different values times the columns
 * each occurs in. For keys of several columns the combinations of single ones are tried.
 *
 * <p>Where nearly all rows match a key, and where they match after blanks or case are taken away,
 * that is found too and said.
 *
 * @param least share of rows that must match where some do not
 * @param stop asked often; once true the search ends with what it has
 */
public record InclusionSearch(double least, BooleanSupplier stop) {
  /** Columns in the widest key tried. */
  private static final int WIDEST = 3;

  private static final int ORPHANS = 10;

  /** A search that reports near misses from nine rows in ten. */
  public static InclusionSearch usual() {
    return new InclusionSearch(0.9, () -> false);
  }

  /** A column of one of the tables. */
  private record Place(int table, int column) {}

  /** Different values of a column with their rows. */
  private record Values(Place place, Map<String, Integer> counts, long rows, boolean unique) {}

  /** All inclusions between columns of the tables, exact ones first. */
  public List<FoundInclusion> search(List<EncodedTable> tables) {
    var found = new ArrayList<FoundInclusion>();
    Set<List<Place>> told = new HashSet<>();
    for (Reading reading : Reading.values()) {
      for (FoundInclusion inclusion : single(tables, reading)) {
        var pair =
            List.of(
                new Place(inclusion.fromTable(), inclusion.from().getFirst()),
                new Place(inclusion.inTable(), inclusion.in().getFirst()));
        if (told.add(pair)) {
          found.add(inclusion);
        } else if (reading != Reading.EXACT && inclusion.missing() == 0) {
          found.removeIf(earlier -> earlier.missing() > 0 && samePair(earlier, inclusion));
          if (found.stream().noneMatch(earlier -> samePair(earlier, inclusion))) {
            found.add(inclusion);
          }
        }
      }
    }
    found.addAll(composite(tables, found));
    found.sort(
        Comparator.comparing((FoundInclusion i) -> i.missing() > 0)
            .thenComparing(FoundInclusion::as)
            .thenComparing(FoundInclusion::fromTable)
            .thenComparing(i -> i.from().toString())
            .thenComparing(FoundInclusion::inTable)
            .thenComparing(i -> i.in().toString()));
    return found;
  }

  private static boolean samePair(FoundInclusion one, FoundInclusion other) {
    return one.fromTable() == other.fromTable()
        && one.inTable() == other.inTable()
        && one.from().equals(other.from())
        && one.in().equals(other.in());
  }

  private static String read(String text, Reading reading) {
    return switch (reading) {
      case EXACT -> text;
      case TRIMMED -> text.strip();
      case FOLDED -> text.strip().toLowerCase(Locale.ROOT);
    };
  }

  private List<FoundInclusion> single(List<EncodedTable> tables, Reading reading) {
    List<Values> columns = new ArrayList<>();
    for (int table = 0; table < tables.size(); table++) {
      for (int column = 0; column < tables.get(table).columns().size(); column++) {
        columns.add(values(tables.get(table), new Place(table, column), reading));
      }
    }
    Map<String, List<Integer>> occurs = new HashMap<>();
    for (int i = 0; i < columns.size(); i++) {
      for (String value : columns.get(i).counts().keySet()) {
        occurs.computeIfAbsent(value, v -> new ArrayList<>(2)).add(i);
      }
    }
    var found = new ArrayList<FoundInclusion>();
    for (int from = 0; from < columns.size() && !stop.getAsBoolean(); from++) {
      long[] matches = matches(columns.get(from), occurs, columns.size());
      for (int in = 0; in < columns.size(); in++) {
        if (in != from && worth(columns.get(from), columns.get(in), matches[in], reading)) {
          found.add(inclusion(columns.get(from), columns.get(in), matches[in], reading));
        }
      }
    }
    return found;
  }

  /** For each column how many rows of the first have a value that occurs in it. */
  private static long[] matches(Values from, Map<String, List<Integer>> occurs, int columns) {
    long[] matches = new long[columns];
    from.counts()
        .forEach(
            (value, rows) -> {
              for (int column : occurs.get(value)) {
                matches[column] += rows;
              }
            });
    return matches;
  }

  /** All exact ones; others only where the values could be referred to. */
  private boolean worth(Values from, Values in, long matches, Reading reading) {
    if (from.rows() == 0) {
      return false;
    }
    if (matches == from.rows()) {
      return reading == Reading.EXACT || in.unique();
    }
    return in.unique() && from.counts().size() > 1 && matches >= least * from.rows();
  }

  private static FoundInclusion inclusion(Values from, Values in, long matches, Reading reading) {
    List<String> orphans =
        matches == from.rows()
            ? List.of()
            : from.counts().keySet().stream()
                .filter(value -> !in.counts().containsKey(value))
                .sorted()
                .limit(ORPHANS)
                .toList();
    return new FoundInclusion(
        from.place().table(),
        List.of(from.place().column()),
        in.place().table(),
        List.of(in.place().column()),
        from.rows(),
        from.rows() - matches,
        orphans,
        reading,
        in.unique());
  }

  private static Values values(EncodedTable table, Place place, Reading reading) {
    EncodedColumn column = table.columns().get(place.column());
    int[] counts = column.counts();
    Map<String, Integer> values = new HashMap<>();
    long rows = 0;
    for (int code = 1; code < counts.length; code++) {
      if (counts[code] > 0) {
        values.merge(read(column.textOf(code), reading), counts[code], Integer::sum);
        rows += counts[code];
      }
    }
    values.remove("");
    return new Values(place, values, rows, rows > 0 && values.size() == rows);
  }

  /** From which columns of a table a column of another one is reached. */
  private record Reach(int from, int in, int column) {}

  /** Combinations of single inclusions that reach a whole key of several columns. */
  private List<FoundInclusion> composite(List<EncodedTable> tables, List<FoundInclusion> single) {
    Map<Reach, List<Integer>> reached = new HashMap<>();
    for (FoundInclusion i : single) {
      if (i.as() == Reading.EXACT) {
        reached
            .computeIfAbsent(
                new Reach(i.fromTable(), i.inTable(), i.in().getFirst()), r -> new ArrayList<>())
            .add(i.from().getFirst());
      }
    }
    var found = new ArrayList<FoundInclusion>();
    for (int in = 0; in < tables.size(); in++) {
      FoundDependencies keys = new DependencySearch(true, WIDEST, stop).exactKeys(tables.get(in));
      for (AttributeSet key : keys.keys()) {
        if (key.size() > 1) {
          combine(tables, in, key.places().toArray(), reached, found);
        }
      }
    }
    return found;
  }

  private void combine(
      List<EncodedTable> tables,
      int in,
      int[] key,
      Map<Reach, List<Integer>> reached,
      List<FoundInclusion> found) {
    List<Integer> places = java.util.Arrays.stream(key).boxed().toList();
    Set<List<String>> there = new HashSet<>();
    for (int from = 0; from < tables.size() && !stop.getAsBoolean(); from++) {
      List<List<Integer>> combinations = from == in ? List.of() : List.of(List.of());
      for (int column : key) {
        combinations =
            longer(combinations, reached.getOrDefault(new Reach(from, in, column), List.of()));
      }
      if (!combinations.isEmpty() && there.isEmpty()) {
        for (int row = 0; row < tables.get(in).rows(); row++) {
          there.add(tuple(tables.get(in), row, places));
        }
      }
      for (List<Integer> columns : combinations) {
        tuples(tables.get(from), from, columns, in, places, there).ifPresent(found::add);
      }
    }
  }

  /** Each combination with each of the columns behind it that it has not yet. */
  private static List<List<Integer>> longer(
      List<List<Integer>> combinations, List<Integer> columns) {
    var longer = new ArrayList<List<Integer>>();
    for (List<Integer> chosen : combinations) {
      for (int column : columns) {
        if (!chosen.contains(column)) {
          var next = new ArrayList<>(chosen);
          next.add(column);
          longer.add(next);
        }
      }
    }
    return longer;
  }

  /** Compares tuples until too many are missing. */
  private Optional<FoundInclusion> tuples(
      EncodedTable source,
      int from,
      List<Integer> columns,
      int in,
      List<Integer> key,
      Set<List<String>> there) {
    long most = source.rows() - (long) Math.ceil(least * source.rows());
    long rows = 0;
    long missing = 0;
    var orphans = new ArrayList<String>();
    for (int row = 0; row < source.rows() && missing <= most; row++) {
      List<String> tuple = tuple(source, row, columns);
      if (tuple.stream().noneMatch(String::isEmpty)) {
        rows++;
        if (!there.contains(tuple)) {
          missing++;
          if (orphans.size() < ORPHANS) {
            orphans.add(String.join(", ", tuple));
          }
        }
      }
    }
    return rows == 0 || rows - missing < least * rows
        ? Optional.empty()
        : Optional.of(
            new FoundInclusion(
                from, columns, in, key, rows, missing, orphans, Reading.EXACT, true));
  }

  private static List<String> tuple(EncodedTable table, int row, List<Integer> columns) {
    var tuple = new ArrayList<String>(columns.size());
    for (int column : columns) {
      tuple.add(table.text(row, column));
    }
    return tuple;
  }
}
