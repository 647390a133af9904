package joiner.edit;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.Kit;
import joiner.model.Table;
import joiner.model.TableId;

/**
 * Brings one field of a table back to what its kit says, or lets go of the kit, for one field or
 * for all: the fields stay, and are changed with the kit no longer.
 *
 * @param field the one; empty for all
 * @param back whether it is brought back
 */
public record LeaveKit(TableId table, Kit kit, Optional<Field> field, boolean back)
    implements Edit {
  /** Brings a field back into step. */
  public static LeaveKit back(Table table, Kit kit, Field field) {
    return new LeaveKit(table.id(), kit, Optional.of(field), true);
  }

  /** Lets a field go. */
  public static LeaveKit of(Table table, Kit kit, Field field) {
    return new LeaveKit(table.id(), kit, Optional.of(field), false);
  }

  /** Lets the kit go. */
  public static LeaveKit of(Table table, Kit kit) {
    return new LeaveKit(table.id(), kit, Optional.empty(), false);
  }

  @Override
  public String name() {
    String what = field.map(Field::label).orElse(kit.label());
    return back ? "bring " + what + " back into step" : "let go of " + what;
  }

  @Override
  public Draft apply(Draft draft) {
    return draft.withDesign(draft.design().withTable(table, t -> back ? inStep(t) : without(t)));
  }

  private Table inStep(Table now) {
    FieldId own = field.orElseThrow().id();
    Optional<Field> ofKit =
        DropKit.use(now, kit)
            .flatMap(FieldGroup::use)
            .flatMap(use -> use.ofKit(own))
            .flatMap(kit::find);
    return ofKit.map(of -> now.withField(own, f -> Kit.inStep(of, f))).orElse(now);
  }

  private Table without(Table now) {
    List<FieldGroup> groups =
        now.groups().stream()
            .flatMap(group -> group.isOf(kit.id()) ? left(group) : Stream.of(group))
            .toList();
    return now.withGroups(groups);
  }

  /** The group without what is let go; a field that is stands by itself. */
  private Stream<FieldGroup> left(FieldGroup group) {
    if (field.isEmpty()) {
      return Stream.of(group.withUse(Optional.empty()));
    }
    List<FieldId> others =
        group.fields().stream().filter(id -> !id.equals(field.get().id())).toList();
    return others.isEmpty() ? Stream.empty() : Stream.of(group.withFields(others));
  }
}
