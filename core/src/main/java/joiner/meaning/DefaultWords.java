package joiner.meaning;

import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.model.Field;

/** The default of a field as people say it: "today", "now", "120". */
public final class DefaultWords {
  private DefaultWords() {}

  /** The default of a field of that table in words; the formula itself where it is no plain one. */
  public static String of(TableMeaning table, Field field) {
    return table
        .defaultOf(field.id())
        .map(read -> read instanceof Checked.Sound sound ? words(sound.tree()) : "")
        .filter(words -> !words.isEmpty())
        .orElseGet(() -> field.defaultValue().map(formula -> formula.text()).orElse(""));
  }

  private static String words(Expression value) {
    return switch (value) {
      case Expression.Now now -> now.kind() == Kind.DATE ? "today" : "now";
      case Expression.Literal literal -> Evaluator.show(literal.value());
      default -> "";
    };
  }
}
