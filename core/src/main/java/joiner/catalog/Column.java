package joiner.catalog;

import java.util.Optional;

/**
 * A column.
 *
 * @param required NOT NULL
 * @param defaultValue what rows get that leave it out
 * @param counts whether the engine counts it up
 * @param generated how the engine computes it; empty: it is filled in
 * @param comment a note for people, empty where there is none
 */
public record Column(
    String name,
    SqlType type,
    boolean required,
    Optional<SqlExpression> defaultValue,
    boolean counts,
    Optional<Generated> generated,
    String comment) {
  /** A column that is filled in. */
  public Column(
      String name,
      SqlType type,
      boolean required,
      Optional<SqlExpression> defaultValue,
      boolean counts,
      String comment) {
    this(name, type, required, defaultValue, counts, Optional.empty(), comment);
  }

  /** The same under another name. */
  public Column named(String other) {
    return new Column(other, type, required, defaultValue, counts, generated, comment);
  }

  /** The same with another note. */
  public Column commented(String other) {
    return new Column(name, type, required, defaultValue, counts, generated, other);
  }
}
