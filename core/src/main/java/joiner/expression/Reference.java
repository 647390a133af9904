package joiner.expression;

import java.util.List;

/**
 * Something a formula reads, as its scope knows it. Two references are equal when they lead to the
 * same values of a row.
 */
public interface Reference {
  /** What formulas call it: its name, and before it what leads there from the row. */
  List<String> path();

  /** The path as one text. */
  default String name() {
    return String.join(".", path());
  }

  /** What is known of its values. */
  ValueType type();
}
