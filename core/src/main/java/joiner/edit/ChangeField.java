package joiner.edit;

import java.util.Optional;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.meaning.Renaming;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Table;
import joiner.model.TableId;

/** Changes one field. A new name is carried into the rules, row label and defaults that use it. */
public record ChangeField(String name, TableId table, FieldId field, To to) implements Edit {

  /** What the field becomes. */
  public sealed interface To {
    /** The field as it becomes. */
    Field of(Field field);
  }

  /** Choices that stay keep their identity. */
  private record OfType(FieldType type) implements To {
    @Override
    public Field of(Field field) {
      return field.withType(FieldType.Choice.after(field.type(), type));
    }
  }

  private record Required(boolean required) implements To {
    @Override
    public Field of(Field field) {
      return field.withRequired(required);
    }
  }

  private record Named(String label, String name) implements To {
    @Override
    public Field of(Field field) {
      return field.withLabel(label).withName(name);
    }
  }

  private record Defaulting(Optional<Formula> value) implements To {
    @Override
    public Field of(Field field) {
      return field.withDefault(value);
    }
  }

  private record Described(String description) implements To {
    @Override
    public Field of(Field field) {
      return field.withDescription(description);
    }
  }

  private record Measured(String unit) implements To {
    @Override
    public Field of(Field field) {
      return field.withUnit(unit);
    }
  }

  private record Limited(Limits limits) implements To {
    @Override
    public Field of(Field field) {
      return field.withLimits(limits);
    }
  }

  /** Gives a field another type. */
  public static ChangeField type(Table table, Field field, FieldType type) {
    return new ChangeField(
        "change the type of " + field.label(), table.id(), field.id(), new OfType(type));
  }

  /** Makes a field required or optional. */
  public static ChangeField required(Table table, Field field, boolean required) {
    return new ChangeField(
        "make " + field.label() + (required ? " required" : " optional"),
        table.id(),
        field.id(),
        new Required(required));
  }

  /** Gives a field another label, and the name that goes with it. */
  public static ChangeField rename(Table table, Field field, String label, String name) {
    return new ChangeField(
        "rename " + field.label() + " to " + label, table.id(), field.id(), new Named(label, name));
  }

  /** Gives a field another default. */
  public static ChangeField defaultValue(Table table, Field field, Optional<Formula> value) {
    return new ChangeField(
        "change the default of " + field.label(), table.id(), field.id(), new Defaulting(value));
  }

  /** Gives a field another note. */
  public static ChangeField description(Table table, Field field, String description) {
    return new ChangeField(
        "change the note of " + field.label(), table.id(), field.id(), new Described(description));
  }

  /** Says what a field's numbers are numbers of. */
  public static ChangeField unit(Table table, Field field, String unit) {
    return new ChangeField(
        "change the unit of " + field.label(), table.id(), field.id(), new Measured(unit));
  }

  /** Gives a field other bounds. */
  public static ChangeField limits(Table table, Field field, Limits limits) {
    return new ChangeField(
        "change the limits of " + field.label(), table.id(), field.id(), new Limited(limits));
  }

  @Override
  public Draft apply(Draft draft) {
    Table before = draft.design().table(table);
    Field old = before.field(field);
    Field changed = to.of(old);
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
    Design design = draft.design().withTable(table, t -> after);
    return draft.withDesign(renamed ? Renaming.carry(draft.design(), design) : design);
  }
}
