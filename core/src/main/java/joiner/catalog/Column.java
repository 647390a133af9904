package joiner.catalog;

import java.util.Optional;

/**
 * A column.
 *
 * @param required NOT NULL
 * @param defaultValue what rows get that leave it out
 * @param counts whether the engine counts it up
 * @param comment a note for people, empty where there is none
 */
public record Column(
    String name,
    SqlType type,
    boolean required,
    Optional<SqlExpression> defaultValue,
    boolean counts,
    String comment) {
  /** The same under another name. */
  public Column named(String other) {
    return new Column(other, type, required, defaultValue, counts, comment);
  }

  /** The same with another note. */
  public Column commented(String other) {
    return new Column(name, type, required, defaultValue, counts, other);
  }
}
