package joiner.edit;

import java.time.Clock;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.Origin;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.RowId;
import joiner.rows.Rows;

/**
 * Fills the empty cells of one row that hold what a row it refers to says when the row is made.
 *
 * @param clock by which formulas of parents are worked out
 */
public record FillIn(TableId table, RowId row, Clock clock) implements Edit {
  /** Whether a table has such cells. */
  public static boolean isOf(Table table) {
    return table.fields().stream().anyMatch(field -> field.origin() instanceof Origin.Copied);
  }

  @Override
  public String name() {
    return "fill in what a row refers to";
  }

  @Override
  public Draft apply(Draft draft) {
    Rows rows = draft.rows().of(table);
    OptionalInt place = rows.place(row);
    if (place.isEmpty()) {
      return draft;
    }
    var formulas = new FormulaRows(draft, clock);
    Rows filled = rows;
    for (Field field : draft.design().table(table).fields()) {
      if (field.origin() instanceof Origin.Copied copied
          && rows.cell(place.getAsInt(), field.id()).isEmpty()) {
        Optional<FarField> far = draft.meaning().of(table).far(copied.formula());
        Optional<String> text =
            far.flatMap(
                of -> {
                  try {
                    Value value = formulas.row(table, place.getAsInt()).apply(of);
                    return value == Value.NULL
                        ? Optional.empty()
                        : Optional.of(Evaluator.show(value));
                  } catch (EvaluationException e) {
                    return Optional.empty(); // The parent has no such value either.
                  }
                });
        if (text.isPresent()) {
          filled = filled.withCell(place.getAsInt(), field.id(), text);
        }
      }
    }
    Rows now = filled;
    return now == rows ? draft : draft.withRows(draft.rows().with(table, r -> now));
  }
}
