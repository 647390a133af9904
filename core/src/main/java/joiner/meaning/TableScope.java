package joiner.meaning;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;

/**
 * The names that formulas of one table may use: its fields, and over its relationships the fields
 * of its parents, of their parents, and so on. A relationship is called by the field that refers to
 * the parent, or by its own name where several fields do or one field does for several
 * relationships.
 */
final class TableScope implements Scope {
  private final Optional<Design> design;
  private final Table table;
  private final List<Relationship> over;
  private final Map<String, Reference> exact = new LinkedHashMap<>();
  private final Map<String, Reference> folded = new LinkedHashMap<>();

  /** Names of a table that belongs to no design yet, so that nothing leads anywhere. */
  TableScope(Table table) {
    this(Optional.empty(), table, List.of());
  }

  /** Names of a table of a design. */
  TableScope(Design design, Table table) {
    this(Optional.of(design), table, List.of());
  }

  private TableScope(Optional<Design> design, Table table, List<Relationship> over) {
    this.design = design;
    this.table = table;
    this.over = over;
    for (Field field : table.fields()) {
      exact.put(field.name(), reference(field));
      folded.putIfAbsent(lower(field.name()), exact.get(field.name()));
    }
  }

  private Reference reference(Field field) {
    if (over.isEmpty()) {
      return OwnField.of(field);
    }
    Design of = design.orElseThrow();
    List<RelationshipId> way = over.stream().map(Relationship::id).toList();
    List<FieldId> from = over.getFirst().childFields();
    return new FarField(way, from, field.id(), path(of, over, field), field.type().valueType());
  }

  /** What formulas call a field over those relationships of a design. */
  static List<String> path(Design design, List<Relationship> over, Field field) {
    var path = new ArrayList<String>();
    over.forEach(relationship -> path.add(way(design, relationship)));
    path.add(field.name());
    return path;
  }

  private static String way(Design design, Relationship relationship) {
    long sharing =
        design.parentsOf(relationship.child()).stream()
            .filter(other -> other.childFields().equals(relationship.childFields()))
            .count();
    return relationship.childFields().size() == 1 && sharing == 1
        ? design.table(relationship.child()).field(relationship.childFields().getFirst()).name()
        : relationship.name();
  }

  private static String lower(String name) {
    return name.toLowerCase(Locale.ROOT);
  }

  @Override
  public String label() {
    return table.label();
  }

  @Override
  public Collection<String> names() {
    return exact.keySet();
  }

  @Override
  public Optional<Reference> find(String name) {
    return Optional.ofNullable(exact.get(name))
        .or(() -> Optional.ofNullable(folded.get(lower(name))));
  }

  @Override
  public Collection<String> ways() {
    return relationships().keySet();
  }

  @Override
  public Optional<Scope> over(String way) {
    Map<String, Relationship> ways = relationships();
    return Optional.ofNullable(ways.get(way))
        .or(
            () ->
                ways.entrySet().stream()
                    .filter(entry -> lower(entry.getKey()).equals(lower(way)))
                    .map(Map.Entry::getValue)
                    .findFirst())
        .map(this::beyond);
  }

  private Scope beyond(Relationship relationship) {
    var further = new ArrayList<>(over);
    further.add(relationship);
    return new TableScope(design, design.orElseThrow().table(relationship.parent()), further);
  }

  private Map<String, Relationship> relationships() {
    Map<String, Relationship> ways = new LinkedHashMap<>();
    design.ifPresent(of -> of.parentsOf(table.id()).forEach(r -> ways.putIfAbsent(way(of, r), r)));
    return ways;
  }
}
