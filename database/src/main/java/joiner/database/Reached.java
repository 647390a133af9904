package joiner.database;

/**
 * A database that answers.
 *
 * @param product name and version of the engine
 * @param tables how many tables its current schema has
 */
public record Reached(String product, int tables) {
  /**
   * Tries whether a database can be reached; nothing is changed.
   *
   * @throws TargetRefusedException saying why not
   */
  public static Reached of(Target target) throws TargetRefusedException {
    return LiveTarget.read(
        target,
        "answers, but cannot be read",
        live -> new Reached(live.product(), live.read().tables().size()));
  }
}
