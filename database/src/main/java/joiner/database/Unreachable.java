package joiner.database;

import java.sql.SQLException;
import joiner.engine.Dialect;

/**
 * Why a database cannot be reached, by the classes of SQLSTATE (ISO/IEC 9075-2, subclause 24.1).
 */
final class Unreachable {
  private Unreachable() {}

  static String reason(SQLException e, Dialect dialect) {
    String state = e.getSQLState() == null ? "" : e.getSQLState();
    if (state.startsWith("28")) {
      return "the user or the password is not accepted.";
    }
    if (dialect.isMissing(state, e.getErrorCode())) {
      return dialect.fileEnding().isPresent()
          ? "there is no such file."
          : "there is no database of that name; make one, or name another.";
    }
    if (state.startsWith("08")) {
      return "nobody answers there; check the address and the port, and whether the server runs.";
    }
    return "it refuses the connection.";
  }
}
