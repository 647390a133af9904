package joiner.edit;

import java.util.List;
import java.util.stream.Stream;
import joiner.meaning.Draft;
import joiner.meaning.Renaming;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;
import joiner.naming.ConstraintNaming;

/**
 * Has a reference say what a rule said: that a value of a row is that of its parent. Both become
 * part of what refers and of what is referred to, so that every engine keeps it, and the rule goes.
 *
 * @param rule that is not needed any more
 * @param over the reference
 * @param own the field of the child
 * @param theirs the field of the parent
 */
public record OwnerByReference(Rule rule, RelationshipId over, FieldId own, FieldId theirs)
    implements Edit {
  @Override
  public String name() {
    return "let a reference say that " + rule.label();
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Design before = draft.design();
    Relationship r = before.relationship(over);
    if (r.childFields().contains(own) || r.parentFields().contains(theirs)) {
      throw new EditRefusedException("The reference " + r.name() + " has that field already.");
    }
    List<FieldId> up = Stream.concat(r.parentFields().stream(), Stream.of(theirs)).toList();
    List<FieldId> down = Stream.concat(r.childFields().stream(), Stream.of(own)).toList();
    TableId child = r.child();
    Design after =
        before
            .withTable(r.parent(), parent -> keyed(parent, up))
            .withTable(child, this::without)
            .withRelationship(over, old -> old.withEnds(child, down, old.parent(), up));
    return draft.withDesign(Renaming.carry(before, after));
  }

  private static Table keyed(Table parent, List<FieldId> key) {
    return parent.isKey(key)
        ? parent
        : parent.withUniqueKeyAdded(
            new UniqueKey(ConstraintNaming.unique(parent.name(), parent.namesOf(key)), key));
  }

  private Table without(Table child) {
    return child.withRules(
        child.rules().stream().filter(other -> !other.id().equals(rule.id())).toList());
  }
}
