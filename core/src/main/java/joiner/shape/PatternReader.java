package joiner.shape;

import com.ibm.icu.text.UnicodeSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Takes a pattern apart that is known to be well formed (the syntax of RE2, as its documentation
 * gives it). Whatever has no place in a {@link PatternTree}, as word boundaries, ends the reading.
 */
final class PatternReader {
  /** A part that a tree cannot hold. */
  private static final class BeyondException extends Exception {
    private static final long serialVersionUID = 1L;
  }

  private static final UnicodeSet DIGITS = set("[0-9]");
  private static final UnicodeSet WORD = set("[0-9A-Za-z_]");
  private static final UnicodeSet BLANKS = set("[\\t\\n\\f\\r\\ ]");
  private static final UnicodeSet ALL = set("[\\u0000-\\U0010FFFF]");
  private static final UnicodeSet BUT_LINE_BREAKS = set("[^\\n]");

  /** Sets by name, of ASCII only. */
  private static final Map<String, UnicodeSet> NAMED =
      Map.ofEntries(
          Map.entry("alnum", set("[0-9A-Za-z]")),
          Map.entry("alpha", set("[A-Za-z]")),
          Map.entry("ascii", set("[\\u0000-\\u007F]")),
          Map.entry("blank", set("[\\t\\ ]")),
          Map.entry("cntrl", set("[\\u0000-\\u001F\\u007F]")),
          Map.entry("digit", DIGITS),
          Map.entry("graph", set("[\\u0021-\\u007E]")),
          Map.entry("lower", set("[a-z]")),
          Map.entry("print", set("[\\u0020-\\u007E]")),
          Map.entry("punct", set("[\\u0021-\\u002F\\u003A-\\u0040\\u005B-\\u0060\\u007B-\\u007E]")),
          Map.entry("space", set("[\\t\\n\\u000B\\f\\r\\ ]")),
          Map.entry("upper", set("[A-Z]")),
          Map.entry("word", WORD),
          Map.entry("xdigit", set("[0-9A-Fa-f]")));

  private final int[] text;
  private int at;

  /** Groups that are open. */
  private int depth;

  private boolean anyCase;
  private boolean dotIsAll;

  private PatternReader(String pattern) {
    this.text = pattern.codePoints().toArray();
  }

  private static UnicodeSet set(String pattern) {
    return new UnicodeSet(pattern).freeze();
  }

  /** The pattern taken apart; empty where it has a part that a tree cannot hold. */
  static Optional<PatternTree> read(String pattern) {
    try {
      var reader = new PatternReader(pattern);
      PatternTree tree = reader.choice();
      return reader.at == reader.text.length ? Optional.of(tree) : Optional.empty();
    } catch (BeyondException e) {
      return Optional.empty();
    }
  }

  private boolean sees(String next) {
    int[] points = next.codePoints().toArray();
    for (int i = 0; i < points.length; i++) {
      if (at + i >= text.length || text[at + i] != points[i]) {
        return false;
      }
    }
    return true;
  }

  private boolean takes(String next) {
    boolean there = sees(next);
    at += there ? next.codePointCount(0, next.length()) : 0;
    return there;
  }

  private int next() throws BeyondException {
    if (at >= text.length) {
      throw new BeyondException();
    }
    return text[at++];
  }

  private PatternTree choice() throws BeyondException {
    var branches = new ArrayList<PatternTree>();
    do {
      branches.add(sequence());
    } while (takes("|"));
    return branches.size() == 1 ? branches.getFirst() : new PatternTree.Choice(branches);
  }

  private PatternTree sequence() throws BeyondException {
    var parts = new ArrayList<PatternTree>();
    skipAnchorsAhead();
    while (at < text.length && !sees("|") && !sees(")") && !skipsAnchorAtEnd()) {
      if (takes("\\Q")) {
        quoted(parts);
      } else if (sees("(?") && isFlagsOnly()) {
        flags();
        at++; // The bracket that closes.
      } else {
        parts.add(repeated(atom()));
      }
    }
    return parts.size() == 1 ? parts.getFirst() : new PatternTree.Sequence(parts);
  }

