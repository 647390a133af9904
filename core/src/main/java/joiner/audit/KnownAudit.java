package joiner.audit;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;

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
  }

  private record Entry(List<Object> inputs, Found found) {}

  private Map<Object, Entry> before = new HashMap<>();
  private Map<Object, Entry> now = new HashMap<>();

  /**
   * What a constraint gives, from before or worked out.
   *
   * @param key which constraint it is
   * @param inputs everything the result depends on
   */
  Found of(Object key, List<Object> inputs, Supplier<Found> work) {
    Entry known = before.get(key);
    Entry entry =
        known != null && known.inputs.equals(inputs) ? known : new Entry(inputs, work.get());
    now.put(key, entry);
    return entry.found;
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
