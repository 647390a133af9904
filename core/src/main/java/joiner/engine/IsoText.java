package joiner.engine;

import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.SqlText;
import joiner.expression.Value;

/** Expressions as PostgreSQL and H2 both take them. */
class IsoText extends SqlText {
  IsoText(UnaryOperator<String> quoteName) {
    super(quoteName);
  }

  @Override
  protected String shift(Expression.Shift e) {
    String moved = super.shift(e);
    return e.kind() == Kind.DATE ? "CAST(" + moved + " AS date)" : "(" + moved + ")";
  }

  @Override
  protected String startOfDay(String date) {
    return "CAST(" + date + " AS timestamp)";
  }

  /** As the standard has it. */
  final String plainLike(Expression.Like e) {
    return super.like(e);
  }

  /** ISO has no escape character unless one is named; these engines take the backslash then. */
  @Override
  protected String like(Expression.Like e) {
    boolean plain =
        e.escape().isPresent()
            || (e.pattern() instanceof Expression.Literal literal
                && literal.value() instanceof Value.Text text
                && text.text().indexOf('\\') < 0);
    return plain ? super.like(e) : super.like(e) + " ESCAPE ''";
  }

  /**
   * Some engines give the part as a number with decimals, which would not be divided as a whole.
   */
  @Override
  protected String extract(Expression.Extract e) {
    String moment =
        e.kind() == Kind.ZONED ? operand(e.operand()) + " AT TIME ZONE 'UTC'" : write(e.operand());
    return "CAST(EXTRACT(" + word(e.part()) + " FROM " + moment + ") AS integer)";
  }

  /** What a part of a moment is called. */
  String word(Expression.Part part) {
    return part.name();
  }

  /**
   * Engines' CONCAT_WS differ: H2's mistakes what is empty, PostgreSQL's takes values of any type
   * and so counts as one whose results may change, which no check and no generated column may read.
   * So each text there is comes with what stands before it, and the first such is taken off.
   */
  @Override
  protected String joined(List<Expression> texts) {
    String between = ((Value.Text) ((Expression.Literal) texts.getFirst()).value()).text();
    String each =
        texts.stream()
            .skip(1)
            .map(text -> "COALESCE(" + text(between) + " || " + operand(text) + ", '')")
            .collect(Collectors.joining(" || "));
    int after = between.codePointCount(0, between.length()) + 1;
    return "SUBSTRING(" + each + " FROM " + after + ")";
  }

  @Override
  protected final String elapsed(Expression.Elapsed e) {
    String later = operand(e.later());
    String earlier = "(" + write(e.earlier()) + ")";
    return e.kind() == Kind.DATE ? days(later, earlier) : seconds(later, earlier);
  }

  /** Days between two dates, as a whole number of 32 bits. */
  String days(String later, String earlier) {
    return "(" + later + " - " + earlier + ")";
  }

  /** Whole seconds between two moments, as a number of 64 bits. */
  String seconds(String later, String earlier) {
    return "CAST(TRUNC(EXTRACT(EPOCH FROM (" + later + " - " + earlier + "))) AS bigint)";
  }
}
