package joiner.database;

import java.util.Optional;

/**
 * A database a design is shipped to.
 *
 * @param url a JDBC URL
 * @param password never shown or stored
 */
public record Target(String url, Optional<String> user, Optional<String> password) {
  /** A target that needs no user, such as a file. */
  public static Target of(String url) {
    return new Target(url, Optional.empty(), Optional.empty());
  }

  @Override
  public String toString() {
    return url;
  }
}
