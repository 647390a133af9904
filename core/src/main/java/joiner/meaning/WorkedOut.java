package joiner.meaning;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * What the computed fields of a table's rows hold: what each is worked out as, never what the rows
 * came with. A cell is worked out when it is asked for; where it reads rows of other tables, those
 * are looked up in time linear in them, once. Belongs to one thread.
 */
public final class WorkedOut {
  private final Table table;
  private final TableMeaning meaning;
  private final FormulaRows others;
  private final Evaluator evaluator;

  /**
   * The computed fields of a table.
   *
   * @param others the rows of the draft, of which other tables are read
   */
  public WorkedOut(Draft draft, Table table, FormulaRows others, Clock clock) {
    this.table = table;
    this.meaning = draft.meaning().of(table);
    this.others = others;
    this.evaluator = new Evaluator(clock);
  }

  /** The computed fields of a table of a draft. */
  public static WorkedOut of(Draft draft, Table table, Clock clock) {
    return new WorkedOut(draft, table, new FormulaRows(draft, clock), clock);
  }

  /**
   * The text of a computed field in a row; empty where it has no value or cannot be worked out.
   *
   * @param row its place among {@code rows}, from 0
   */
  public Optional<String> cell(Rows rows, int row, FieldId field) {
    if (!(meaning.computed(field).orElse(null) instanceof Checked.Sound sound)) {
      return Optional.empty();
    }
    Function<Reference, Value> read =
        others.row(id -> ValueReader.valueOrNull(rows.cell(row, id), table.field(id).type()));
    try {
      Value value = evaluator.evaluate(sound.tree(), read);
      return Optional.of(Evaluator.show(value)).filter(text -> !text.isEmpty());
    } catch (EvaluationException e) {
      return Optional.empty();
    }
  }

  /** The same rows with all computed fields worked out; linear in rows times their formulas. */
  public Rows in(Rows rows) {
    Rows worked = rows;
    for (Field field : table.fields()) {
      worked = field.isComputed() ? in(worked, field.id()) : worked;
    }
    return worked;
  }

  /** The same rows with one computed field worked out. */
  public Rows in(Rows rows, FieldId field) {
    List<Optional<String>> cells = new ArrayList<>(rows.count());
    for (int row = 0; row < rows.count(); row++) {
      cells.add(cell(rows, row, field));
    }
    return rows.withColumn(field, cells);
  }
}
