package joiner.desktop.work;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.database.Target;
import joiner.engine.Dialect;
import joiner.engine.Dialects;

/**
 * The databases a design was shipped to or looked at, kept from one start to the next. Passwords
 * are kept only while Joiner runs.
 */
public final class Targets {
  private static final int MOST = 20;
  private static final String PLACE = "target.";

  private final Settings settings;
  private final Map<Known, String> passwords = new HashMap<>();

  /**
   * A database.
   *
   * @param engine word of its engine
   * @param place a file, or {@code host:port/database}
   * @param user who one is there; may be empty
   */
  public record Known(String engine, String place, String user) {}

  /** Targets kept in those settings. */
  public Targets(Settings settings) {
    this.settings = settings;
  }

  private static String keyOf(Optional<Path> design) {
    return design.map(Path::toString).orElse("");
  }

  /** What is known for the design in a folder, the newest first. */
  public List<Known> of(Optional<Path> design, Dialect dialect) {
    return of(design).stream().filter(known -> known.engine().equals(dialect.id())).toList();
  }

  /** What is known for the design in a folder, of all engines, the newest first. */
  public List<Known> of(Optional<Path> design) {
    return all().stream()
        .filter(kept -> kept.design.equals(keyOf(design)))
        .map(Kept::known)
        .toList();
  }

  private record Kept(String design, Known known) {}

  private List<Kept> all() {
    var all = new ArrayList<Kept>();
    for (int i = 0; i < MOST; i++) {
      String key = PLACE + i;
      Optional<String> place = settings.get(key + ".place");
      if (place.isPresent()) {
        var known =
            new Known(
                settings.get(key + ".engine").orElse(""),
                place.get(),
                settings.get(key + ".user").orElse(""));
        all.add(new Kept(settings.get(key + ".design").orElse(""), known));
      }
    }
    return all;
  }

  /** Keeps a database for the design in a folder, before all others. */
  public void keep(Optional<Path> design, Known known) {
    var all = new ArrayList<>(all());
    var kept = new Kept(keyOf(design), known);
    all.remove(kept);
    all.addFirst(kept);
    write(all);
  }

  /** Forgets a database, and its password. */
  public void forget(Optional<Path> design, Known known) {
    passwords.remove(known);
    var all = new ArrayList<>(all());
    all.remove(new Kept(keyOf(design), known));
    write(all);
  }

  private void write(List<Kept> all) {
    settings.forget(PLACE);
    for (int i = 0; i < Math.min(all.size(), MOST); i++) {
      String key = PLACE + i;
      settings.put(key + ".design", all.get(i).design);
      settings.put(key + ".engine", all.get(i).known.engine());
      settings.put(key + ".place", all.get(i).known.place());
      settings.put(key + ".user", all.get(i).known.user());
    }
  }

  /** Writes down what is kept; no password is. */
  public void save() throws IOException {
    settings.save();
  }

  /** The password typed before, if there was one. */
  public String passwordOf(Known known) {
    return passwords.getOrDefault(known, "");
  }

  /** A database to connect to; its password is remembered while Joiner runs. */
  public Target target(Dialect dialect, Known known, String password) {
    passwords.put(known, password);
    return new Target(dialect.urlOf(known.place()), given(known.user()), given(password));
  }

  /**
   * A database to connect to with the password typed before; empty where nobody knows its engine.
   */
  public Optional<Target> target(Known known) {
    return Dialects.named(known.engine()).map(dialect -> target(dialect, known, passwordOf(known)));
  }

  private static Optional<String> given(String text) {
    return text.isEmpty() ? Optional.empty() : Optional.of(text);
  }
}
