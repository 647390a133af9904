package joiner.audit;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.model.TableId;

/**
 * What was found of each constraint when it was last looked at. It still holds where everything the
 * constraint depends on is the same: columns are compared by identity, so knowing that costs
 * nothing. Belongs to one thread at a time.
 */
public final class KnownAudit {
  /** What one constraint gave. */
  record Found(List<Violation> violations, List<Hint> hints) {
    Found {
      violations = List.copyOf(violations);
      hints = List.copyOf(hints);
    }

    static final Found NOTHING = new Found(List.of(), List.of());

    static Found of(Violation violation) {
      return new Found(List.of(violation), List.of());
    }
  }

  private record Entry(List<Object> inputs, Found found) {}

  private Map<Object, Entry> before = new HashMap<>();
  private Map<Object, Entry> now = new HashMap<>();
  private final Map<TableId, Counted> counts = new HashMap<>();

  /** How many rows a file had in a state. */
  private record Counted(Object state, int rows) {}

  /**
   * What a constraint gave before, if that still holds.
   *
   * @param key which constraint it is
   * @param inputs everything the result depends on
   */
  Optional<Found> find(Object key, List<Object> inputs) {
    Entry known = before.get(key);
    if (known == null || !known.inputs.equals(inputs)) {
      return Optional.empty();
    }
    now.put(key, known);
    return Optional.of(known.found);
  }

  /** Keeps what a constraint gave. */
  void keep(Object key, List<Object> inputs, Found found) {
    now.put(key, new Entry(inputs, found));
  }

  /** How many rows of a table a file had in that state, if that is known. */
  OptionalInt count(TableId table, Object state) {
    Counted known = counts.get(table);
    return known != null && known.state.equals(state)
        ? OptionalInt.of(known.rows)
        : OptionalInt.empty();
  }

  /** Keeps how many rows of a table a file has. */
  void keepCount(TableId table, Object state, int rows) {
    counts.put(table, new Counted(state, rows));
  }

  /**
   * Ends an audit.
   *
   * @param whole whether it looked at every constraint; then those not met are forgotten
   */
  void end(boolean whole) {
    if (whole) {
      before = now;
    } else {
      before.putAll(now);
    }
    now = new HashMap<>();
  }
}
