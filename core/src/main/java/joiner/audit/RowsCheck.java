package joiner.audit;

/** Looks for rows that break a rule on several rows together. */
interface RowsCheck {
  /** Looks at so many rows that were read, the first of which has that number, from 0. */
  void check(int rows, int first);

  /** What was found; all rows went by. */
  KnownAudit.Found found();
}
