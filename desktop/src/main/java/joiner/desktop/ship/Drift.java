package joiner.desktop.ship;

import java.util.Comparator;
import java.util.List;
import joiner.compare.Comparison;
import joiner.compare.Effect;
import joiner.database.LiveDesign;
import joiner.database.Target;
import joiner.database.TargetRefusedException;
import joiner.meaning.Draft;

/**
 * What a database has otherwise than the design it was made from.
 *
 * @param effects what leads from the design to the database
 * @param notices what of the database was not understood
 */
record Drift(List<Effect> effects, List<String> notices) {
  /** Reads a database. */
  static Drift of(Draft draft, Target target) throws TargetRefusedException {
    LiveDesign live = LiveDesign.of(draft, target);
    return new Drift(Comparison.between(draft, live.draft()), live.notices());
  }

  /** What differs, the gravest first. */
  List<Effect> worstFirst() {
    return effects.stream().sorted(Comparator.comparing(Effect::risk).reversed()).toList();
  }
}
