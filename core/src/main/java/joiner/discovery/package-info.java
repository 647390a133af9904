/**
 * What data shows by itself. Start at {@link joiner.discovery.ColumnProfile} for one column, {@link
 * joiner.discovery.DependencySearch} for keys and functional dependencies, {@link
 * joiner.discovery.InclusionSearch} for references between tables, and {@link
 * joiner.discovery.FactSearch} for everything that would split a table, the plausible first.
 *
 * <p>Exact dependencies are found as minimal hitting sets of difference sets: time follows the
 * answer, memory is one path of the search, and what is found before it is stopped stands. Those
 * that hold but for some rows are searched level by level, whose time grows with the sets of
 * columns tried; so it is asked for short determinants. Knows no files and no screens.
 */
@NullMarked
package joiner.discovery;

import org.jspecify.annotations.NullMarked;
