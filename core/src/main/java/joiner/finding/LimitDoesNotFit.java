package joiner.finding;

import java.util.ArrayList;
import java.util.List;
import joiner.edit.ChangeField;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Limits;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/** Bounds and lists of allowed values are values their field can be compared with. */
final class LimitDoesNotFit extends FieldCheck {
  LimitDoesNotFit() {
    super("limit-does-not-fit", Severity.ERROR, Topic.GUARD);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    for (String text : texts(field.limits())) {
      if (ValueReader.bound(text, field.type()) instanceof ReadValue.Unfit unfit) {
        report.found(
            "The limit “"
                + text
                + "” of "
                + field.label()
                + " does not fit: "
                + unfit.expected()
                + " was expected.",
            "No value can be compared with it, so the database would refuse the table.",
            new Remedy(
                "Remove the limit",
                ChangeField.limits(meaning.table(), field, without(field.limits(), text))));
      }
    }
  }

  private static List<String> texts(Limits limits) {
    var texts = new ArrayList<String>();
    limits.minimum().ifPresent(texts::add);
    limits.maximum().ifPresent(texts::add);
    limits.above().ifPresent(texts::add);
    limits.below().ifPresent(texts::add);
    texts.addAll(limits.allowed());
    return texts.stream().distinct().toList();
  }

  private static Limits without(Limits limits, String text) {
    return new Limits(
        limits.minimum().filter(t -> !t.equals(text)),
        limits.maximum().filter(t -> !t.equals(text)),
        limits.above().filter(t -> !t.equals(text)),
        limits.below().filter(t -> !t.equals(text)),
        limits.pattern(),
        limits.minLength(),
        limits.allowed().stream().filter(t -> !t.equals(text)).toList());
  }
}
