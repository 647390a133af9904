package joiner.discovery;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.rows.EncodedColumn;
import joiner.rows.EncodedTable;

/**
 * Finds columns that are one list laid out side by side: the same name with a number behind it.
 * Columns of different names with the same numbers, filled in the same rows, repeat together.
 */
final class RepeatedColumns {
  private static final Pattern NUMBERED =
      Pattern.compile("(.*?\\p{L}.*?)[\\s_\\-.#(]*(\\d{1,3})\\)?");

  private RepeatedColumns() {}

  static List<Fact.Repeats> find(
      EncodedTable table, List<ColumnProfile> profiles, FactNames names) {
    Map<String, TreeMap<Integer, Integer>> numbered = new LinkedHashMap<>();
    Map<String, String> labels = new HashMap<>();
    for (int column = 0; column < table.columns().size(); column++) {
      Matcher matcher = NUMBERED.matcher(names.header(column).strip());
      if (matcher.matches()) {
        String key = matcher.group(1).strip().toLowerCase(Locale.ROOT);
        labels.putIfAbsent(key, matcher.group(1).strip());
        numbered
            .computeIfAbsent(key, k -> new TreeMap<>())
            .putIfAbsent(Integer.parseInt(matcher.group(2)), column);
      }
    }
    List<Fact.Repeats.Base> bases = new ArrayList<>();
    numbered.forEach(
        (key, columns) -> {
          if (consecutive(columns) && sameKind(columns, profiles)) {
            bases.add(new Fact.Repeats.Base(labels.get(key), List.copyOf(columns.values())));
          }
        });
    return together(table, bases, names);
  }

  private static boolean consecutive(TreeMap<Integer, Integer> columns) {
    int first = columns.firstKey();
    return columns.size() >= 2 && first <= 1 && columns.lastKey() - first == columns.size() - 1;
  }

  private static boolean sameKind(TreeMap<Integer, Integer> columns, List<ColumnProfile> profiles) {
    return columns.values().stream()
            .map(profiles::get)
            .filter(profile -> profile.blank() < profile.rows())
            .map(profile -> profile.type().getClass())
            .distinct()
            .count()
        <= 1;
  }

  private static List<Fact.Repeats> together(
      EncodedTable table, List<Fact.Repeats.Base> bases, FactNames names) {
    var facts = new ArrayList<Fact.Repeats>();
    Set<Fact.Repeats.Base> done = new HashSet<>();
    for (Fact.Repeats.Base base : bases) {
      if (done.add(base)) {
        var group = new ArrayList<>(List.of(base));
        for (Fact.Repeats.Base other : bases) {
          if (!done.contains(other) && filledTogether(table, base, other)) {
            done.add(other);
            group.add(other);
          }
        }
        facts.add(fact(table, group, names));
      }
    }
    return facts;
  }

  private static boolean filledTogether(
      EncodedTable table, Fact.Repeats.Base one, Fact.Repeats.Base other) {
    if (one.columns().size() != other.columns().size()) {
      return false;
    }
    long same = 0;
    for (int i = 0; i < one.columns().size(); i++) {
      EncodedColumn a = table.columns().get(one.columns().get(i));
      EncodedColumn b = table.columns().get(other.columns().get(i));
      for (int row = 0; row < table.rows(); row++) {
        same +=
            (a.code(row) == EncodedColumn.EMPTY) == (b.code(row) == EncodedColumn.EMPTY) ? 1 : 0;
      }
    }
    return same >= 0.95 * table.rows() * one.columns().size();
  }

  private static Fact.Repeats fact(
      EncodedTable table, List<Fact.Repeats.Base> bases, FactNames names) {
    Fact.Repeats.Base base = bases.getFirst();
    double shared = shared(table, base);
    long uses = 0;
    for (int column : base.columns()) {
      uses += table.rows() - table.columns().get(column).counts()[EncodedColumn.EMPTY];
    }
    var reasons = new ArrayList<String>();
    reasons.add(base.columns().size() + " numbered columns hold " + uses + " values in all");
    reasons.add(Math.round(100 * shared) + " % of their values occur in more than one of them");
    if (bases.size() > 1) {
      reasons.add(
          "filled in the same rows as "
              + String.join(", ", bases.stream().skip(1).map(Fact.Repeats.Base::label).toList()));
    }
    return new Fact.Repeats(
        names.of(base.columns().getFirst()).replaceAll("_?\\d+$", "") + ".repeats",
        0.65 + 0.3 * shared,
        reasons,
        bases);
  }

  /** The share of different values that occur in two columns and more. */
  private static double shared(EncodedTable table, Fact.Repeats.Base base) {
    Map<String, Integer> columnsOf = new HashMap<>();
    for (int place : base.columns()) {
      EncodedColumn column = table.columns().get(place);
      for (int code = 1; code < column.codes(); code++) {
        columnsOf.merge(column.textOf(code), 1, Integer::sum);
      }
    }
    long both = columnsOf.values().stream().filter(count -> count > 1).count();
    return columnsOf.isEmpty() ? 0 : (double) both / columnsOf.size();
  }
}
