package joiner.expression;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import joiner.expression.Expression.Comparison;
import joiner.expression.Expression.Function;

/**
 * The kernel form of checked expressions: what may be said in several ways is said in one. It is
 * negation normal (NOT stands at most before a truth that is a value), knows neither BETWEEN, IN,
 * COALESCE and NULLIF nor a CASE with an operand, for the standard defines these by others (ISO/IEC
 * 9075-2, 6.12, 8.3, 8.4), compares from the smaller to the larger, and has the members of AND and
 * OR flat, in one order, each once. All of it holds for three truth values: the laws of De Morgan
 * do (Kleene, Introduction to Metamathematics, 1952, § 64; from memory), and a comparison with its
 * opposite is unknown where it is.
 *
 * <p>Two expressions of one kernel form mean the same; two of different forms may do so too.
 */
public final class Kernel {
  private Kernel() {}

  /** Whether two checked expressions have one kernel form. */
  public static boolean same(Expression one, Expression other) {
    return of(one).equals(of(other));
  }

  /** The kernel form of a checked expression. */
  public static Expression of(Expression tree) {
    return switch (tree) {
      case Expression.Not e -> not(e.operand());
      case Expression.And e -> all(e.operands().stream().map(Kernel::of).toList());
      case Expression.Or e -> any(e.operands().stream().map(Kernel::of).toList());
      case Expression.Compare e -> compare(e.operator(), of(e.left()), of(e.right()));
      case Expression.Between e -> of(range(e));
      case Expression.In e -> of(listed(e));
      case Expression.CodePoints e -> of(e.operand());
      case Expression.Case e -> e.operand().isPresent() ? of(searched(e)) : e.withParts(Kernel::of);
      case Expression.Call e when e.function() == Function.COALESCE -> of(firstThere(e));
      case Expression.Call e when e.function() == Function.NULLIF -> of(unless(e));
      case Expression.Negate(Expression.Literal(Value.Num num, var kind, var at), var place) ->
          new Expression.Literal(new Value.Num(num.number().negate(), num.whole()), kind, place);
      default -> tree.withParts(Kernel::of);
    };
  }

  /** The kernel form of the negation of a condition. */
  private static Expression not(Expression tree) {
    return switch (tree) {
      case Expression.Not e -> of(e.operand());
      case Expression.And e -> any(e.operands().stream().map(Kernel::not).toList());
      case Expression.Or e -> all(e.operands().stream().map(Kernel::not).toList());
      case Expression.Compare e -> compare(opposite(e.operator()), of(e.left()), of(e.right()));
      case Expression.Between(var operand, var low, var high, var negated, var place) ->
          of(new Expression.Between(operand, low, high, !negated, place));
      case Expression.In(var operand, var options, var negated, var place) ->
          of(new Expression.In(operand, options, !negated, place));
      case Expression.Like(var operand, var pattern, var escape, var negated, var place) ->
          of(new Expression.Like(operand, pattern, escape, !negated, place));
      case Expression.IsNull(var operand, var negated, var place) ->
          of(new Expression.IsNull(operand, !negated, place));
      case Expression.IsTruth(var operand, var truth, var negated, var place) ->
          of(new Expression.IsTruth(operand, truth, !negated, place));
      case Expression.Literal(Value.Bool bool, var kind, var place) ->
          new Expression.Literal(Value.of(!bool.truth()), kind, place);
      default -> new Expression.Not(of(tree), tree.place());
    };
  }

  private static Comparison opposite(Comparison operator) {
    return switch (operator) {
      case EQUAL -> Comparison.NOT_EQUAL;
      case NOT_EQUAL -> Comparison.EQUAL;
      case LESS -> Comparison.AT_LEAST;
      case AT_MOST -> Comparison.GREATER;
      case GREATER -> Comparison.AT_MOST;
      case AT_LEAST -> Comparison.LESS;
    };
  }

  /** A comparison of two kernel forms. */
  private static Expression compare(Comparison operator, Expression one, Expression other) {
    Expression left = plain(one);
    Expression right = plain(other);
    Optional<Expression> truth =
        truth(operator, left, right).or(() -> truth(operator, right, left));
    if (truth.isPresent()) {
      return truth.get();
    }
    boolean turned =
        switch (operator) {
          case GREATER, AT_LEAST -> true;
          case EQUAL, NOT_EQUAL -> text(left).compareTo(text(right)) > 0;
          case LESS, AT_MOST -> false;
        };
    Comparison way =
        switch (operator) {
          case GREATER -> Comparison.LESS;
          case AT_LEAST -> Comparison.AT_MOST;
          case EQUAL, NOT_EQUAL, LESS, AT_MOST -> operator;
        };
    return new Expression.Compare(way, turned ? right : left, turned ? left : right, Place.NOWHERE);
  }

