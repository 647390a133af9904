package joiner.database;

import java.sql.SQLException;

/** The target cannot be reached or refused a statement. What was sent and what it said are kept. */
public final class TargetRefusedException extends Exception {
  private static final long serialVersionUID = 1L;
  private final String statement;
  private final String sqlState;

  TargetRefusedException(String what, String statement, SQLException cause) {
    super(
        what
            + " "
            + firstLine(cause)
            + (cause.getSQLState() == null ? "" : " (SQLSTATE " + cause.getSQLState() + ")"),
        cause);
    this.statement = statement;
    this.sqlState = cause.getSQLState() == null ? "" : cause.getSQLState();
  }

  TargetRefusedException(String message) {
    super(message);
    this.statement = "";
    this.sqlState = "";
  }

  private static String firstLine(SQLException cause) {
    String message =
        cause.getMessage() == null ? cause.getClass().getSimpleName() : cause.getMessage();
    int statementAt = message.indexOf("; SQL statement:");
    return (statementAt > 0 ? message.substring(0, statementAt) : message)
        .lines()
        .findFirst()
        .orElse("");
  }

  /** The statement refused; empty if it did not come so far. */
  public String statement() {
    return statement;
  }

  /** The engine's five-character code; may be empty. */
  public String sqlState() {
    return sqlState;
  }
}
