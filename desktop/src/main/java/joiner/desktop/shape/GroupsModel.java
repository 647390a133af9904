package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeTable;
import joiner.edit.CompoundFields;
import joiner.edit.ToCompound;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.GroupId;
import joiner.model.Table;
import joiner.model.TableId;

/** The groups of fields of the table that is chosen, without a window. */
final class GroupsModel {
  private final Workbench bench;
  private final Texts texts;

  /** Groups whose fields are not shown; a way of looking at a table, not a part of it. */
  private final Set<Folded> folded = new HashSet<>();

  private record Folded(TableId table, GroupId group) {}

  GroupsModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
  }

  /** The lines of a grid of the fields: each group under its heading, or its heading alone. */
  List<FieldLine> lines(Table table) {
    var lines = new ArrayList<FieldLine>();
    for (List<Field> block : blocks(table)) {
      Optional<FieldGroup> group = table.groupOf(block.getFirst().id());
      group.ifPresent(of -> lines.add(new FieldLine(Optional.empty(), group)));
      if (group.isEmpty() || !isFolded(table, group.get())) {
        block.forEach(field -> lines.add(new FieldLine(Optional.of(field), group)));
      }
    }
    lines.add(FieldLine.NEW);
    return lines;
  }

  /** Single fields and whole groups, in the order in which their first fields stand. */
  private static List<List<Field>> blocks(Table table) {
    Map<Object, List<Field>> blocks = new LinkedHashMap<>();
    for (Field field : table.fields()) {
      Object key = table.groupOf(field.id()).<Object>map(FieldGroup::id).orElse(field.id());
      blocks.computeIfAbsent(key, k -> new ArrayList<>()).add(field);
    }
    return List.copyOf(blocks.values());
  }

  boolean isFolded(Table table, FieldGroup group) {
    return folded.contains(new Folded(table.id(), group.id()));
  }

  /** Shows the fields of a group no longer, or again. */
  void fold(Table table, FieldGroup group) {
    var key = new Folded(table.id(), group.id());
    if (!folded.remove(key)) {
      folded.add(key);
    }
  }

  /** Shows the fields of the group a field stands in; says whether they were not shown before. */
  Predicate<FieldId> unfolded(Table table) {
    return field ->
        table
            .groupOf(field)
            .filter(group -> folded.remove(new Folded(table.id(), group.id())))
            .isPresent();
  }

  /** What sort of thing a group is, as people read it. */
  String kind(FieldGroup group) {
    if (group.use().isPresent()) {
      return texts.get("kit");
    }
    return CompoundFields.all().stream()
        .filter(kind -> kind.kind().equals(group.kind()))
        .map(CompoundFields::label)
        .findFirst()
        .orElseGet(() -> texts.get("group"));
  }

  void rename(Table table, FieldGroup group, String label) {
    if (!label.isBlank() && !label.strip().equals(group.label())) {
      bench.apply(ChangeTable.renameGroup(table, group.id(), label.strip()));
    }
  }

  void together(Table table, List<Field> fields) {
    bench.apply(
        ChangeTable.group(table, fields.stream().map(Field::id).toList(), texts.get("group.new")));
  }

  void apart(Table table, FieldGroup group) {
    bench.apply(ChangeTable.ungroup(table, group));
  }

  /** The group that some fields are, neither more nor fewer. */
  static Optional<FieldGroup> of(Table table, List<FieldId> fields) {
    return table.groups().stream()
        .filter(group -> Set.copyOf(group.fields()).equals(Set.copyOf(fields)))
        .findFirst();
  }

  /** Lets a field be entered as several that come together. */
  void compound(Table table, Field field, CompoundFields kind) {
    if (bench.apply(() -> new ToCompound(table.id(), field.id(), kind))) {
      bench.tellDone(
          texts.get("group.compound", field.label(), kind.parts().size()), texts.get("undo"));
    }
  }

  /** Moves a group past what stands before or behind it; nothing at either end. */
  void move(Table table, FieldGroup group, int by) {
    move(table, group.fields().getFirst(), by, group.label());
  }

  /** Moves a field: within its group, or past what stands before or behind it. */
  void move(Table table, Field field, int by) {
    Optional<FieldGroup> group = table.groupOf(field.id());
    if (group.isEmpty()) {
      move(table, field.id(), by, field.label());
      return;
    }
    List<FieldId> within =
        table.fieldIds().stream().filter(group.get().fields()::contains).toList();
    int to = within.indexOf(field.id()) + by;
    if (to >= 0 && to < within.size()) {
      int place = table.fieldIds().indexOf(within.get(to));
      bench.apply(ChangeTable.move(table, field, place));
    }
  }

  private void move(Table table, FieldId first, int by, String what) {
    var blocks = new ArrayList<>(blocks(table));
    int from = 0;
    while (blocks.get(from).stream().noneMatch(field -> field.id().equals(first))) {
      from++;
    }
    int to = from + by;
    if (to >= 0 && to < blocks.size()) {
      blocks.add(to, blocks.remove(from));
      List<FieldId> order = blocks.stream().flatMap(List::stream).map(Field::id).toList();
      bench.apply(ChangeTable.order(table, what, order));
    }
  }
}
