package joiner.finding;

import java.util.List;
import java.util.function.Consumer;
import joiner.edit.ChangeTable;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.Table;

/** A foreign key is the beginning of an index or key of its table. */
final class ForeignKeyWithoutIndex implements DesignCheck {
  private static final TableFinding FINDING =
      new TableFinding("foreign-key-without-index", Severity.ADVICE, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    for (Relationship r : design.design().relationships()) {
      Table table = design.design().table(r.child());
      boolean indexed =
          table.keys().stream().anyMatch(key -> begins(key, r.childFields()))
              || table.indexes().stream()
                  .anyMatch(index -> begins(index.fields(), r.childFields()));
      if (!indexed) {
        List<String> names = table.namesOf(r.childFields());
        var index =
            new Index("ix_" + table.name() + "_" + String.join("_", names), r.childFields());
        found.accept(
            FINDING.about(
                r,
                "No index on " + String.join(", ", names) + " of " + table.label() + ".",
                "Finding the "
                    + table.noun().plural()
                    + " of one "
                    + design.design().table(r.parent()).noun().singular()
                    + ", or deleting one, reads every row.",
                new Remedy("Add the index", ChangeTable.addIndex(table, index))));
      }
    }
  }

  private static boolean begins(List<FieldId> fields, List<FieldId> wanted) {
    return fields.size() >= wanted.size() && fields.subList(0, wanted.size()).containsAll(wanted);
  }
}
