package joiner.meaning;

import java.time.Clock;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.SeenText;

/**
 * The text by which people recognise a row: the table's row label, or its key where it has none.
 */
public final class RowLabels {
  private final Table table;
  private final Rows rows;
  private final FormulaRows values;
  private final Optional<Checked> label;
  private final Evaluator evaluator;
  private final Map<FieldId, UnaryOperator<String>> seen;

  /**
   * Labels of the rows of a table.
   *
   * @param values the rows of its design
   */
  public RowLabels(TableMeaning meaning, FormulaRows values, Clock clock) {
    this.table = meaning.table();
    this.rows = values.of(table.id()).rows();
    this.values = values;
    this.evaluator = new Evaluator(clock);
    this.label = meaning.rowLabel();
    this.seen = SeenText.of(table.fields());
  }

  /**
   * Rows whose label another has too.
   *
   * @param rows how many there are
   * @param often the label that most of them have; empty where there are none
   */
  public record Shared(int rows, String often) {}

  /** Which of the first rows have no label of their own. */
  public Shared shared(int first) {
    Map<String, Integer> times = new HashMap<>();
    int compared = Math.min(first, rows.count());
    for (int row = 0; row < compared; row++) {
      times.merge(of(row), 1, Integer::sum);
    }
    times.values().removeIf(n -> n == 1);
    String often =
        times.entrySet().stream()
            .max(Map.Entry.<String, Integer>comparingByValue().thenComparing(Map.Entry::getKey))
            .map(Map.Entry::getKey)
            .orElse("");
    return new Shared(times.values().stream().mapToInt(n -> n).sum(), often);
  }

  /** The label of one row, from 0; never blank. */
  public String of(int row) {
    String text = label.map(formula -> evaluate(formula, row)).orElse("");
    return text.isBlank() ? byKey(row) : text;
  }

  private String evaluate(Checked formula, int row) {
    return switch (formula) {
      case Checked.Faulty faulty -> "";
      case Checked.Sound sound -> evaluate(sound, row);
    };
  }

  private String evaluate(Checked.Sound sound, int row) {
    Function<Reference, Value> kept = values.row(table.id(), row);
    try {
      return Evaluator.show(evaluator.evaluate(sound.tree(), read -> seen(read, kept.apply(read))));
    } catch (EvaluationException e) {
      return "";
    }
  }

  /** A value of the row as people see it. */
  private Value seen(Reference read, Value value) {
    return value instanceof Value.Text(String text)
            && read instanceof OwnField own
            && seen.containsKey(own.field())
        ? new Value.Text(as(own.field()).apply(text))
        : value;
  }

  private String byKey(int row) {
    String key =
        table.primaryKey().stream()
            .map(field -> rows.cell(row, field).map(as(field)).orElse(""))
            .collect(Collectors.joining(" · "));
    return key.isBlank() ? "row " + (row + 1) : key;
  }

  private UnaryOperator<String> as(FieldId field) {
    return seen.getOrDefault(field, UnaryOperator.identity());
  }
}
