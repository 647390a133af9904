package joiner.finding;

import java.util.Optional;
import java.util.function.Consumer;
import joiner.edit.ChangeField;
import joiner.expression.Formula;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;

/** A default is a value of its field. */
final class DefaultDoesNotFit implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("default-does-not-fit", Severity.ERROR, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    for (Field field : table.fields()) {
      Optional<String> misfit =
          meaning
              .defaultOf(field.id())
              .flatMap(given -> DefaultFit.misfit(field, meaning.constraintsOf(field.id()), given));
      misfit.ifPresent(
          reason ->
              found.accept(
                  FINDING.about(
                      table,
                      field,
                      "The default "
                          + field.defaultValue().map(Formula::text).orElse("")
                          + " of "
                          + field.label()
                          + " does not fit: "
                          + reason,
                      "Every row that leaves the field out would be refused.",
                      new Remedy(
                          "Remove the default",
                          ChangeField.defaultValue(table, field, Optional.empty())))));
    }
  }
}