  /** Anchors where a branch begins or ends with the whole text say nothing. */
  private void skipAnchorsAhead() {
    while (depth == 0 && (takes("^") || takes("\\A"))) {
      continue;
    }
  }

  private boolean skipsAnchorAtEnd() {
    int width = sees("$") ? 1 : sees("\\z") ? 2 : 0;
    boolean ends = at + width == text.length || text[Math.min(at + width, text.length - 1)] == '|';
    if (depth > 0 || width == 0 || !ends) {
      return false;
    }
    at += width;
    return true;
  }

  private void quoted(List<PatternTree> parts) throws BeyondException {
    while (at < text.length && !takes("\\E")) {
      PatternTree one = one(next());
      boolean lastOne = at == text.length || sees("\\E");
      if (lastOne) {
        takes("\\E");
        parts.add(repeated(one));
        return;
      }
      parts.add(one);
    }
  }

  private PatternTree repeated(PatternTree part) throws BeyondException {
    PatternTree repeated = part;
    if (takes("*")) {
      repeated = new PatternTree.Repeat(part, 0, Optional.empty());
    } else if (takes("+")) {
      repeated = new PatternTree.Repeat(part, 1, Optional.empty());
    } else if (takes("?")) {
      repeated = new PatternTree.Repeat(part, 0, Optional.of(1));
    } else if (sees("{")) {
      repeated = counted(part);
    } else {
      return part;
    }
    takes("?"); // Greedy or not, the whole text is the same.
    return repeated;
  }

  /** A brace that begins no count is a character. */
  private PatternTree counted(PatternTree part) throws BeyondException {
    int start = at;
    at++;
    Optional<Integer> least = number();
    Optional<Integer> most = least;
    if (takes(",")) {
      most = number();
    }
    if (least.isEmpty() || !takes("}")) {
      at = start;
      return part;
    }
    return new PatternTree.Repeat(part, least.get(), most);
  }

  private Optional<Integer> number() throws BeyondException {
    int start = at;
    int number = 0;
    while (at < text.length && text[at] >= '0' && text[at] <= '9') {
      number = number * 10 + (text[at++] - '0');
      if (number > 1_000) {
        throw new BeyondException(); // No engine counts so far.
      }
    }
    return at == start ? Optional.empty() : Optional.of(number);
  }

  private PatternTree atom() throws BeyondException {
    int point = next();
    return switch (point) {
      case '(' -> group();
      case '[' -> new PatternTree.One(bracket());
      case '.' -> new PatternTree.One(dotIsAll ? ALL : BUT_LINE_BREAKS);
      case '^', '$' -> throw new BeyondException();
      case '\\' -> escape();
      default -> one(point);
    };
  }

  private PatternTree one(int point) {
    return new PatternTree.One(cased(new UnicodeSet(point, point)).freeze());
  }

  private UnicodeSet cased(UnicodeSet set) {
    return anyCase ? set.closeOver(UnicodeSet.SIMPLE_CASE_INSENSITIVE) : set;
  }

  private PatternTree group() throws BeyondException {
    boolean caseBefore = anyCase;
    boolean dotBefore = dotIsAll;
    if (takes("?P<") || takes("?<")) {
      while (next() != '>') {
        continue; // Its name.
      }
    } else if (sees("?")) {
      at--;
      flags();
      at++; // The colon.
    }
    depth++;
    PatternTree inner = choice();
    depth--;
    if (!takes(")")) {
      throw new BeyondException();
    }
    anyCase = caseBefore;
    dotIsAll = dotBefore;
    return inner;
  }

  /** Whether flags stand in brackets of their own, and so count for what follows. */
  private boolean isFlagsOnly() {
    int i = at + 2;
    while (i < text.length && (Character.isLetter(text[i]) && text[i] != 'P' || text[i] == '-')) {
      i++;
    }
    return i < text.length && text[i] == ')';
  }

  /** Reads {@code (?i-s}, up to what closes it. */
  private void flags() throws BeyondException {
    at += 2;
    boolean on = true;
    while (at < text.length && text[at] != ')' && text[at] != ':') {
      switch (text[at++]) {
        case '-' -> on = false;
        case 'i' -> anyCase = on;
        case 's' -> dotIsAll = on;
        case 'U' -> {} // Greediness.
        default -> throw new BeyondException();
      }
    }
  }

