package joiner.ddl;

import java.util.List;
import joiner.catalog.Catalog;
import joiner.model.Design;
import joiner.naming.IdentifierRules;

/**
 * A schema as a design.
 *
 * @param design what was understood
 * @param unread what was not: which part of which table, and what it says, a sentence each
 */
public record Raised(Design design, List<String> unread) {
  public Raised {
    unread = List.copyOf(unread);
  }

  /**
   * Raises a schema. Labels come from names; lists, bounds and least lengths that checks demand of
   * one field become its choices and limits, other checks rules; a table whose primary key is two
   * foreign keys is a join table. What cannot be understood is left out and told.
   *
   * @param title of the design
   */
  public static Raised of(Catalog catalog, String title) {
    return new Raising(catalog, title).raise();
  }

  /**
   * Raises a schema that was found in a database, with names as they are written to that engine.
   *
   * @param title of the design
   */
  public static Raised of(Catalog found, IdentifierRules rules, String title) {
    return of(WrittenNames.in(found, rules), title);
  }
}
