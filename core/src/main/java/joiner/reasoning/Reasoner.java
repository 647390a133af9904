package joiner.reasoning;

import com.microsoft.z3.Context;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import joiner.meaning.TableMeaning;

/**
 * Finds out what the rules of a table mean together, by the solver Z3 (de Moura and Bjørner, "Z3:
 * An Efficient SMT Solver", 2008). Loading it takes a second or two. Belongs to one thread at a
 * time.
 */
public final class Reasoner implements AutoCloseable {
  private final Context z3 = new Context();
  private final Clock clock;
  private final Duration patience;

  /**
   * Loads the solver.
   *
   * @param clock what rules say of today is shown on rows of this day
   * @param patience how long one question may take; then it is undecided
   */
  public Reasoner(Clock clock, Duration patience) {
    this.clock = clock;
    this.patience = patience;
  }

  /** What is known of each rule of a table that can be read. */
  public List<Understood> rules(TableMeaning meaning) {
    return new TableReasoning(z3, meaning, clock, patience).rules();
  }

  @Override
  public void close() {
    z3.close();
  }
}
