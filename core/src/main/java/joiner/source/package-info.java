/**
 * Reads the files people really have, as tables of texts: delimited text, workbooks, nested
 * documents, data packages, pasted blocks. Start at {@link joiner.source.SourceFile}. Knows nothing
 * of the design the tables may become.
 */
@NullMarked
package joiner.source;

import org.jspecify.annotations.NullMarked;
