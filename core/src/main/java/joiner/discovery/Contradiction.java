package joiner.discovery;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import joiner.dependency.AttributeSet;
import joiner.rows.EncodedTable;

/**
 * Rows that agree in a determinant and differ in what it should decide.
 *
 * @param determinant the texts they agree in, in the order of the columns
 * @param values the different texts, the one of most rows first, then the one seen first
 */
public record Contradiction(List<String> determinant, List<Value> values) {
  public Contradiction {
    determinant = List.copyOf(determinant);
    values = List.copyOf(values);
  }

  /**
   * One of the texts.
   *
   * @param rows the rows that have it, from 0
   */
  public record Value(String text, List<Integer> rows) {
    public Value {
      rows = List.copyOf(rows);
    }
  }

  /** All contradictions of a dependency, in the order of the rows; linear in the rows. */
  public static List<Contradiction> of(
      EncodedTable table, AttributeSet determinant, int dependent) {
    int[] columns = determinant.places().toArray();
    Map<List<Integer>, Map<Integer, List<Integer>>> groups = new LinkedHashMap<>();
    for (int row = 0; row < table.rows(); row++) {
      var key = new ArrayList<Integer>(columns.length);
      for (int column : columns) {
        key.add(table.columns().get(column).code(row));
      }
      groups
          .computeIfAbsent(key, k -> new LinkedHashMap<>(2))
          .computeIfAbsent(table.columns().get(dependent).code(row), c -> new ArrayList<>())
          .add(row);
    }
    return groups.entrySet().stream()
        .filter(group -> group.getValue().size() > 1)
        .map(group -> of(table, columns, dependent, group.getKey(), group.getValue()))
        .toList();
  }

  private static Contradiction of(
      EncodedTable table,
      int[] columns,
      int dependent,
      List<Integer> key,
      Map<Integer, List<Integer>> rowsByCode) {
    var texts = new ArrayList<String>();
    for (int i = 0; i < columns.length; i++) {
      texts.add(table.columns().get(columns[i]).textOf(key.get(i)));
    }
    var values = new ArrayList<Value>();
    rowsByCode.forEach(
        (code, rows) -> values.add(new Value(table.columns().get(dependent).textOf(code), rows)));
    values.sort(Comparator.comparingInt((Value value) -> value.rows().size()).reversed());
    return new Contradiction(texts, values);
  }

  /** Rows that differ from the most frequent text. */
  public List<Integer> minority() {
    return values.stream().skip(1).flatMap(value -> value.rows().stream()).sorted().toList();
  }
}
