package joiner.desktop.work;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.function.Function;
import joiner.meaning.TableMeaning;
import joiner.reasoning.Reasoner;
import joiner.reasoning.Together;
import joiner.reasoning.Understood;
import org.jspecify.annotations.Nullable;

/**
 * The solver of the window: loaded when it is asked for first, and asked by one at a time. What it
 * found out stays known while nothing it hangs on changes.
 */
public final class Solver {
  private static final Duration PATIENCE = Duration.ofMillis(400);

  private final Clock clock;
  private @Nullable Reasoner reasoner;

  Solver(Clock clock) {
    this.clock = clock;
  }

  private synchronized <T> T ask(Function<Reasoner, T> question) {
    Reasoner loaded = reasoner;
    if (loaded == null) {
      loaded = new Reasoner(clock, PATIENCE);
      reasoner = loaded;
    }
    return question.apply(loaded);
  }

  /** What the rules of a table mean; takes a second more the first time. */
  public List<Understood> rules(TableMeaning meaning) {
    return meaning.table().rules().isEmpty() ? List.of() : ask(r -> r.rules(meaning));
  }

  /** What the conditions on each row of a table are like together. */
  public Together together(TableMeaning meaning) {
    return ask(r -> r.together(meaning));
  }
}
