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
 * Lets go of a kit in a table, for one field or for all: the fields stay, and are changed with the
 * kit no longer.
 *
 * @param field the one; empty for all
 */
public record LeaveKit(TableId table, Kit kit, Optional<Field> field) implements Edit {
  /** Lets a field go. */
  public static LeaveKit of(Table table, Kit kit, Field field) {
    return new LeaveKit(table.id(), kit, Optional.of(field));
  }

  /** Lets the kit go. */
  public static LeaveKit of(Table table, Kit kit) {
    return new LeaveKit(table.id(), kit, Optional.empty());
  }

  @Override
  public String name() {
    return "let go of " + field.map(Field::label).orElse(kit.label());
  }

  @Override
  public Draft apply(Draft draft) {
    return draft.withDesign(draft.design().withTable(table, this::without));
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
