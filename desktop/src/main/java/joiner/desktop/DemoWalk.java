package joiner.desktop;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.database.Progress;
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.database.TargetRefusedException;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.engine.Dialects;
import joiner.finding.DesignChecks;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;

/**
 * The whole walk without a window: check, audit, script, ship, read back, and pictures of the
 * views.
 */
final class DemoWalk {
  private DemoWalk() {}

  /** Walks through the design in a folder; gives the exit code of the command line. */
  static int run(Path folder, PrintStream out) throws IOException, UnreadableFileException {
    Draft draft = DesignFolder.open(folder).draft();
    var design = draft.design();
    out.println(
        design.tables().size()
            + " tables, "
            + design.fieldCount()
            + " fields, "
            + design.relationships().size()
            + " relationships, "
            + draft.rows().count()
            + " rows");
    out.println("check   " + DesignChecks.run(draft).size() + " findings");
    AuditReport audit = Audit.of(draft, Clock.systemDefaultZone());
    out.println("audit   " + audit.total() + " offending rows in " + audit.rows());
    Path script = folder.resolve("saltmarsh-pottery.sql");
    String text =
        SchemaScript.of(draft, Dialects.POSTGRESQL, RowsChoice.LOOKUPS).text(design.title());
    Files.writeString(script, text);
    out.println(
        "script  " + text.lines().count() + " lines for PostgreSQL in " + script.getFileName());
    try {
      Path database =
          Files.createTempDirectory(folder.toAbsolutePath(), "shipped-").resolve("saltmarsh");
      Shipment shipment =
          Shipment.ship(draft, Target.of("jdbc:h2:" + database), RowsChoice.ALL, Progress.NONE);
      boolean holds = shipment.verification().holds();
      out.println(
          "ship    "
              + shipment.statements()
              + " statements into an H2 file; read back: "
              + (holds ? "everything promised is there" : shipment.verification().differences()));
      Path pictures = folder.resolve("pictures");
      Pictures.write(folder, pictures, out);
      return holds && audit.total() == 0 ? 0 : 1;
    } catch (TargetRefusedException e) {
      out.println("ship    refused: " + e.getMessage());
      return 3;
    }
  }
}
