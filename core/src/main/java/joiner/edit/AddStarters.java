package joiner.edit;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import joiner.expression.Checked;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.NamingPolicy;

/**
 * Adds some tables of a design that is kept for beginning with, and of each some fields. A field
 * that refers to a table that is left out goes too, unless it is part of a key. A table whose name
 * is taken gets another: nothing that is there changes.
 *
 * @param starters the design they come from
 * @param picked the tables, and of each the fields that come along; those of the primary key do in
 *     any case
 */
public record AddStarters(Draft starters, Map<TableId, Set<FieldId>> picked) implements Edit {
  public AddStarters {
    picked = Map.copyOf(picked);
  }

  @Override
  public String name() {
    return picked.size() == 1
        ? "add " + starters.design().table(picked.keySet().iterator().next()).label()
        : "add " + picked.size() + " starter tables";
  }

  @Override
  public Draft apply(Draft draft) {
    if (picked.isEmpty()) {
      throw new EditRefusedException("No table is picked; pick the ones to begin with.");
    }
    return new AddDesign(new Renamed(draft.design(), reduced()).draft()).apply(draft);
  }

  /** A table and all that it refers to, and what that refers to; linear in relationships. */
  public static Set<TableId> withParents(Design starters, Collection<TableId> tables) {
    Map<TableId, Set<TableId>> parents = new HashMap<>();
    for (Relationship r : starters.relationships()) {
      parents.computeIfAbsent(r.child(), id -> new HashSet<>()).add(r.parent());
    }
    var all = new HashSet<TableId>();
    var open = new ArrayList<>(tables);
    while (!open.isEmpty()) {
      TableId next = open.removeLast();
      if (all.add(next)) {
        open.addAll(parents.getOrDefault(next, Set.of()));
      }
    }
    return all;
  }

  /** The starters with nothing but what was picked. */
  private Draft reduced() {
    Draft some = starters;
    for (Table table : starters.design().tables()) {
      some =
          picked.containsKey(table.id())
              ? without(some, table)
              : new RemoveTable(table.id(), table.label()).apply(some);
    }
    return some;
  }

  private Draft without(Draft draft, Table table) {
    Set<FieldId> wanted = picked.getOrDefault(table.id(), Set.of());
    Set<FieldId> leads = new HashSet<>();
    for (Relationship up : starters.design().parentsOf(table.id())) {
      if (!picked.containsKey(up.parent())) {
        leads.addAll(up.childFields());
      }
    }
    Draft some = draft;
    for (Field field : table.fields()) {
      boolean stays =
          table.primaryKey().contains(field.id())
              || wanted.contains(field.id()) && !leads.contains(field.id());
      if (!stays) {
        some = new RemoveField(table.id(), field.id(), field.label()).apply(some);
      }
    }
    TableMeaning meaning = some.meaning().of(some.design().table(table.id()));
    return some.withDesign(some.design().withTable(table.id(), t -> readable(t, meaning)));
  }

  /** A table without the rules and the row label that speak of what was left out. */
  private static Table readable(Table table, TableMeaning meaning) {
    List<Rule> rules =
        meaning.ruled().stream()
            .filter(rule -> rule.fault().isEmpty())
            .map(Constraint.Ruled::rule)
            .toList();
    boolean labelled = meaning.rowLabel().orElse(null) instanceof Checked.Sound;
    return table.withRules(rules).withRowLabel(table.rowLabel().filter(label -> labelled));
  }

  /** What was picked, under names and ids that are free. */
  private static final class Renamed {
    private final Draft some;
    private final Map<TableId, Table> tables = new LinkedHashMap<>();
    private final Map<RelationshipId, RelationshipId> relationships = new HashMap<>();

    Renamed(Design there, Draft some) {
      this.some = some;
      var names = new HashSet<String>();
      var ids = new HashSet<String>();
      there.tables().forEach(table -> names.add(table.name()));
      there.tables().forEach(table -> ids.add(table.id().value()));
      for (Table table : some.design().tables()) {
        String name = NamingPolicy.free(table.name(), names);
        String id = NamingPolicy.free(table.id().value(), ids);
        names.add(name);
        ids.add(id);
        boolean same = name.equals(table.name());
        tables.put(
            table.id(),
            (same ? table : table.withNames(name, NamingPolicy.labelFor(name), table.noun()))
                .withId(new TableId(id)));
      }
      var taken = new HashSet<String>();
      there.relationships().forEach(r -> taken.add(r.id().value()));
      for (Relationship r : some.design().relationships()) {
        String id = NamingPolicy.free(r.id().value(), taken);
        taken.add(id);
        relationships.put(r.id(), new RelationshipId(id));
      }
    }

    private TableId id(TableId old) {
      return tables.get(old).id();
    }

    Draft draft() {
      Design design = some.design();
      List<Relationship> related =
          design.relationships().stream()
              .map(
                  r ->
                      r.withId(relationships.get(r.id()))
                          .withEnds(
                              id(r.child()), r.childFields(), id(r.parent()), r.parentFields()))
              .toList();
      List<Table> all =
          tables.values().stream().map(table -> table.withKind(kind(table.kind()))).toList();
      Design renamed =
          Design.of(
                  design.name(),
                  design.title(),
                  design.description(),
                  design.areas(),
                  all,
                  related,
                  design.extras())
              .withKits(design.kits());
      return new Draft(renamed, some.rows().under(this::id, (table, field) -> field));
    }

    private TableKind kind(TableKind kind) {
      return kind instanceof TableKind.Join(RelationshipId first, RelationshipId second)
          ? new TableKind.Join(relationships.get(first), relationships.get(second))
          : kind;
    }
  }
}
