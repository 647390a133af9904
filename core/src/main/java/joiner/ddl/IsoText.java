package joiner.ddl;

import java.util.function.UnaryOperator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.SqlText;
import joiner.expression.Value;

/** Expressions for PostgreSQL and H2. */
final class IsoText extends SqlText {
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
}
