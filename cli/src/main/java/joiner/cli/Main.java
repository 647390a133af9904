package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.LocalDateTime;
import joiner.database.TargetRefusedException;
import joiner.edit.EditRefusedException;
import joiner.format.Places;
import joiner.format.UnreadableFileException;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** Entry of the command line. */
@Command(
    name = "joiner",
    description =
        "Models business data as normalized tables, checks it, and ships it to a real database.",
    subcommands = {
      CheckCommand.class,
      RulesCommand.class,
      AskCommand.class,
      EnterCommand.class,
      AuditCommand.class,
      ImpactCommand.class,
      CompareCommand.class,
      SqlCommand.class,
      MapCommand.class,
      ShipCommand.class,
      ImportCommand.class,
      ProfileCommand.class,
      DependenciesCommand.class,
      InclusionsCommand.class,
      SplitCommand.class,
      NormalizeCommand.class,
      VersionCommand.class
    },
    footer = {
      "",
      "With a window:",
      "  demo       Open a copy of the demo design, Saltmarsh Pottery.",
      "  open       Open the window, with a design if one is named.",
      "",
      "Exit codes: 0 fine, 1 the design or data has errors, 2 bad usage or unreadable input, 3 the target refused, 4 Joiner itself failed."
    },
    mixinStandardHelpOptions = true,
    versionProvider = VersionCommand.Provider.class)
public final class Main {
  private Main() {}

  /** Runs one command and ends the process with its exit code. */
  public static void main(String[] arguments) {
    var out = new PrintWriter(System.out, true, StandardCharsets.UTF_8);
    var err = new PrintWriter(System.err, true, StandardCharsets.UTF_8);
    int code = run(out, err, arguments);
    out.flush();
    err.flush();
    System.exit(code);
  }

  /** Runs one command and gives its exit code. */
  static int run(PrintWriter out, PrintWriter err, String... arguments) {
    var commandLine = new CommandLine(new Main());
    commandLine.setOut(out);
    commandLine.setErr(err);
    commandLine.setCaseInsensitiveEnumValuesAllowed(true);
    commandLine.setParameterExceptionHandler(
        (e, given) -> {
          err.println(
              "joiner: " + e.getMessage() + " (see joiner " + name(e.getCommandLine()) + "--help)");
          return ExitCode.BAD_INPUT;
        });
    commandLine.setExecutionExceptionHandler((e, command, result) -> failed(e, err));
    if (arguments.length == 0) {
      commandLine.usage(out);
      return ExitCode.FINE;
    }
    try {
      return commandLine.execute(arguments);
    } catch (StackOverflowError | OutOfMemoryError e) {
      return ownFailure(e, err);
    }
  }

  private static String name(CommandLine commandLine) {
    return commandLine.getParent() == null ? "" : commandLine.getCommandName() + " ";
  }

  private static int failed(Exception e, PrintWriter err) {
    return switch (e) {
      case UnreadableFileException unreadable -> {
        err.println("joiner: " + unreadable.getMessage());
        yield ExitCode.BAD_INPUT;
      }
      case TargetRefusedException refused -> {
        err.println("joiner: " + refused.getMessage());
        yield ExitCode.REFUSED;
      }
      case EditRefusedException refused -> {
        err.println("joiner: " + refused.getMessage());
        yield ExitCode.BAD_INPUT;
      }
      case NoSuchFileException missing -> {
        err.println("joiner: there is no " + missing.getFile() + "; check the path.");
        yield ExitCode.BAD_INPUT;
      }
      case AccessDeniedException denied -> {
        err.println("joiner: " + denied.getFile() + " may not be used; check its permissions.");
        yield ExitCode.BAD_INPUT;
      }
      case IOException io -> {
        err.println("joiner: a file could not be read or written: " + io.getMessage());
        yield ExitCode.BAD_INPUT;
      }
      default -> ownFailure(e, err);
    };
  }

  /** One line for the person, everything else for the log. */
  static int ownFailure(Throwable thrown, PrintWriter err) {
    Path log = Places.log();
    String where = "; the details are in " + log + ".";
    try {
      Files.createDirectories(log.toAbsolutePath().getParent());
      var trace = new StringWriter();
      thrown.printStackTrace(new PrintWriter(trace));
      Files.writeString(
          log,
          LocalDateTime.now() + " " + trace,
          StandardOpenOption.CREATE,
          StandardOpenOption.APPEND);
    } catch (IOException e) {
      where = "; the details could not be written to " + log + ".";
    }
    String what = thrown instanceof OutOfMemoryError ? "there was not enough memory" : "a fault";
    err.println(
        "joiner: Joiner itself failed ("
            + what
            + ", "
            + thrown.getClass().getSimpleName()
            + ")"
            + where);
    return ExitCode.FAILED;
  }
}
