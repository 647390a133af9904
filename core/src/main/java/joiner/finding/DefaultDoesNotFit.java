package joiner.finding;

import java.util.Optional;
import joiner.edit.ChangeField;
import joiner.expression.Formula;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.rows.Rows;

/** A default is a value of its field. */
final class DefaultDoesNotFit extends FieldCheck {
  DefaultDoesNotFit() {
    super("default-does-not-fit", Severity.ERROR, Topic.SHAPE);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    meaning
        .defaultOf(field.id())
        .flatMap(given -> DefaultFit.misfit(field, meaning.constraintsOf(field.id()), given))
        .ifPresent(
            reason ->
                report.found(
                    "The default "
                        + field.defaultValue().map(Formula::text).orElse("")
                        + " of "
                        + field.label()
                        + " does not fit: "
                        + reason,
                    "Every row that leaves the field out would be refused.",
                    new Remedy(
                        "Remove the default",
                        ChangeField.defaultValue(meaning.table(), field, Optional.empty()))));
  }
}
