package joiner.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import joiner.edit.BackToKit;
import joiner.edit.ChangeKit;
import joiner.edit.LeaveKit;
import joiner.meaning.KitFields;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.Kit;
import joiner.model.KitUse;
import joiner.model.Table;
import joiner.naming.WordList;

/** A field of a kit is as the kit has it, in every table (what a kit is for). */
final class KitFieldChanged implements WholeCheck {
  private static final TableFinding FINDING =
      new TableFinding("kit-field-changed", Severity.WARNING, Topic.SHAPE);
  private static final String WHY =
      "Fields of a kit mean the same in every table, and are changed in all of them at once.";

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign checked, Consumer<Finding> found) {
    Design design = checked.design();
    if (design.kits().isEmpty()) {
      return;
    }
    for (Table table : design.tables()) {
      for (FieldGroup group : table.groups()) {
        group.use().ifPresent(use -> run(design, table, group, use, found));
      }
    }
  }

  private static void run(
      Design design, Table table, FieldGroup group, KitUse use, Consumer<Finding> found) {
    Kit kit = design.find(use.kit()).orElse(null);
    if (kit == null) {
      return; // Its fields are fields like others.
    }
    use.fields()
        .forEach(
            (id, own) ->
                kit.find(id)
                    .ifPresent(of -> compare(table, kit, of, use, table.field(own), found)));
    for (FieldId own : group.fields()) {
      if (use.ofKit(own).isEmpty()) {
        Field field = table.field(own);
        found.accept(
            FINDING.about(
                table,
                field,
                FieldCheck.named(table, field)
                    + " stands in the kit "
                    + kit.label()
                    + " here only.",
                WHY,
                new Remedy("Add it to the kit everywhere", new ChangeKit(table.id(), kit))));
      }
    }
  }

  private static void compare(
      Table table, Kit kit, Field ofKit, KitUse use, Field own, Consumer<Finding> found) {
    List<String> other = differences(KitFields.inTable(kit, ofKit, table, use, own), own);
    if (!other.isEmpty()) {
      found.accept(
          FINDING.about(
              table,
              own,
              FieldCheck.named(table, own)
                  + " has another "
                  + WordList.and(other)
                  + " than the kit "
                  + kit.label()
                  + ".",
              WHY,
              new Remedy("Put it back", new BackToKit(table.id(), kit, own)),
              new Remedy("Change the kit everywhere", new ChangeKit(table.id(), kit)),
              new Remedy("Let go of it", LeaveKit.of(table, kit, own))));
    }
  }

  private static List<String> differences(Field kit, Field own) {
    var other = new ArrayList<String>();
    add(other, "label", kit.label(), own.label());
    add(other, "type", kit.type(), own.type());
    add(other, "answer to whether it is required", kit.required(), own.required());
    add(other, "default", kit.defaultValue(), own.defaultValue());
    add(other, "range or pattern", kit.limits(), own.limits());
    add(other, "note", kit.description(), own.description());
    add(other, "unit", kit.unit(), own.unit());
    add(other, "origin", kit.origin(), own.origin());
    return other;
  }

  private static void add(List<String> other, String what, Object kit, Object own) {
    if (!kit.equals(own)) {
      other.add(what);
    }
  }
}
