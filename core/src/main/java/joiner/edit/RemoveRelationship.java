package joiner.edit;

import java.util.List;
import joiner.model.Design;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.rows.Draft;

/**
 * Unties two tables; the fields and their values stay. A join table that loses a side becomes
 * plain.
 */
public record RemoveRelationship(RelationshipId relationship, String label) implements Edit {
  @Override
  public String name() {
    return "remove the relationship " + label;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    List<TableId> joins = design.tables().stream().filter(this::isSide).map(Table::id).toList();
    for (TableId join : joins) {
      design = design.withTable(join, t -> t.withKind(new TableKind.Plain()));
    }
    return draft.withDesign(design.withoutRelationship(relationship));
  }

  private boolean isSide(Table table) {
    return table.kind() instanceof TableKind.Join join
        && (join.first().equals(relationship) || join.second().equals(relationship));
  }
}
