package joiner.model;

import java.util.List;

/**
 * Fields of a table that are read as one thing, as the parts of an address.
 *
 * @param id stays the same for the group's whole life
 * @param label what people read
 * @param kind what sort of thing it is: "address"; empty for fields that were just put together
 * @param fields one or more
 */
public record FieldGroup(GroupId id, String label, String kind, List<FieldId> fields) {
  public FieldGroup {
    fields = List.copyOf(fields);
    if (fields.isEmpty()) {
      throw new IllegalArgumentException("group " + label + " has no field");
    }
  }

  public FieldGroup withId(GroupId other) {
    return new FieldGroup(other, label, kind, fields);
  }

  public FieldGroup withLabel(String other) {
    return new FieldGroup(id, other, kind, fields);
  }

  public FieldGroup withFields(List<FieldId> other) {
    return new FieldGroup(id, label, kind, other);
  }
}
