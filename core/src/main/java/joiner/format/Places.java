package joiner.format;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Locale;
import java.util.Optional;

/**
 * Where a platform keeps an application's files: on Linux by the XDG Base Directory Specification
 * (version 0.8), on macOS below Library, on Windows below the application data. The system property
 * {@code joiner.files} names one folder for all of them.
 */
public final class Places {
  private Places() {}

  /** What the user chose: theme, window, recent designs. */
  public static Path settings() {
    return folder("XDG_CONFIG_HOME", ".config", "Preferences").resolve("settings.properties");
  }

  /** Designs that have no folder of their own yet. */
  public static Path recovery() {
    return folder("XDG_DATA_HOME", ".local/share", "Application Support").resolve("recovery");
  }

  /** What went wrong. */
  public static Path log() {
    return folder("XDG_STATE_HOME", ".local/state", "Logs").resolve("joiner.log");
  }

  /** JDBC drivers that do not come with Joiner, where the user has put some. */
  public static Path drivers() {
    return folder("XDG_DATA_HOME", ".local/share", "Application Support").resolve("drivers");
  }

  /** Designs of one's own to begin others with. */
  public static Path starters() {
    return folder("XDG_DATA_HOME", ".local/share", "Application Support").resolve("starters");
  }

  /** What is kept for speed and can be worked out again. */
  public static Path cache() {
    return folder("XDG_CACHE_HOME", ".cache", "Caches").resolve("cache");
  }

  /** What was done to designs, so that it can be taken back after they were closed. */
  static Path history() {
    return folder("XDG_STATE_HOME", ".local/state", "Application Support").resolve("history");
  }

  /** What was typed into forms and not saved yet. */
  static Path typed() {
    return folder("XDG_STATE_HOME", ".local/state", "Application Support").resolve("typed");
  }

  /** What this user's saves are signed with. */
  static Path saveKey() {
    return folder("XDG_STATE_HOME", ".local/state", "Logs").resolve("save-key");
  }

  /**
   * A fresh file beside one of these, to be moved there when it is written; for this user alone.
   */
  static Path aside(Path file) throws IOException {
    Path folder = file.toAbsolutePath().getParent();
    Files.createDirectories(folder);
    Path aside = Files.createTempFile(folder, String.valueOf(file.getFileName()), "");
    if (Files.getFileStore(aside).supportsFileAttributeView("posix")) {
      Files.setPosixFilePermissions(aside, PosixFilePermissions.fromString("rw-------"));
    }
    return aside;
  }

  private static Path folder(String variable, String underHome, String underLibrary) {
    String given = System.getProperty("joiner.files", "");
    if (!given.isEmpty()) {
      return Path.of(given);
    }
    Path home = Path.of(System.getProperty("user.home", "."));
    String system = System.getProperty("os.name", "").toLowerCase(Locale.ROOT);
    if (system.contains("mac")) {
      return home.resolve("Library").resolve(underLibrary).resolve("Joiner");
    }
    if (system.contains("windows")) {
      return variable("APPDATA").orElse(home.resolve("AppData/Roaming")).resolve("Joiner");
    }
    return variable(variable).orElse(home.resolve(underHome)).resolve("joiner");
  }

  private static Optional<Path> variable(String name) {
    return Optional.ofNullable(System.getenv(name)).filter(p -> !p.isBlank()).map(Path::of);
  }
}
