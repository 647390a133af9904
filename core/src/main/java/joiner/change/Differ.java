package joiner.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.ObjIntConsumer;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.Stretch;

/**
 * Finds what leads from one draft to another.
 *
 * <p>Values go first, then what held them, then new holders come, then new values: so no change
 * ever drops a value that it does not name. Within a list of tables, fields or relationships what
 * is gone is taken out from the end, what stayed is put in its new order, and what is new is put in
 * from the front; then every place of a change is the one it has at that moment.
 */
final class Differ {
  /** Up to this share of a column, changed cells are told one by one. */
  private static final int COLUMN_TO_CELLS = 16;

  private final Draft before;
  private final Draft after;
  private final List<Change> changes = new ArrayList<>();

  Differ(Draft before, Draft after) {
    this.before = before;
    this.after = after;
  }

  List<Change> run() {
    if (before == after) {
      return List.of();
    }
    if (before.rows() != after.rows()) {
      before.design().tables().forEach(this::goingRows);
    }
    if (before.design() != after.design()) {
      structure();
    }
    if (before.rows() != after.rows()) {
      after.design().tables().forEach(this::comingRows);
    }
    return changes;
  }

  private void structure() {
    Heading heading = Heading.of(before.design());
    Heading other = Heading.of(after.design());
    if (!heading.equals(other)) {
      changes.add(new Change.HeadingChanged(heading, other));
    }
    var related =
        new Lists<>(
            before.design().relationships(), after.design().relationships(), Relationship::id);
    related.removed((r, place) -> changes.add(new Change.RelationshipRemoved(r, place)));
    var tables = new Lists<>(before.design().tables(), after.design().tables(), Table::id);
    tables.removed((table, place) -> changes.add(new Change.TableRemoved(table, place)));
    tables.ordered(Change.TablesOrdered::new).ifPresent(changes::add);
    tables.added((table, place) -> changes.add(new Change.TableAdded(table, place)));
    for (Table table : after.design().tables()) {
      before
          .design()
          .find(table.id())
          .filter(old -> old != table)
          .ifPresent(old -> table(old, table));
    }
    related.ordered(Change.RelationshipsOrdered::new).ifPresent(changes::add);
    related.added((r, place) -> changes.add(new Change.RelationshipAdded(r, place)));
    related.kept(
        (old, now) -> {
          if (!old.equals(now)) {
            changes.add(new Change.RelationshipChanged(old, now));
          }
        });
  }

  private void table(Table old, Table now) {
    TableId id = now.id();
    var fields = new Lists<>(old.fields(), now.fields(), Field::id);
    fields.removed((field, place) -> changes.add(new Change.FieldRemoved(id, field, place)));
    fields.ordered((from, to) -> new Change.FieldsOrdered(id, from, to)).ifPresent(changes::add);
    fields.added((field, place) -> changes.add(new Change.FieldAdded(id, field, place)));
    fields.kept(
        (one, other) -> {
          if (!one.equals(other)) {
            changes.add(new Change.FieldChanged(id, one, other));
          }
        });
    TableFacts facts = TableFacts.of(old);
    TableFacts other = TableFacts.of(now);
    if (!facts.equals(other)) {
      changes.add(new Change.TableChanged(id, facts, other));
    }
  }

  /** Values of fields that go, then rows that go, be it only from a file. */
  private void goingRows(Table old) {
    TableId id = old.id();
    Optional<LinkedRows> link = before.rows().link(id);
    if (link.isPresent() && after.rows().link(id).isEmpty()) {
      changes.add(new Change.LinkChanged(id, link, Optional.empty()));
    }
    Rows was = before.rows().of(id);
    Rows is = after.rows().of(id);
    if (was == is) {
      return;
    }
    Optional<Table> now = after.design().find(id);
    if (now.isPresent()) {
      for (Field field : old.fields()) {
        if (!now.get().hasField(field.id())) {
          column(id, field.id(), was, was.withoutColumn(field.id()));
        }
      }
    }
    Rows left = now.map(table -> withoutGone(old, table, was)).orElse(was);
    List<Stretch> gone = SameRows.of(left, is).gone();
    if (!gone.isEmpty()) {
      changes.add(new Change.RowsRemoved(id, gone, left.at(gone)));
    }
  }

