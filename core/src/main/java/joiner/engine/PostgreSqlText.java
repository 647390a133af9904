package joiner.engine;

import java.time.Clock;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Expression.Function;
import joiner.expression.Value;

/** Expressions for PostgreSQL. */
final class PostgreSqlText extends IsoText {
  PostgreSqlText(UnaryOperator<String> quoteName) {
    super(quoteName);
  }

  @Override
  protected String literal(Value value) {
    return value instanceof Value.Bytes bytes
        ? "'\\x" + bytes.hex() + "'::bytea"
        : super.literal(value);
  }

  /** Where no column is read nothing says by which locale letters are changed: they are here. */
  @Override
  protected String call(Expression.Call e) {
    boolean changed = e.function() == Function.UPPER || e.function() == Function.LOWER;
    if (changed && e.reads().isEmpty() && !e.readsClock()) {
      return literal(new Evaluator(Clock.systemUTC()).evaluate(e, reference -> Value.NULL));
    }
    return e.function() == Function.CONCAT_WS ? joined(e.arguments()) : super.call(e);
  }

  /**
   * Its CONCAT_WS takes values of any type and so counts as one whose results may change, which no
   * check and no generated column may read: each text there is comes with what stands before it,
   * and the first such is taken off.
   */
  private String joined(List<Expression> texts) {
    String between = ((Value.Text) ((Expression.Literal) texts.getFirst()).value()).text();
    String each =
        texts.stream()
            .skip(1)
            .map(text -> "COALESCE(" + text(between) + " || " + operand(text) + ", '')")
            .collect(Collectors.joining(" || "));
    int after = between.codePointCount(0, between.length()) + 1;
    return "SUBSTRING(" + each + " FROM " + after + ")";
  }

  /** Texts would be put in the order of the database's locale. */
  @Override
  protected String codePoints(Expression text) {
    return "(" + write(text) + ") COLLATE \"C\"";
  }
}
