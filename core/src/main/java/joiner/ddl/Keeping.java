package joiner.ddl;

import java.util.List;
import java.util.Optional;
import joiner.catalog.Check;
import joiner.catalog.Exclusion;
import joiner.catalog.Trigger;

/**
 * How an engine keeps a rule.
 *
 * @param by the best it has for it
 * @param check the condition on each row, where there is one
 * @param exclusion by what rows exclude each other, where there is something
 * @param triggers what looks when rows change
 * @param loss why nobody but an audit sees it, or what is not seen; empty where it is kept wholly
 */
public record Keeping(
    Means by,
    Optional<Check> check,
    Optional<Exclusion> exclusion,
    List<Trigger> triggers,
    String loss) {
  public Keeping {
    triggers = List.copyOf(triggers);
  }

  /** What keeps a rule. */
  public enum Means {
    CHECK("check"),
    UNIQUE_INDEX("unique index"),
    EXCLUSION("exclusion constraint"),
    TRIGGER("trigger"),
    /** A trigger that looks when a transaction ends. */
    DEFERRED_TRIGGER("deferred trigger"),
    /** Nothing in the database. */
    AUDIT("audit");

    private final String words;

    Means(String words) {
      this.words = words;
    }

    /** The words people and the command line use. */
    public String words() {
      return words;
    }
  }

  static Keeping check(Check check) {
    return new Keeping(Means.CHECK, Optional.of(check), Optional.empty(), List.of(), "");
  }

  static Keeping exclusion(Means by, Exclusion exclusion, List<Trigger> triggers) {
    return new Keeping(by, Optional.empty(), Optional.of(exclusion), triggers, "");
  }

  static Keeping triggers(Means by, List<Trigger> triggers) {
    return new Keeping(by, Optional.empty(), Optional.empty(), triggers, "");
  }

  static Keeping none(String loss) {
    return new Keeping(Means.AUDIT, Optional.empty(), Optional.empty(), List.of(), loss);
  }

  /** Whether the database sees to it. */
  public boolean isKept() {
    return by != Means.AUDIT;
  }
}
