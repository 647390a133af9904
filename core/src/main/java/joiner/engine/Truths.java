package joiner.engine;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Value;

/**
 * Puts expressions into the forms of engines that know conditions but no truth values: there a
 * truth is kept as a number, 1 or 0. A condition that stands for a value becomes a CASE, a value
 * that stands for a condition a comparison with 1; unknown stays NULL.
 */
final class Truths {
  private Truths() {}

  /** A tree for where the engine wants a condition. */
  static Expression condition(Expression tree) {
    return switch (tree) {
      case Expression.Not e -> e.withParts(Truths::condition);
      case Expression.And e -> e.withParts(Truths::condition);
      case Expression.Or e -> e.withParts(Truths::condition);
      case Expression.Compare e -> e.withParts(Truths::value);
      case Expression.Between e -> e.withParts(Truths::value);
      case Expression.In e -> e.withParts(Truths::value);
      case Expression.Like e -> e.withParts(Truths::value);
      case Expression.IsNull e -> e.withParts(Truths::value);
      case Expression.IsTruth e -> isTruth(e);
      default -> equal(value(tree), 1);
    };
  }

  /** A tree for where the engine wants a value. */
  static Expression value(Expression tree) {
    return switch (tree) {
      case Expression.Not e -> asNumber(e);
      case Expression.And e -> asNumber(e);
      case Expression.Or e -> asNumber(e);
      case Expression.Compare e -> asNumber(e);
      case Expression.Between e -> asNumber(e);
      case Expression.In e -> asNumber(e);
      case Expression.Like e -> asNumber(e);
      case Expression.IsNull e -> asNumber(e);
      case Expression.IsTruth e -> asNumber(e);
      case Expression.Literal(Value.Bool bool, var kind, var place) -> number(bool.truth() ? 1 : 0);
      case Expression.Case e when e.operand().isEmpty() -> searched(e);
      default -> tree.withParts(Truths::value);
    };
  }

  private static Expression searched(Expression.Case e) {
    return new Expression.Case(
        Optional.empty(),
        e.whens().stream()
            .map(when -> new Expression.When(condition(when.condition()), value(when.result())))
            .toList(),
        e.otherwise().map(Truths::value),
        e.place());
  }

  /** 1 where a condition holds, 0 where it does not, NULL where that is unknown. */
  private static Expression asNumber(Expression condition) {
    Expression holds = condition(condition);
    return choose(
        List.of(
            new Expression.When(holds, number(1)),
            new Expression.When(new Expression.Not(holds, Place.NOWHERE), number(0))),
        Optional.empty());
  }

  private static Expression isTruth(Expression.IsTruth e) {
    Expression holds = condition(e.operand());
    Expression not = new Expression.Not(holds, Place.NOWHERE);
    int met = e.negated() ? 0 : 1;
    if (e.truth().isEmpty()) {
      List<Expression.When> known =
          List.of(new Expression.When(holds, number(0)), new Expression.When(not, number(0)));
      return equal(choose(known, Optional.of(number(1))), met);
    }
    Expression.When when = new Expression.When(e.truth().get() ? holds : not, number(1));
    return equal(choose(List.of(when), Optional.of(number(0))), met);
  }

  private static Expression choose(List<Expression.When> whens, Optional<Expression> otherwise) {
    return new Expression.Case(Optional.empty(), whens, otherwise, Place.NOWHERE);
  }

  private static Expression equal(Expression value, int number) {
    return new Expression.Compare(Comparison.EQUAL, value, number(number), Place.NOWHERE);
  }

  private static Expression number(int number) {
    return new Expression.Literal(
        new Value.Num(BigDecimal.valueOf(number), true), Kind.WHOLE, Place.NOWHERE);
  }
}
