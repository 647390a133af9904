package joiner.model;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import joiner.expression.Formula;

/**
 * One table of a design.
 *
 * @param id stays the same for the table's whole life
 * @param name what the database gets
 * @param label what people read
 * @param noun what its rows are called
 * @param icon what pictures it, by its name in the set that is shipped; may be empty
 * @param description a note for people; may be empty
 * @param area the area it stands in; empty: none
 * @param kind what the table is for
 * @param fields in order; ids and names are unique
 * @param primaryKey fields that identify a row; empty: none yet
 * @param uniqueKeys further keys
 * @param indexes for speed only
 * @param rowLabel an SQL value expression that names a row for people
 * @param rules conditions on each row
 * @param groups fields that are read as one thing; fields that are not there fall out of them
 * @param listing how its rows are listed; fields that are not there fall out of it
 * @param facts what is known of it beside its keys; fields that are not there fall out of it
 * @param extras properties kept from a file
 */
public record Table(
    TableId id,
    String name,
    String label,
    Noun noun,
    String icon,
    String description,
    Optional<AreaId> area,
    TableKind kind,
    List<Field> fields,
    List<FieldId> primaryKey,
    List<UniqueKey> uniqueKeys,
    List<Index> indexes,
    Optional<Formula> rowLabel,
    List<Rule> rules,
    List<FieldGroup> groups,
    Listing listing,
    List<KnownFact> facts,
    Extras extras) {

  public Table {
    fields = List.copyOf(fields);
    primaryKey = List.copyOf(primaryKey);
    uniqueKeys = List.copyOf(uniqueKeys);
    indexes = List.copyOf(indexes);
    rules = List.copyOf(rules);
    HashSet<FieldId> ids = distinctFields(name, fields);
    requireAll(name, "primary key", ids, primaryKey);
    uniqueKeys.forEach(unique -> requireAll(name, unique.name(), ids, unique.fields()));
    indexes.forEach(index -> requireAll(name, index.name(), ids, index.fields()));
    if (kind instanceof TableKind.Lookup lookup) {
      requireAll(name, "sort order", ids, lookup.sortBy().stream().toList());
      requireAll(name, "mark of retired rows", ids, lookup.retired().stream().toList());
    }
    requireDistinct(name, "unique key", uniqueKeys, UniqueKey::name, UniqueKey::id);
    requireDistinct(name, "index", indexes, Index::name, Index::id);
    requireDistinct(name, "rule", rules, Rule::name, Rule::id);
    groups = standing(groups, ids);
    listing = listing.standing(ids);
    facts = facts.stream().flatMap(fact -> fact.standing(ids).stream()).distinct().toList();
    requireDistinct(name, "group", groups, FieldGroup::id, FieldGroup::id);
  }

  /** The groups with the fields that are there, each in the first group that has it. */
  private static List<FieldGroup> standing(List<FieldGroup> groups, HashSet<FieldId> ids) {
    var free = new HashSet<>(ids);
    var standing = new ArrayList<FieldGroup>();
    for (FieldGroup group : groups) {
      List<FieldId> fields = group.fields().stream().filter(free::remove).toList();
      if (!fields.isEmpty()) {
        standing.add(fields.equals(group.fields()) ? group : group.withFields(fields));
      }
    }
    return List.copyOf(standing);
  }

  private static HashSet<FieldId> distinctFields(String table, List<Field> fields) {
    var ids = new HashSet<FieldId>();
    var names = new HashSet<String>();
    for (Field field : fields) {
      if (!ids.add(field.id()) || !names.add(field.name())) {
        throw new IllegalArgumentException(
            "table " + table + " has field " + field.name() + " twice");
      }
    }
    return ids;
  }

  private static void requireAll(
      String table, String what, HashSet<FieldId> ids, List<FieldId> wanted) {
    var seen = new HashSet<FieldId>();
    for (FieldId id : wanted) {
      if (!ids.contains(id)) {
        throw new IllegalArgumentException(
            what + " of table " + table + " names unknown field " + id);
      }
      if (!seen.add(id)) {
        throw new IllegalArgumentException(what + " of table " + table + " names " + id + " twice");
      }
    }
  }

  private static <T> void requireDistinct(
      String table, String what, List<T> things, Function<T, ?> name, Function<T, ?> id) {
    var names = new HashSet<Object>();
    var ids = new HashSet<Object>();
    for (T thing : things) {
      if (!names.add(name.apply(thing)) || !ids.add(id.apply(thing))) {
        throw new IllegalArgumentException(
            "table " + table + " has " + what + " " + name.apply(thing) + " twice");
      }
    }
  }

  /** That field, under an id no field of this table has; a renamed field keeps its old id. */
  public Field unused(Field field) {
    List<String> taken = fields.stream().map(f -> f.id().value()).toList();
    return field.withId(new FieldId(Taken.free(field.id().value(), taken)));
  }

  /** A plain table without fields. */
  public static Table of(String name, String label, Noun noun) {
    return new Table(
        new TableId(name),
        name,
        label,
        noun,
        "",
        "",
        Optional.empty(),
        new TableKind.Plain(),
        List.of(),
        List.of(),
        List.of(),
        List.of(),
        Optional.empty(),
        List.of(),
        List.of(),
        Listing.USUAL,
        List.of(),
        Extras.NONE);
  }

  /** What a table consists of, while another is made of it. */
  private static final class Parts {
    TableId id;
    String name;
    String label;
    Noun noun;
    String icon;
    String description;
    Optional<AreaId> area;
    TableKind kind;
    List<Field> fields;
    List<FieldId> primaryKey;
    List<UniqueKey> uniqueKeys;
    List<Index> indexes;
    Optional<Formula> rowLabel;
    List<Rule> rules;
    List<FieldGroup> groups;
    Listing listing;
    List<KnownFact> facts;
    Extras extras;

    Parts(Table table) {
      id = table.id;
      name = table.name;
      label = table.label;
      noun = table.noun;
      icon = table.icon;
      description = table.description;
      area = table.area;
      kind = table.kind;
      fields = table.fields;
      primaryKey = table.primaryKey;
      uniqueKeys = table.uniqueKeys;
      indexes = table.indexes;
      rowLabel = table.rowLabel;
      rules = table.rules;
      groups = table.groups;
      listing = table.listing;
      facts = table.facts;
      extras = table.extras;
    }
  }

  private Table with(Consumer<Parts> change) {
    var parts = new Parts(this);
    change.accept(parts);
    return new Table(
        parts.id,
        parts.name,
        parts.label,
        parts.noun,
        parts.icon,
        parts.description,
        parts.area,
        parts.kind,
        parts.fields,
        parts.primaryKey,
        parts.uniqueKeys,
        parts.indexes,
        parts.rowLabel,
        parts.rules,
        parts.groups,
        parts.listing,
        parts.facts,
        parts.extras);
  }

  /** The field with that id; an unknown one is a caller's mistake. */
  public Field field(FieldId fieldId) {
    for (Field field : fields) {
      if (field.id().equals(fieldId)) {
        return field;
      }
    }
    throw new IllegalArgumentException("table " + name + " has no field " + fieldId);
  }

  /** Whether there is a field with that id. */
  public boolean hasField(FieldId fieldId) {
    return fields.stream().anyMatch(field -> field.id().equals(fieldId));
  }

  /** The field the database knows by that name. */
  public Optional<Field> fieldNamed(String fieldName) {
    return fields.stream().filter(field -> field.name().equals(fieldName)).findFirst();
  }

  /** Ids of all fields, in order. */
  public List<FieldId> fieldIds() {
    return fields.stream().map(Field::id).toList();
  }

  /** Names of the fields with those ids, in the order given. */
  public List<String> namesOf(List<FieldId> ids) {
    return ids.stream().map(id -> field(id).name()).toList();
  }

  /** Labels of the fields with those ids, in the order given. */
  public List<String> labelsOf(List<FieldId> ids) {
    return ids.stream().map(id -> field(id).label()).toList();
  }

  /** Fields by name, in order. */
  public Map<String, Field> fieldsByName() {
    Map<String, Field> byName = HashMap.newHashMap(fields.size());
    fields.forEach(field -> byName.put(field.name(), field));
    return byName;
  }

  /** Whether the field must have a value: it says so or is part of the primary key. */
  public boolean isRequired(FieldId fieldId) {
    return primaryKey.contains(fieldId) || field(fieldId).required();
  }

  /** Whether those fields, as a set, are the primary key or a unique key. */
  public boolean isKey(Collection<FieldId> ids) {
    return keys().stream().anyMatch(key -> sameSet(key, ids));
  }

  /** Whether those fields contain a key, so that their values occur once. */
  public boolean isUnique(Collection<FieldId> ids) {
    return keys().stream().anyMatch(ids::containsAll);
  }

  /** The primary key, if there is one, and all unique keys. */
  public List<List<FieldId>> keys() {
    var keys = new ArrayList<List<FieldId>>();
    if (!primaryKey.isEmpty()) {
      keys.add(primaryKey);
    }
    uniqueKeys.forEach(unique -> keys.add(unique.fields()));
    return keys;
  }

  private static boolean sameSet(Collection<FieldId> left, Collection<FieldId> right) {
    return left.size() == right.size() && left.containsAll(right);
  }

  /** The same table with one field changed in place. */
  public Table withField(FieldId fieldId, UnaryOperator<Field> change) {
    return withFields(
        fields.stream()
            .map(field -> field.id().equals(fieldId) ? change.apply(field) : field)
            .toList());
  }

  /** The same table with a field added at the end. */
  public Table withFieldAdded(Field field) {
    return withFields(withLast(fields, field));
  }

  public Table withFields(List<Field> other) {
    return with(parts -> parts.fields = other);
  }

  public Table withId(TableId other) {
    return with(parts -> parts.id = other);
  }

  public Table withNames(String otherName, String otherLabel, Noun otherNoun) {
    return with(
        parts -> {
          parts.name = otherName;
          parts.label = otherLabel;
          parts.noun = otherNoun;
        });
  }

  public Table withDescription(String other) {
    return with(parts -> parts.description = other);
  }

  public Table withIcon(String other) {
    return with(parts -> parts.icon = other);
  }

  public Table withArea(Optional<AreaId> other) {
    return with(parts -> parts.area = other);
  }

  public Table withKind(TableKind other) {
    return with(parts -> parts.kind = other);
  }

  public Table withPrimaryKey(List<FieldId> other) {
    return with(parts -> parts.primaryKey = other);
  }

  public Table withUniqueKeys(List<UniqueKey> other) {
    return with(parts -> parts.uniqueKeys = other);
  }

  public Table withIndexes(List<Index> other) {
    return with(parts -> parts.indexes = other);
  }

  /** The same table with a unique key added at the end, under an id that no other has. */
  public Table withUniqueKeyAdded(UniqueKey key) {
    List<String> taken = uniqueKeys.stream().map(other -> other.id().value()).toList();
    return withUniqueKeys(
        withLast(uniqueKeys, key.withId(new KeyId(Taken.free(key.id().value(), taken)))));
  }

  /** The same table with a rule added at the end, under an id that no other has. */
  public Table withRuleAdded(Rule rule) {
    List<String> taken = rules.stream().map(other -> other.id().value()).toList();
    return withRules(
        withLast(rules, rule.withId(new RuleId(Taken.free(rule.id().value(), taken)))));
  }

  /**
   * The same table with an index added at the end, under the first free name that begins with its
   * own and an id that no other has; the same where there is one of the very same fields.
   */
  public Table withIndexAdded(Index index) {
    if (indexes.stream()
        .anyMatch(
            there ->
                there.fields().equals(index.fields())
                    && there.descending().equals(index.descending()))) {
      return this;
    }
    List<String> taken = indexes.stream().map(other -> other.id().value()).toList();
    var id = new IndexId(Taken.free(index.id().value(), taken));
    String free = Taken.free(index.name(), indexes.stream().map(Index::name).toList());
    return withIndexes(withLast(indexes, new Index(id, free, index.fields(), index.descending())));
  }

  private static <T> List<T> withLast(List<T> things, T last) {
    var all = new ArrayList<>(things);
    all.add(last);
    return all;
  }

  public Table withRowLabel(Optional<Formula> other) {
    return with(parts -> parts.rowLabel = other);
  }

  public Table withRules(List<Rule> other) {
    return with(parts -> parts.rules = other);
  }

  public Table withGroups(List<FieldGroup> other) {
    return with(parts -> parts.groups = other);
  }

  public Table withListing(Listing other) {
    return with(parts -> parts.listing = other);
  }

  public Table withFacts(List<KnownFact> other) {
    return with(parts -> parts.facts = other);
  }

  /** The same table with a fact known; what was known of the same fields before gives way to it. */
  public Table withFact(KnownFact fact) {
    var known = new ArrayList<FieldId>(fact.dependents());
    var others = new ArrayList<KnownFact>();
    for (KnownFact other : withoutFact(fact).facts) {
      if (other.isOf(fact.determinant()) && other.holds() == fact.holds()) {
        known.addAll(other.dependents());
      } else {
        others.add(other);
      }
    }
    others.add(new KnownFact(fact.determinant(), known, fact.holds()));
    return withFacts(others);
  }

  /** The same table without what is known of what those fields decide, or do not. */
  public Table withoutFact(KnownFact fact) {
    return withFacts(
        facts.stream()
            .flatMap(
                other ->
                    other.isOf(fact.determinant()) ? other.less(fact).stream() : Stream.of(other))
            .toList());
  }

  /** The same table with a group at the end, under an id that no other has. */
  public Table withGroupAdded(FieldGroup group) {
    List<String> taken = groups.stream().map(other -> other.id().value()).toList();
    return withGroups(
        withLast(groups, group.withId(new GroupId(Taken.free(group.id().value(), taken)))));
  }

  /** The group a field stands in. */
  public Optional<FieldGroup> groupOf(FieldId field) {
    return groups.stream().filter(group -> group.fields().contains(field)).findFirst();
  }

  public Table withExtras(Extras other) {
    return with(parts -> parts.extras = other);
  }

  /**
   * The same table without a field: the primary key loses it; unique keys and indexes that named it
   * go, and so do a lookup's sort order and mark of retired rows that stood on it.
   */
  public Table withoutField(FieldId gone) {
    var keptKey = primaryKey.stream().filter(f -> !f.equals(gone)).toList();
    var keptUniques = uniqueKeys.stream().filter(key -> !key.fields().contains(gone)).toList();
    var keptIndexes = indexes.stream().filter(index -> !index.fields().contains(gone)).toList();
    return with(
        parts -> {
          parts.kind = kind.without(gone);
          parts.fields = fields.stream().filter(f -> !f.id().equals(gone)).toList();
          parts.primaryKey = keptKey;
          parts.uniqueKeys = keptUniques;
          parts.indexes = keptIndexes;
        });
  }
}
