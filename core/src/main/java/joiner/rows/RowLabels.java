package joiner.rows;

import java.time.Clock;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.RuleLanguage;
import joiner.expression.Value;
import joiner.model.Table;

/**
 * The text by which people recognise a row: the table's row label, or its key where it has none.
 */
public final class RowLabels {
  private final Table table;
  private final Rows rows;
  private final RowValues values;
  private final Optional<Checked.Sound> label;
  private final Evaluator evaluator;

  /** Labels of those rows. */
  public RowLabels(Table table, Rows rows, Clock clock) {
    this.table = table;
    this.rows = rows;
    this.values = new RowValues(table, rows);
    this.evaluator = new Evaluator(clock);
    this.label =
        table
            .rowLabel()
            .map(text -> RuleLanguage.value(text, table))
            .filter(Checked.Sound.class::isInstance)
            .map(Checked.Sound.class::cast);
  }

  /** The label of one row, from 0; never blank. */
  public String of(int row) {
    return label
        .map(sound -> evaluate(sound, row))
        .filter(text -> !text.isBlank())
        .orElseGet(() -> byKey(row));
  }

  private String evaluate(Checked.Sound sound, int row) {
    try {
      Value value = evaluator.evaluate(sound.tree(), values.row(row));
      return Evaluator.show(value);
    } catch (EvaluationException e) {
      return "";
    }
  }

  private String byKey(int row) {
    String key =
        table.primaryKey().stream()
            .map(field -> rows.cell(row, field).orElse(""))
            .collect(Collectors.joining(" · "));
    return key.isBlank() ? "row " + (row + 1) : key;
  }
}
