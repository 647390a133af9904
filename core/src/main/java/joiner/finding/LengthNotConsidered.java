package joiner.finding;

import java.util.Set;
import joiner.edit.ChangeField;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;

/** A length of 50, 100, 200 or 255 says nobody thought (common practice, no source). */
final class LengthNotConsidered extends FieldCheck {
  /** Lengths that programs put there when nobody says one. */
  private static final Set<Integer> USUAL = Set.of(50, 100, 200, 250, 255, 256);

  LengthNotConsidered() {
    super("length-not-considered", Severity.ADVICE, Topic.SHAPE);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    if (field.type() instanceof FieldType.Text text && USUAL.contains(text.maxLength())) {
      report(meaning.table(), field, text, longest(rows, field), report);
    }
  }

  private static void report(
      Table table, Field field, FieldType.Text text, int longest, Report report) {
    String why = "A length that fits keeps slips out and tells readers what belongs there.";
    if (longest == 0) {
      report.found(
          named(table, field)
              + " allows "
              + text.maxLength()
              + " characters, a length often left as it came.",
          why);
      return;
    }
    int roomy = FieldType.roomyLength(longest);
    String message =
        named(table, field)
            + " allows "
            + text.maxLength()
            + " characters; the longest seen is "
            + longest
            + ".";
    if (roomy < text.maxLength()) {
      report.found(
          message,
          why,
          new Remedy("Set to " + roomy, ChangeField.type(table, field, new FieldType.Text(roomy))));
    }
  }

  private static int longest(Rows rows, Field field) {
    int longest = 0;
    for (int row = 0; row < rows.count(); row++) {
      longest =
          Math.max(
              longest,
              rows.cell(row, field.id()).map(t -> t.codePointCount(0, t.length())).orElse(0));
    }
    return longest;
  }
}
