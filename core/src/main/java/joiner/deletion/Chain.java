package joiner.deletion;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.meaning.Links;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.TableId;

/**
 * What a delete reaches, step by step along the relationships, as it is told: rows that go take
 * along those that refer to them, and each row is told of where it is reached first. Linear in the
 * rows that are reached.
 *
 * @param steps the rows to be deleted first, then each relationship below what it hangs on
 * @param outcome what comes of it all
 */
public record Chain(List<Step> steps, Outcome outcome) {
  public Chain {
    steps = List.copyOf(steps);
  }

  /** What becomes of rows. */
  public enum Fate {
    /** They go. */
    GONE,
    /** They stay and refer to nothing. */
    UNLINKED,
    /** They stay and refer to what their default says. */
    DEFAULTED,
    /** They stand against it. */
    REFUSE,
    /** They stand against it, and go along by another way: engines differ. */
    MAY_REFUSE
  }

  /**
   * Rows that are reached over one relationship.
   *
   * @param depth how many relationships lead there
   * @param by the last of them; empty for the rows that are to be deleted
   * @param rows by their places, none of them gone by a step before
   */
  public record Step(int depth, Optional<Relationship> by, TableId table, BitSet rows, Fate fate) {}

  /** What deleting some rows of a table would reach. */
  public static Chain of(Draft draft, Deletions deletions, TableId table, BitSet rows) {
    var walk = new Walk(draft, deletions, deletions.of(table, rows));
    walk.gone.put(table, (BitSet) rows.clone());
    walk.steps.add(new Step(0, Optional.empty(), table, rows, Fate.GONE));
    walk.below(table, rows, 1);
    return new Chain(walk.steps, walk.outcome);
  }

  private static final class Walk {
    private final Draft draft;
    private final Links links;
    private final Outcome outcome;
    private final Map<TableId, BitSet> gone = new HashMap<>();
    private final List<Step> steps = new ArrayList<>();

    Walk(Draft draft, Deletions deletions, Outcome outcome) {
      this.draft = draft;
      this.links = deletions.links();
      this.outcome = outcome;
    }

    void below(TableId table, BitSet rows, int depth) {
      for (Relationship down : draft.design().childrenOf(table)) {
        var reached = new BitSet();
        int[][] children = links.children(down);
        rows.stream()
            .forEach(
                row -> {
                  for (int child : children[row]) {
                    reached.set(child);
                  }
                });
        if (down.onDelete() == ReferentialAction.CASCADE) {
          BitSet before = gone.computeIfAbsent(down.child(), id -> new BitSet());
          reached.andNot(before);
          before.or(reached);
        }
        if (!reached.isEmpty()) {
          Fate fate = fate(down, reached);
          steps.add(new Step(depth, Optional.of(down), down.child(), reached, fate));
          if (fate == Fate.GONE) {
            below(down.child(), reached, depth + 1);
          }
        }
      }
    }

    private Fate fate(Relationship down, BitSet rows) {
      Optional<Outcome.Refusal> refusal =
          outcome.refusals().stream()
              .filter(r -> r.relationship().equals(down.id()) && r.rows().intersects(rows))
              .findFirst();
      if (refusal.isPresent()) {
        return refusal.get().everywhere() ? Fate.REFUSE : Fate.MAY_REFUSE;
      }
      return switch (down.onDelete()) {
        case CASCADE -> Fate.GONE;
        case SET_NULL -> Fate.UNLINKED;
        case SET_DEFAULT -> Fate.DEFAULTED;
        case NO_ACTION, RESTRICT -> Fate.MAY_REFUSE;
      };
    }
  }
}
