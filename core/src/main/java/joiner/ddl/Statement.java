package joiner.ddl;

import java.util.Optional;

/**
 * One statement of a script.
 *
 * @param section the part of the script it stands in
 * @param comment a line for people above it; may be empty
 * @param sql its text, without the closing semicolon
 * @param creates the table or the view it makes, as it stands in SQL text
 * @param loads the rows for its parameters; empty where it has none
 */
public record Statement(
    Section section,
    String comment,
    String sql,
    Optional<String> creates,
    Optional<RowLoad> loads) {
  /** A statement that makes no table and no view. */
  static Statement of(Section section, String comment, String sql) {
    return new Statement(section, comment, sql, Optional.empty(), Optional.empty());
  }

  /** A statement that makes a table. */
  static Statement creating(String comment, String sql, String table) {
    return new Statement(Section.TABLES, comment, sql, Optional.of(table), Optional.empty());
  }

  /** A statement that makes a view. */
  static Statement creatingView(String sql, String view) {
    return new Statement(Section.AROUND, "", sql, Optional.of(view), Optional.empty());
  }

  /** A statement that brings rows by its parameters. */
  static Statement loading(String sql, RowLoad rows) {
    return new Statement(Section.ROWS, "", sql, Optional.empty(), Optional.of(rows));
  }

  /** Parts of a script, in their order; some are only in one that changes what is there. */
  public enum Section {
    RELEASES("What lets go"),
    ASIDE("Rows set aside"),
    REMOVALS("Removals"),
    RENAMES("New names"),
    COLUMNS("Columns"),
    TABLES("Tables"),
    ROWS("Rows"),
    KEYS("Keys and checks"),
    RELATIONSHIPS("Relationships"),
    INDEXES("Indexes"),
    DESCRIPTIONS("Descriptions"),
    AROUND("Views, triggers and grants"),
    TIDYING("What is no longer needed");

    private final String title;

    Section(String title) {
      this.title = title;
    }

    /** What people read. */
    public String title() {
      return title;
    }
  }
}
