package joiner.finding;

import java.util.function.Consumer;
import joiner.edit.ChangeField;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.rows.Rows;

/**
 * A secret has room for its hash: 60 characters hold what bcrypt gives (Niels Provos and David
 * Mazières, "A Future-Adaptable Password Scheme", 1999; its text form from memory).
 */
final class SecretTooShort implements TableCheck {
  private static final int LEAST = 60;
  private static final int ROOMY = 100;

  private static final TableFinding FINDING =
      new TableFinding("secret-too-short", Severity.WARNING, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(TableMeaning meaning, Rows rows, Consumer<Finding> found) {
    Table table = meaning.table();
    for (Field field : table.fields()) {
      if (field.type() instanceof FieldType.Secret(int room) && room < LEAST) {
        found.accept(
            FINDING.about(
                table,
                field,
                field.label() + " of " + table.label() + " has no room for a hash.",
                "Only the hash of a secret is kept, and those in use have "
                    + LEAST
                    + " characters and more; "
                    + room
                    + " would hold the secret itself.",
                new Remedy(
                    "Make room for " + ROOMY,
                    ChangeField.type(table, field, new FieldType.Secret(ROOMY)))));
      }
    }
  }
}
