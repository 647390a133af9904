package joiner.desktop.shape;

import java.util.List;
import java.util.function.Supplier;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Selection;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeKey;
import joiner.edit.ChangeTable;
import joiner.edit.Counters;
import joiner.edit.Edit;
import joiner.edit.SetUnique;
import joiner.edit.ToOwnTable;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.naming.WordList;

/** By what the rows of a table are told apart, and fields that get a table of their own. */
final class KeysModel {
  private final Workbench bench;
  private final Texts texts;
  private final Supplier<Table> shown;

  /**
   * Keys of a table.
   *
   * @param shown the table, as it is now
   */
  KeysModel(Workbench bench, Texts texts, Supplier<Table> shown) {
    this.bench = bench;
    this.texts = texts;
    this.shown = shown;
  }

  /** Identifies rows by fields; by nothing where they are what does so already. */
  void toggle(List<Field> fields) {
    List<FieldId> ids = fields.stream().map(Field::id).toList();
    if (!ids.isEmpty()) {
      List<FieldId> key = shown.get().primaryKey().equals(ids) ? List.of() : ids;
      identify(() -> ChangeKey.of(shown.get(), key));
    }
  }

  /** Identifies rows by a counter, unless one does so already. */
  void identifyByCounter() {
    identify(() -> Counters.identify(shown.get()));
  }

  /** Tells, where others refer to the key, that they followed. */
  private void identify(Supplier<Edit> change) {
    long referring = bench.design().childrenOf(shown.get().id()).size();
    if (bench.apply(change) && referring > 0) {
      String key = WordList.and(shown.get().labelsOf(shown.get().primaryKey()));
      bench.tellDone(
          texts.get("key.followed", shown.get().label(), key, referring), texts.get("undo"));
    }
  }

  /** Whether rows are identified by a counter. */
  boolean isCounted() {
    return shown.get().primaryKey().size() == 1
        && shown.get().field(shown.get().primaryKey().getFirst()).type()
            instanceof FieldType.Counter;
  }

  /** Moves fields to a table of their own, and goes there. */
  void toOwnTable(List<Field> fields, String label) {
    List<FieldId> ids = fields.stream().map(Field::id).toList();
    Table from = shown.get();
    int before = bench.design().tables().size();
    if (!label.isBlank() && bench.apply(() -> new ToOwnTable(from.id(), ids, label.strip()))) {
      Table own = List.copyOf(bench.design().tables()).get(before);
      bench.selectionProperty().set(Selection.of(own.id()));
      bench.tellDone(
          texts.get("own.done", own.label(), bench.draft().rows().count(own.id()), from.label()),
          texts.get("undo"));
    }
  }

  /** Says that the values of fields together occur once. */
  void uniqueTogether(List<Field> fields) {
    bench.apply(SetUnique.of(shown.get(), fields.stream().map(Field::id).toList(), true));
  }

  /** Adds an index of fields, in their order. */
  void index(List<Field> fields) {
    List<FieldId> ids = fields.stream().map(Field::id).toList();
    String name = ConstraintNaming.index(shown.get().name(), shown.get().namesOf(ids));
    bench.apply(ChangeTable.addIndex(shown.get(), new Index(name, ids)));
  }
}
