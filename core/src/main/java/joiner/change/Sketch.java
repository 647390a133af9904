package joiner.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.rows.Stretch;

/**
 * A draft while changes are made to it. What a design must keep, as that a relationship names
 * fields that are there, holds again only when all are made; until then the parts lie side by side.
 */
final class Sketch {
  private final Draft draft;
  private boolean sameDesign = true;
  private Heading heading;
  private final List<TableId> tables = new ArrayList<>();
  private final Map<TableId, Table> whole = new HashMap<>();
  private final Map<TableId, Parts> parts = new HashMap<>();
  private final List<Relationship> relationships;
  private final Map<TableId, Rows> rows;
  private final Map<TableId, LinkedRows> linked;

  /** A table taken apart. */
  private static final class Parts {
    private final TableId id;
    private TableFacts facts;
    private final List<Field> fields;

    Parts(Table table) {
      id = table.id();
      facts = TableFacts.of(table);
      fields = new ArrayList<>(table.fields());
    }

    Table table() {
      return facts.with(id, fields);
    }
  }

  Sketch(Draft draft) {
    this.draft = draft;
    Design design = draft.design();
    heading = Heading.of(design);
    for (Table table : design.tables()) {
      tables.add(table.id());
      whole.put(table.id(), table);
    }
    relationships = new ArrayList<>(design.relationships());
    rows = new LinkedHashMap<>(draft.rows().byTable());
    linked = new LinkedHashMap<>(draft.rows().linked());
  }

  /** Makes a change; what it expects to find must be there. */
  void make(Change change) {
    switch (change) {
      case Change.OfRows ofRows -> make(ofRows);
      case Change.OfDesign ofDesign -> {
        sameDesign = false;
        make(ofDesign);
      }
    }
  }

  private void make(Change.OfDesign change) {
    switch (change) {
      case Change.HeadingChanged(Heading before, Heading after) -> {
        expect(heading, before, "the design");
        heading = after;
      }
      case Change.TableAdded(Table table, int place) -> add(table, place);
      case Change.TableRemoved(Table table, int place) -> remove(table, place);
      case Change.TableChanged(TableId table, TableFacts before, TableFacts after) -> {
        expect(parts(table).facts, before, table);
        parts(table).facts = after;
      }
      case Change.TablesOrdered(var before, var after) -> {
        expect(tables, before, "the order of tables");
        tables.clear();
        tables.addAll(after);
      }
      case Change.FieldAdded(TableId table, Field field, int place) ->
          insert(parts(table).fields, field, place);
      case Change.FieldRemoved(TableId table, Field field, int place) -> {
        take(parts(table).fields, field, place);
        rows.computeIfPresent(table, (id, present) -> present.withoutColumn(field.id()));
      }
      case Change.FieldChanged(TableId table, Field before, Field after) ->
          replace(parts(table).fields, before, after, Field::id);
      case Change.FieldsOrdered(TableId table, var before, var after) ->
          order(parts(table).fields, before, after, Field::id);
      case Change.RelationshipAdded(Relationship relationship, int place) ->
          insert(relationships, relationship, place);
      case Change.RelationshipRemoved(Relationship relationship, int place) ->
          take(relationships, relationship, place);
      case Change.RelationshipChanged(Relationship before, Relationship after) ->
          replace(relationships, before, after, Relationship::id);
      case Change.RelationshipsOrdered(List<RelationshipId> before, List<RelationshipId> after) ->
          order(relationships, before, after, Relationship::id);
    }
  }

