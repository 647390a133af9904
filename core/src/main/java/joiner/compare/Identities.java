package joiner.compare;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.IndexId;
import joiner.model.KeyId;
import joiner.model.Pin;
import joiner.model.Question;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.RuleId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;

/** Other ids for the things of a draft; what is not named keeps its own. */
final class Identities {
  private final Map<TableId, TableId> tables = new HashMap<>();
  private final Map<AreaId, AreaId> areas = new HashMap<>();
  private final InTables<FieldId> fields = new InTables<>();
  private final Map<TableId, Map<FieldId, FieldType.Choice>> choices = new HashMap<>();
  private final InTables<KeyId> uniqueKeys = new InTables<>();
  private final InTables<IndexId> indexes = new InTables<>();
  private final InTables<RuleId> rules = new InTables<>();
  private final Map<RelationshipId, RelationshipId> relationships = new HashMap<>();

  /** Other ids for parts of tables. */
  private static final class InTables<I> {
    private final Map<TableId, Map<I, I>> byTable = new HashMap<>();

    void put(TableId table, I from, I to) {
      byTable.computeIfAbsent(table, id -> new HashMap<>()).put(from, to);
    }

    I of(TableId table, I part) {
      return byTable.getOrDefault(table, Map.of()).getOrDefault(part, part);
    }
  }

  void table(TableId from, TableId to) {
    tables.put(from, to);
  }

  void area(AreaId from, AreaId to) {
    areas.put(from, to);
  }

  void field(TableId table, FieldId from, FieldId to) {
    fields.put(table, from, to);
  }

  void choices(TableId table, FieldId field, FieldType.Choice known) {
    choices.computeIfAbsent(table, id -> new HashMap<>()).put(field, known);
  }

  void uniqueKey(TableId table, KeyId from, KeyId to) {
    uniqueKeys.put(table, from, to);
  }

  void index(TableId table, IndexId from, IndexId to) {
    indexes.put(table, from, to);
  }

  void rule(TableId table, RuleId from, RuleId to) {
    rules.put(table, from, to);
  }

  void relationship(RelationshipId from, RelationshipId to) {
    relationships.put(from, to);
  }

  TableId of(TableId table) {
    return tables.getOrDefault(table, table);
  }

  List<FieldId> of(TableId table, List<FieldId> some) {
    return some.stream().map(field -> fields.of(table, field)).toList();
  }

  Demand of(TableId table, Demand demand) {
    return demand.under(field -> fields.of(table, field), this::of);
  }

  private RelationshipId of(RelationshipId relationship) {
    return relationships.getOrDefault(relationship, relationship);
  }

  /** The draft under the other ids. */
  Draft of(Draft draft) {
    Design design = draft.design();
    return new Draft(
        Design.of(
                design.name(),
                design.title(),
                design.description(),
                design.areas().stream().map(this::of).toList(),
                design.tables().stream().map(this::of).toList(),
                design.relationships().stream().map(this::of).toList(),
                design.extras())
            .withKits(design.kits())
            .withPins(
                design.pins().stream()
                    .map(pin -> new Pin(of(pin.table()), pin.across(), pin.down()))
                    .toList())
            .withQuestions(design.questions().stream().map(this::of).toList()),
        draft.rows().under(this::of, fields::of));
  }

  private Question of(Question question) {
    return question.withRoles(
        question.roles().stream()
            .map(
                role ->
                    new Question.Role(
                        role.name(),
                        of(role.table()),
                        role.link()
                            .map(
                                l -> new Question.Link(l.from(), of(l.over()), l.down(), l.kept())),
                        role.apart()))
            .toList());
  }

  private Area of(Area area) {
    return new Area(areas.getOrDefault(area.id(), area.id()), area.name(), area.hue());
  }

  private Table of(Table table) {
    TableId id = table.id();
    List<Field> renamed =
        table.fields().stream()
            .map(field -> field.withId(fields.of(id, field.id())).withType(type(id, field)))
            .toList();
    return new Table(
        of(id),
        table.name(),
        table.label(),
        table.noun(),
        table.icon(),
        table.description(),
        table.area().map(area -> areas.getOrDefault(area, area)),
        of(id, table.kind()),
        renamed,
        of(id, table.primaryKey()),
        table.uniqueKeys().stream()
            .map(k -> k.withFields(of(id, k.fields())).withId(uniqueKeys.of(id, k.id())))
            .toList(),
        table.indexes().stream()
            .map(i -> i.under(field -> fields.of(id, field)).withId(indexes.of(id, i.id())))
            .toList(),
        table.rowLabel(),
        table.rules().stream()
            .map(r -> r.withId(rules.of(id, r.id())).withDemand(of(id, r.demand())))
            .toList(),
        table.groups().stream().map(group -> group.under(field -> fields.of(id, field))).toList(),
        table.listing().under(field -> fields.of(id, field)),
        table.facts().stream().map(fact -> fact.under(field -> fields.of(id, field))).toList(),
        table.extras());
  }

  private FieldType type(TableId table, Field field) {
    Map<FieldId, FieldType.Choice> known = choices.getOrDefault(table, Map.of());
    return known.containsKey(field.id()) ? known.get(field.id()) : field.type();
  }

  private TableKind of(TableId table, TableKind kind) {
    return switch (kind) {
      case TableKind.Plain plain -> plain;
      case TableKind.Lookup(var sortBy, var retired) ->
          new TableKind.Lookup(
              sortBy.map(f -> fields.of(table, f)), retired.map(f -> fields.of(table, f)));
      case TableKind.Join(var first, var second) -> new TableKind.Join(of(first), of(second));
    };
  }

  private Relationship of(Relationship r) {
    return r.withEnds(
            of(r.child()),
            of(r.child(), r.childFields()),
            of(r.parent()),
            of(r.parent(), r.parentFields()))
        .withPicking(
            r.picking()
                .withShown(of(r.parent(), r.picking().shown()))
                .withOrder(of(r.parent(), r.picking().order())))
        .withId(of(r.id()));
  }
}
