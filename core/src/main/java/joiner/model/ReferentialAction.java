package joiner.model;

/** What happens to child rows when their parent row goes or its key changes (SQL's words). */
public enum ReferentialAction {
  NO_ACTION("NO ACTION"),
  RESTRICT("RESTRICT"),
  CASCADE("CASCADE"),
  SET_NULL("SET NULL"),
  SET_DEFAULT("SET DEFAULT");

  private final String sql;

  ReferentialAction(String sql) {
    this.sql = sql;
  }

  /** The action with those words, in any case; anything else is refused. */
  public static ReferentialAction ofSql(String words) {
    for (ReferentialAction action : values()) {
      if (action.sql.equalsIgnoreCase(words)) {
        return action;
      }
    }
    throw new IllegalArgumentException("no referential action is called " + words);
  }

  /** The words of the SQL standard. */
  public String sql() {
    return sql;
  }
}
