package joiner.database;

import java.sql.SQLException;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A database a design is shipped to.
 *
 * @param url a JDBC URL
 * @param password never shown or stored
 */
public record Target(String url, Optional<String> user, Optional<String> password) {
  private static final String HIDDEN = "***";

  /** Passwords as drivers take them within a URL: as a parameter, or between user and host. */
  private static final Pattern PARAMETER =
      Pattern.compile(
          "(?i)(?<=[?&;])([a-z_.]*(?:password|passwd|pwd|secret|token)[a-z_.]*)=[^&;]*");

  private static final Pattern USER_INFO = Pattern.compile("(?<=//)([^/@:?]*):([^/?]*)@");

  /** A target that needs no user, such as a file. */
  public static Target of(String url) {
    return new Target(url, Optional.empty(), Optional.empty());
  }

  /** The URL as it may be shown: without passwords. */
  public String shown() {
    return shown(url);
  }

  /** A URL as it may be shown: without passwords. */
  static String shown(String url) {
    String plain = PARAMETER.matcher(url).replaceAll("$1=" + HIDDEN);
    return USER_INFO.matcher(plain).replaceAll("$1:" + HIDDEN + "@");
  }

  /** What a driver says, without the passwords it may repeat. */
  String hide(String message) {
    String plain = message.replace(url, shown());
    return password.filter(p -> !p.isEmpty()).map(p -> plain.replace(p, HIDDEN)).orElse(plain);
  }

  /** What a driver says, in an error that repeats no password. */
  SQLException hide(SQLException said) {
    return new SQLException(hide(String.valueOf(said.getMessage())), said.getSQLState());
  }

  @Override
  public String toString() {
    return shown();
  }
}
