package joiner.finding;

import java.util.function.Consumer;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;

/** A check that looks at the fields of a table one by one. */
abstract class FieldCheck implements TableCheck {
  private final TableFinding finding;

  FieldCheck(String id, Severity severity, Topic topic) {
    this.finding = new TableFinding(id, severity, topic);
  }

  @Override
  public final String id() {
    return finding.id();
  }

  @Override
  public final void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    for (Field field : meaning.table().fields()) {
      run(
          meaning,
          field,
          rows,
          (message, why, remedies) ->
              found.accept(finding.about(meaning.table(), field, message, why, remedies)));
    }
  }

  /** Looks at one field of {@link TableMeaning#table()}. */
  abstract void run(TableMeaning meaning, Field field, Rows rows, Report report);

  /** The field with its table, as people call it: "Peak of Firing". */
  static String named(Table table, Field field) {
    return field.label() + " of " + table.label();
  }

  /** Takes what is found of the field. */
  interface Report {
    void found(String message, String why, Remedy... remedies);
  }
}
