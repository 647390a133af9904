package joiner.ddl;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import joiner.catalog.CatalogIndex;
import joiner.ddl.Tokens.NotUnderstoodException;

/**
 * The columns of an index. A unique one that leaves rows with empty values out says what a unique
 * key of the standard says; some engines need it to be said so.
 */
final class IndexParts {
  private IndexParts() {}

  /** The columns of an index that is no key, each with its direction. */
  static CatalogIndex plain(String name, Tokens tokens) throws NotUnderstoodException {
    var columns = new ArrayList<String>();
    var descending = new HashSet<String>();
    for (Tokens part : tokens.brackets().parts()) {
      columns.add(part.name());
      if (!part.takes("ASC") && part.takes("DESC")) {
        descending.add(columns.getLast());
      }
      if (part.takes("NULLS") && !part.takes("FIRST")) { // Where they stand is the engine's.
        part.expect("LAST");
      }
      if (!part.isOver()) {
        throw new NotUnderstoodException();
      }
    }
    return new CatalogIndex(name, columns, descending);
  }

  /** The columns, and what is behind them: nothing, or that they are filled. */
  static List<String> ofKey(Tokens tokens) throws NotUnderstoodException {
    var columns = new ArrayList<String>();
    for (Tokens part : tokens.brackets().parts()) {
      columns.add(part.takes("CASE") ? whereFilled(part) : part.name());
      part.takes("ASC");
      if (!part.isOver()) {
        throw new NotUnderstoodException();
      }
    }
    if (tokens.takes("WHERE")) {
      boolean bracketed = tokens.sees("(");
      Tokens condition = bracketed ? tokens.brackets() : tokens;
      if (!columns.containsAll(filled(condition))) {
        throw new NotUnderstoodException();
      }
    }
    return columns;
  }

  /**
   * {@code CASE WHEN a IS NOT NULL AND … THEN a END} for a column that counts where all are filled.
   */
  private static String whereFilled(Tokens tokens) throws NotUnderstoodException {
    tokens.expect("WHEN");
    filled(tokens);
    tokens.expect("THEN");
    String column = tokens.name();
    tokens.expect("END");
    return column;
  }

  private static Set<String> filled(Tokens tokens) throws NotUnderstoodException {
    var filled = new LinkedHashSet<String>();
    do {
      filled.add(tokens.name());
      tokens.expect("IS", "NOT", "NULL");
    } while (tokens.takes("AND"));
    return filled;
  }
}
