package joiner.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.IVersionProvider;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** Says which Joiner this is. */
@Command(name = "version", description = "Print the version.", mixinStandardHelpOptions = true)
final class VersionCommand implements Callable<Integer> {
  static final String VERSION = "0.1.0";

  @Spec private CommandSpec spec;

  /** Gives the version to the {@code --version} option. */
  static final class Provider implements IVersionProvider {
    @Override
    public String[] getVersion() {
      return new String[] {"Joiner " + VERSION};
    }
  }

  @Override
  public Integer call() {
    spec.commandLine().getOut().println("Joiner " + VERSION);
    return ExitCode.FINE;
  }
}
