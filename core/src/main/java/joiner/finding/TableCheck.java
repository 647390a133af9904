package joiner.finding;

import java.util.function.Consumer;
import joiner.meaning.TableMeaning;
import joiner.rows.Rows;

/**
 * A check that looks at one table and its rows only, so that its findings hold while those stay.
 */
non-sealed interface TableCheck extends DesignCheck {
  /** Reports what it finds in one table. */
  void run(TableMeaning meaning, Rows rows, Consumer<Finding> found);
}