  private void make(Change.OfRows change) {
    switch (change) {
      case Change.RowsAdded(TableId table, var places, Rows added) -> {
        Rows present = rows(table);
        fits(Stretch.fit(places, present.count() + added.count()), table);
        fits(Stretch.count(places) == added.count(), table);
        rows.put(table, present.with(places, added));
      }
      case Change.RowsRemoved(TableId table, var places, Rows removed) -> {
        Rows present = rows(table);
        fits(Stretch.fit(places, present.count()), table);
        expect(present.at(places), removed, table);
        rows.put(table, present.without(places));
      }
      case Change.CellChanged(TableId table, var field, int row, var before, var after) -> {
        Rows present = rows(table);
        fits(row < present.count(), table);
        expect(present.cell(row, field), before, table);
        rows.put(table, present.withCell(row, field, after));
      }
      case Change.ColumnChanged(TableId table, var field, Rows before, Rows after) -> {
        expect(rows(table).only(field), before, table);
        rows.put(table, rows(table).withColumnOf(field, after));
      }
      case Change.LinkChanged(TableId table, var before, var after) -> {
        expect(Optional.ofNullable(linked.remove(table)), before, table);
        after.ifPresent(link -> linked.put(table, link));
      }
    }
  }

  private void add(Table table, int place) {
    insert(tables, table.id(), place);
    fits(!parts.containsKey(table.id()) && whole.put(table.id(), table) == null, table.id());
  }

  private void remove(Table table, int place) {
    take(tables, table.id(), place);
    expect(table(table.id()), table, table.id());
    fits(rows(table.id()).count() == 0 && !linked.containsKey(table.id()), table.id());
    whole.remove(table.id());
    parts.remove(table.id());
    rows.remove(table.id());
  }

  /** The parts of a table, which is taken apart now if it was not yet. */
  private Parts parts(TableId table) {
    Table untouched = whole.remove(table);
    if (untouched != null) {
      parts.put(table, new Parts(untouched));
    }
    Parts known = parts.get(table);
    if (known == null) {
      throw unfit(table);
    }
    return known;
  }

  private Table table(TableId table) {
    Table untouched = whole.get(table);
    return untouched != null ? untouched : parts(table).table();
  }

  private Rows rows(TableId table) {
    return rows.getOrDefault(table, Rows.NONE);
  }

  private static <T> void insert(List<T> list, T thing, int place) {
    fits(place <= list.size(), thing);
    list.add(place, thing);
  }

  private static <T> void take(List<T> list, T thing, int place) {
    fits(place < list.size() && list.get(place).equals(thing), thing);
    list.remove(place);
  }

  private static <T> void replace(List<T> list, T before, T after, Function<T, Object> id) {
    int place = list.indexOf(before);
    fits(place >= 0 && id.apply(before).equals(id.apply(after)), before);
    list.set(place, after);
  }

  private static <T, I> void order(
      List<T> list, List<I> before, List<I> after, Function<T, Object> id) {
    expect(list.stream().map(id).toList(), before, "the order");
    fits(new HashSet<>(before).equals(new HashSet<>(after)), "the order");
    Map<Object, T> byId = HashMap.newHashMap(list.size());
    list.forEach(thing -> byId.put(id.apply(thing), thing));
    for (int i = 0; i < list.size(); i++) {
      list.set(i, Objects.requireNonNull(byId.get(after.get(i))));
    }
  }

  private static void expect(Object found, Object expected, Object where) {
    fits(found.equals(expected), where);
  }

  private static void fits(boolean does, Object where) {
    if (!does) {
      throw unfit(where);
    }
  }

  private static UnfitChangeException unfit(Object where) {
    return new UnfitChangeException(
        "A change does not fit: " + where + " is not as it was when the change was made.");
  }

  /** The draft with all changes made. */
  Draft draft() {
    try {
      return made();
    } catch (IllegalArgumentException e) {
      throw new UnfitChangeException("A change does not fit: " + e.getMessage() + ".");
    }
  }

  private Draft made() {
    Design design = sameDesign ? draft.design() : design();
    return draft.with(design, new SampleRows(rows, linked));
  }

  private Design design() {
    return Design.of(
            heading.name(),
            heading.title(),
            heading.description(),
            heading.areas(),
            tables.stream().map(this::table).toList(),
            relationships,
            heading.extras())
        .withKits(heading.kits())
        .withPins(heading.pins())
        .withQuestions(heading.questions());
  }
}
