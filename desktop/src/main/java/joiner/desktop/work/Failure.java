package joiner.desktop.work;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.Optional;
import joiner.database.TargetRefusedException;
import joiner.edit.EditRefusedException;
import joiner.format.ChangedOutsideException;
import joiner.format.Places;
import joiner.format.UnreadableFileException;
import joiner.joining.Answering;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Something that went wrong, as people read it. What the material or the machine is to blame for is
 * told as it is; anything else is a mistake of Joiner's, told with its details and kept in the log.
 *
 * @param doing what was being done, beginning with a capital: "Reading firing log.csv"
 * @param message sentences: what happened, and what to do
 * @param details for a report; empty where the message says all
 * @param cause what was thrown
 */
public record Failure(String doing, String message, Optional<String> details, Throwable cause) {
  private static final String OWN =
      "%s did not end well: Joiner made a mistake (%s). Your design is as it was before. Go on, or"
          + " undo the last change if it comes again; the details are in %s.";

  /** Tells what was thrown while something was being done; writes Joiner's own mistakes down. */
  public static Failure of(String doing, Throwable thrown) {
    return switch (thrown) {
      case UnreadableFileException e -> told(doing, e);
      case EditRefusedException e -> told(doing, e);
      case ChangedOutsideException e -> told(doing, e);
      case TargetRefusedException e -> told(doing, e);
      case Answering.Unanswered e -> told(doing, e);
      case java.nio.file.AccessDeniedException e ->
          new Failure(
              doing,
              "There is no permission for " + e.getFile() + "; choose another place.",
              Optional.empty(),
              e);
      case java.nio.file.NoSuchFileException e ->
          new Failure(doing, e.getFile() + " is not there any more.", Optional.empty(), e);
      case IOException e -> told(doing, e);
      default -> own(doing, thrown);
    };
  }

  private static Failure told(String doing, Throwable thrown) {
    return new Failure(doing, String.valueOf(thrown.getMessage()), Optional.empty(), thrown);
  }

  private static Failure own(String doing, Throwable thrown) {
    log().error(doing, thrown);
    var details = new StringWriter();
    thrown.printStackTrace(new PrintWriter(details));
    String what =
        thrown.getClass().getSimpleName()
            + (thrown.getMessage() == null ? "" : ": " + thrown.getMessage());
    return new Failure(
        doing,
        OWN.formatted(doing, what, Places.log()),
        Optional.of(doing + "\n" + details),
        thrown);
  }

  /** Made when something fails, not at the start. */
  private static Logger log() {
    return LoggerFactory.getLogger(Failure.class);
  }
}
