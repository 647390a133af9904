package joiner.catalog;

/**
 * Something a database holds that a design has no word for.
 *
 * @param name of a trigger with its table, of a computed column with its table before it
 * @param definition as the engine tells it; empty where it does not
 */
public record OtherObject(Kind kind, String name, String definition) {
  /** What it is. */
  public enum Kind {
    VIEW,
    TRIGGER,
    COMPUTED_COLUMN
  }

  /** What becomes of it, as a sentence. */
  public String notTaken() {
    String says = definition.isBlank() ? "" : ": " + definition.strip();
    return switch (kind) {
      case VIEW -> "The view " + name + " is not taken along" + says;
      case TRIGGER -> "The trigger " + name + " is not taken along" + says;
      case COMPUTED_COLUMN ->
          name
              + " is computed by the database"
              + (definition.isBlank() ? "" : " (" + definition.strip() + ")")
              + "; here it is a field that people fill in.";
    };
  }
}
