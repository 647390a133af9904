package joiner.catalog;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * What the engine does of itself when rows change.
 *
 * @param table whose rows
 * @param timing when, seen from the change
 * @param events which changes
 * @param definition the statement that makes it, in the engine's spelling
 * @param function the statement that makes the function it calls, if it has one to itself; its name
 *     is the trigger's
 */
public record Trigger(
    String name,
    String table,
    Timing timing,
    Set<Event> events,
    String definition,
    Optional<String> function) {
  /** A trigger that does all by itself. */
  public Trigger(String name, String table, Timing timing, Set<Event> events, String definition) {
    this(name, table, timing, events, definition, Optional.empty());
  }

  public Trigger {
    events = events.isEmpty() ? Set.of() : EnumSet.copyOf(events);
  }

  /** Before a change is made, after it, or in its place. */
  public enum Timing {
    BEFORE,
    AFTER,
    INSTEAD_OF;

    /** The timing of those words; engines that say none mean before. */
    public static Timing of(String words) {
      String name = words.strip().toUpperCase(Locale.ROOT).replaceAll("\\s+", "_");
      return Arrays.stream(values()).filter(t -> t.name().equals(name)).findFirst().orElse(BEFORE);
    }
  }

  /** A change of rows. */
  public enum Event {
    INSERT,
    UPDATE,
    DELETE,
    TRUNCATE;

    /** The events that are named in a text with others between. */
    public static Set<Event> in(String words) {
      var events = EnumSet.noneOf(Event.class);
      List<String> all = Arrays.asList(words.toUpperCase(Locale.ROOT).split("\\W+"));
      Arrays.stream(values()).filter(event -> all.contains(event.name())).forEach(events::add);
      return events;
    }
  }
}
