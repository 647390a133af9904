package joiner.finding;

import java.util.List;
import java.util.function.Consumer;
import joiner.edit.SetUnique;
import joiner.expression.Checked;
import joiner.meaning.TableMeaning;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.rows.Rows;

/**
 * The rows of a lookup table can be told apart by what people read (common practice, no source).
 */
final class LookupWithoutUniqueLabel implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("lookup-without-unique-label", Severity.WARNING, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    if (table.kind() instanceof TableKind.Lookup && table.rowLabel().isPresent()) {
      List<FieldId> shown = shown(meaning);
      if (!shown.isEmpty() && !table.isUnique(shown)) {
        String labels = String.join(" and ", table.labelsOf(shown));
        found.accept(
            FINDING.about(
                table,
                "Two rows of the lookup table "
                    + table.label()
                    + " could read the same: "
                    + labels
                    + " may repeat.",
                "A person picking from the list could not tell which row is meant.",
                new Remedy("Make " + labels + " unique", SetUnique.of(table, shown, true))));
      }
    }
  }

  private static List<FieldId> shown(TableMeaning meaning) {
    return switch (meaning.rowLabel().orElseThrow()) {
      case Checked.Sound sound -> TableMeaning.fieldsOf(sound);
      case Checked.Faulty faulty -> List.of();
    };
  }
}
