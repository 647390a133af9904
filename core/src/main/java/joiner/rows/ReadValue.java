package joiner.rows;

import joiner.expression.Value;

/** What reading a text as a value of a type gave. */
public sealed interface ReadValue {
  /** The text is a value of the type. */
  record Fits(Value value) implements ReadValue {}

  /**
   * The text is no value of the type.
   *
   * @param expected what was expected, as in "expected a date like 2026-03-14"
   */
  record Unfit(String expected) implements ReadValue {}
}
