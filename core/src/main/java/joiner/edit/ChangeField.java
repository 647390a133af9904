package joiner.edit;

import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.meaning.Renaming;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Table;
import joiner.model.TableId;

/** Changes one field. A new name is carried into the rules, row label and defaults that use it. */
public record ChangeField(String name, TableId table, FieldId field, UnaryOperator<Field> change)
    implements Edit {

  /** Gives a field another type. */
  public static ChangeField type(Table table, Field field, FieldType type) {
    return new ChangeField(
        "change the type of " + field.label(), table.id(), field.id(), f -> f.withType(type));
  }

  /** Makes a field required or optional. */
  public static ChangeField required(Table table, Field field, boolean required) {
    return new ChangeField(
        "make " + field.label() + (required ? " required" : " optional"),
        table.id(),
        field.id(),
        f -> f.withRequired(required));
  }

  /** Gives a field another label, and the name that goes with it. */
  public static ChangeField rename(Table table, Field field, String label, String name) {
    return new ChangeField(
        "rename " + field.label() + " to " + label,
        table.id(),
        field.id(),
        f -> f.withLabel(label).withName(name));
  }

  /** Gives a field another default. */
  public static ChangeField defaultValue(Table table, Field field, Optional<Formula> value) {
    return new ChangeField(
        "change the default of " + field.label(),
        table.id(),
        field.id(),
        f -> f.withDefault(value));
  }

  /** Gives a field another note. */
  public static ChangeField description(Table table, Field field, String description) {
    return new ChangeField(
        "change the note of " + field.label(),
        table.id(),
        field.id(),
        f -> f.withDescription(description));
  }

  /** Gives a field other bounds. */
  public static ChangeField limits(Table table, Field field, Limits limits) {
    return new ChangeField(
        "change the limits of " + field.label(), table.id(), field.id(), f -> f.withLimits(limits));
  }

  @Override
  public Draft apply(Draft draft) {
    Table before = draft.design().table(table);
    Field old = before.field(field);
    Field changed = change.apply(old);
    boolean taken =
        before.fieldNamed(changed.name()).filter(other -> !other.id().equals(field)).isPresent();
    if (taken) {
      throw new EditRefusedException(
          "There is another field "
              + changed.name()
              + " in "
              + before.label()
              + "; choose another name.");
    }
    Table after = before.withField(field, f -> changed);
    boolean renamed = !changed.name().equals(old.name());
    return draft.withDesign(
        draft.design().withTable(table, t -> renamed ? Renaming.carry(before, after) : after));
  }
}
