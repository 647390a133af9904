package joiner.expression;

import java.util.List;
import java.util.Set;

/** What reading and type-checking an expression gave. */
public sealed interface Checked {
  /**
   * A sound expression.
   *
   * @param tree with every implicit step written out
   * @param type what it yields
   */
  record Sound(Expression tree, ValueType type) implements Checked {
    /** What it reads, in order of first use. */
    public Set<Reference> reads() {
      return tree.reads();
    }

    /** The kind of value it yields. */
    public Kind kind() {
      return type.kind();
    }

    /** Whether the verdict on a row may change with the clock. */
    public boolean readsClock() {
      return tree.readsClock();
    }
  }

  /**
   * An expression that cannot be used.
   *
   * @param problems at least one, in the order of their places
   */
  record Faulty(List<Problem> problems) implements Checked {
    public Faulty {
      problems = List.copyOf(problems);
    }
  }
}
