package joiner.audit;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.naming.Counts;

/** Pieces that messages of several audits share. */
final class Sentences {
  private Sentences() {}

  /**
   * "Row 3", "Rows 3 and 7", "Rows 3, 7 and 12", "5 rows (3, 7, 12, …)".
   *
   * @param rows the first of them, three at least where there are so many
   * @param count how many there are
   */
  static String rows(List<Integer> rows, long count) {
    if (rows.size() == 1) {
      return "Row " + Counts.of(rows.getFirst());
    }
    if (rows.size() > 3) {
      return Counts.of(count)
          + " rows ("
          + rows.stream().limit(3).map(Counts::of).collect(Collectors.joining(", "))
          + ", …)";
    }
    String head =
        rows.subList(0, rows.size() - 1).stream().map(Counts::of).collect(Collectors.joining(", "));
    return "Rows " + head + " and " + Counts.of(rows.getLast());
  }

  /** Values in quotes, joined. */
  static String quoted(List<Value> values) {
    return values.stream()
        .map(value -> "“" + Evaluator.show(value) + "”")
        .collect(Collectors.joining(", "));
  }

  /** Values as they are compared when slips are looked for: texts without outer blanks and case. */
  static List<Value> folded(List<Value> values) {
    return values.stream().map(Sentences::folded).toList();
  }

  /** A text without outer blanks and case. */
  static String folded(String text) {
    return text.strip().toLowerCase(Locale.ROOT);
  }

  private static Value folded(Value value) {
    return value instanceof Value.Text(String text) ? new Value.Text(folded(text)) : value;
  }
}
