package joiner.database;

import java.io.IOException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import joiner.engine.Dialect;

/**
 * JDBC drivers: those that come with Joiner, and those a user has put into a folder, for not every
 * one is Joiner's to ship.
 */
final class Drivers {
  private static final String NO_SUITABLE_DRIVER = "08001";

  /** Drivers that were taken from folders, by folder. */
  private static final Map<Path, List<Driver>> LOADED = new ConcurrentHashMap<>();

  private final Path folder;

  /** Further drivers lie in that folder, a jar file each; it need not be there. */
  Drivers(Path folder) {
    this.folder = folder;
  }

  /**
   * Connects to a database.
   *
   * @throws TargetRefusedException if there is no driver for it, saying where one has to be put
   * @throws SQLException if the driver cannot connect
   */
  Connection connect(String url, Properties properties, Dialect dialect)
      throws TargetRefusedException, SQLException {
    if (DriverManager.drivers().anyMatch(driver -> accepts(driver, url))) {
      return DriverManager.getConnection(url, properties);
    }
    Optional<Driver> found = inFolder(url);
    if (found.isEmpty()) {
      throw new TargetRefusedException(
          "Joiner has no driver for "
              + dialect.engine()
              + ". Put its JDBC driver"
              + dialect.driver().map(jar -> " (" + jar + ")").orElse("")
              + " into the folder "
              + folder
              + ".");
    }
    Connection connection = found.get().connect(url, properties);
    if (connection == null) {
      throw new SQLException("The driver takes no such URL.", NO_SUITABLE_DRIVER);
    }
    return connection;
  }

  private static boolean accepts(Driver driver, String url) {
    try {
      return driver.acceptsURL(url);
    } catch (SQLException e) {
      return false;
    }
  }

  /** A driver is loaded once and stays as long as Joiner runs, for it may hold native code. */
  private Optional<Driver> inFolder(String url) throws TargetRefusedException {
    List<Driver> loaded = LOADED.computeIfAbsent(folder, f -> new CopyOnWriteArrayList<>());
    Optional<Driver> known = loaded.stream().filter(driver -> accepts(driver, url)).findFirst();
    if (known.isPresent()) {
      return known;
    }
    Optional<Driver> found = load(url);
    found.ifPresent(loaded::add);
    return found;
  }

  private Optional<Driver> load(String url) throws TargetRefusedException {
    if (!Files.isDirectory(folder)) {
      return Optional.empty();
    }
    try {
      var loader = new URLClassLoader(jars().toArray(URL[]::new), Driver.class.getClassLoader());
      for (Driver driver : ServiceLoader.load(Driver.class, loader)) {
        if (accepts(driver, url)) {
          return Optional.of(driver);
        }
      }
      return Optional.empty();
    } catch (IOException | ServiceConfigurationError | LinkageError e) {
      throw new TargetRefusedException(
          "The drivers in " + folder + " cannot be read: " + e.getMessage());
    }
  }

  private List<URL> jars() throws IOException {
    var jars = new ArrayList<URL>();
    try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, "*.jar")) {
      for (Path file : files) {
        jars.add(file.toUri().toURL());
      }
    }
    return jars;
  }
}
