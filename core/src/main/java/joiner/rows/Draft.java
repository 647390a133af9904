package joiner.rows;

import joiner.model.Design;

/** A design together with its sample rows: what is open, what an edit changes, what is saved. */
public record Draft(Design design, SampleRows rows) {
  /** The same rows under another design. */
  public Draft withDesign(Design other) {
    return new Draft(other, rows);
  }

  /** The same design with other rows. */
  public Draft withRows(SampleRows other) {
    return new Draft(design, other);
  }
}
