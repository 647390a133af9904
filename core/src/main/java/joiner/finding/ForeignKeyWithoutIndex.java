package joiner.finding;

import java.util.List;
import java.util.function.Consumer;
import joiner.edit.ChangeTable;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;

/** A foreign key is the beginning of an index or key of its child. */
final class ForeignKeyWithoutIndex implements RelationshipCheck {
  private static final TableFinding FINDING =
      new TableFinding("foreign-key-without-index", Severity.ADVICE, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(Relationship r, Table child, Table parent, Consumer<Finding> found) {
    boolean indexed =
        child.keys().stream().anyMatch(key -> begins(key, r.childFields()))
            || child.indexes().stream().anyMatch(index -> begins(index.fields(), r.childFields()));
    if (!indexed) {
      List<String> names = child.namesOf(r.childFields());
      var index = new Index(ConstraintNaming.index(child.name(), names), r.childFields());
      found.accept(
          FINDING.about(
              r,
              "No index on " + String.join(", ", names) + " of " + child.label() + ".",
              "Finding the "
                  + child.noun().plural()
                  + " of one "
                  + parent.noun().singular()
                  + ", or deleting one, reads every row.",
              new Remedy("Add the index", ChangeTable.addIndex(child, index))));
    }
  }

  private static boolean begins(List<FieldId> fields, List<FieldId> wanted) {
    return fields.size() >= wanted.size() && fields.subList(0, wanted.size()).containsAll(wanted);
  }
}
