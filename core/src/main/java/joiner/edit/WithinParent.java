package joiner.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.naming.NamingPolicy;
import joiner.rows.Rows;

/**
 * Identifies the rows of a child by its parent and a number that is counted within each parent, as
 * that of a weak entity is (Chen, "The Entity–Relationship Model", 1976, section 3.2). Rows are
 * numbered in their order; what referred to them follows, and the key they had stays unique.
 *
 * @param tie the relationship to the parent
 * @param label of the child
 * @param parent the label of the parent
 */
public record WithinParent(RelationshipId tie, String label, String parent) implements Edit {
  /** The change for the child of a relationship. */
  public static WithinParent of(Design design, Relationship tie) {
    return new WithinParent(
        tie.id(), design.table(tie.child()).label(), design.table(tie.parent()).label());
  }

  /** Whether a child can be identified so and is not yet. */
  public static boolean fits(Design design, Relationship tie) {
    Table child = design.table(tie.child());
    boolean required = tie.childFields().stream().allMatch(child::isRequired);
    return required
        && !tie.isSelfReference()
        && !child.isUnique(tie.childFields())
        && !child.primaryKey().containsAll(tie.childFields());
  }

  @Override
  public String name() {
    return "identify " + label + " within " + parent;
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Relationship r = design.relationship(tie);
    Table child = design.table(r.child());
    if (!fits(design, r)) {
      throw new EditRefusedException(
          label
              + " cannot be counted within "
              + parent
              + ": each of its rows must have one, and be one of several.");
    }
    InFile.requireHeld(draft, child.id());
    String name = NamingPolicy.free(child.name() + "_no", child.fieldsByName().keySet());
    Field number =
        child.unused(
            Field.of(name, label + " within " + parent, new FieldType.WholeNumber(Width.BITS_32))
                .withRequired(true)
                .withLimits(Limits.NONE.withRange(Optional.of("1"), Optional.empty())));
    Draft grown = new AddField(child.id(), number).apply(draft);
    Rows rows = grown.rows().of(child.id());
    if (rows.count() > 0) {
      Rows counted = rows.withColumn(number.id(), counted(rows, r));
      grown = grown.withRows(grown.rows().with(child.id(), none -> counted));
    }
    var key = new ArrayList<FieldId>(r.childFields());
    key.add(number.id());
    return ChangeKey.of(grown.design().table(child.id()), key).apply(grown);
  }

  private List<Optional<String>> counted(Rows rows, Relationship r) {
    Map<List<Optional<String>>, Integer> last = new HashMap<>();
    var numbers = new ArrayList<Optional<String>>();
    for (int row = 0; row < rows.count(); row++) {
      List<Optional<String>> of = rows.row(row, r.childFields());
      if (of.stream().anyMatch(Optional::isEmpty)) {
        throw new EditRefusedException(
            "Row " + (row + 1) + " of " + label + " has no " + parent + "; give it one first.");
      }
      numbers.add(Optional.of(String.valueOf(last.merge(of, 1, Integer::sum))));
    }
    return numbers;
  }
}
