package joiner.desktop.work;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.edit.History;
import joiner.format.DesignFolder;
import joiner.format.DesignStore;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.rows.SampleRows;

/**
 * A design that is ready for the bench.
 *
 * @param history the design with what was done to it
 * @param store where it is saved; none: nowhere yet
 * @param notices what reading had to tell
 */
public record OpenDesign(History history, Optional<DesignStore> store, List<String> notices) {
  public OpenDesign {
    notices = List.copyOf(notices);
  }

  /** The design with its rows. */
  public Draft draft() {
    return history.present();
  }

  /** A design with nothing in it that has no folder. */
  public static OpenDesign empty(String title) {
    return of(new Draft(Design.empty("untitled", title), SampleRows.NONE));
  }

  /** A design that has no folder. */
  public static OpenDesign of(Draft draft) {
    return new OpenDesign(History.startingWith(draft), Optional.empty(), List.of());
  }

  /**
   * Reads the design in a folder; one that is not there or holds none starts empty there. For a
   * background thread.
   */
  public static OpenDesign in(Path path) throws IOException, UnreadableFileException {
    DesignStore store = DesignStore.at(path);
    if (!store.holdsDesign() && !path.endsWith("datapackage.json")) {
      String name = String.valueOf(store.folder().getFileName());
      String title = joiner.naming.NamingPolicy.labelFor(name);
      var draft = new Draft(Design.empty(name, title), SampleRows.NONE);
      return new OpenDesign(History.startingWith(draft), Optional.of(store), List.of());
    }
    DesignFolder.Opened opened = store.open();
    var notices = new ArrayList<>(opened.notices());
    try {
      store
          .lock()
          .ifPresent(
              who ->
                  notices.add(
                      "This design is open elsewhere too ("
                          + who
                          + "). Whoever saves second is asked what counts."));
    } catch (IOException e) {
      notices.add(
          "The folder cannot be marked as worked on ("
              + e.getMessage()
              + "); changes may not be saved there.");
    }
    return new OpenDesign(history(store, notices), Optional.of(store), notices);
  }

  private static History history(DesignStore store, List<String> notices) {
    try {
      return store.history();
    } catch (IOException e) {
      notices.add("What was done before cannot be taken back: " + e.getMessage());
      return History.startingWith(store.standing().orElseThrow());
    }
  }
}
