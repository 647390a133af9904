package joiner.edit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.GroupId;
import joiner.model.Kit;
import joiner.model.KitId;
import joiner.model.KitUse;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;

/**
 * Makes a kit of fields of a table, which is the first that has it.
 *
 * @param fields in the order of the table
 */
public record MakeKit(TableId table, List<FieldId> fields, String label) implements Edit {
  public MakeKit {
    fields = List.copyOf(fields);
  }

  @Override
  public String name() {
    return "make the kit " + label;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Table before = design.table(table);
    fields.forEach(field -> requireFree(design, before, before.field(field)));
    var kit = new Kit(id(design), label, fields.stream().map(f -> ofKit(before.field(f))).toList());
    Map<FieldId, FieldId> same = new LinkedHashMap<>();
    fields.forEach(field -> same.put(field, field));
    List<FieldGroup> others =
        before.groups().stream().filter(group -> !fields.containsAll(group.fields())).toList();
    var group =
        new FieldGroup(
            new GroupId(label), label, "", fields, Optional.of(KitUse.of(kit.id(), same)));
    Table after = before.withGroups(others).withGroupAdded(group);
    var kits = new ArrayList<>(design.kits());
    kits.add(kit);
    return draft.withDesign(design.withTable(table, t -> after).withKits(kits));
  }

  private KitId id(Design design) {
    List<String> taken = design.kits().stream().map(kit -> kit.id().value()).toList();
    return new KitId(NamingPolicy.free(NamingPolicy.nameFor(label), taken));
  }

  /** What is said of a field wherever it stands. */
  static Field ofKit(Field field) {
    return field.withExtras(Extras.NONE);
  }

  private static void requireFree(Design design, Table table, Field field) {
    boolean tied =
        Stream.of(design.parentsOf(table.id()), design.childrenOf(table.id()))
            .flatMap(List::stream)
            .anyMatch(r -> r.standsOn(table.id(), field.id()));
    boolean counted = field.type() instanceof FieldType.Counter;
    if (tied || counted || table.primaryKey().contains(field.id())) {
      throw new EditRefusedException(
          field.label() + " identifies rows or refers to a table, which is this table's alone.");
    }
    if (table.groupOf(field.id()).flatMap(FieldGroup::use).isPresent()) {
      throw new EditRefusedException(field.label() + " comes from a kit already.");
    }
  }
}
