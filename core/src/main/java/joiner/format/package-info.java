/**
 * Reading and writing files: designs as Data Packages (version 2 of the open standard), rows as RFC
 * 4180 CSV. Start at {@link joiner.format.DesignFolder}. Knows no screens and no engines.
 */
@NullMarked
package joiner.format;

import org.jspecify.annotations.NullMarked;
