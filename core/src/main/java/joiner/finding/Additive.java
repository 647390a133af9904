package joiner.finding;

import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import joiner.expression.Kind;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.UniqueKey;

/**
 * Fields whose values people add up: numbers that are entered, identify nothing and are measured in
 * something that can be added, unlike degrees and shares (additive and non-additive facts, as in
 * Kimball, The Data Warehouse Toolkit; from memory).
 */
final class Additive {
  private Additive() {}

  /** The first such field of a table. */
  static Optional<Field> of(CheckedDesign design, Table table) {
    Set<FieldId> identifying = new HashSet<>(table.primaryKey());
    table.uniqueKeys().stream().map(UniqueKey::fields).forEach(identifying::addAll);
    design.parentsOf(table.id()).forEach(up -> identifying.addAll(up.childFields()));
    return table.fields().stream()
        .filter(field -> !identifying.contains(field.id()) && adds(field))
        .findFirst();
  }

  private static boolean adds(Field field) {
    Kind kind = field.type().kind();
    boolean number = kind == Kind.WHOLE || kind == Kind.NUMBER;
    boolean measured = field.type() instanceof FieldType.Money || !field.unit().isBlank();
    return number
        && measured
        && !field.isComputed()
        && !field.unit().contains("°")
        && !field.unit().contains("%");
  }
}
