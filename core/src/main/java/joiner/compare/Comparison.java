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
    Matched matched = matched(one, other);
    var effects = new ArrayList<>(matched.guesses());
    effects.addAll(Effects.between(one, matched.draft()));
    return List.copyOf(effects);
  }

  /**
   * A draft under the ids of another, where things are the same ones.
   *
   * @param draft the draft
   * @param guesses what was taken for the same without knowing it
   */
  public record Matched(Draft draft, List<Effect> guesses) {
    public Matched {
      guesses = List.copyOf(guesses);
    }
  }

  /** The other draft under the ids of the one. */
  public static Matched matched(Draft one, Draft other) {
    return Matching.of(one, other);
  }
}
