package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;

/**
 * Says whether each child row must have a parent, by making its foreign key required or optional.
 */
public record SetParentRequired(RelationshipId relationship, String name, boolean required)
    implements Edit {
  @Override
  public Draft apply(Draft draft) {
    Relationship r = draft.design().relationship(relationship);
    var design = draft.design();
    for (FieldId field : r.childFields()) {
      if (!required && design.table(r.child()).primaryKey().contains(field)) {
        throw new EditRefusedException(
            design.table(r.child()).field(field).label()
                + " is part of what identifies the row and cannot be left out; give the table another key first.");
      }
      design = design.withTable(r.child(), t -> t.withField(field, f -> f.withRequired(required)));
    }
    return draft.withDesign(design);
  }
}
