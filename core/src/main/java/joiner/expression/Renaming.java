package joiner.expression;

import java.util.ArrayList;
import java.util.List;

/** Carries the new name of a field into the texts that name it. */
public final class Renaming {
  private Renaming() {}

  /**
   * The same text with one field called by another name; all else stays as typed. A text that
   * cannot be read is given back unchanged.
   */
  public static String rename(String text, String from, String to) {
    Expression tree;
    try {
      tree = Parser.parse(text);
    } catch (ParseFailure failure) {
      return text;
    }
    var spans = new ArrayList<Span>();
    collect(tree, from, spans);
    spans.sort((a, b) -> Integer.compare(b.start(), a.start()));
    String written = SqlText.iso().write(new Expression.FieldRef(to, new Span(0, 0)));
    var changed = new StringBuilder(text);
    spans.forEach(span -> changed.replace(span.start(), span.end(), written));
    return changed.toString();
  }

  private static void collect(Expression tree, String name, List<Span> spans) {
    if (tree instanceof Expression.FieldRef ref && ref.name().equalsIgnoreCase(name)) {
      spans.add(ref.span());
    }
    Walk.parts(tree).forEach(part -> collect(part, name, spans));
  }
}
