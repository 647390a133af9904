package joiner.finding;

import java.util.List;
import java.util.function.Consumer;
import joiner.edit.SetUnique;
import joiner.expression.Checked;
import joiner.expression.RuleLanguage;
import joiner.model.Field;
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
  public void run(Table table, Rows rows, Consumer<Finding> found) {
    if (table.kind() instanceof TableKind.Lookup && table.rowLabel().isPresent()) {
      List<FieldId> shown = shown(table, table.rowLabel().get());
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

  private static List<FieldId> shown(Table table, String rowLabel) {
    return RuleLanguage.value(rowLabel, table) instanceof Checked.Sound sound
        ? sound.fields().stream()
            .map(name -> table.fieldNamed(name).map(Field::id).orElseThrow())
            .toList()
        : List.of();
  }
}
