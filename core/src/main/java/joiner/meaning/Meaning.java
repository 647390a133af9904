package joiner.meaning;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import joiner.expression.Checked;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * What a whole design says, table by table. Each table is worked out when it is first asked for;
 * what is known of a table is taken over by the design after the next change, as long as the table
 * is the same and hangs on no other. May be used by several threads.
 */
public final class Meaning {
  private final Design design;
  private final Map<TableId, TableMeaning> known = new ConcurrentHashMap<>();

  private Meaning(Design design) {
    this.design = design;
  }

  static Meaning of(Design design) {
    return new Meaning(design);
  }

  /**
   * What a design says, which may be another; linear in the tables known, and nothing is worked
   * out.
   */
  Meaning takenOverBy(Design other) {
    if (other == design) {
      return this;
    }
    var meaning = new Meaning(other);
    known.forEach(
        (id, table) -> {
          boolean same = other.find(id).filter(now -> now == table.table()).isPresent();
          if (same && !table.reachesOut()) {
            meaning.known.put(id, table);
          }
        });
    return meaning;
  }

  /** What that table of the design says. */
  public TableMeaning of(Table table) {
    return of(table.id());
  }

  /** What is asked of the rows that are offered over a relationship, if anything is. */
  public Optional<Checked> offered(Relationship relationship) {
    return relationship
        .picking()
        .only()
        .map(formula -> formula.condition(of(relationship.parent()).scope()));
  }

  /** What the table with that id says; an unknown one is a caller's mistake. */
  public TableMeaning of(TableId table) {
    return known.computeIfAbsent(table, id -> TableMeaning.of(design, design.table(id)));
  }
}
