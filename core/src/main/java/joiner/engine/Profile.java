package joiner.engine;

import java.util.Optional;
import java.util.OptionalInt;
import joiner.naming.IdentifierRules;

/**
 * What an engine is, before anything is said to it.
 *
 * @param id the word used on the command line, and in JDBC URLs
 * @param names what the engine allows as names
 * @param place where its databases are
 * @param driver the name of its JDBC driver's file, where it does not come with Joiner
 * @param undoesDefinitions whether a script that fails leaves nothing behind without further doing
 */
record Profile(
    String id,
    IdentifierRules names,
    Place place,
    Optional<String> driver,
    boolean undoesDefinitions) {

  /** Where databases of an engine are. */
  sealed interface Place {
    /** In files whose names end so, as a URL names them. */
    record File(String ending) implements Place {}

    /** On servers, which usually listen there. */
    record Server(int port) implements Place {}
  }

  /** An engine whose databases are files. */
  static Profile inFiles(String id, IdentifierRules names, String ending) {
    return of(id, names, new Place.File(ending));
  }

  /** An engine whose databases are on servers. */
  static Profile onServers(String id, IdentifierRules names, int port) {
    return of(id, names, new Place.Server(port));
  }

  private static Profile of(String id, IdentifierRules names, Place place) {
    return new Profile(id, names, place, Optional.empty(), false);
  }

  /** The same engine, whose driver users have to bring. */
  Profile withDriver(String jar) {
    return new Profile(id, names, place, Optional.of(jar), undoesDefinitions);
  }

  /** The same engine, which takes definitions back with their transaction. */
  Profile undoingDefinitions() {
    return new Profile(id, names, place, driver, true);
  }

  String jdbcPrefix() {
    return "jdbc:" + id + ":";
  }

  Optional<String> fileEnding() {
    return switch (place) {
      case Place.File file -> Optional.of(file.ending());
      case Place.Server server -> Optional.empty();
    };
  }

  OptionalInt port() {
    return switch (place) {
      case Place.File file -> OptionalInt.empty();
      case Place.Server server -> OptionalInt.of(server.port());
    };
  }
}
