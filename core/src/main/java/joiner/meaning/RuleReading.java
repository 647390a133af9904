package joiner.meaning;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Problem;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Summing;
import joiner.model.Table;

/** What the rules of one table demand, read and bound. */
final class RuleReading {
  private final Optional<Design> design;
  private final Table table;
  private final TableScope scope;
  private final ComputedFields computing;

  RuleReading(Optional<Design> design, Table table, TableScope scope, ComputedFields computing) {
    this.design = design;
    this.table = table;
    this.scope = scope;
    this.computing = computing;
  }

  /** What a rule demands, or why that cannot be read. */
  Constraint.Ruled read(Rule rule) {
    return switch (rule.demand()) {
      case Demand.OfRow(Formula condition) ->
          new Constraint.Holds(rule, computing.written(condition.condition(scope), table));
      case Demand.OfChildren children -> new Constraint.Holds(rule, children(children));
      case Demand.Alone alone -> alone(rule, alone);
      case Demand.Apart apart -> apart(rule, apart);
      case Demand.Tree(RelationshipId over) -> tree(rule, over);
      case Demand.Stays stays -> stays(rule, stays);
    };
  }

  private static Checked.Faulty faulty(String why) {
    return new Checked.Faulty(List.of(new Problem(Place.NOWHERE.span(), why)));
  }

  private Checked children(Demand.OfChildren children) {
    Optional<Relationship> over =
        design.flatMap(d -> d.find(children.over())).filter(r -> r.parent().equals(table.id()));
    if (over.isEmpty()) {
      return faulty("The rows it speaks of do not belong to this table any more.");
    }
    Table child = design.orElseThrow().table(over.get().child());
    String called =
        children
            .of()
            .map(of -> "the sum of " + of.text())
            .orElse("the number of " + child.noun().plural());
    var summing =
        new SummingUp(
                computing, design.orElseThrow(), over.get(), List.of(called), SummingUp.UNSAID)
            .checked(
                new Origin.SummedUp(
                    children.of().isPresent() ? Summing.SUM : Summing.COUNT,
                    children.over(),
                    children.of(),
                    children.where(),
                    Optional.empty(),
                    Origin.SummedUp.COMMA));
    return summing instanceof Checked.Sound sound ? bounded(sound, children) : summing;
  }

  private static Checked bounded(Checked.Sound made, Demand.OfChildren children) {
    if (children.least().isPresent() && children.least().equals(children.most())) {
      return between(made, List.of(Comparison.EQUAL), List.of(children.least().get()));
    }
    var sides = new ArrayList<Comparison>();
    var bounds = new ArrayList<String>();
    children
        .least()
        .ifPresent(
            least -> {
              sides.add(Comparison.AT_LEAST);
              bounds.add(least);
            });
    children
        .most()
        .ifPresent(
            most -> {
              sides.add(Comparison.AT_MOST);
              bounds.add(most);
            });
    return between(made, sides, bounds);
  }

  private static Checked between(Checked.Sound made, List<Comparison> sides, List<String> bounds) {
    if (sides.isEmpty()) {
      return faulty("Say at least or at most how many it may be.");
    }
    var parts = new ArrayList<Expression>();
    for (int i = 0; i < sides.size(); i++) {
      Optional<Expression> bound = number(bounds.get(i));
      if (bound.isEmpty()) {
        return faulty("“" + bounds.get(i) + "” is no number.");
      }
      parts.add(new Expression.Compare(sides.get(i), made.tree(), bound.get(), Place.NOWHERE));
    }
    Expression tree =
        parts.size() == 1 ? parts.getFirst() : new Expression.And(parts, Place.NOWHERE);
    return new Checked.Sound(tree, ValueType.of(Kind.BOOLEAN));
  }

  private static Optional<Expression> number(String text) {
    try {
      var number = new BigDecimal(text.strip());
      boolean whole = number.scale() <= 0;
      return Optional.of(
          new Expression.Literal(
              new Value.Num(number, whole), whole ? Kind.WHOLE : Kind.NUMBER, Place.NOWHERE));
    } catch (NumberFormatException none) {
      return Optional.empty();
    }
  }

  private Optional<String> missing(List<FieldId> fields) {
    return fields.stream()
        .filter(field -> !table.hasField(field))
        .findFirst()
        .map(gone -> "There is no field " + gone.value() + " any more; choose another.");
  }

  private Constraint.Ruled alone(Rule rule, Demand.Alone alone) {
    Optional<String> missing = missing(alone.per());
    if (missing.isPresent()) {
      return new Constraint.Lost(rule, missing.get());
    }
    return switch (computing.written(alone.where().condition(scope), table)) {
      case Checked.Sound where -> new Constraint.Alone(rule, alone.per(), where);
      case Checked.Faulty(List<Problem> problems) ->
          new Constraint.Lost(rule, problems.getFirst().message());
    };
  }

  private Constraint.Ruled stays(Rule rule, Demand.Stays stays) {
    Optional<String> missing =
        missing(stays.fields())
            .or(
                () ->
                    stays.fields().isEmpty()
                        ? Optional.of("Say which fields stay as they are.")
                        : Optional.empty());
    if (missing.isPresent()) {
      return new Constraint.Lost(rule, missing.get());
    }
    return switch (computing.written(stays.when().condition(scope), table)) {
      case Checked.Sound when -> new Constraint.Stays(rule, stays.fields(), when);
      case Checked.Faulty(List<Problem> problems) ->
          new Constraint.Lost(rule, problems.getFirst().message());
    };
  }

  private Constraint.Ruled apart(Rule rule, Demand.Apart apart) {
    Optional<String> missing =
        missing(apart.per()).or(() -> missing(List.of(apart.from(), apart.until())));
    return missing
        .or(() -> mismatch(table.field(apart.from()), table.field(apart.until()), apart.closed()))
        .<Constraint.Ruled>map(why -> new Constraint.Lost(rule, why))
        .orElseGet(() -> new Constraint.Apart(rule, apart));
  }

  /** Why two fields are no beginning and end of a period. */
  private static Optional<String> mismatch(Field from, Field until, boolean closed) {
    Kind kind = from.type().kind();
    boolean ordered =
        switch (kind) {
          case DATE, DATE_TIME, ZONED, WHOLE, NUMBER -> true;
          case TIME, TEXT, BOOLEAN, UUID, BYTES, INTERVAL, NULL -> false;
        };
    if (from.id().equals(until.id())) {
      return Optional.of("A period begins with one field and ends with another; choose two.");
    }
    if (!ordered || kind != until.type().kind()) {
      return Optional.of(
          from.label()
              + " and "
              + until.label()
              + " are no beginning and end: both have to be dates, moments or numbers.");
    }
    boolean stepped = kind == Kind.DATE || kind == Kind.WHOLE;
    return closed && !stepped
        ? Optional.of("Only of dates and whole numbers the last one can belong to a period.")
        : Optional.empty();
  }

  private Constraint.Ruled tree(Rule rule, RelationshipId over) {
    return design
        .flatMap(d -> d.find(over))
        .filter(r -> r.isSelfReference() && r.child().equals(table.id()))
        .<Constraint.Ruled>map(r -> new Constraint.Tree(rule, r))
        .orElseGet(
            () ->
                new Constraint.Lost(
                    rule, "The relationship it follows no longer leads to the same table."));
  }
}
