package joiner.model;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * The whole thing a user works on: tables, relationships, areas. An immutable value; "changing" it
 * gives another one. Look-ups by id take constant time.
 */
public final class Design {
  private final String name;
  private final String title;
  private final String description;
  private final List<Area> areas;
  private final Map<TableId, Table> tables;
  private final Map<RelationshipId, Relationship> relationships;
  private final List<Kit> kits;
  private final List<Pin> pins;
  private final List<Question> questions;
  private final Extras extras;

  private Design(
      String name,
      String title,
      String description,
      List<Area> areas,
      Map<TableId, Table> tables,
      Map<RelationshipId, Relationship> relationships,
      List<Kit> kits,
      List<Pin> pins,
      List<Question> questions,
      Extras extras) {
    this.name = name;
    this.title = title;
    this.description = description;
    this.areas = List.copyOf(areas);
    this.tables = tables;
    this.relationships = relationships;
    this.kits = List.copyOf(kits);
    this.pins = pins.stream().filter(pin -> tables.containsKey(pin.table())).toList();
    this.questions = List.copyOf(questions);
    this.extras = extras;
  }

  /**
   * A design of those parts. Table ids and names are unique, relationship ids too; every
   * relationship names tables and fields that are there, and the two relationships of a join table
   * are its own; anything else is refused by name. Relationships stand in the order of their child
   * tables. An area that only a table names comes after those listed.
   */
  public static Design of(
      String name,
      String title,
      String description,
      List<Area> areas,
      Collection<Table> tables,
      Collection<Relationship> relationships,
      Extras extras) {
    Map<TableId, Table> byId = new LinkedHashMap<>();
    var names = new HashSet<String>();
    for (Table table : tables) {
      if (byId.put(table.id(), table) != null || !names.add(table.name())) {
        throw new IllegalArgumentException("table " + table.name() + " is there twice");
      }
    }
    Map<RelationshipId, Relationship> related = new LinkedHashMap<>();
    for (Relationship relationship : inOrderOfChildren(byId, relationships)) {
      requireEnds(byId, relationship);
      if (related.put(relationship.id(), relationship) != null) {
        throw new IllegalArgumentException("relationship " + relationship.id() + " is there twice");
      }
    }
    byId.values().forEach(table -> requireSides(table, related));
    return new Design(
        name,
        title,
        description,
        allAreas(areas, tables),
        byId,
        related,
        List.of(),
        List.of(),
        List.of(),
        extras);
  }

  private static List<Relationship> inOrderOfChildren(
      Map<TableId, Table> tables, Collection<Relationship> relationships) {
    Map<TableId, Integer> places = HashMap.newHashMap(tables.size());
    tables.keySet().forEach(id -> places.put(id, places.size()));
    return relationships.stream()
        .sorted(Comparator.comparing(r -> places.getOrDefault(r.child(), -1)))
        .toList();
  }

  private static List<Area> allAreas(List<Area> listed, Collection<Table> tables) {
    var areas = new ArrayList<>(listed);
    var names = new HashSet<String>();
    var ids = new HashSet<AreaId>();
    for (Area area : listed) {
      if (!names.add(area.name()) || !ids.add(area.id())) {
        throw new IllegalArgumentException("area " + area.name() + " is there twice");
      }
    }
    for (Table table : tables) {
      if (table.area().isPresent() && ids.add(table.area().get())) {
        AreaId id = table.area().get();
        String name = Taken.free(id.value(), names);
        names.add(name);
        areas.add(new Area(id, name, areas.size() % Area.HUES));
      }
    }
    return areas;
  }

  private static void requireSides(Table table, Map<RelationshipId, Relationship> related) {
    if (table.kind() instanceof TableKind.Join join) {
      for (RelationshipId side : List.of(join.first(), join.second())) {
        Relationship relationship = related.get(side);
        if (relationship == null || !relationship.child().equals(table.id())) {
          throw new IllegalArgumentException(
              "join table " + table.name() + " names unknown relationship " + side);
        }
      }
    }
  }

  /** That table, under an id no table of this design has; a renamed table keeps its old id. */
  public Table unused(Table table) {
    List<String> taken = tables.keySet().stream().map(TableId::value).toList();
    return table.withId(new TableId(Taken.free(table.id().value(), taken)));
  }

  /** That relationship, under an id no relationship of this design has. */
  public Relationship unused(Relationship relationship) {
    List<String> taken = relationships.keySet().stream().map(RelationshipId::value).toList();
    return relationship.withId(new RelationshipId(Taken.free(relationship.id().value(), taken)));
  }

  /** A design with nothing in it. */
  public static Design empty(String name, String title) {
    return of(name, title, "", List.of(), List.of(), List.of(), Extras.NONE);
  }

