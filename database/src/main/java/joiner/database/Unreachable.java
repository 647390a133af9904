package joiner.database;

import java.sql.SQLException;

/**
 * Why a database cannot be reached, by the classes of SQLSTATE (ISO/IEC 9075-2, subclause 24.1).
 */
final class Unreachable {
  /** MariaDB's number for a database that is not there (from its documentation). */
  private static final int MARIADB_UNKNOWN_DATABASE = 1049;

  private Unreachable() {}

  static String reason(SQLException e) {
    String state = e.getSQLState() == null ? "" : e.getSQLState();
    if (state.startsWith("28")) {
      return "the user or the password is not accepted.";
    }
    if (state.startsWith("3D") || e.getErrorCode() == MARIADB_UNKNOWN_DATABASE) {
      return "there is no database of that name; make one, or name another.";
    }
    if (state.startsWith("08")) {
      return "nobody answers there; check the address and the port, and whether the server runs.";
    }
    if (state.equals("90146") || state.equals("90124")) { // H2: not there.
      return "there is no such file.";
    }
    return "it refuses the connection.";
  }
}
