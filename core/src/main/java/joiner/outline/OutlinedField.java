package joiner.outline;

import java.util.Optional;
import joiner.edit.TypeChoice;
import joiner.edit.UsualType;
import joiner.model.FieldType;

/**
 * A field as it was written down.
 *
 * @param label what people read
 * @param type as it was said; empty: nothing was said of it
 * @param refersTo the label or name of the table whose row it holds, if so
 * @param key whether it is said to identify a row
 * @param defaultText the default as it was written; may be empty
 * @param note may be empty
 */
public record OutlinedField(
    String label,
    Optional<FieldType> type,
    Optional<String> refersTo,
    boolean required,
    boolean unique,
    boolean key,
    String defaultText,
    String note) {

  /** A field of which only its label is known. */
  static OutlinedField of(String label) {
    return new OutlinedField(
        label, Optional.empty(), Optional.empty(), false, false, false, "", "");
  }

  /** The type that was said, or else what a field of that label usually is. */
  public FieldType typeOrUsual() {
    return type.or(() -> UsualType.of(label).map(UsualType::type))
        .orElseGet(TypeChoice.Text::usual);
  }

  /** The unit that a field of that label usually has, where nothing else was said of its type. */
  public String usualUnit() {
    return type.isPresent() ? "" : UsualType.of(label).map(UsualType::unit).orElse("");
  }

  OutlinedField withLabel(String other) {
    return new OutlinedField(other, type, refersTo, required, unique, key, defaultText, note);
  }

  OutlinedField withType(FieldType other) {
    return new OutlinedField(
        label, Optional.of(other), refersTo, required, unique, key, defaultText, note);
  }

  OutlinedField referringTo(String table) {
    return new OutlinedField(
        label, type, Optional.of(table), required, unique, key, defaultText, note);
  }

  OutlinedField withRequired(boolean other) {
    return new OutlinedField(label, type, refersTo, other, unique, key, defaultText, note);
  }

  OutlinedField withUnique(boolean other) {
    return new OutlinedField(label, type, refersTo, required, other, key, defaultText, note);
  }

  OutlinedField withKey(boolean other) {
    return new OutlinedField(label, type, refersTo, required, unique, other, defaultText, note);
  }

  OutlinedField withDefault(String other) {
    return new OutlinedField(label, type, refersTo, required, unique, key, other, note);
  }

  OutlinedField withNote(String other) {
    return new OutlinedField(label, type, refersTo, required, unique, key, defaultText, other);
  }
}
