package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import picocli.CommandLine.Parameters;

/** The design a command works on. */
final class DesignArgument {
  @Parameters(paramLabel = "DESIGN", description = "A design folder or its datapackage.json.")
  private Path design;

  Path path() {
    return design;
  }

  /** Opens the design; what was kept without being understood is told on {@code err}. */
  DesignFolder.Opened open(PrintWriter err) throws IOException, UnreadableFileException {
    DesignFolder.Opened opened = DesignFolder.open(design);
    note(opened.notices(), err);
    return opened;
  }

  /** Tells what is worth knowing beside the result. */
  static void note(List<String> notices, PrintWriter err) {
    notices.forEach(notice -> err.println("note: " + notice));
  }
}