  private PatternTree escape() throws BeyondException {
    if (sees("p") || sees("P")) {
      return property(next() == 'P');
    }
    UnicodeSet set = escaped();
    return new PatternTree.One((set.size() == 1 ? cased(set) : set).freeze());
  }

  private PatternTree property(boolean negated) throws BeyondException {
    if (anyCase) {
      throw new BeyondException();
    }
    String name;
    boolean not = negated;
    if (takes("{")) {
      not ^= takes("^");
      var letters = new StringBuilder();
      for (int point = next(); point != '}'; point = next()) {
        letters.appendCodePoint(point);
      }
      name = letters.toString();
    } else {
      name = Character.toString(next());
    }
    if (!name.matches("[LMNPSZC][a-z]?")) {
      throw new BeyondException(); // A script, which engines name differently.
    }
    return new PatternTree.Having(name, not);
  }

  /** What stands behind a backslash, as a set. */
  private UnicodeSet escaped() throws BeyondException {
    int point = next();
    return switch (point) {
      case 'd' -> cased(new UnicodeSet(DIGITS));
      case 'D' -> cased(new UnicodeSet(DIGITS)).complement();
      case 'w' -> cased(new UnicodeSet(WORD));
      case 'W' -> cased(new UnicodeSet(WORD)).complement();
      case 's' -> cased(new UnicodeSet(BLANKS));
      case 'S' -> cased(new UnicodeSet(BLANKS)).complement();
      case 't' -> new UnicodeSet('\t', '\t');
      case 'n' -> new UnicodeSet('\n', '\n');
      case 'r' -> new UnicodeSet('\r', '\r');
      case 'f' -> new UnicodeSet('\f', '\f');
      case 'v' -> new UnicodeSet(0x0B, 0x0B);
      case 'a' -> new UnicodeSet(0x07, 0x07);
      case 'x' -> hexadecimal();
      default -> {
        if (Character.isLetterOrDigit(point)) {
          throw new BeyondException();
        }
        yield new UnicodeSet(point, point);
      }
    };
  }

  private UnicodeSet hexadecimal() throws BeyondException {
    var digits = new StringBuilder();
    if (takes("{")) {
      for (int point = next(); point != '}'; point = next()) {
        digits.appendCodePoint(point);
      }
    } else {
      digits.appendCodePoint(next()).appendCodePoint(next());
    }
    int point = Integer.parseInt(digits.toString(), 16);
    return new UnicodeSet(point, point);
  }

  private UnicodeSet bracket() throws BeyondException {
    boolean negated = takes("^");
    var set = new UnicodeSet();
    boolean first = true;
    while (first || !sees("]")) {
      first = false;
      set.addAll(item());
    }
    at++;
    return (negated ? set.complement() : set).freeze();
  }

  private UnicodeSet item() throws BeyondException {
    if (takes("[:")) {
      return named();
    }
    UnicodeSet low = member();
    boolean range = sees("-") && at + 1 < text.length && text[at + 1] != ']' && low.size() == 1;
    if (!range) {
      return low.size() == 1 ? cased(low) : low;
    }
    at++;
    UnicodeSet high = member();
    if (high.size() != 1) {
      throw new BeyondException();
    }
    return cased(new UnicodeSet(low.charAt(0), high.charAt(0)));
  }

  private UnicodeSet member() throws BeyondException {
    int point = next();
    if (point != '\\') {
      return new UnicodeSet(point, point);
    }
    if (sees("p") || sees("P")) {
      throw new BeyondException();
    }
    return escaped();
  }

  private UnicodeSet named() throws BeyondException {
    boolean negated = takes("^");
    var name = new StringBuilder();
    while (!takes(":]")) {
      name.appendCodePoint(next());
    }
    UnicodeSet found = NAMED.get(name.toString());
    if (found == null) {
      throw new BeyondException();
    }
    UnicodeSet set = cased(new UnicodeSet(found));
    return negated ? set.complement() : set;
  }
}
