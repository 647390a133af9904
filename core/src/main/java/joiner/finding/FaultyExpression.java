package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.SetOrigin;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Origin;
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
    for (Constraint.Ruled meant : meaning.ruled()) {
      meant
          .fault()
          .ifPresent(
              why ->
                  found.accept(
                      FINDING.about(
                          table,
                          unusable("The rule " + meant.rule().label() + " of ", table, why),
                          "A rule that cannot be read guards nothing.")));
    }
    table.fields().forEach(field -> pattern(meaning, field, found));
    table.fields().forEach(field -> copied(meaning, field, found));
    if (meaning.rowLabel().orElse(null) instanceof Checked.Faulty faulty) {
      found.accept(
          FINDING.about(
              table,
              unusable("The row label of ", table, faulty.problems().getFirst().message()),
              "Where its rows are named, people would see a bare key."));
    }
  }

  private static String unusable(String what, Table table, String why) {
    return what + table.label() + " cannot be used: " + why;
  }

  private static void copied(TableMeaning meaning, Field field, Consumer<Finding> found) {
    if (field.origin() instanceof Origin.Copied(Formula formula)
        && meaning.far(formula).isEmpty()) {
      found.accept(
          FINDING.about(
              meaning.table(),
              field,
              field.label()
                  + " is filled from "
                  + formula.text()
                  + ", which is no field of a row that one of "
                  + meaning.table().label()
                  + " refers to.",
              "Nothing fills it in when a row is made.",
              new Remedy("Let people enter it", SetOrigin.entered(meaning.table(), field))));
    }
  }

  private static void pattern(TableMeaning meaning, Field field, Consumer<Finding> found) {
    for (Constraint.OfField constraint : meaning.constraintsOf(field.id())) {
      if (constraint instanceof Constraint.Matching matching
          && matching.read() instanceof TextPattern.Read.Refused refused) {
        found.accept(
            FINDING.about(
                meaning.table(),
                field,
                "The pattern of " + field.label() + " cannot be used: " + refused.why(),
                "A pattern that cannot be read guards nothing."));
      }
    }
  }
}
