package joiner.desktop.work;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.format.DesignFolder;
import joiner.format.DesignStore;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.rows.SampleRows;

/**
 * A design that is ready for the bench.
 *
 * @param store where it is saved; none: nowhere yet
 * @param notices what reading had to tell
 */
public record OpenDesign(Draft draft, Optional<DesignStore> store, List<String> notices) {
  public OpenDesign {
    notices = List.copyOf(notices);
  }

  /** A design with nothing in it that has no folder. */
  public static OpenDesign empty(String title) {
    return of(new Draft(Design.empty("untitled", title), SampleRows.NONE));
  }

  /** A design that has no folder. */
  public static OpenDesign of(Draft draft) {
    return new OpenDesign(draft, Optional.empty(), List.of());
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
      return new OpenDesign(draft, Optional.of(store), List.of());
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
    return new OpenDesign(opened.draft(), Optional.of(store), notices);
  }
}
