package joiner.cli;

import java.io.Console;
import java.util.Optional;
import joiner.database.Target;
import picocli.CommandLine.Option;

/** Who a command is at a database. The password stands in no argument. */
final class LiveArgument {
  @Option(names = "--user", description = "The database user.")
  private Optional<String> user;

  private Optional<Optional<String>> password = Optional.empty();

  /** Whether a word names a database rather than a file. */
  static boolean isLive(String word) {
    return word.startsWith("jdbc:");
  }

  /** The database of a URL; asks for the password once, where there is somebody to ask. */
  Target target(String url) {
    if (password.isEmpty()) {
      password = Optional.of(password());
    }
    return new Target(url, user, password.get());
  }

  private Optional<String> password() {
    Optional<String> given = Optional.ofNullable(System.getenv("JOINER_PASSWORD"));
    Console console = System.console();
    if (given.isPresent() || user.isEmpty() || console == null || !console.isTerminal()) {
      return given;
    }
    char[] typed = console.readPassword("Password of %s: ", user.get());
    return Optional.ofNullable(typed).map(String::new);
  }
}