  /** Cells that hold something else, values of fields that came, then rows that came. */
  private void comingRows(Table now) {
    TableId id = now.id();
    Optional<LinkedRows> link = before.rows().link(id);
    Optional<LinkedRows> linked = after.rows().link(id);
    if (linked.isPresent() && !linked.equals(link)) {
      changes.add(new Change.LinkChanged(id, link, linked));
    }
    Rows was = before.rows().of(id);
    Rows is = after.rows().of(id);
    if (was == is) {
      return;
    }
    Optional<Table> old = before.design().find(id);
    Rows left = old.map(table -> withoutGone(table, now, was)).orElse(Rows.NONE);
    SameRows same = SameRows.of(left, is);
    Rows stayed = left.without(same.gone());
    Rows stay = is.without(same.come());
    now.fields().forEach(field -> column(id, field.id(), stayed, stay));
    if (!same.come().isEmpty()) {
      changes.add(new Change.RowsAdded(id, same.come(), is.at(same.come())));
    }
  }

  private static Rows withoutGone(Table old, Table now, Rows was) {
    Rows left = was;
    for (Field field : old.fields()) {
      if (!now.hasField(field.id())) {
        left = left.withoutColumn(field.id());
      }
    }
    return left;
  }

  private void column(TableId table, FieldId field, Rows was, Rows is) {
    if (was.identity(field).equals(is.identity(field))) {
      return;
    }
    var cells = new ArrayList<Change>();
    int most = Math.max(1, was.count() / COLUMN_TO_CELLS);
    for (int row = 0; row < was.count() && cells.size() <= most; row++) {
      Optional<String> old = was.cell(row, field);
      Optional<String> now = is.cell(row, field);
      if (!old.equals(now)) {
        cells.add(new Change.CellChanged(table, field, row, old, now));
      }
    }
    if (cells.size() <= most) {
      changes.addAll(cells);
    } else {
      changes.add(new Change.ColumnChanged(table, field, was.only(field), is.only(field)));
    }
  }

  /** Two lists of things with ids. */
  private static final class Lists<T, I> {
    private final List<T> old;
    private final List<T> now;
    private final Function<T, I> id;
    private final Map<I, T> before;
    private final Map<I, T> after;

    Lists(Collection<T> old, Collection<T> now, Function<T, I> id) {
      this.old = List.copyOf(old);
      this.now = List.copyOf(now);
      this.id = id;
      before = byId(old);
      after = byId(now);
    }

    private Map<I, T> byId(Collection<T> things) {
      Map<I, T> map = HashMap.newHashMap(things.size());
      things.forEach(thing -> map.put(id.apply(thing), thing));
      return map;
    }

    void removed(ObjIntConsumer<T> tell) {
      for (int i = old.size() - 1; i >= 0; i--) {
        if (!after.containsKey(id.apply(old.get(i)))) {
          tell.accept(old.get(i), i);
        }
      }
    }

    Optional<Change> ordered(BiFunction<List<I>, List<I>, Change> change) {
      List<I> was = old.stream().map(id).filter(after::containsKey).toList();
      List<I> is = now.stream().map(id).filter(before::containsKey).toList();
      return was.equals(is) ? Optional.empty() : Optional.of(change.apply(was, is));
    }

    void added(ObjIntConsumer<T> tell) {
      for (int i = 0; i < now.size(); i++) {
        if (!before.containsKey(id.apply(now.get(i)))) {
          tell.accept(now.get(i), i);
        }
      }
    }

    void kept(java.util.function.BiConsumer<T, T> tell) {
      for (T thing : now) {
        T known = before.get(id.apply(thing));
        if (known != null) {
          tell.accept(known, thing);
        }
      }
    }
  }
}
