package joiner.model;

import java.util.ArrayList;
import java.util.Collection;
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
  private final Extras extras;

  private Design(
      String name,
      String title,
      String description,
      List<Area> areas,
      Map<TableId, Table> tables,
      Map<RelationshipId, Relationship> relationships,
      Extras extras) {
    this.name = name;
    this.title = title;
    this.description = description;
    this.areas = List.copyOf(areas);
    this.tables = tables;
    this.relationships = relationships;
    this.extras = extras;
  }

  /**
   * A design of those parts. Table ids and names are unique, relationship ids too, and every
   * relationship names tables and fields that are there; anything else is refused by name.
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
    for (Relationship relationship : relationships) {
      requireEnds(byId, relationship);
      if (related.put(relationship.id(), relationship) != null) {
        throw new IllegalArgumentException("relationship " + relationship.id() + " is there twice");
      }
    }
    return new Design(name, title, description, areas, byId, related, extras);
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

  /** The area with that name, if there is one. */
  public Optional<Area> area(String wanted) {
    return areas.stream().filter(area -> area.name().equals(wanted)).findFirst();
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
    return of(name, title, description, areas, all, relationships.values(), extras);
  }

  /** The same design with a table added at the end. */
  public Design withTableAdded(Table table) {
    var all = new ArrayList<>(tables.values());
    all.add(table);
    return of(name, title, description, areas, all, relationships.values(), extras);
  }

  /** The same design without a table and without the relationships that touch it. */
  public Design withoutTable(TableId id) {
    var kept = tables.values().stream().filter(table -> !table.id().equals(id)).toList();
    var related =
        relationships.values().stream()
            .filter(r -> !r.child().equals(id) && !r.parent().equals(id))
            .toList();
    return of(name, title, description, areas, kept, related, extras);
  }

  public Design withRelationships(Collection<Relationship> other) {
    return of(name, title, description, areas, tables.values(), other, extras);
  }

  /** The same design with a relationship added at the end. */
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
    return new Design(name, title, description, other, tables, relationships, extras);
  }

  public Design withTitle(String other) {
    return new Design(name, other, description, areas, tables, relationships, extras);
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
