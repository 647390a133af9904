package joiner.model;

import java.util.Optional;
import joiner.expression.Formula;

/**
 * One field of a table.
 *
 * @param id stays the same for the field's whole life
 * @param name what the database gets
 * @param label what people read
 * @param type what values it holds
 * @param required whether it must have a value
 * @param defaultValue an SQL value expression given to rows that leave the field out
 * @param limits bounds of its values
 * @param description a note for people; may be empty
 * @param unit what its numbers are numbers of, as "°C" or "kg"; may be empty
 * @param origin where its values come from
 * @param extras properties kept from a file
 */
public record Field(
    FieldId id,
    String name,
    String label,
    FieldType type,
    boolean required,
    Optional<Formula> defaultValue,
    Limits limits,
    String description,
    String unit,
    Origin origin,
    Extras extras) {

  public Field {
    if (name.isBlank()) {
      throw new IllegalArgumentException("field name is blank");
    }
  }

  /** A plain optional field with nothing but a name, a label and a type. */
  public static Field of(String name, String label, FieldType type) {
    return new Field(
        new FieldId(name),
        name,
        label,
        type,
        false,
        Optional.empty(),
        Limits.NONE,
        "",
        "",
        Origin.TYPED,
        Extras.NONE);
  }

  public Field withId(FieldId other) {
    return new Field(
        other,
        name,
        label,
        type,
        required,
        defaultValue,
        limits,
        description,
        unit,
        origin,
        extras);
  }

  public Field withName(String other) {
    return new Field(
        id, other, label, type, required, defaultValue, limits, description, unit, origin, extras);
  }

  public Field withLabel(String other) {
    return new Field(
        id, name, other, type, required, defaultValue, limits, description, unit, origin, extras);
  }

  public Field withType(FieldType other) {
    return new Field(
        id, name, label, other, required, defaultValue, limits, description, unit, origin, extras);
  }

  public Field withRequired(boolean other) {
    return new Field(
        id, name, label, type, other, defaultValue, limits, description, unit, origin, extras);
  }

  public Field withDefault(Optional<Formula> other) {
    return new Field(
        id, name, label, type, required, other, limits, description, unit, origin, extras);
  }

  public Field withLimits(Limits other) {
    return new Field(
        id, name, label, type, required, defaultValue, other, description, unit, origin, extras);
  }

  public Field withDescription(String other) {
    return new Field(
        id, name, label, type, required, defaultValue, limits, other, unit, origin, extras);
  }

  public Field withUnit(String other) {
    return new Field(
        id, name, label, type, required, defaultValue, limits, description, other, origin, extras);
  }

  public Field withOrigin(Origin other) {
    return new Field(
        id, name, label, type, required, defaultValue, limits, description, unit, other, extras);
  }

  /** Whether its values are worked out, so that nobody enters any. */
  public boolean isComputed() {
    return origin.isWorkedOut();
  }

  /** The label with the unit behind it, as a heading has it: "Peak (°C)". */
  public String heading() {
    return unit.isEmpty() ? label : label + " (" + unit + ")";
  }

  /** What is noted of it, unit and all: "End temperature, in °C". */
  public String remark() {
    String in = unit.isEmpty() ? "" : "in " + unit;
    return description.isBlank() || in.isEmpty() ? description + in : description + " (" + in + ")";
  }

  public Field withExtras(Extras other) {
    return new Field(
        id, name, label, type, required, defaultValue, limits, description, unit, origin, other);
  }
}
