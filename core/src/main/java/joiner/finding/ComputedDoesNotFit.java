package joiner.finding;

import joiner.edit.ChangeField;
import joiner.expression.Checked;
import joiner.meaning.ResultType;
import joiner.meaning.TableMeaning;
import joiner.meaning.TypeWords;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.rows.Rows;

/** A computed field has the type and size of what it is worked out as. */
final class ComputedDoesNotFit extends FieldCheck {
  ComputedDoesNotFit() {
    super("computed-does-not-fit", Severity.ERROR, Topic.SHAPE);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    switch (meaning.computed(field.id()).orElse(null)) {
      case Checked.Sound sound -> fit(meaning, field, sound, report);
      case Checked.Faulty faulty ->
          report.found(
              field.label() + " cannot be worked out: " + faulty.problems().getFirst().message(),
              "It has no value in any row until its formula can be read.");
      case null -> {}
    }
  }

  private static void fit(TableMeaning meaning, Field field, Checked.Sound formula, Report report) {
    switch (meaning.resultOf(formula)) {
      case ResultType.Found.None(String why) ->
          report.found(
              field.label() + " is worked out as something no field holds. " + why,
              "No engine could keep it.");
      case ResultType.Found.Type(FieldType result) -> {
        FieldType fitted = ResultType.fitted(field.type(), result);
        if (!fitted.equals(field.type())) {
          report.found(
              field.label()
                  + " is "
                  + TypeWords.of(field.type())
                  + ", and what it is worked out as needs "
                  + TypeWords.of(fitted)
                  + ".",
              "Values would be cut or rounded, by each engine in its way, or refused.",
              new Remedy(
                  "Make it " + TypeWords.of(fitted),
                  ChangeField.type(meaning.table(), field, fitted)));
        }
      }
    }
  }
}
