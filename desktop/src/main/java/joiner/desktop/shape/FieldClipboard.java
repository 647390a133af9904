package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Workbench;
import joiner.edit.AddField;
import joiner.edit.Edit;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.naming.NamingPolicy;
import joiner.outline.FieldText;

/** Fields copied from one table and pasted into another, with all that is said of them. */
final class FieldClipboard {
  private final Workbench bench;
  private final Texts texts;
  private final Supplier<Table> shown;
  private Optional<Copied> copied = Optional.empty();

  /** Fields that were copied, and the text that stands for them. */
  private record Copied(String text, List<Field> fields) {}

  /**
   * An empty one.
   *
   * @param shown the table fields are copied from and pasted into
   */
  FieldClipboard(Workbench bench, Texts texts, Supplier<Table> shown) {
    this.bench = bench;
    this.texts = texts;
    this.shown = shown;
  }

  /** Fields as a text that spreadsheets and Joiner read; here they are pasted as they are. */
  String copy(List<Field> fields) {
    String text = FieldText.write(bench.design(), shown.get(), fields);
    copied = Optional.of(new Copied(text, fields));
    return text;
  }

  /**
   * Adds fields that were copied here, with all that is said of them, as one change.
   *
   * @return whether that text is what was copied
   */
  boolean paste(String text) {
    Optional<Copied> here = copied.filter(c -> c.text.equals(text)).filter(c -> isTable());
    here.ifPresent(
        c -> {
          var edits = new ArrayList<Edit>();
          Table growing = shown.get();
          for (Field field : c.fields) {
            String name = NamingPolicy.free(field.name(), growing.fieldsByName().keySet());
            Field fresh = growing.unused(field.withId(new FieldId(name)).withName(name));
            growing = growing.withFieldAdded(fresh);
            edits.add(new AddField(growing.id(), fresh));
          }
          bench.apply(Edit.all(texts.get("undo.paste", edits.size()), edits));
          bench.tellDone(texts.get("pasted", edits.size()), texts.get("undo"));
        });
    return here.isPresent();
  }

  private boolean isTable() {
    return bench.table().isPresent();
  }
}
