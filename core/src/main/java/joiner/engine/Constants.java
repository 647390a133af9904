package joiner.engine;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Value;

/**
 * Expressions without comparisons of one constant with another. PostgreSQL works these out as it
 * makes a column that it computes, and by then knows no locale to compare texts by, even where one
 * is named: "could not determine which collation to use" (seen with 17).
 */
final class Constants {
  private Constants() {}

  /** The same with such comparisons worked out. */
  static Expression folded(Expression tree) {
    Expression folded = tree.withParts(Constants::folded);
    return switch (folded) {
      case Expression.Compare e when isConstant(e) -> worth(e);
      case Expression.Like e when isConstant(e) -> worth(e);
      case Expression.In e when isConstant(e.operand()) -> folded(apart(e));
      case Expression.Between e when isConstant(e.operand()) -> folded(apart(e));
      case Expression.Case e when e.operand().filter(Constants::isConstant).isPresent() ->
          folded(searched(e));
      case Expression.Call e when isConstant(e) && goesByLocale(e) -> worth(e);
      default -> folded;
    };
  }

  private static boolean goesByLocale(Expression.Call e) {
    return switch (e.function()) {
      case UPPER, LOWER, POSITION, NULLIF -> true;
      default -> false;
    };
  }

  private static boolean isConstant(Expression e) {
    return e.reads().isEmpty() && !e.readsClock();
  }

  /** What a constant is worth, or itself where it cannot be worked out: the engine says so. */
  private static Expression worth(Expression constant) {
    try {
      Value value = new Evaluator(Clock.systemUTC()).evaluate(constant, reference -> Value.NULL);
      return new Expression.Literal(value, kind(value), constant.place());
    } catch (EvaluationException e) {
      return constant;
    }
  }

  private static Kind kind(Value value) {
    return switch (value) {
      case Value.Bool truth -> Kind.BOOLEAN;
      case Value.Num number -> number.whole() ? Kind.WHOLE : Kind.NUMBER;
      case Value.Null nothing -> Kind.NULL;
      case Value.Date date -> Kind.DATE;
      case Value.Time time -> Kind.TIME;
      case Value.DateTime moment -> Kind.DATE_TIME;
      case Value.Zoned moment -> Kind.ZONED;
      case Value.Text text -> Kind.TEXT;
      case Value.Bytes bytes -> Kind.BYTES;
      case Value.Interval length -> Kind.INTERVAL;
    };
  }

  private static Expression apart(Expression.In e) {
    Comparison operator = e.negated() ? Comparison.NOT_EQUAL : Comparison.EQUAL;
    List<Expression> each =
        e.options().stream()
            .<Expression>map(o -> new Expression.Compare(operator, e.operand(), o, e.place()))
            .toList();
    if (each.size() == 1) {
      return each.getFirst();
    }
    return e.negated() ? new Expression.And(each, e.place()) : new Expression.Or(each, e.place());
  }

  private static Expression apart(Expression.Between e) {
    var low =
        new Expression.Compare(
            e.negated() ? Comparison.LESS : Comparison.AT_LEAST, e.operand(), e.low(), e.place());
    var high =
        new Expression.Compare(
            e.negated() ? Comparison.GREATER : Comparison.AT_MOST,
            e.operand(),
            e.high(),
            e.place());
    return e.negated()
        ? new Expression.Or(List.of(low, high), e.place())
        : new Expression.And(List.of(low, high), e.place());
  }

  private static Expression searched(Expression.Case e) {
    Expression operand = e.operand().orElseThrow();
    List<Expression.When> whens =
        e.whens().stream()
            .map(
                when ->
                    new Expression.When(
                        new Expression.Compare(
                            Comparison.EQUAL, operand, when.condition(), Place.NOWHERE),
                        when.result()))
            .toList();
    return new Expression.Case(Optional.empty(), whens, e.otherwise(), e.place());
  }
}
