package joiner.shape;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How many places an expression has once its counted repetitions are written out, which is what a
 * matcher has to hold: {@code ((a{9}){9}){9}} has 729. Linear in the expression, and right whether
 * or not it can be read.
 */
final class PatternSize {
  private static final Pattern TIMES = Pattern.compile("\\{(\\d{1,9})(?:(,)(\\d{1,9})?)?\\}");

  /** The sums of the groups that are open, the outermost first. */
  private final Deque<Long> open = new ArrayDeque<>();

  private long sum;
  private long last;

  private PatternSize() {}

  static long of(String expression) {
    return new PatternSize().run(expression);
  }

  private long run(String expression) {
    Matcher times = TIMES.matcher(expression);
    int at = 0;
    while (at < expression.length()) {
      char letter = expression.charAt(at);
      if (letter == '{' && times.region(at, expression.length()).lookingAt()) {
        String most = times.group(3) == null ? times.group(1) : times.group(3);
        add(last * Math.max(0, Long.parseLong(most) - 1));
        last *= Math.max(1, Long.parseLong(most));
        at = times.end();
      } else if (letter == '(') {
        open.push(sum);
        sum = 0;
        last = 0;
        at++;
      } else if (letter == ')' && !open.isEmpty()) {
        last = sum;
        sum += open.pop();
        at++;
      } else {
        last = 1;
        add(1);
        at = letter == '[' ? pastSet(expression, at) : at + (letter == '\\' ? 2 : 1);
      }
    }
    while (!open.isEmpty()) {
      add(open.pop());
    }
    return sum;
  }

  /** Beyond a billion nothing more is counted, so that no sum overflows. */
  private void add(long places) {
    sum = Math.min(1_000_000_000L, sum + Math.min(1_000_000_000L, places));
  }

  private static int pastSet(String expression, int from) {
    int at = from + 1;
    while (at < expression.length() && (expression.charAt(at) != ']' || at == from + 1)) {
      at += expression.charAt(at) == '\\' ? 2 : 1;
    }
    return at + 1;
  }
}
