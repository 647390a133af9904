package joiner.finding;

import java.util.Optional;
import java.util.function.Consumer;
import joiner.edit.ChangeTable;
import joiner.expression.Formula;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.rows.Rows;

/** Every table but a join table says how people recognise its rows. */
final class MissingRowLabel implements TableCheck {
  private static final TableFinding FINDING =
      new TableFinding("missing-row-label", Severity.ADVICE, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    if (table.rowLabel().isEmpty() && !(table.kind() instanceof TableKind.Join)) {
      String message = table.label() + " has no row label.";
      String why =
          "Where "
              + table.noun().indefinite()
              + " is picked or named, people would see a bare key.";
      Optional<Field> likely = likely(table);
      found.accept(
          likely
              .map(
                  field ->
                      FINDING.about(
                          table,
                          message,
                          why,
                          new Remedy(
                              "Show " + field.label(),
                              ChangeTable.rowLabel(
                                  table, Optional.of(Formula.naming(field.name()))))))
              .orElseGet(() -> FINDING.about(table, message, why)));
    }
  }

  private static Optional<Field> likely(Table table) {
    return table.fields().stream()
        .filter(field -> field.type() instanceof FieldType.Text)
        .filter(field -> field.name().matches("(.*_)?(name|title|label)"))
        .findFirst()
        .or(
            () ->
                table.fields().stream()
                    .filter(field -> field.type() instanceof FieldType.Text)
                    .findFirst());
  }
}
