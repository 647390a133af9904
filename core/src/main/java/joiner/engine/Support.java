package joiner.engine;

/** Whether and how an engine keeps something. */
public sealed interface Support {
  /** The engine does it itself. */
  record Native() implements Support {}

  /**
   * The script makes the engine do it.
   *
   * @param how by what means
   */
  record Emulated(String how) implements Support {}

  /**
   * The engine cannot; only Joiner's audit sees it.
   *
   * @param loss why, and what is lost
   */
  record Impossible(String loss) implements Support {}

  /** As people read it in a table. */
  default String words() {
    return switch (this) {
      case Native n -> "check";
      case Emulated e -> e.how();
      case Impossible i -> "audit only";
    };
  }
}
