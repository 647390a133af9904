package joiner.database;

/** Hears how far long work has come, and may stop it. */
public interface Progress {
  /** Hears nothing and never stops. */
  Progress NONE = (done, total, doing) -> true;

  /**
   * Tells how far the work has come.
   *
   * @return whether to go on
   */
  boolean reached(int done, int total, String doing);
}