  private static void requireEnds(Map<TableId, Table> tables, Relationship relationship) {
    requireEnd(tables, relationship, relationship.child(), relationship.childFields());
    requireEnd(tables, relationship, relationship.parent(), relationship.parentFields());
  }

  private static void requireEnd(
      Map<TableId, Table> tables, Relationship relationship, TableId end, List<FieldId> fields) {
    Table table = tables.get(end);
    if (table == null) {
      throw new IllegalArgumentException(
          "relationship " + relationship.name() + " names unknown table " + end);
    }
    for (FieldId field : fields) {
      if (!table.hasField(field)) {
        throw new IllegalArgumentException(
            "relationship "
                + relationship.name()
                + " names unknown field "
                + field
                + " of table "
                + table.name());
      }
    }
  }

  /** The name files and databases know the design by. */
  public String name() {
    return name;
  }

  /** What people read. */
  public String title() {
    return title;
  }

  /** A note for people; may be empty. */
  public String description() {
    return description;
  }

  public List<Area> areas() {
    return areas;
  }

  /** All tables, in the design's order. */
  public Collection<Table> tables() {
    return java.util.Collections.unmodifiableCollection(tables.values());
  }

  /** All relationships, in the design's order. */
  public Collection<Relationship> relationships() {
    return java.util.Collections.unmodifiableCollection(relationships.values());
  }

  /** Fields that are dropped into tables and kept in step. */
  public List<Kit> kits() {
    return kits;
  }

  /** Where boards of the map are wanted; of a table one at most. */
  public List<Pin> pins() {
    return pins;
  }

  /** Questions that are kept, in order; what they name may be gone. */
  public List<Question> questions() {
    return questions;
  }

  /** The kit of that id, if it is there. */
  public Optional<Kit> find(KitId kit) {
    return kits.stream().filter(k -> k.id().equals(kit)).findFirst();
  }

  public Extras extras() {
    return extras;
  }

  /** The table with that id; an unknown one is a caller's mistake. */
  public Table table(TableId id) {
    Table table = tables.get(id);
    if (table == null) {
      throw new IllegalArgumentException("no table " + id);
    }
    return table;
  }

  /** The table with that id, if it is there. */
  public Optional<Table> find(TableId id) {
    return Optional.ofNullable(tables.get(id));
  }

  /** Whether a table is there, and has all these fields. */
  public boolean has(TableId table, List<FieldId> fields) {
    return find(table).filter(t -> fields.stream().allMatch(t::hasField)).isPresent();
  }

  /** The table the database knows by that name. Linear in tables. */
  public Optional<Table> tableNamed(String wanted) {
    return tables.values().stream().filter(table -> table.name().equals(wanted)).findFirst();
  }

  /** The relationship with that id, if it is there. */
  public Optional<Relationship> find(RelationshipId id) {
    return Optional.ofNullable(relationships.get(id));
  }

  /** The relationship with that id; an unknown one is a caller's mistake. */
  public Relationship relationship(RelationshipId id) {
    Relationship relationship = relationships.get(id);
    if (relationship == null) {
      throw new IllegalArgumentException("no relationship " + id);
    }
    return relationship;
  }

  /** Relationships in which the table is the child. Linear in relationships. */
  public List<Relationship> parentsOf(TableId child) {
    return relationships.values().stream().filter(r -> r.child().equals(child)).toList();
  }

  /** Relationships in which the table is the parent. Linear in relationships. */
  public List<Relationship> childrenOf(TableId parent) {
    return relationships.values().stream().filter(r -> r.parent().equals(parent)).toList();
  }

  /** The area of that name. */
  public Optional<Area> areaNamed(String wanted) {
    return areas.stream().filter(area -> area.name().equals(wanted)).findFirst();
  }

  /** The area of that id; an unknown one is a caller's mistake. */
  public Area area(AreaId id) {
    return areas.stream()
        .filter(area -> area.id().equals(id))
        .findFirst()
        .orElseThrow(() -> new IllegalArgumentException("unknown area " + id));
  }

  /** The area a table stands in. */
  public Optional<Area> areaOf(Table table) {
    return table.area().map(this::area);
  }

  /** Number of fields in all tables. */
  public int fieldCount() {
    return tables.values().stream().mapToInt(table -> table.fields().size()).sum();
  }

  /** The same design with one table changed in place; its id must stay. */
  public Design withTable(TableId id, UnaryOperator<Table> change) {
    Table changed = change.apply(table(id));
    var all = new ArrayList<Table>(tables.size());
    tables.values().forEach(table -> all.add(table.id().equals(id) ? changed : table));
    return withTables(all);
  }

  /** The same design with other tables, in another order perhaps. */
  public Design withTables(Collection<Table> other) {
    return again(areas, other, relationships.values());
  }

  /**
   * The same design with a table added at the end, and the relationships that come with it, as a
   * join table needs.
   */
  public Design withTableAdded(Table table, Relationship... own) {
    var all = new ArrayList<>(tables.values());
    all.add(table);
    var related = new ArrayList<>(relationships.values());
    related.addAll(List.of(own));
    return again(areas, all, related);
  }

