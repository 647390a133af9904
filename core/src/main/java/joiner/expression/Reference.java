package joiner.expression;

/**
 * Something a formula reads, as its scope knows it. Two references are equal when they lead to the
 * same values of a row.
 */
public interface Reference {
  /** What formulas call it. */
  String name();

  /** What is known of its values. */
  ValueType type();
}
