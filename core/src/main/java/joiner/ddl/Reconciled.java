package joiner.ddl;

import java.util.List;
import joiner.catalog.Catalog;
import joiner.engine.Answers;
import joiner.engine.Dialect;
import joiner.meaning.Draft;

/**
 * What a database holds, seen by somebody who knows the design it was made from: what it keeps as
 * it was promised is what the design says, with all that no database keeps, such as labels; the
 * rest is as it was found.
 *
 * @param draft the design as the database has it, with the rows of the one that is known
 * @param notices what was found or is missing and finds no place in a design
 */
public record Reconciled(Draft draft, List<String> notices) {
  public Reconciled {
    notices = List.copyOf(notices);
  }

  /**
   * Reconciles a database with a design.
   *
   * @param found what the database holds
   * @param answers of the engine itself
   */
  public static Reconciled of(Draft known, Catalog found, Dialect dialect, Answers answers) {
    return new Reconciling(known, found, dialect, answers).reconcile();
  }
}
