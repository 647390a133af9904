package joiner.rows;

import joiner.model.FieldId;

/** Rows that stay in a file and may be others the next time they are read. */
public interface FiledRows extends RowSource {
  /** An object that equals another one only where the rows are known to be the same. */
  Object state();

  /** An object that equals another one only where a field's values are known to be the same. */
  Object identity(FieldId field);
}
