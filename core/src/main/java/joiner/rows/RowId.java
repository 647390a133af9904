package joiner.rows;

/**
 * Which row it is, whatever stands before it. A row keeps its id through every change of the rows
 * it is one of, and no row made later has the same; it lasts as long as the program runs.
 */
public record RowId(long value) {}
