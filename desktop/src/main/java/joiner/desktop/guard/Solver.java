package joiner.desktop.guard;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import joiner.meaning.TableMeaning;
import joiner.reasoning.Reasoner;
import joiner.reasoning.Understood;
import org.jspecify.annotations.Nullable;

/** The solver of the window: loaded when it is asked for first, and asked by one at a time. */
final class Solver {
  private static final Duration PATIENCE = Duration.ofMillis(400);

  private final Clock clock;
  private @Nullable Reasoner reasoner;

  Solver(Clock clock) {
    this.clock = clock;
  }

  /** What the rules of a table mean; takes a second more the first time. */
  synchronized List<Understood> rules(TableMeaning meaning) {
    Reasoner loaded = reasoner;
    if (loaded == null) {
      loaded = new Reasoner(clock, PATIENCE);
      reasoner = loaded;
    }
    return loaded.rules(meaning);
  }
}
