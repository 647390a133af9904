package joiner.desktop.work;

import java.io.IOException;
import java.io.Reader;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Properties;

/** What the user chose and where they were; kept from one start to the next. */
public final class Settings {
  private static final int RECENT = 10;

  private final Path file;
  private final Properties values = new Properties();

  /** A design that was open before. */
  public record Recent(Path folder, String title) {}

  private Settings(Path file) {
    this.file = file;
  }

  /** The settings in a file; none where there is none or it cannot be read. */
  public static Settings in(Path file) {
    var settings = new Settings(file);
    if (Files.isRegularFile(file)) {
      try (Reader reader = Files.newBufferedReader(file)) {
        settings.values.load(reader);
      } catch (IOException | IllegalArgumentException e) {
        settings.values.clear(); // Settings are a convenience; without them Joiner starts fresh.
      }
    }
    return settings;
  }

  /** A choice, if it was ever made. */
  public Optional<String> get(String key) {
    return Optional.ofNullable(values.getProperty(key));
  }

  /** A number, if there is one. */
  public Optional<Double> number(String key) {
    return get(key).filter(text -> text.matches("-?\\d{1,6}(\\.\\d{1,6})?")).map(Double::valueOf);
  }

  /** Keeps a choice. */
  public void put(String key, String value) {
    values.setProperty(key, value);
  }

  /** Forgets every choice whose key begins so. */
  public void forget(String beginning) {
    values.keySet().removeIf(key -> key.toString().startsWith(beginning));
  }

  /** Designs that were open before and are still there, newest first. */
  public List<Recent> recent() {
    var recent = new ArrayList<Recent>();
    for (int i = 0; i < RECENT; i++) {
      String folder = values.getProperty("recent." + i + ".folder");
      if (folder != null && Files.isRegularFile(Path.of(folder, "datapackage.json"))) {
        String title = values.getProperty("recent." + i + ".title", folder);
        recent.add(new Recent(Path.of(folder), title));
      }
    }
    return List.copyOf(recent);
  }

  /** Puts a design first among the recent ones. */
  public void opened(Path folder, String title) {
    var recent = new ArrayList<>(recent());
    recent.removeIf(there -> there.folder().equals(folder));
    recent.addFirst(new Recent(folder, title));
    forget("recent.");
    for (int i = 0; i < Math.min(recent.size(), RECENT); i++) {
      values.setProperty("recent." + i + ".folder", recent.get(i).folder().toString());
      values.setProperty("recent." + i + ".title", recent.get(i).title());
    }
  }

  /** Writes them down, whole or not at all. */
  public void save() throws IOException {
    Files.createDirectories(file.getParent());
    Path aside = file.resolveSibling(file.getFileName() + ".new");
    try (Writer writer = Files.newBufferedWriter(aside)) {
      values.store(writer, "Joiner");
    }
    Files.move(aside, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
  }
}
