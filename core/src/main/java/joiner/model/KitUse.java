package joiner.model;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Which fields of a table are those of a kit. A field of the kit that stands for none was let go.
 *
 * @param members in the kit's order
 */
public record KitUse(KitId kit, List<Member> members) {
  /** A field of the kit and the table's that it stands for. */
  public record Member(FieldId ofKit, FieldId own) {}

  public KitUse {
    members = List.copyOf(members);
  }

  /** The use of a kit, from its fields to the table's. */
  public static KitUse of(KitId kit, Map<FieldId, FieldId> fields) {
    return new KitUse(
        kit,
        fields.entrySet().stream()
            .map(entry -> new Member(entry.getKey(), entry.getValue()))
            .toList());
  }

  /** From the kit's field to the table's, in the kit's order. */
  public Map<FieldId, FieldId> fields() {
    Map<FieldId, FieldId> fields = new LinkedHashMap<>();
    members.forEach(member -> fields.put(member.ofKit, member.own));
    return Collections.unmodifiableMap(fields);
  }

  /** The kit's field that a field of the table is. */
  public Optional<FieldId> ofKit(FieldId own) {
    return members.stream().filter(member -> member.own.equals(own)).map(Member::ofKit).findFirst();
  }
}
