package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import joiner.audit.AuditReport;
import joiner.audit.Violation;
import joiner.finding.Finding;
import joiner.finding.Severity;
import joiner.model.Design;
import joiner.model.TableId;

/** The one place that decides whether a design and its rows may be shipped as they stand. */
public final class ShipGate {
  private ShipGate() {}

  /**
   * Something that has to be mended first.
   *
   * @param inRows whether rows break the design, rather than the design being wrong
   * @param message a sentence a person understands
   */
  public record Obstacle(boolean inRows, TableId table, String message) {}

  /**
   * What stands in the way; empty: nothing.
   *
   * @param findings of the design as it stands
   * @param audit of its rows as they stand
   * @param rows which rows go along; others are not looked at
   */
  public static List<Obstacle> obstacles(
      Design design, List<Finding> findings, AuditReport audit, RowsChoice rows) {
    var obstacles = new ArrayList<Obstacle>();
    for (Finding finding : findings) {
      if (finding.severity() == Severity.ERROR) {
        obstacles.add(new Obstacle(false, finding.table(), finding.message()));
      }
    }
    for (Violation violation : audit.violations().toList()) {
      if (design.find(violation.table()).filter(rows::includes).isPresent()) {
        obstacles.add(new Obstacle(true, violation.table(), violation.message()));
      }
    }
    for (AuditReport.Unread unread : audit.unread()) {
      if (design.find(unread.table()).filter(rows::includes).isPresent()) {
        obstacles.add(new Obstacle(true, unread.table(), unread.message()));
      }
    }
    return List.copyOf(obstacles);
  }
}
