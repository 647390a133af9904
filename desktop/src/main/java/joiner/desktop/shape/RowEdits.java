package joiner.desktop.shape;

import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Workbench;
import joiner.edit.AddParent;
import joiner.edit.ChangeChoices;
import joiner.edit.ChangeRows;
import joiner.edit.Edit;
import joiner.edit.FillIn;
import joiner.meaning.NewRow;
import joiner.meaning.ParentRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.rows.EnteredText;

/**
 * What is done with sample rows, each an edit of its own; rows are told by their places from 0.
 *
 * @param seen the rows as they are seen
 */
record RowEdits(Workbench bench, SampleModel seen, Texts texts) {
  private static final SecureRandom CHANCE = new SecureRandom();

  /** Puts a text into a cell; the empty text is NULL. */
  void type(int row, Field field, String text) {
    if (field.type() instanceof FieldType.Secret && !text.isEmpty()) {
      bench.tell(Notice.Sort.REFUSED, texts.get("rows.secret", field.label()));
      return;
    }
    Optional<String> typed = Optional.of(EnteredText.of(field, text)).filter(t -> !t.isEmpty());
    seen.shown()
        .ifPresent(
            t ->
                bench.apply(
                    filled(
                        t,
                        row,
                        ChangeRows.cell(t, seen.rows(), row, field, typed).stamped(row(t)))));
  }

  /** A change of a row, and with it what it holds of rows it refers to from then on. */
  private Edit filled(Table table, int row, Edit change) {
    return FillIn.isOf(table)
        ? Edit.all(
            change.name(),
            List.of(change, new FillIn(table.id(), seen.rows().id(row), bench.clock())))
        : change;
  }

  private NewRow row(Table table) {
    return new NewRow(table, bench.clock(), CHANCE);
  }

  /** Puts a choice into a cell; one that is not listed is listed where choices may grow. */
  void choose(int row, Field field, String text) {
    boolean added =
        field.type() instanceof FieldType.Choice choice
            && choice.grows()
            && !text.isBlank()
            && choice.find(text).isEmpty();
    if (added) {
      seen.shown()
          .ifPresent(
              t -> {
                Edit cell = ChangeRows.cell(t, seen.rows(), row, field, Optional.of(text));
                Edit list = ChangeChoices.added(t, field, text);
                bench.apply(Edit.all(list.name(), List.of(list, cell)));
              });
    } else {
      type(row, field, text);
    }
  }

  /** Whether a row that a field refers to may be added while rows are entered. */
  boolean mayAddParent(FieldId field) {
    return seen.shown()
        .flatMap(t -> ParentRows.reference(bench.draft(), t.id(), field))
        .filter(up -> up.picking().mayAdd() && AddParent.isPossible(bench.draft(), up))
        .isPresent();
  }

  /** Has the cells of several fields refer to the row of a key. */
  private void refer(int row, Field field, ParentRows parents, String key) {
    Optional<ParentRows.Parent> parent =
        parents.all().stream().filter(p -> p.key().equals(key)).findFirst();
    if (parent.isEmpty()) {
      type(row, field, key);
      return;
    }
    seen.shown()
        .ifPresent(
            table -> {
              var cells = new ArrayList<Edit>();
              for (int i = 0; i < parents.childFields().size(); i++) {
                Field of = table.field(parents.childFields().get(i));
                Optional<String> cell = Optional.of(parent.get().cells().get(i));
                cells.add(ChangeRows.cell(table, seen.rows(), row, of, cell));
              }
              bench.apply(filled(table, row, Edit.all(cells.getLast().name(), cells)));
            });
  }

  /** Has a cell refer to the row of a key; one that is not there is added where it may be. */
  void refer(int row, Field field, String key) {
    Optional<ParentRows> several = seen.parents(field.id()).filter(p -> !p.isOfOneField());
    if (several.isPresent()) {
      refer(row, field, several.get(), key);
      return;
    }
    boolean unknown =
        !key.isEmpty() && seen.parents(field.id()).filter(p -> p.find(key).isEmpty()).isPresent();
    Optional<Relationship> up =
        seen.shown().flatMap(t -> ParentRows.reference(bench.draft(), t.id(), field.id()));
    if (unknown && up.isPresent() && mayAddParent(field.id())) {
      if (bench.apply(() -> new AddParent(up.get().id(), seen.rows(), row, key))) {
        bench.tellDone(
            texts.get("parent.added", bench.design().table(up.get().parent()).label(), key),
            texts.get("undo"));
      }
    } else {
      type(row, field, key);
    }
  }

  /** Adds a row without values. */
  void add() {
    seen.shown().ifPresent(t -> bench.apply(ChangeRows.added(t, row(t))));
  }

  /** Removes rows, given by their places from 0, as one change. */
  void remove(Set<Integer> gone) {
    Optional<Table> from = seen.shown();
    if (!gone.isEmpty()
        && from.isPresent()
        && bench.apply(() -> ChangeRows.removed(from.get(), seen.rows(), gone))) {
      bench.tellDone(texts.get("rows.removed", gone.size()), texts.get("undo"));
    }
  }
}
