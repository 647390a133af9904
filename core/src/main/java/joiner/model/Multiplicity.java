package joiner.model;

import java.util.Collection;

/**
 * How many rows stand at each end of a relationship, derived from keys and required fields.
 *
 * @param parentRequired each child row has a parent
 * @param childUnique each parent row has at most one child row
 * @param childRequired each parent row is meant to have a child row
 */
public record Multiplicity(boolean parentRequired, boolean childUnique, boolean childRequired) {

  /** What the design says of that relationship. */
  public static Multiplicity of(Design design, Relationship relationship) {
    Table child = design.table(relationship.child());
    Collection<FieldId> fields = relationship.childFields();
    return new Multiplicity(
        fields.stream().allMatch(child::isRequired),
        child.isUnique(fields),
        relationship.parentNeedsChild());
  }

  /** How many child rows each parent row has. */
  public Quantity children() {
    if (childUnique) {
      return childRequired ? Quantity.EXACTLY_ONE : Quantity.AT_MOST_ONE;
    }
    return childRequired ? Quantity.ONE_OR_MANY : Quantity.ANY_NUMBER;
  }

  /** How many parent rows each child row has. */
  public Quantity parents() {
    return parentRequired ? Quantity.EXACTLY_ONE : Quantity.AT_MOST_ONE;
  }
}
