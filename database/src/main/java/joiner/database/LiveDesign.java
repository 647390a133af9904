package joiner.database;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import joiner.catalog.Catalog;
import joiner.catalog.Surroundings;
import joiner.ddl.Raised;
import joiner.ddl.Reconciled;
import joiner.meaning.Draft;
import joiner.rows.SampleRows;

/**
 * What a live database holds, as a design. Nothing is changed there.
 *
 * @param draft the design with the rows that were asked for
 * @param notices what was not understood or not taken, a sentence each
 * @param around what stands around the tables
 */
public record LiveDesign(Draft draft, List<String> notices, Surroundings around) {
  public LiveDesign {
    notices = List.copyOf(notices);
  }

  /** How many rows of each table are taken along as usual. */
  public static final int USUAL_ROWS = 100_000;

  /**
   * Reads the current schema of a database.
   *
   * @param title of the design
   * @param rowsAtMost how many rows of each table are taken along
   * @throws TargetRefusedException if it cannot be reached or read
   * @throws CancellationException if the progress says to stop
   */
  public static LiveDesign read(Target target, String title, int rowsAtMost, Progress progress)
      throws TargetRefusedException {
    return LiveTarget.read(
        target,
        "cannot be read",
        live -> {
          Catalog found = live.read();
          Raised raised = Raised.of(found, live.dialect().identifiers(), title);
          var rows = new RowReading(live, rowsAtMost, progress);
          SampleRows taken = rows.read(List.copyOf(raised.design().tables()));
          var notices = new ArrayList<>(raised.unread());
          notices.addAll(found.around().notTaken());
          notices.addAll(rows.notices());
          return new LiveDesign(new Draft(raised.design(), taken), notices, found.around());
        });
  }

  /**
   * Reads the current schema of a database that was made from a design, in the words of that
   * design; its rows are the design's.
   *
   * @throws TargetRefusedException if it cannot be reached or read
   */
  public static LiveDesign of(Draft known, Target target) throws TargetRefusedException {
    return LiveTarget.read(
        target,
        "cannot be read",
        live -> {
          Catalog found = live.read();
          var reconciled = Reconciled.of(known, found, live.dialect(), live);
          return new LiveDesign(reconciled.draft(), reconciled.notices(), found.around());
        });
  }
}
