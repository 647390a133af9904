package joiner.edit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.meaning.KitFields;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.Kit;
import joiner.model.KitUse;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Makes a kit what one table has of it, and brings the other tables into step: fields that table
 * changed are changed, and fields it has put into the group are added. A field that table has let
 * go stays in the kit.
 *
 * @param table the one whose fields show what the kit is to be
 */
public record ChangeKit(TableId table, Kit kit) implements Edit {
  @Override
  public String name() {
    return "change the kit " + kit.label();
  }

  @Override
  public boolean reachesFar() {
    return true;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    Table shows = design.table(table);
    FieldGroup group =
        DropKit.use(shows, kit)
            .orElseThrow(
                () -> new EditRefusedException(shows.label() + " has no kit " + kit.label() + "."));
    Kit now = shown(design.find(kit.id()).orElseThrow(), shows, group);
    var tables = new ArrayList<Table>();
    for (Table other : design.tables()) {
      Optional<FieldGroup> there = DropKit.use(other, kit);
      tables.add(there.isPresent() ? inStep(other, there.get(), now, group) : other);
    }
    List<Kit> kits = design.kits().stream().map(k -> k.id().equals(kit.id()) ? now : k).toList();
    return draft.withDesign(design.withTables(tables).withKits(kits));
  }

  /** The kit as a table has it. */
  private static Kit shown(Kit before, Table shows, FieldGroup group) {
    KitUse use = group.use().orElseThrow();
    var fields = new ArrayList<Field>();
    for (Field field : before.fields()) {
      Optional<Field> own = Optional.ofNullable(use.fields().get(field.id())).map(shows::field);
      fields.add(
          own.map(f -> KitFields.inKit(before, shows, use, f))
              .map(f -> f.withId(field.id()).withName(field.name()))
              .orElse(field));
    }
    for (FieldId own : group.fields()) {
      if (use.ofKit(own).isEmpty()) {
        fields.add(KitFields.inKit(before, shows, use, shows.field(own)));
      }
    }
    return before.withFields(fields);
  }

  private Table inStep(Table other, FieldGroup there, Kit now, FieldGroup shown) {
    KitUse use = there.use().orElseThrow();
    boolean shows = other.id().equals(table);
    Map<FieldId, FieldId> fields = new LinkedHashMap<>(use.fields());
    var members = new ArrayList<>(there.fields());
    Table after = other;
    for (Field field : now.fields()) {
      FieldId own = use.fields().get(field.id());
      boolean isNew = kit.find(field.id()).isEmpty();
      if (own != null) {
        after = after.withField(own, f -> KitFields.inTable(now, field, other, use, f));
      } else if (shows && shown.fields().contains(field.id())) {
        fields.put(field.id(), field.id());
      } else if (isNew) {
        Field fresh = DropKit.added(after, field);
        after = after.withFieldAdded(fresh);
        fields.put(field.id(), fresh.id());
        members.add(fresh.id());
      }
    }
    FieldGroup grown = there.withFields(members).withUse(Optional.of(KitUse.of(now.id(), fields)));
    return after.withGroups(
        after.groups().stream().map(g -> g.id().equals(there.id()) ? grown : g).toList());
  }
}