  /**
   * The same design without a table and without the relationships that touch it; a join table that
   * loses a side becomes plain.
   */
  public Design withoutTable(TableId id) {
    var kept = tables.values().stream().filter(table -> !table.id().equals(id)).toList();
    var related =
        relationships.values().stream()
            .filter(r -> !r.child().equals(id) && !r.parent().equals(id))
            .toList();
    return again(areas, plainWithoutSides(kept, related), related);
  }

  /** The same tables with other relationships; a join table that loses a side becomes plain. */
  public Design withRelationships(Collection<Relationship> other) {
    return again(areas, plainWithoutSides(tables.values(), other), other);
  }

  /** The same tables, where a join table that lacks a side among those relationships is plain. */
  public static List<Table> plainWithoutSides(
      Collection<Table> tables, Collection<Relationship> related) {
    var ids = new HashSet<RelationshipId>();
    related.forEach(relationship -> ids.add(relationship.id()));
    return tables.stream()
        .map(
            table ->
                table.kind() instanceof TableKind.Join join
                        && !(ids.contains(join.first()) && ids.contains(join.second()))
                    ? table.withKind(new TableKind.Plain())
                    : table)
        .toList();
  }

  /** The same design with a relationship added, the last of its child table. */
  public Design withRelationshipAdded(Relationship relationship) {
    var all = new ArrayList<>(relationships.values());
    all.add(relationship);
    return withRelationships(all);
  }

  /** The same design with one relationship changed in place. */
  public Design withRelationship(RelationshipId id, UnaryOperator<Relationship> change) {
    return withRelationships(
        relationships.values().stream().map(r -> r.id().equals(id) ? change.apply(r) : r).toList());
  }

  /** The same design without a relationship; the fields stay. */
  public Design withoutRelationship(RelationshipId id) {
    return withRelationships(
        relationships.values().stream().filter(r -> !r.id().equals(id)).toList());
  }

  public Design withAreas(List<Area> other) {
    return again(other, tables.values(), relationships.values());
  }

  /** The same design under another name for files and databases. */
  public Design withName(String other) {
    return new Design(
        other, title, description, areas, tables, relationships, kits, pins, questions, extras);
  }

  public Design withExtras(Extras other) {
    return new Design(
        name, title, description, areas, tables, relationships, kits, pins, questions, other);
  }

  public Design withTitle(String other) {
    return new Design(
        name, other, description, areas, tables, relationships, kits, pins, questions, extras);
  }

  /** The same design with other kits; no two have one id. */
  public Design withKits(List<Kit> other) {
    var ids = new HashSet<KitId>();
    for (Kit kit : other) {
      if (!ids.add(kit.id())) {
        throw new IllegalArgumentException("kit " + kit.id() + " is there twice");
      }
    }
    return new Design(
        name, title, description, areas, tables, relationships, other, pins, questions, extras);
  }

  /** The same design with other pins; those of tables that are not there fall out. */
  public Design withPins(List<Pin> other) {
    var tablesOf = new HashSet<TableId>();
    for (Pin pin : other) {
      if (!tablesOf.add(pin.table())) {
        throw new IllegalArgumentException("table " + pin.table() + " is pinned twice");
      }
    }
    return new Design(
        name, title, description, areas, tables, relationships, kits, other, questions, extras);
  }

  /** The same design with other questions; no two have one id or one name. */
  public Design withQuestions(List<Question> other) {
    var ids = new HashSet<QuestionId>();
    var names = new HashSet<String>();
    for (Question question : other) {
      if (!ids.add(question.id()) || !names.add(question.name())) {
        throw new IllegalArgumentException("question " + question.name() + " is there twice");
      }
    }
    return new Design(
        name, title, description, areas, tables, relationships, kits, pins, other, extras);
  }

  private Design again(
      List<Area> areasOf, Collection<Table> tablesOf, Collection<Relationship> relationshipsOf) {
    return of(name, title, description, areasOf, tablesOf, relationshipsOf, extras)
        .withKits(kits)
        .withPins(pins)
        .withQuestions(questions);
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Design that
        && name.equals(that.name)
        && title.equals(that.title)
        && description.equals(that.description)
        && areas.equals(that.areas)
        && List.copyOf(tables.values()).equals(List.copyOf(that.tables.values()))
        && List.copyOf(relationships.values()).equals(List.copyOf(that.relationships.values()))
        && kits.equals(that.kits)
        && pins.equals(that.pins)
        && questions.equals(that.questions)
        && extras.equals(that.extras);
  }

  @Override
  public int hashCode() {
    return tables.hashCode() * 31 + relationships.hashCode();
  }

  @Override
  public String toString() {
    return title + ": " + tables.keySet();
  }
}
