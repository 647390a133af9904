package joiner.joining;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.expression.Span;
import joiner.model.Question;

/**
 * A column as it is written: a value of the rows, or one of SQL's set functions over it ({@code
 * count}, {@code sum}, {@code avg}, {@code min}, {@code max}; {@code count(distinct …)} for how
 * many different ones), and {@code AS} with what stands above it.
 *
 * @param of what is read of each row
 */
public record ColumnText(Optional<Question.Fold> fold, String of, Optional<String> label) {
  private static final Pattern FOLD =
      Pattern.compile("(?is)(count|sum|avg|min|max)\\s*\\(\\s*(distinct\\s)?(.*)\\)");
  private static final Pattern BEGINS = Pattern.compile("(?i)\\b(?:count|sum|avg|min|max)\\s*\\(");
  private static final Pattern LABELLED =
      Pattern.compile("(?is)(.*\\S)\\s+as\\s+(\"[^\"]+\"|\\w+)");

  /** A column that was written so. */
  public static ColumnText of(String text) {
    Matcher labelled = LABELLED.matcher(text.strip());
    boolean hasLabel = labelled.matches() && isClosed(labelled.group(1));
    String value = hasLabel ? labelled.group(1) : text.strip();
    Optional<String> label =
        hasLabel ? Optional.of(labelled.group(2).replace("\"", "")) : Optional.empty();
    Matcher fold = FOLD.matcher(value);
    if (!fold.matches() || !isClosed(fold.group(3))) {
      return new ColumnText(Optional.empty(), value, label);
    }
    boolean different = fold.group(2) != null;
    Question.Fold by =
        switch (fold.group(1).toLowerCase(Locale.ROOT)) {
          case "count" -> different ? Question.Fold.DIFFERENT : Question.Fold.COUNT;
          case "sum" -> Question.Fold.SUM;
          case "avg" -> Question.Fold.AVERAGE;
          case "min" -> Question.Fold.LEAST;
          default -> Question.Fold.GREATEST;
        };
    return new ColumnText(Optional.of(by), fold.group(3).strip(), label);
  }

  /** Several columns with commas between. */
  public static List<String> split(String text) {
    var parts = new ArrayList<String>();
    int start = 0;
    var depth = new Depth();
    for (int i = 0; i < text.length(); i++) {
      depth.pass(text.charAt(i));
      if (text.charAt(i) == ',' && depth.isOutside()) {
        parts.add(text.substring(start, i).strip());
        start = i + 1;
      }
    }
    parts.add(text.substring(start).strip());
    parts.removeIf(String::isEmpty);
    return parts;
  }

  /** Where set functions over something stand in a condition, in order. */
  static List<Span> folds(String text) {
    var folds = new ArrayList<Span>();
    Matcher begins = BEGINS.matcher(text);
    var depth = new Depth();
    int at = 0;
    for (int from = 0; begins.find(from); from = Math.max(at, begins.end())) {
      while (at < begins.start()) {
        depth.pass(text.charAt(at++));
      }
      if (depth.quote == 0) {
        int outside = depth.brackets;
        at = begins.end() - 1;
        do {
          depth.pass(text.charAt(at++));
        } while (at < text.length() && (depth.quote != 0 || depth.brackets > outside));
        folds.add(new Span(begins.start(), at));
      }
    }
    return folds;
  }

  /** Whether every bracket and quote that opens in a text closes in it. */
  private static boolean isClosed(String text) {
    var depth = new Depth();
    for (int i = 0; i < text.length(); i++) {
      depth.pass(text.charAt(i));
      if (depth.brackets < 0) {
        return false;
      }
    }
    return depth.isOutside();
  }

  /** How many brackets and quotes are open. */
  private static final class Depth {
    private int brackets;
    private char quote;

    void pass(char c) {
      if (quote != 0) {
        quote = c == quote ? 0 : quote;
      } else if (c == '\'' || c == '"') {
        quote = c;
      } else {
        brackets += c == '(' ? 1 : c == ')' ? -1 : 0;
      }
    }

    boolean isOutside() {
      return quote == 0 && brackets == 0;
    }
  }
}
