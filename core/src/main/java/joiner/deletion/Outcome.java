package joiner.deletion;

import java.util.BitSet;
import java.util.List;
import java.util.Map;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/**
 * What becomes of the rows when some are deleted.
 *
 * @param gone rows that go, those that were to be deleted among them; by the place in their table
 * @param unlinked rows that stay and lose a link or get another
 * @param childless rows that stay, must have a child by the relationship and lose the last
 * @param refusals what stands against it; if there is one nothing happens
 */
public record Outcome(
    Map<TableId, BitSet> gone,
    Map<RelationshipId, BitSet> unlinked,
    Map<RelationshipId, BitSet> childless,
    List<Refusal> refusals) {
  public Outcome {
    gone = Map.copyOf(gone);
    unlinked = Map.copyOf(unlinked);
    childless = Map.copyOf(childless);
    refusals = List.copyOf(refusals);
  }

  /** What engines say. */
  public enum Verdict {
    /** The rows go everywhere. */
    DONE,
    /** Every engine refuses. */
    REFUSED,
    /**
     * Rows that refer go along by another way: an engine that looks at the end of the statement
     * does it, one that looks at each row as it goes may refuse (ISO/IEC 9075-2, referential
     * constraints, tells RESTRICT and NO ACTION apart so; from memory). Or rows that must have a
     * child lose the last: who looks at the transaction as a whole refuses, others do not.
     */
    DEPENDS
  }

  /**
   * A relationship whose rows stand against it.
   *
   * @param rows of the child
   * @param everywhere whether they are still there at the end, so that every engine refuses
   */
  public record Refusal(RelationshipId relationship, BitSet rows, boolean everywhere) {}

  /** What engines say to it. */
  public Verdict verdict() {
    if (refusals.stream().anyMatch(Refusal::everywhere)) {
      return Verdict.REFUSED;
    }
    return refusals.isEmpty() && childless.isEmpty() ? Verdict.DONE : Verdict.DEPENDS;
  }

  /** How many links are emptied or lead to another row. */
  public int links() {
    return unlinked.values().stream().mapToInt(BitSet::cardinality).sum();
  }

  /** How many rows stand against it. */
  public int refusing() {
    return refusals.stream().mapToInt(refusal -> refusal.rows().cardinality()).sum();
  }

  /** How many rows go. */
  public int count() {
    return gone.values().stream().mapToInt(BitSet::cardinality).sum();
  }
}
