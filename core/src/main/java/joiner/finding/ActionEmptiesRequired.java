package joiner.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import joiner.edit.ChangeField;
import joiner.edit.ChangeRelationship;
import joiner.model.Field;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;

/**
 * Deleting a parent never empties a link that must have a value: SET NULL needs fields that may be
 * empty, SET DEFAULT a default where they may not be (ISO/IEC 9075-2, referential actions).
 */
final class ActionEmptiesRequired implements RelationshipCheck {
  private static final TableFinding FINDING =
      new TableFinding("action-empties-required", Severity.ERROR, Topic.CONNECT);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(Relationship r, Table child, Table parent, Consumer<Finding> found) {
    List<Field> required =
        r.childFields().stream().filter(child::isRequired).map(child::field).toList();
    boolean onDelete = empties(r.onDelete(), required);
    if (onDelete || empties(r.onUpdate(), required)) {
      Field field = required.getFirst();
      ReferentialAction action = onDelete ? r.onDelete() : r.onUpdate();
      found.accept(
          FINDING.about(
              r,
              (onDelete ? "Deleting " : "Changing the key of ")
                  + parent.noun().indefinite()
                  + " would empty "
                  + field.label()
                  + " of "
                  + child.label()
                  + " ("
                  + action.sql()
                  + "), which must have a value.",
              "Some engines refuse the table, others refuse every such delete.",
              remedies(r, child, field).toArray(Remedy[]::new)));
    }
  }

  private static boolean empties(ReferentialAction action, List<Field> required) {
    return switch (action) {
      case SET_NULL -> !required.isEmpty();
      case SET_DEFAULT -> required.stream().anyMatch(f -> f.defaultValue().isEmpty());
      case NO_ACTION, RESTRICT, CASCADE -> false;
    };
  }

  private static List<Remedy> remedies(Relationship r, Table child, Field field) {
    var remedies = new ArrayList<Remedy>();
    remedies.add(
        new Remedy(
            "Refuse such a delete",
            ChangeRelationship.actions(
                "refuse to empty " + field.label(),
                r,
                refusing(r.onDelete()),
                refusing(r.onUpdate()))));
    if (!child.primaryKey().contains(field.id())) {
      remedies.add(
          new Remedy(
              "Let " + field.label() + " be empty", ChangeField.required(child, field, false)));
    }
    return remedies;
  }

  private static ReferentialAction refusing(ReferentialAction action) {
    boolean emptying =
        action == ReferentialAction.SET_NULL || action == ReferentialAction.SET_DEFAULT;
    return emptying ? ReferentialAction.NO_ACTION : action;
  }
}
