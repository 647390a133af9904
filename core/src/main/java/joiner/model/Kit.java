package joiner.model;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;

/**
 * Fields that are dropped into many tables and kept in step there.
 *
 * @param id stays the same for the kit's whole life
 * @param label what people read
 * @param fields one or more; their ids and names are each the kit's own
 */
public record Kit(KitId id, String label, List<Field> fields) {
  public Kit {
    fields = List.copyOf(fields);
    if (fields.isEmpty()) {
      throw new IllegalArgumentException("kit " + label + " has no field");
    }
    var ids = new HashSet<FieldId>();
    for (Field field : fields) {
      if (!ids.add(field.id())) {
        throw new IllegalArgumentException("kit " + label + " has field " + field.id() + " twice");
      }
    }
  }

  /** The field of that id. */
  public Optional<Field> find(FieldId field) {
    return fields.stream().filter(f -> f.id().equals(field)).findFirst();
  }

  public Kit withFields(List<Field> other) {
    return new Kit(id, label, other);
  }

  public Kit withLabel(String other) {
    return new Kit(id, other, fields);
  }

  /** What a table's field is when it is as the kit has it; its name stays its own. */
  public static Field inStep(Field ofKit, Field own) {
    return ofKit.withId(own.id()).withName(own.name()).withExtras(own.extras());
  }
}
