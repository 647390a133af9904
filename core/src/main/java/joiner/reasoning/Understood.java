package joiner.reasoning;

import java.util.List;
import joiner.model.Rule;

/**
 * What is known of a rule.
 *
 * @param by the other rules that it follows from, or that it cannot hold together with
 * @param passes rows that it lets pass, the most telling first
 * @param fails rows that it refuses
 * @param notes what else follows from it
 */
public record Understood(
    Rule rule,
    Verdict verdict,
    List<Rule> by,
    List<Witness> passes,
    List<Witness> fails,
    List<Note> notes) {
  public Understood {
    by = List.copyOf(by);
    passes = List.copyOf(passes);
    fails = List.copyOf(fails);
    notes = List.copyOf(notes);
  }

  /** What a rule does among the values its fields can have and the other rules. */
  public enum Verdict {
    /** Some rows pass and some do not, and no other rule says as much. */
    FINE("fine"),
    /** No row passes. */
    NEVER("never"),
    /** Every row passes. */
    ALWAYS("always"),
    /** Every row passes that the other rules let pass. */
    IMPLIED("implied"),
    /** No row passes that the other rules let pass. */
    CONTRADICTS("contradicts"),
    /** It could not be found out. */
    UNDECIDED("undecided");

    private final String id;

    Verdict(String id) {
      this.id = id;
    }

    /** Whether nobody can want it so. */
    public boolean isWrong() {
      return this == NEVER || this == CONTRADICTS;
    }

    /** The word used by the command line. */
    public String id() {
      return id;
    }
  }
}
