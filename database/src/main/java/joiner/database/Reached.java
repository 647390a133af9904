package joiner.database;

import java.sql.SQLException;

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
    try (LiveTarget live = LiveTarget.connectToRead(target)) {
      return new Reached(live.product(), live.read().tables().size());
    } catch (SQLException e) {
      throw new TargetRefusedException(
          "The database " + target.shown() + " answers, but cannot be read:",
          "",
          new SQLException(target.hide(String.valueOf(e.getMessage())), e.getSQLState()));
    }
  }
}
