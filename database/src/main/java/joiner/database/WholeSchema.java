package joiner.database;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.ddl.SqlScript;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.meaning.Draft;

/**
 * A file that says a whole schema, with keys and relationships, and not only rows: a script of SQL
 * or a database that lives in a file.
 *
 * @param draft the tables with their rows
 * @param notices what was not understood, a sentence each
 */
public record WholeSchema(Draft draft, List<String> notices) {
  /** So many first bytes tell what a file is. */
  private static final int HEAD = 16;

  public WholeSchema {
    notices = List.copyOf(notices);
  }

  /** Whether a file is one, by its name or its first bytes. */
  public static boolean is(Path file) {
    return isScript(file) || engine(file).isPresent();
  }

  private static boolean isScript(Path file) {
    return SqlScript.isNamed(String.valueOf(file.getFileName()));
  }

  private static Optional<Dialect> engine(Path file) {
    try (InputStream in = Files.newInputStream(file)) {
      String head = new String(in.readNBytes(HEAD), StandardCharsets.ISO_8859_1);
      return Dialects.ofFile(head);
    } catch (IOException e) {
      return Optional.empty(); // Whoever reads it in earnest says why it cannot be read.
    }
  }

  /**
   * Reads a file that {@link #is} one; nothing is changed in it.
   *
   * @param title of the design
   * @param dialect the engine a script is for; empty: whichever understands it
   * @param rowsAtMost how many rows of each table of a database are taken along
   * @throws IOException if a script cannot be read
   * @throws TargetRefusedException if a database cannot be read
   */
  public static WholeSchema read(
      Path file, String title, Optional<Dialect> dialect, int rowsAtMost, Progress progress)
      throws IOException, TargetRefusedException {
    Optional<Dialect> engine = isScript(file) ? Optional.empty() : engine(file);
    if (engine.isEmpty()) {
      var notices = new ArrayList<String>();
      SqlScript script = SqlScript.of(Files.readString(file), dialect);
      return new WholeSchema(script.draft(title, notices), notices);
    }
    Target target = Target.of(engine.get().urlOf(engine.get().placeOf(file)));
    LiveDesign live = LiveDesign.read(target, title, rowsAtMost, progress);
    return new WholeSchema(live.draft(), live.notices());
  }
}
