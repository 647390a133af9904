package joiner.source;

import joiner.rows.TableSink;

/** Where the tables of a file go as they are read. */
public interface TableSinks {
  /** Begins a table on its own. */
  TableSink table(String name);

  /**
   * Begins a repeating section.
   *
   * @param parent the sink of the table it repeats in
   */
  SectionSink section(String name, TableSink parent);

  /** Forgets all tables, because the file has to be read again in another way. */
  void restart();

  /** A table whose rows belong to rows of another. */
  interface SectionSink extends TableSink {
    /** Says to which row of the parent, from 0, the current row belongs. */
    void belongsTo(int parentRow);
  }
}
