package joiner.ddl;

import java.util.Optional;

/**
 * One statement of a script.
 *
 * @param section the part of the script it stands in
 * @param comment a line for people above it; may be empty
 * @param sql its text, without the closing semicolon
 * @param creates the table it makes, as it stands in SQL text
 */
public record Statement(Section section, String comment, String sql, Optional<String> creates) {
  /** A statement that makes no table. */
  static Statement of(Section section, String comment, String sql) {
    return new Statement(section, comment, sql, Optional.empty());
  }

  /** Parts of a script, in their order. */
  public enum Section {
    TABLES("Tables"),
    ROWS("Rows"),
    RELATIONSHIPS("Relationships"),
    INDEXES("Indexes"),
    DESCRIPTIONS("Descriptions");

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
