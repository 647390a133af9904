package joiner.finding;

/** One check of a design. A pure function of what it looks at. */
sealed interface DesignCheck permits WholeCheck, TableCheck, RelationshipCheck {
  /** Names the check in findings and on the command line. */
  String id();
}