  /** What is compared with a truth that is written out is that condition, or its negation. */
  private static Optional<Expression> truth(
      Comparison operator, Expression condition, Expression other) {
    boolean equality = operator == Comparison.EQUAL || operator == Comparison.NOT_EQUAL;
    return equality && other instanceof Expression.Literal(Value.Bool truth, var kind, var place)
        ? Optional.of(truth.truth() == (operator == Comparison.EQUAL) ? condition : not(condition))
        : Optional.empty();
  }

  /** 1.50 is the number 1.5 where it is only compared. */
  private static Expression plain(Expression tree) {
    if (tree instanceof Expression.Literal(Value.Num num, var kind, var place)) {
      BigDecimal stripped = num.number().stripTrailingZeros();
      BigDecimal number = stripped.scale() < 0 ? stripped.setScale(0) : stripped;
      boolean whole = number.scale() == 0;
      return new Expression.Literal(
          new Value.Num(number, whole), whole ? Kind.WHOLE : Kind.NUMBER, place);
    }
    return tree;
  }

  private static Expression range(Expression.Between e) {
    Comparison low = e.negated() ? Comparison.LESS : Comparison.AT_LEAST;
    Comparison high = e.negated() ? Comparison.GREATER : Comparison.AT_MOST;
    List<Expression> ends =
        List.of(
            new Expression.Compare(low, e.operand(), e.low(), e.place()),
            new Expression.Compare(high, e.operand(), e.high(), e.place()));
    return e.negated() ? new Expression.Or(ends, e.place()) : new Expression.And(ends, e.place());
  }

  private static Expression listed(Expression.In e) {
    Comparison operator = e.negated() ? Comparison.NOT_EQUAL : Comparison.EQUAL;
    List<Expression> each =
        e.options().stream()
            .<Expression>map(o -> new Expression.Compare(operator, e.operand(), o, e.place()))
            .toList();
    return e.negated() ? new Expression.And(each, e.place()) : new Expression.Or(each, e.place());
  }

  private static Expression searched(Expression.Case e) {
    Expression operand = e.operand().orElseThrow();
    List<Expression.When> whens =
        e.whens().stream()
            .map(when -> new Expression.When(equal(operand, when.condition()), when.result()))
            .toList();
    return new Expression.Case(Optional.empty(), whens, e.otherwise(), e.place());
  }

  private static Expression firstThere(Expression.Call e) {
    List<Expression.When> whens =
        e.arguments().subList(0, e.arguments().size() - 1).stream()
            .map(value -> new Expression.When(new Expression.IsNull(value, true, e.place()), value))
            .toList();
    Expression last = e.arguments().getLast();
    return whens.isEmpty()
        ? last
        : new Expression.Case(Optional.empty(), whens, Optional.of(last), e.place());
  }

  private static Expression unless(Expression.Call e) {
    Expression value = e.arguments().getFirst();
    var none = new Expression.Literal(Value.NULL, Kind.NULL, e.place());
    var when = new Expression.When(equal(value, e.arguments().getLast()), none);
    return new Expression.Case(Optional.empty(), List.of(when), Optional.of(value), e.place());
  }

  private static Expression equal(Expression one, Expression other) {
    return new Expression.Compare(Comparison.EQUAL, one, other, Place.NOWHERE);
  }

  private static Expression all(List<Expression> kernels) {
    var members = new ArrayList<Expression>();
    kernels.forEach(
        k -> members.addAll(k instanceof Expression.And and ? and.operands() : List.of(k)));
    List<Expression> once = inOrder(members);
    return once.size() == 1 ? once.getFirst() : new Expression.And(once, Place.NOWHERE);
  }

  private static Expression any(List<Expression> kernels) {
    var members = new ArrayList<Expression>();
    kernels.forEach(
        k -> members.addAll(k instanceof Expression.Or or ? or.operands() : List.of(k)));
    List<Expression> once = inOrder(members);
    return once.size() == 1 ? once.getFirst() : new Expression.Or(once, Place.NOWHERE);
  }

  /** In the order of their texts; what the text does not show is of one kind under one text. */
  private static List<Expression> inOrder(List<Expression> members) {
    var byText = new TreeMap<String, Expression>();
    members.forEach(member -> byText.putIfAbsent(text(member), member));
    return List.copyOf(byText.values());
  }

  private static String text(Expression tree) {
    return SqlText.iso().write(tree);
  }
}
