package joiner.model;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * Fields of a table that are read as one thing, as the parts of an address.
 *
 * @param id stays the same for the group's whole life
 * @param label what people read
 * @param kind what sort of thing it is: "address"; empty for fields that were just put together
 * @param fields one or more
 * @param use the kit they come from, if they do
 */
public record FieldGroup(
    GroupId id, String label, String kind, List<FieldId> fields, Optional<KitUse> use) {
  public FieldGroup {
    fields = List.copyOf(fields);
    if (fields.isEmpty()) {
      throw new IllegalArgumentException("group " + label + " has no field");
    }
    List<FieldId> there = fields;
    use = use.map(of -> with(of, there)).filter(of -> !of.fields().isEmpty());
  }

  /** Fields that come from no kit. */
  public FieldGroup(GroupId id, String label, String kind, List<FieldId> fields) {
    this(id, label, kind, fields, Optional.empty());
  }

  private static KitUse with(KitUse use, List<FieldId> there) {
    if (there.containsAll(use.fields().values())) {
      return use;
    }
    Map<FieldId, FieldId> left = new LinkedHashMap<>(use.fields());
    left.values().retainAll(there);
    return KitUse.of(use.kit(), left);
  }

  /** Whether its fields come from that kit. */
  public boolean isOf(KitId kit) {
    return use.filter(of -> of.kit().equals(kit)).isPresent();
  }

  public FieldGroup withId(GroupId other) {
    return new FieldGroup(other, label, kind, fields, use);
  }

  public FieldGroup withLabel(String other) {
    return new FieldGroup(id, other, kind, fields, use);
  }

  public FieldGroup withFields(List<FieldId> other) {
    return new FieldGroup(id, label, kind, other, use);
  }

  public FieldGroup withUse(Optional<KitUse> other) {
    return new FieldGroup(id, label, kind, fields, other);
  }

  /** The same of fields under other ids. */
  public FieldGroup under(UnaryOperator<FieldId> ids) {
    Optional<KitUse> moved =
        use.map(
            of -> {
              Map<FieldId, FieldId> fieldsOf = new LinkedHashMap<>();
              of.fields().forEach((kit, own) -> fieldsOf.put(kit, ids.apply(own)));
              return KitUse.of(of.kit(), fieldsOf);
            });
    return new FieldGroup(id, label, kind, fields.stream().map(ids).toList(), moved);
  }
}
