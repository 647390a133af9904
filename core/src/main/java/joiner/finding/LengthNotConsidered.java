package joiner.finding;

import java.util.Set;
import java.util.function.Consumer;
import joiner.edit.ChangeField;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;

/** A length of 50, 100, 200 or 255 says nobody thought (common practice, no source). */
final class LengthNotConsidered implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("length-not-considered", Severity.ADVICE, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    for (Field field : table.fields()) {
      if (field.type() instanceof FieldType.Text text && USUAL.contains(text.maxLength())) {
        report(table, field, text, longest(rows, field), found);
      }
    }
  }

  /** Lengths that programs put there when nobody says one. */
  private static final Set<Integer> USUAL = Set.of(50, 100, 200, 250, 255, 256);

  private static void report(
      Table table, Field field, FieldType.Text text, int longest, Consumer<Finding> found) {
    String why = "A length that fits keeps slips out and tells readers what belongs there.";
    if (longest == 0) {
      found.accept(
          FINDING.about(
              table,
              field,
              field.label()
                  + " of "
                  + table.label()
                  + " allows "
                  + text.maxLength()
                  + " characters, a length often left as it came.",
              why));
      return;
    }
    int roomy = FieldType.roomyLength(longest);
    String message =
        field.label()
            + " of "
            + table.label()
            + " allows "
            + text.maxLength()
            + " characters; the longest seen is "
            + longest
            + ".";
    if (roomy < text.maxLength()) {
      found.accept(
          FINDING.about(
              table,
              field,
              message,
              why,
              new Remedy(
                  "Set to " + roomy, ChangeField.type(table, field, new FieldType.Text(roomy)))));
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
