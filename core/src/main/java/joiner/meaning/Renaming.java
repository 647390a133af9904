package joiner.meaning;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import joiner.expression.Formula;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Origin;
import joiner.model.OwnField;
import joiner.model.Question;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;

/**
 * The one place that carries new names into the formulas of a design. A formula that reads
 * something that is gone stays as it was typed, and is a finding.
 */
public final class Renaming {
  private final Design before;
  private final Design after;

  private Renaming(Design before, Design after) {
    this.before = before;
    this.after = after;
  }

  /**
   * The design {@code after}, in whose formulas everything that was in {@code before} is called as
   * it is called now. Several things may have got new names at once, each other's too. Linear in
   * tables and formulas.
   */
  public static Design carry(Design before, Design after) {
    var renaming = new Renaming(before, after);
    Design tables = after.withTables(after.tables().stream().map(renaming::carried).toList());
    Design carried =
        tables.questions().isEmpty()
            ? tables
            : tables.withQuestions(tables.questions().stream().map(renaming::carried).toList());
    return carried.relationships().stream().noneMatch(r -> r.picking().only().isPresent())
        ? carried
        : carried.withRelationships(
            carried.relationships().stream().map(renaming::carried).toList());
  }

  /** A formula of a table, with everything called as in the other design. */
  public static Formula carry(Formula formula, Design before, Table table, Design after) {
    return new Renaming(before, after).carried(formula, new TableScope(before, table), table);
  }

  /**
   * A formula of a table, as its rows come to stand in the rows of the table they belong to.
   *
   * @param over the relationship by which they belonged to it, which is gone
   * @param into the table, as it is after
   * @param fields for each field what it is there
   */
  public static Formula folded(
      Formula formula,
      Design before,
      Relationship over,
      Design after,
      Table into,
      Map<FieldId, FieldId> fields) {
    Table from = before.table(over.child());
    var renaming = new Renaming(before, after);
    return formula.renamed(
        new TableScope(before, from),
        reference ->
            switch (reference) {
              case OwnField own -> List.of(into.field(fields.get(own.field())).name());
              case FarField far when far.over().getFirst().equals(over.id()) ->
                  far.over().size() == 1
                      ? List.of(into.field(far.field()).name())
                      : renaming.path(
                          far.over().subList(1, far.over().size()), far.field(), far.path());
              case FarField far -> renaming.path(far);
              default -> reference.path();
            });
  }

  private Table carried(Table now) {
    Table old = before.find(now.id()).orElse(now);
    Scope scope = new TableScope(before, old);
    UnaryOperator<Formula> carried =
        formula -> old != now || formula.reachesOut() ? carried(formula, scope, old) : formula;
    UnaryOperator<Origin> origins =
        origin ->
            switch (origin) {
              case Origin.Typed typed -> typed;
              case Origin.Generated generated -> generated;
              case Origin.Stamped stamped -> stamped;
              case Origin.Copied(Formula formula) -> new Origin.Copied(carried.apply(formula));
              case Origin.Computed(Formula formula) -> new Origin.Computed(carried.apply(formula));
              case Origin.SummedUp summed -> carried(summed);
            };
    List<Rule> rules =
        now.rules().stream()
            .map(rule -> rule.withDemand(rule.demand().withFormulas(carried, this::ofChild)))
            .toList();
    Optional<Formula> rowLabel = now.rowLabel().map(carried);
    List<Field> fields =
        now.fields().stream().map(f -> f.withOrigin(origins.apply(f.origin()))).toList();
    boolean same =
        rules.equals(now.rules()) && rowLabel.equals(now.rowLabel()) && fields.equals(now.fields());
    return same // A table not touched stays.
        ? now
        : now.withFields(fields).withRules(rules).withRowLabel(rowLabel);
  }

  /** A question: a role that bears its table's name goes on bearing it. */
  private Question carried(Question now) {
    Map<String, String> roles = new HashMap<>();
    Set<String> taken = now.roles().stream().map(Question.Role::name).collect(Collectors.toSet());
    for (Question.Role role : now.roles()) {
      String name =
          before
              .find(role.table())
              .filter(table -> table.name().equals(role.name()))
              .flatMap(table -> after.find(role.table()))
              .map(Table::name)
              .filter(other -> !taken.contains(other))
              .orElse(role.name());
      taken.add(name);
      roles.put(role.name(), name);
    }
    Scope scope = new QuestionScope(now, before);
    return now.renamed(
        roles,
        formula ->
            formula.renamed(
                scope,
                reference -> {
                  if (!(reference instanceof AskedField asked)) {
                    return reference.path();
                  }
                  Question.Role role = now.role(asked.roleName());
                  var path = new ArrayList<String>();
                  path.add(roles.get(role.name()));
                  path.addAll(
                      before
                          .find(role.table())
                          .map(table -> path(table, asked.of()))
                          .orElse(asked.of().path()));
                  return path;
                }));
  }

  /** A formula of the rows that refer to others over a relationship. */
  private Formula ofChild(RelationshipId over, Formula formula) {
    return before
        .find(over)
        .map(r -> before.table(r.child()))
        .map(child -> carried(formula, new TableScope(before, child), child))
        .orElse(formula);
  }

  /** What sums rows up speaks of the fields of their table. */
  private Origin.SummedUp carried(Origin.SummedUp now) {
    UnaryOperator<Formula> carried = formula -> ofChild(now.over(), formula);
    return now.withOf(now.of().map(carried))
        .withWhere(now.where().map(carried))
        .withBy(now.by().map(carried));
  }

  private Relationship carried(Relationship now) {
    Optional<Table> parent = before.find(now.parent());
    if (now.picking().only().isEmpty() || parent.isEmpty()) {
      return now;
    }
    Scope scope = new TableScope(before, parent.get());
    return now.withPicking(
        now.picking()
            .withOnly(now.picking().only().map(only -> carried(only, scope, parent.get()))));
  }

  private Formula carried(Formula formula, Scope scope, Table table) {
    return formula.renamed(scope, reference -> path(table, reference));
  }

  private List<String> path(Table table, Reference reference) {
    return switch (reference) {
      case OwnField own
          when after.find(table.id()).filter(t -> t.hasField(own.field())).isPresent() ->
          List.of(after.table(table.id()).field(own.field()).name());
      case FarField far -> path(far);
      default -> reference.path();
    };
  }

  private List<String> path(FarField far) {
    return path(far.over(), far.field(), far.path());
  }

  private List<String> path(List<RelationshipId> ids, FieldId field, List<String> otherwise) {
    var over = new ArrayList<Relationship>();
    for (RelationshipId id : ids) {
      after.find(id).ifPresent(over::add);
    }
    boolean whole = over.size() == ids.size();
    return whole && after.table(over.getLast().parent()).hasField(field)
        ? TableScope.path(after, over, after.table(over.getLast().parent()).field(field))
        : otherwise;
  }
}
