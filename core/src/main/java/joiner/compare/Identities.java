package joiner.compare;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Index;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.model.UniqueKey;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/** Other ids for the things of a draft; what is not named keeps its own. */
final class Identities {
  private final Map<TableId, TableId> tables = new HashMap<>();
  private final Map<TableId, Map<FieldId, FieldId>> fields = new HashMap<>();
  private final Map<RelationshipId, RelationshipId> relationships = new HashMap<>();

  void table(TableId from, TableId to) {
    tables.put(from, to);
  }

  void field(TableId table, FieldId from, FieldId to) {
    fields.computeIfAbsent(table, id -> new HashMap<>()).put(from, to);
  }

  void relationship(RelationshipId from, RelationshipId to) {
    relationships.put(from, to);
  }

  TableId of(TableId table) {
    return tables.getOrDefault(table, table);
  }

  private FieldId of(TableId table, FieldId field) {
    return fields.getOrDefault(table, Map.of()).getOrDefault(field, field);
  }

  List<FieldId> of(TableId table, List<FieldId> some) {
    return some.stream().map(field -> of(table, field)).toList();
  }

  private RelationshipId of(RelationshipId relationship) {
    return relationships.getOrDefault(relationship, relationship);
  }

  /** The draft under the other ids. */
  Draft of(Draft draft) {
    Design design = draft.design();
    Map<TableId, Rows> rows = new LinkedHashMap<>();
    draft
        .rows()
        .byTable()
        .forEach((table, old) -> rows.put(of(table), old.under(f -> of(table, f))));
    return new Draft(
        Design.of(
            design.name(),
            design.title(),
            design.description(),
            design.areas(),
            design.tables().stream().map(this::of).toList(),
            design.relationships().stream().map(this::of).toList(),
            design.extras()),
        new SampleRows(rows));
  }

  private Table of(Table table) {
    TableId id = table.id();
    List<Field> renamed =
        table.fields().stream().map(field -> field.withId(of(id, field.id()))).toList();
    return new Table(
        of(id),
        table.name(),
        table.label(),
        table.noun(),
        table.description(),
        table.area(),
        of(id, table.kind()),
        renamed,
        of(id, table.primaryKey()),
        table.uniqueKeys().stream().map(k -> new UniqueKey(k.name(), of(id, k.fields()))).toList(),
        table.indexes().stream().map(i -> new Index(i.name(), of(id, i.fields()))).toList(),
        table.rowLabel(),
        table.rules(),
        table.extras());
  }

  private TableKind of(TableId table, TableKind kind) {
    return switch (kind) {
      case TableKind.Plain plain -> plain;
      case TableKind.Lookup(var sortBy, var retired) ->
          new TableKind.Lookup(sortBy.map(f -> of(table, f)), retired.map(f -> of(table, f)));
      case TableKind.Join(var first, var second) -> new TableKind.Join(of(first), of(second));
    };
  }

  private Relationship of(Relationship r) {
    return r.withEnds(
            of(r.child()),
            of(r.child(), r.childFields()),
            of(r.parent()),
            of(r.parent(), r.parentFields()))
        .withId(of(r.id()));
  }
}
