package joiner.desktop.work;

/**
 * Which kind of work waits for which: kinds never wait for each other, so that a save never queues
 * behind a search.
 */
public enum Lane {
  /** Writing what would be lost; one after the other, never stopped half-way. */
  SAVING,
  /** Findings and audit of the open design; one after the other. */
  CHECKING,
  /** Everything else, two at a time; what is visible first. */
  WORKING
}
