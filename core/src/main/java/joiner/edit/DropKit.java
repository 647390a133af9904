package joiner.edit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.GroupId;
import joiner.model.Kit;
import joiner.model.KitUse;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Adds the fields of a kit to a table, at its end and as a group; the kit is the design's from then
 * on. Where the design has a kit of that id, it is that one.
 */
public record DropKit(TableId table, Kit kit) implements Edit {
  @Override
  public String name() {
    return "drop in " + kit.label();
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Kit own = design.find(kit.id()).orElse(kit);
    Table before = design.table(table);
    if (use(before, own).isPresent()) {
      throw new EditRefusedException(before.label() + " has the kit " + own.label() + " already.");
    }
    Map<FieldId, FieldId> fields = new LinkedHashMap<>();
    Table after = before;
    for (Field field : own.fields()) {
      Field fresh = added(after, field);
      after = after.withFieldAdded(fresh);
      fields.put(field.id(), fresh.id());
    }
    Table grouped =
        after.withGroupAdded(
            new FieldGroup(
                new GroupId(own.label()),
                own.label(),
                "",
                List.copyOf(fields.values()),
                Optional.of(KitUse.of(own.id(), fields))));
    return draft.withDesign(with(design, own).withTable(table, t -> grouped));
  }

  /** The group of a table that comes from a kit. */
  static Optional<FieldGroup> use(Table table, Kit kit) {
    return table.groups().stream().filter(group -> group.isOf(kit.id())).findFirst();
  }

  /** A field of a kit as a new one of a table. */
  static Field added(Table table, Field ofKit) {
    if (table.fieldNamed(ofKit.name()).isPresent()) {
      throw new EditRefusedException(
          table.label() + " has a field " + ofKit.name() + " already; give it another name first.");
    }
    return table.unused(ofKit);
  }

  /** A design that has a kit. */
  private static Design with(Design design, Kit kit) {
    if (design.find(kit.id()).isPresent()) {
      return design;
    }
    var kits = new ArrayList<>(design.kits());
    kits.add(kit);
    return design.withKits(kits);
  }
}
