package joiner.expression;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;

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
      case Expression.ToText e -> List.of(e.operand());
    };
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
