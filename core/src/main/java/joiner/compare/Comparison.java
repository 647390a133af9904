package joiner.compare;

import java.util.ArrayList;
import java.util.List;
import joiner.meaning.Draft;

/** What leads from one design to another that may never have had to do with it. */
public final class Comparison {
  private Comparison() {}

  /**
   * What leads from one to the other, what was guessed first; empty if they say the same. Things
   * are the same ones by id, else by name, else by shape, which is then told as a guess.
   */
  public static List<Effect> between(Draft one, Draft other) {
    Matching.Matched matched = Matching.of(one, other);
    var effects = new ArrayList<>(matched.guesses());
    effects.addAll(Effects.between(one, matched.draft()));
    return List.copyOf(effects);
  }
}
