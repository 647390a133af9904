package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.TypeChoice;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.outline.Outline;
import joiner.outline.OutlineEdits;
import joiner.outline.OutlinedField;
import joiner.outline.OutlinedTable;

/** A list of fields or tables as it is pasted or typed, and what it becomes, without a window. */
final class ListModel {
  private final Workbench bench;
  private final Texts texts;
  private Outline outline = Outline.read("");

  /**
   * A line of what the list becomes.
   *
   * @param table the label of a table, on its own line; of a field empty
   */
  record Line(
      String table, String label, String type, String size, boolean required, boolean unique) {}

  ListModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
  }

  /** Reads a list anew. */
  void read(String text) {
    outline = Outline.read(text);
  }

  /** What it becomes, line by line. */
  List<Line> lines() {
    var lines = new ArrayList<Line>();
    for (OutlinedTable table : outline.tables()) {
      table.label().ifPresent(label -> lines.add(new Line(label, "", "", "", false, false)));
      table.fields().forEach(field -> lines.add(line(field)));
    }
    return lines;
  }

  private Line line(OutlinedField field) {
    FieldType type = field.typeOrUsual();
    String words =
        field
            .refersTo()
            .map(parent -> "→ " + parent)
            .orElseGet(
                () -> texts.get("type." + TypeChoice.of(type).map(Enum::name).orElse("Kept")));
    boolean choice = type instanceof FieldType.Choice;
    String size = field.refersTo().isPresent() || choice ? "" : TypeChoice.sizeOf(type);
    return new Line(
        "", field.label(), words, size, field.required() || field.key(), field.unique());
  }

  /** What was not understood, and what stands in the way; a sentence each. */
  List<String> remarks() {
    var remarks = new ArrayList<>(outline.remarks());
    if (homeless()) {
      remarks.addFirst(texts.get("list.homeless"));
    }
    return remarks;
  }

  private boolean homeless() {
    return bench.table().isEmpty()
        && outline.tables().stream().anyMatch(table -> table.label().isEmpty());
  }

  /** Whether there is something to add, and a place for it. */
  boolean canAdd() {
    return !lines().isEmpty() && !homeless();
  }

  /** What adding does, in words. */
  String deed() {
    long tables = outline.tables().stream().filter(table -> table.label().isPresent()).count();
    long fields = outline.tables().stream().mapToLong(table -> table.fields().size()).sum();
    String into = bench.table().map(Table::label).orElse("");
    return tables == 0
        ? texts.get("list.add.fields", fields, into)
        : texts.get("list.add.tables", tables, fields);
  }

  /**
   * Adds all of it as one change, and chooses what is new.
   *
   * @return whether it was added; if not, it is told why
   */
  boolean add() {
    Optional<TableId> into = bench.table().map(Table::id);
    int before = bench.design().tables().size();
    boolean added = bench.apply(() -> new OutlineEdits(outline, into));
    if (added) {
      List<Table> tables = List.copyOf(bench.design().tables());
      if (tables.size() > before) {
        bench.selectionProperty().set(Selection.of(tables.get(before).id()));
      }
      bench.tellDone(
          texts.get("list.added", bench.historyProperty().get().undoName().orElse("")),
          texts.get("undo"));
    }
    return added;
  }
}
