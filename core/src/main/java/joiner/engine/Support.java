package joiner.engine;

/** Whether an engine can say, and so keep, something. */
public sealed interface Support {
  /**
   * It does.
   *
   * @param sql in the engine's spelling
   */
  record Kept(String sql) implements Support {}

  /**
   * It cannot; only Joiner's audit sees it.
   *
   * @param loss why, without a full stop
   */
  record Impossible(String loss) implements Support {}
}
