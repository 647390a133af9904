package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.Kit;
import joiner.model.KitUse;
import joiner.model.Table;

/**
 * Takes a field out of a kit. In the tables it stays as a field like others, or goes with its
 * values.
 *
 * @param field of the kit
 * @param everywhere whether it goes from all tables
 */
public record TakeFromKit(Kit kit, Field field, boolean everywhere) implements Edit {
  @Override
  public String name() {
    return everywhere
        ? "remove " + field.label() + " from every table with " + kit.label()
        : "take " + field.label() + " out of the kit " + kit.label();
  }

  @Override
  public boolean reachesFar() {
    return everywhere;
  }

  @Override
  public Draft apply(Draft draft) {
    Kit now = draft.design().find(kit.id()).orElseThrow();
    List<Field> left = now.fields().stream().filter(f -> !f.id().equals(field.id())).toList();
    if (left.isEmpty()) {
      throw new EditRefusedException(
          field.label() + " is all there is in " + kit.label() + "; let go of the kit instead.");
    }
    Draft changed = draft;
    for (Table table : draft.design().tables()) {
      Optional<FieldId> own =
          DropKit.use(table, kit)
              .flatMap(FieldGroup::use)
              .map(KitUse::fields)
              .map(fields -> fields.get(field.id()));
      if (own.isPresent()) {
        String label = table.field(own.get()).label();
        Edit gone =
            everywhere
                ? new RemoveField(table.id(), own.get(), label)
                : LeaveKit.of(table, kit, table.field(own.get()));
        changed = gone.apply(changed);
      }
    }
    Design design = changed.design();
    var kits = new ArrayList<Kit>();
    design.kits().forEach(k -> kits.add(k.id().equals(kit.id()) ? now.withFields(left) : k));
    return changed.withDesign(design.withKits(kits));
  }
}
