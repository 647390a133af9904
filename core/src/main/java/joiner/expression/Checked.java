package joiner.expression;

import java.util.List;

/** What reading and type-checking an expression gave. */
public sealed interface Checked {
  /**
   * A sound expression.
   *
   * @param tree with every implicit step written out
   * @param type what it yields
   * @param reads what it reads, in order of first use
   */
  record Sound(Expression tree, ValueType type, List<Reference> reads) implements Checked {
    public Sound {
      reads = List.copyOf(reads);
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
