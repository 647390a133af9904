/**
 * Every change a user can make, as a value: it names itself and turns one design with its rows into
 * another. Start at {@link joiner.edit.Edit}. Knows no screens and no files.
 */
@NullMarked
package joiner.edit;

import org.jspecify.annotations.NullMarked;
