package joiner.finding;

import java.util.function.Consumer;
import joiner.expression.Checked;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.shape.TextPattern;

/** Every rule, pattern and row label can be read and computed. */
final class FaultyExpression implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("faulty-expression", Severity.ERROR, Topic.GUARD);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    for (Constraint.Holds meant : meaning.rules()) {
      if (meant.condition() instanceof Checked.Faulty faulty) {
        found.accept(
            FINDING.about(
                table,
                "The rule "
                    + meant.rule().label()
                    + " of "
                    + table.label()
                    + " cannot be used: "
                    + faulty.problems().getFirst().message(),
                "A rule that cannot be read guards nothing."));
      }
    }
    for (Field field : table.fields()) {
      field
          .limits()
          .pattern()
          .map(TextPattern::of)
          .filter(TextPattern.Read.Refused.class::isInstance)
          .map(TextPattern.Read.Refused.class::cast)
          .ifPresent(
              refused ->
                  found.accept(
                      FINDING.about(
                          table,
                          field,
                          "The pattern of " + field.label() + " cannot be used: " + refused.why(),
                          "A pattern that cannot be read guards nothing.")));
    }
    meaning
        .rowLabel()
        .filter(Checked.Faulty.class::isInstance)
        .map(Checked.Faulty.class::cast)
        .ifPresent(
            faulty ->
                found.accept(
                    FINDING.about(
                        table,
                        "The row label of "
                            + table.label()
                            + " cannot be used: "
                            + faulty.problems().getFirst().message(),
                        "Where its rows are named, people would see a bare key.")));
  }
}
