package joiner.finding;

import joiner.edit.ChangeField;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.rows.Rows;

/**
 * A secret has room for its hash: 60 characters hold what bcrypt gives (Niels Provos and David
 * Mazières, "A Future-Adaptable Password Scheme", 1999; its text form from memory).
 */
final class SecretTooShort extends FieldCheck {
  private static final int LEAST = 60;
  private static final int ROOMY = 100;

  SecretTooShort() {
    super("secret-too-short", Severity.WARNING, Topic.SHAPE);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    if (field.type() instanceof FieldType.Secret(int room) && room < LEAST) {
      report.found(
          named(meaning.table(), field) + " has no room for a hash.",
          "Only the hash of a secret is kept, and those in use have "
              + LEAST
              + " characters and more; "
              + room
              + " would hold the secret itself.",
          new Remedy(
              "Make room for " + ROOMY,
              ChangeField.type(meaning.table(), field, new FieldType.Secret(ROOMY))));
    }
  }
}
