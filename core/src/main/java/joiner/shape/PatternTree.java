package joiner.shape;

import com.ibm.icu.text.UnicodeSet;
import java.util.List;
import java.util.Optional;

/**
 * A pattern taken apart, as far as it consists of parts that mean the same wherever they are
 * written out: sets of characters with all they hold, one behind the other, one or the other, and
 * how often. It speaks of the whole text, so anchors at its ends and greediness say nothing.
 */
public sealed interface PatternTree {
  /**
   * One character of a set.
   *
   * @param set frozen
   */
  record One(UnicodeSet set) implements PatternTree {}

  /**
   * One character with a property of Unicode, which has too many to be written out.
   *
   * @param category a general category, as {@code L} or {@code Lu}
   */
  record Having(String category, boolean negated) implements PatternTree {}

  /** One behind the other; none is the empty text. */
  record Sequence(List<PatternTree> parts) implements PatternTree {
    public Sequence {
      parts = List.copyOf(parts);
    }
  }

  /** Any of some. */
  record Choice(List<PatternTree> branches) implements PatternTree {
    public Choice {
      branches = List.copyOf(branches);
    }
  }

  /**
   * The same several times.
   *
   * @param most empty: without end
   */
  record Repeat(PatternTree part, int least, Optional<Integer> most) implements PatternTree {}
}
