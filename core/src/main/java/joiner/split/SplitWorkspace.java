package joiner.split;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import joiner.edit.AddRelationship;
import joiner.edit.AddTable;
import joiner.edit.Edit;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/** The design and rows while a table is being split, and the table as it was. */
final class SplitWorkspace {
  private final Table table;
  private final Rows rows;
  private final Set<String> given = new HashSet<>();
  private Draft draft;

  /**
   * Begins with a draft.
   *
   * @param rows of the table, with everything settled
   */
  SplitWorkspace(Draft before, Table table, Rows rows) {
    this.table = table;
    this.rows = rows;
    this.draft = before.withRows(before.rows().with(table.id(), old -> rows));
  }

  /** The table to split, as it was. */
  Table table() {
    return table;
  }

  /** Its rows. */
  Rows rows() {
    return rows;
  }

  Draft draft() {
    return draft;
  }

  /** The table as it is now. */
  Table now(Table any) {
    return draft.design().table(any.id());
  }

  void add(Table added, Rows contents) {
    draft = new AddTable(added, contents).apply(draft);
  }

  void change(Edit edit) {
    draft = edit.apply(draft);
  }

  void change(Table any, UnaryOperator<Table> change, Rows contents) {
    draft =
        draft.with(
            draft.design().withTable(any.id(), change),
            draft.rows().with(any.id(), old -> contents));
  }

  /** A name for a table of values to pick from. */
  String freeLookupName(String wanted) {
    return freeTableName(isFree(wanted) ? wanted : wanted + "_list");
  }

  private boolean isFree(String name) {
    return !given.contains(name) && draft.design().tableNamed(name).isEmpty();
  }

  /** A table name that is free and is given away: itself, or behind the split table's name. */
  String freeTableName(String wanted) {
    Set<String> taken = new HashSet<>(given);
    for (Table there : draft.design().tables()) {
      taken.add(there.name());
      taken.add(there.id().toString());
    }
    String free =
        taken.contains(wanted) ? NamingPolicy.free(table.name() + "_" + wanted, taken) : wanted;
    given.add(free);
    return free;
  }

  /** Ties a table to the primary key of another, with an index where no key serves as one. */
  RelationshipId relate(
      Table child, List<FieldId> link, Table parent, UnaryOperator<Relationship> details) {
    String name = ConstraintNaming.reference(child.name(), List.of(parent.name()));
    Relationship relationship =
        draft
            .design()
            .unused(
                details.apply(
                    Relationship.of(name, child.id(), link, parent.id(), parent.primaryKey())));
    change(new AddRelationship(relationship));
    if (!begins(now(child).primaryKey(), link)) {
      var index = new Index(ConstraintNaming.index(child.name(), List.of(parent.name())), link);
      draft = draft.withDesign(draft.design().withTable(child.id(), t -> t.withIndexAdded(index)));
    }
    return relationship.id();
  }

  private static boolean begins(List<FieldId> key, List<FieldId> link) {
    return key.size() >= link.size() && key.subList(0, link.size()).equals(link);
  }

  /** A row number as a generated key; none for −1. */
  static Optional<String> key(int row) {
    return row < 0 ? Optional.empty() : Optional.of(String.valueOf(row + 1));
  }
}
