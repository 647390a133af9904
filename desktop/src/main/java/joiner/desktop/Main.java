package joiner.desktop;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.desktop.work.DemoHome;
import joiner.desktop.work.OpenDesign;
import joiner.format.Places;
import joiner.format.UnreadableFileException;

/**
 * Entry of the window: {@code open [DESIGN]} and {@code demo [--out DIR]}. Exit code 2 for bad
 * usage or a design that cannot be read.
 */
public final class Main {
  private static final String USAGE =
      """
      Usage: joiner open [DESIGN]      open the window, with a design folder if one is named
             joiner demo [--out DIR]   open a copy of the demo design, made in DIR or in a temporary folder
      Without a display, demo walks through the design without a window: it checks, audits, writes the
      script, ships into an embedded database, reads it back, and writes pictures of the main views.
      """;

  private Main() {}

  /** Opens the window. */
  public static void main(String[] arguments) throws IOException {
    System.setProperty("joiner.log", Places.log().toString());
    int code = run(List.of(arguments), System.out, System.err);
    if (code != 0) {
      System.exit(code);
    }
  }

  private static int run(List<String> arguments, PrintStream out, PrintStream err)
      throws IOException {
    var rest = new ArrayList<>(arguments);
    String command = rest.isEmpty() ? "open" : rest.removeFirst();
    if (rest.contains("--help") || rest.contains("-h") || command.equals("--help")) {
      out.print(USAGE);
      return 0;
    }
    try {
      return switch (command) {
        case "open" -> open(rest, err);
        case "demo" -> demo(rest, out, err);
        default -> usage("there is no command “" + command + "”", err);
      };
    } catch (UnreadableFileException e) {
      err.println("joiner: " + e.getMessage());
      return 2;
    }
  }

  private static int usage(String what, PrintStream err) {
    err.println("joiner: " + what + " (see joiner open --help)");
    return 2;
  }

  private static int open(List<String> rest, PrintStream err)
      throws IOException, UnreadableFileException {
    if (rest.size() > 1) {
      return usage("open takes one design", err);
    }
    Optional<Path> named = rest.stream().findFirst().map(Path::of);
    if (!Displays.available()) {
      if (named.isPresent()) {
        OpenDesign.in(named.get());
      }
      return usage(
          "there is no display to open a window on; joiner check, audit, sql and ship work without one",
          err);
    }
    if (named.isPresent()) {
      window(named.get());
    } else {
      JoinerApplication.open();
    }
    return 0;
  }

  /** Opens the window with a design; one that cannot be read is told before there is any. */
  private static void window(Path folder) throws IOException, UnreadableFileException {
    try {
      JoinerApplication.open(() -> OpenDesign.in(folder));
    } catch (RuntimeException e) {
      for (Throwable cause = e; cause != null; cause = cause.getCause()) {
        switch (cause) {
          case UnreadableFileException unreadable -> throw unreadable;
          case IOException failed -> throw failed;
          default -> {}
        }
      }
      throw e;
    }
  }

  private static int demo(List<String> rest, PrintStream out, PrintStream err)
      throws IOException, UnreadableFileException {
    boolean named = rest.size() == 2 && rest.getFirst().equals("--out");
    if (!named && !rest.isEmpty()) {
      return usage("demo takes --out DIR or nothing", err);
    }
    Path folder = named ? Path.of(rest.get(1)) : Files.createTempDirectory("saltmarsh-pottery-");
    if (named && Files.exists(folder.resolve("datapackage.json"))) {
      return usage(
          "there is a design in "
              + folder
              + " already; name another folder, or open it with joiner open",
          err);
    }
    DemoHome.copyTo(folder);
    out.println("A copy of Saltmarsh Pottery is in " + folder.toAbsolutePath());
    if (!Displays.available()) {
      out.println("There is no display, so the walk goes on without a window.");
      return DemoWalk.run(folder, out);
    }
    window(folder);
    return 0;
  }
}
