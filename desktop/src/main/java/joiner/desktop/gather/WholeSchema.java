package joiner.desktop.gather;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import joiner.database.LiveDesign;
import joiner.database.Target;
import joiner.database.TargetRefusedException;
import joiner.ddl.SqlScript;
import joiner.desktop.work.Progress;
import joiner.engine.Dialects;
import joiner.meaning.Draft;

/**
 * A file that says a whole schema, with keys and relationships, and not only rows: a script of SQL
 * or a SQLite database.
 *
 * @param draft the tables with their rows
 * @param notices what was not understood, a sentence each
 */
record WholeSchema(Draft draft, List<String> notices) {
  private static final byte[] SQLITE = "SQLite format 3".getBytes(StandardCharsets.US_ASCII);

  WholeSchema {
    notices = List.copyOf(notices);
  }

  /** Whether a file is one; reads its first bytes. */
  static boolean is(Path file) {
    return isScript(file) || isSqlite(file);
  }

  private static boolean isScript(Path file) {
    return SqlScript.isNamed(String.valueOf(file.getFileName()));
  }

  private static boolean isSqlite(Path file) {
    try (InputStream in = Files.newInputStream(file)) {
      return Arrays.equals(in.readNBytes(SQLITE.length), SQLITE);
    } catch (IOException e) {
      return false; // Whoever reads it in earnest says why it cannot be read.
    }
  }

  /** Reads a file. */
  static WholeSchema read(Path file, String title, Progress progress)
      throws IOException, TargetRefusedException {
    if (isScript(file)) {
      var notices = new ArrayList<String>();
      SqlScript script = SqlScript.of(Files.readString(file), Optional.empty());
      return new WholeSchema(script.draft(title, notices), notices);
    }
    LiveDesign live =
        LiveDesign.read(
            Target.of(Dialects.SQLITE.urlOf(file.toAbsolutePath().toString())),
            title,
            LiveDesign.USUAL_ROWS,
            (done, total, doing) -> {
              progress.share((double) done / Math.max(1, total));
              return !progress.stopped();
            });
    return new WholeSchema(live.draft(), live.notices());
  }
}
