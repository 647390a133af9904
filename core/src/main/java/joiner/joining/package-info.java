/**
 * Questions across tables: how tables are joined, what a line of the answer stands for, where rows
 * multiply, the answer from rows, and the question in SQL. Knows no window and no connection.
 */
@NullMarked
package joiner.joining;

import org.jspecify.annotations.NullMarked;
