package joiner.expression;

import java.util.List;

/** What reading and type-checking an expression gave. */
public sealed interface Checked {
  /**
   * A sound expression.
   *
   * @param tree with every implicit step written out
   * @param kind what it yields
   * @param fields names of the fields it reads, in order of first use
   */
  record Sound(Expression tree, Kind kind, List<String> fields) implements Checked {
    public Sound {
      fields = List.copyOf(fields);
    }

    /** Whether the verdict on a row may change with the clock. */
    public boolean readsClock() {
      return Walk.any(tree, node -> node instanceof Expression.Now);
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
