package joiner.desktop.prove;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.desktop.prove.EnterPicks.Pick;
import joiner.desktop.work.Workbench;
import joiner.entry.Entered;
import joiner.meaning.ParentRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.RowId;

/**
 * Ways from the open row to others and back: to a new row that it is to refer to, and to rows below
 * it.
 */
final class EnterTrips {
  private final EnterModel model;
  private final Workbench bench;

  EnterTrips(EnterModel model, Workbench bench) {
    this.model = model;
    this.bench = bench;
  }

  /** A row of a table; empty: a new one. */
  private record Place(TableId table, Optional<RowId> row) {}

  private Optional<Place> here() {
    return model.table().map(table -> new Place(table.id(), model.opened()));
  }

  /** Forgets all ways back. */
  void clear() {
    waiting.clear();
    deeper.clear();
  }

  /** Where one comes back to once a row is entered that was to be referred to. */
  private record Waiting(Place place, Relationship over, Typing typing) {}

  /** Types cells somewhere: into the open row or one below it. */
  interface Typing {
    void type(Map<FieldId, String> cells);
  }

  private final Deque<Waiting> waiting = new ArrayDeque<>();

  /**
   * Lets a row refer to what was picked; a row that is to be entered is opened instead, and one
   * comes back with it.
   */
  void pick(Relationship over, Pick pick, Typing typing) {
    switch (pick) {
      case Pick.None none -> typing.type(EnterPicks.cells(over, Optional.empty()));
      case Pick.There(ParentRows.Parent parent) ->
          typing.type(EnterPicks.cells(over, Optional.of(parent.cells())));
      case Pick.Fresh(String text) -> {
        waiting.push(new Waiting(here().orElseThrow(), over, typing));
        Table parent = bench.design().table(over.parent());
        model.go(parent.id(), Optional.empty());
        namingField(parent)
            .filter(field -> !text.isEmpty())
            .ifPresent(field -> model.type(Map.of(field.id(), text)));
      }
    }
  }

  /** The field that what was typed to find a row is likely to be. */
  private static Optional<Field> namingField(Table of) {
    return of.fields().stream()
        .filter(EnterPart::isTyped)
        .filter(field -> field.type() instanceof FieldType.Text)
        .findFirst();
  }

  /** A row below another that was opened from there. */
  private record Deeper(Place from, String label, Place to) {}

  private final Deque<Deeper> deeper = new ArrayDeque<>();

  /** Opens a row below the open one, one level deeper. */
  void openBelow(TableId child, RowId row) {
    Place from = here().orElseThrow();
    String label =
        from.row
            .map(model.same()::label)
            .filter(text -> !text.isEmpty())
            .orElseGet(() -> model.table().map(Table::label).orElse(""));
    deeper.push(new Deeper(from, label, new Place(child, Optional.of(row))));
    model.go(child, Optional.of(row));
  }

  /** The row from which the open one was opened, by what people call it. */
  Optional<String> above() {
    return Optional.ofNullable(deeper.peek())
        .filter(last -> here().equals(Optional.of(last.to)))
        .map(Deeper::label);
  }

  /** Goes back to the row above. */
  void up() {
    if (above().isPresent()) {
      Place to = deeper.pop().from;
      model.go(to.table, to.row);
    }
  }

  /** Where one comes back to once this row is saved. */
  Optional<Table> waitingFor() {
    return Optional.ofNullable(waiting.peek())
        .filter(w -> here().filter(at -> at.table.equals(w.over.parent())).isPresent())
        .flatMap(w -> bench.design().find(w.place.table));
  }

  /** Goes back without having entered a row. */
  void back() {
    Place to = waiting.pop().place;
    model.go(to.table, to.row);
  }

  /** Goes back with the row that was entered. */
  void backWith(RowId entered) {
    Waiting to = waiting.peek();
    List<String> key =
        to.over.parentFields().stream()
            .map(field -> model.kept(Entered.changed(to.over.parent(), entered), field))
            .toList();
    back();
    to.typing.type(EnterPicks.cells(to.over, Optional.of(key)));
  }
}
