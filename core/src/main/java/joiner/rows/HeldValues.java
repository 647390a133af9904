package joiner.rows;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldType;

/**
 * What the cells of one field hold.
 *
 * @param rows how many cells there are
 * @param blank how many of them hold nothing
 * @param unfit how many hold what is no value of the field's type
 * @param different how many different texts there are
 * @param longest code points of the longest text
 * @param range the least and the greatest value, where values have an order people care for
 * @param frequent the texts that occur most, most frequent first, equals by code points; at most
 *     {@link #NAMED}
 */
public record HeldValues(
    int rows,
    int blank,
    int unfit,
    int different,
    int longest,
    Optional<Range> range,
    List<Frequent> frequent) {
  /** So many frequent texts are named. */
  public static final int NAMED = 3;

  private static final int A_LOOK = 4096;

  public HeldValues {
    frequent = List.copyOf(frequent);
  }

  /** The ends of the values, each as its cell says it. */
  public record Range(String least, String greatest) {}

  /** A text, and in how many cells it stands. */
  public record Frequent(String text, int count) {}

  /**
   * Looks through the cells of a field; linear in rows.
   *
   * @param goOn asked now and then; the first no ends it, with what was seen so far
   */
  public static HeldValues of(Rows rows, Field field, BooleanSupplier goOn) {
    var counting = new Counting(field.type());
    int row = 0;
    while (row < rows.count() && (row % A_LOOK != 0 || goOn.getAsBoolean())) {
      rows.cell(row++, field.id()).ifPresentOrElse(counting::see, counting::seeNothing);
    }
    return counting.seen();
  }

  private static final class Counting {
    private final FieldType type;
    private final boolean ordered;
    private final Map<String, int[]> counts = new HashMap<>();
    private int rows;
    private int blank;
    private Value min = Value.NULL;
    private Value max = Value.NULL;
    private String least = "";
    private String greatest = "";

    Counting(FieldType type) {
      this.type = type;
      this.ordered = type.kind().isOrdered();
    }

    void seeNothing() {
      rows++;
      blank++;
    }

    void see(String text) {
      rows++;
      counts.computeIfAbsent(text, t -> new int[1])[0]++;
    }

    HeldValues seen() {
      int unfit = 0;
      int longest = 0;
      for (Map.Entry<String, int[]> each : counts.entrySet()) {
        String text = each.getKey();
        longest = Math.max(longest, text.codePointCount(0, text.length()));
        switch (ValueReader.read(text, type)) {
          case ReadValue.Unfit no -> unfit += each.getValue()[0];
          case ReadValue.Fits(Value value) -> order(value, text);
        }
      }
      Optional<Range> range =
          least.isEmpty() ? Optional.empty() : Optional.of(new Range(least, greatest));
      return new HeldValues(rows, blank, unfit, counts.size(), longest, range, frequent());
    }

    private void order(Value value, String text) {
      if (!ordered) {
        return;
      }
      if (least.isEmpty() || Evaluator.order(value, min) < 0) {
        min = value;
        least = text;
      }
      if (greatest.isEmpty() || Evaluator.order(value, max) > 0) {
        max = value;
        greatest = text;
      }
    }

    private List<Frequent> frequent() {
      return counts.entrySet().stream()
          .map(each -> new Frequent(each.getKey(), each.getValue()[0]))
          .sorted(Comparator.comparingInt((Frequent f) -> -f.count()).thenComparing(Frequent::text))
          .limit(NAMED)
          .toList();
    }
  }
}
