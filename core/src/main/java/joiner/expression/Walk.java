package joiner.expression;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;

/** Visits the parts of an expression. */
final class Walk {
  private Walk() {}

  /** Whether any part of the tree, itself included, meets the condition. */
  static boolean any(Expression tree, Predicate<Expression> condition) {
    return condition.test(tree) || parts(tree).stream().anyMatch(part -> any(part, condition));
  }

  /** Tells everything that is read in any part of the tree. */
  static void references(Expression tree, Consumer<Reference> found) {
    if (tree instanceof Expression.FieldRef ref) {
      found.accept(ref.to());
    }
    parts(tree).forEach(part -> references(part, found));
  }

  /** The values written out that something of a sort is compared with, anywhere in the tree. */
  static List<Expression.Literal> comparedWith(Expression tree, Predicate<Expression> sort) {
    var found = new ArrayList<Expression.Literal>();
    List<Expression> others =
        switch (tree) {
          case Expression.Compare e when sort.test(e.left()) -> List.of(e.right());
          case Expression.Compare e when sort.test(e.right()) -> List.of(e.left());
          case Expression.In e when sort.test(e.operand()) -> e.options();
          case Expression.Case e when e.operand().filter(sort).isPresent() ->
              e.whens().stream().map(Expression.When::condition).toList();
          default -> List.of();
        };
    for (Expression other : others) {
      if (other instanceof Expression.Literal literal) {
        found.add(literal);
      }
    }
    parts(tree).forEach(part -> found.addAll(comparedWith(part, sort)));
    return found;
  }

  /** The direct parts of an expression, in order. */
  static List<Expression> parts(Expression tree) {
    return switch (tree) {
      case Expression.Literal e -> List.of();
      case Expression.Name e -> List.of();
      case Expression.FieldRef e -> List.of();
      case Expression.Now e -> List.of();
      case Expression.Not e -> List.of(e.operand());
      case Expression.Negate e -> List.of(e.operand());
      case Expression.And e -> e.operands();
      case Expression.Or e -> e.operands();
      case Expression.Compare e -> List.of(e.left(), e.right());
      case Expression.Compute e -> List.of(e.left(), e.right());
      case Expression.Shift e -> List.of(e.moment());
      case Expression.StartOfDay e -> List.of(e.date());
      case Expression.Fitting e -> List.of(e.operand());
      case Expression.CodePoints e -> List.of(e.operand());
      case Expression.Concat e -> List.of(e.left(), e.right());
      case Expression.Between e -> List.of(e.operand(), e.low(), e.high());
      case Expression.In e -> prepend(e.operand(), e.options());
      case Expression.Like e -> List.of(e.operand(), e.pattern());
      case Expression.IsNull e -> List.of(e.operand());
      case Expression.IsTruth e -> List.of(e.operand());
      case Expression.Case e -> partsOfCase(e);
      case Expression.Call e -> e.arguments();
      case Expression.Extract e -> List.of(e.operand());
      case Expression.Elapsed e -> List.of(e.later(), e.earlier());
      case Expression.ToText e -> List.of(e.operand());
    };
  }

  /** The same expression with each of its direct parts replaced. */
  static Expression withParts(Expression tree, UnaryOperator<Expression> part) {
    return switch (tree) {
      case Expression.Literal e -> e;
      case Expression.Name e -> e;
      case Expression.FieldRef e -> e;
      case Expression.Now e -> e;
      case Expression.Not e -> new Expression.Not(part.apply(e.operand()), e.place());
      case Expression.Negate e -> new Expression.Negate(part.apply(e.operand()), e.place());
      case Expression.And e -> new Expression.And(all(e.operands(), part), e.place());
      case Expression.Or e -> new Expression.Or(all(e.operands(), part), e.place());
      case Expression.Compare(var operator, var left, var right, var place) ->
          new Expression.Compare(operator, part.apply(left), part.apply(right), place);
      case Expression.Compute(var operator, var left, var right, var whole, var place) ->
          new Expression.Compute(operator, part.apply(left), part.apply(right), whole, place);
      case Expression.Shift(var moment, var by, var back, var kind, var place) ->
          new Expression.Shift(part.apply(moment), by, back, kind, place);
      case Expression.StartOfDay e -> new Expression.StartOfDay(part.apply(e.date()), e.place());
      case Expression.Fitting(var operand, var width, var place) ->
          new Expression.Fitting(part.apply(operand), width, place);
      case Expression.CodePoints e -> new Expression.CodePoints(part.apply(e.operand()), e.place());
      case Expression.Concat(var left, var right, var place) ->
          new Expression.Concat(part.apply(left), part.apply(right), place);
      case Expression.IsNull(var operand, var negated, var place) ->
          new Expression.IsNull(part.apply(operand), negated, place);
      case Expression.IsTruth(var operand, var truth, var negated, var place) ->
          new Expression.IsTruth(part.apply(operand), truth, negated, place);
      case Expression.Extract(var what, var operand, var kind, var place) ->
          new Expression.Extract(what, part.apply(operand), kind, place);
      case Expression.Elapsed(var unit, var later, var earlier, var kind, var place) ->
          new Expression.Elapsed(unit, part.apply(later), part.apply(earlier), kind, place);
      case Expression.ToText(var operand, var kind, var scale, var place) ->
          new Expression.ToText(part.apply(operand), kind, scale, place);
      case Expression.Call(var function, var arguments, var place) ->
          new Expression.Call(function, all(arguments, part), place);
      case Expression.Between e -> between(e, part);
      case Expression.In e -> in(e, part);
      case Expression.Like e -> like(e, part);
      case Expression.Case e -> caseOf(e, part);
    };
  }

  private static Expression between(Expression.Between e, UnaryOperator<Expression> part) {
    return new Expression.Between(
        part.apply(e.operand()), part.apply(e.low()), part.apply(e.high()), e.negated(), e.place());
  }

  private static Expression in(Expression.In e, UnaryOperator<Expression> part) {
    return new Expression.In(
        part.apply(e.operand()), all(e.options(), part), e.negated(), e.place());
  }

  private static Expression like(Expression.Like e, UnaryOperator<Expression> part) {
    return new Expression.Like(
        part.apply(e.operand()), part.apply(e.pattern()), e.escape(), e.negated(), e.place());
  }

  private static Expression caseOf(Expression.Case e, UnaryOperator<Expression> part) {
    return new Expression.Case(
        e.operand().map(part),
        e.whens().stream()
            .map(w -> new Expression.When(part.apply(w.condition()), part.apply(w.result())))
            .toList(),
        e.otherwise().map(part),
        e.place());
  }

  private static List<Expression> all(List<Expression> parts, UnaryOperator<Expression> part) {
    return parts.stream().map(part).toList();
  }

  private static List<Expression> partsOfCase(Expression.Case e) {
    var parts = new ArrayList<Expression>();
    e.operand().ifPresent(parts::add);
    e.whens().forEach(when -> parts.addAll(List.of(when.condition(), when.result())));
    e.otherwise().ifPresent(parts::add);
    return parts;
  }

  private static List<Expression> prepend(Expression first, List<Expression> rest) {
    var parts = new ArrayList<Expression>(rest.size() + 1);
    parts.add(first);
    parts.addAll(rest);
    return parts;
  }
}
