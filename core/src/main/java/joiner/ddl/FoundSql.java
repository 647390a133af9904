package joiner.ddl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.expression.Formula;
import org.jspecify.annotations.Nullable;

/**
 * Reads expressions as engines give them back: with casts nobody wrote, other names for the same
 * functions, brackets around everything. What stands for a form of ISO/IEC 9075-2 is written as
 * that; the rest is left as it is, and then cannot be read as a formula.
 */
final class FoundSql {
  private static final Pattern ESCAPE =
      Pattern.compile("\\\\(?:\\\\|\\+([0-9a-fA-F]{6})|([0-9a-fA-F]{4}))");

  /** How types go on after their first word. */
  private static final Map<String, List<String>> TYPES_OF_WORDS =
      Map.of(
          "character", List.of("varying"),
          "double", List.of("precision"),
          "timestamp", List.of("without time zone", "with time zone"),
          "time", List.of("without time zone", "with time zone"));

  /** Words for values of types, by the types they are cast to. */
  private static final Map<String, String> TYPED =
      Map.of(
          "date", "DATE",
          "time", "TIME",
          "timestamp", "TIMESTAMP",
          "datetime2", "TIMESTAMP",
          "timestamp with time zone", "TIMESTAMP WITH TIME ZONE",
          "datetimeoffset", "TIMESTAMP WITH TIME ZONE");

  private static final Map<String, String> FUNCTIONS =
      functions(
          "curdate", "CURRENT_DATE",
          "curtime", "CURRENT_TIME",
          "now", "CURRENT_TIMESTAMP",
          "utc_timestamp", "CURRENT_TIMESTAMP",
          "current_date", "CURRENT_DATE",
          "current_timestamp", "CURRENT_TIMESTAMP",
          "localtimestamp", "LOCALTIMESTAMP",
          "current_localtimestamp", "LOCALTIMESTAMP",
          "sysdatetime", "LOCALTIMESTAMP",
          "sysdatetimeoffset", "CURRENT_TIMESTAMP",
          "current_user", "CURRENT_USER",
          "user_name", "CURRENT_USER",
          "length", "CHAR_LENGTH",
          "octet_length", "OCTET_LENGTH",
          "datalength", "OCTET_LENGTH",
          "char_length", "CHAR_LENGTH",
          "character_length", "CHAR_LENGTH");

  private static Map<String, String> functions(String... pairs) {
    Map<String, String> functions = new HashMap<>();
    for (int i = 0; i < pairs.length; i += 2) {
      functions.put(pairs[i], pairs[i + 1]);
    }
    return functions;
  }

  /** Functions without arguments, which the standard writes without brackets. */
  private static final Set<String> CLOCKS =
      Set.of("CURRENT_DATE", "CURRENT_TIME", "CURRENT_TIMESTAMP", "LOCALTIMESTAMP", "CURRENT_USER");

  private final List<String> tokens;

  private FoundSql(List<String> tokens) {
    this.tokens = tokens;
  }

  /**
   * An expression in the words of formulas, if one of the ways to write it is understood.
   *
   * @param understood tells whether a formula can be read
   */
  static Optional<Formula> read(String sql, Predicate<Formula> understood) {
    var found =
        new FoundSql(new ArrayList<>(SqlToken.of(sql).stream().map(SqlToken::text).toList()));
    found.withoutKeyword();
    found.withPlainTexts();
    found.withTypedLiterals();
    found.withoutCasts();
    found.withoutConcat();
    found.withoutArrays();
    found.withStandardWords();
    found.withoutIdleBrackets();
    return List.of(found.text(true), found.text(false)).stream()
        .map(Formula::new)
        .filter(understood)
        .findFirst();
  }

  private String at(int place) {
    return place >= 0 && place < tokens.size() ? tokens.get(place) : "";
  }

  private boolean isWord(int place, String word) {
    return at(place).equalsIgnoreCase(word);
  }

  /** {@code CHECK (…)} as PostgreSQL gives it. */
  private void withoutKeyword() {
    if (isWord(0, "CHECK")) {
      tokens.removeFirst();
    }
  }

  /** {@code U&'\\00e9'} is a text with characters by their numbers (ISO/IEC 9075-2, 5.3). */
  private void withPlainTexts() {
    for (int i = 0; i + 2 < tokens.size(); i++) {
      if (isWord(i, "U") && at(i + 1).equals("&") && at(i + 2).startsWith("'")) {
        tokens.set(
            i,
            ESCAPE
                .matcher(at(i + 2))
                .replaceAll(
                    found -> Matcher.quoteReplacement(unescaped(found.group(1), found.group(2)))));
        tokens.subList(i + 1, i + 3).clear();
      }
    }
  }

  /** {@code N'kiln'} is a text, {@code CAST('2026-03-14' AS date)} a date. */
  private void withTypedLiterals() {
    for (int i = 0; i < tokens.size(); i++) {
      if (at(i).matches("[nN]'(?s:.*)'")) {
        tokens.set(i, at(i).substring(1));
      }
      boolean cast = isWord(i, "CAST") && at(i + 1).equals("(") && isWord(i + 3, "AS");
      if (cast && at(i + 2).matches("[nN]?'(?s:.*)'")) {
        int close = closing(i + 1);
        String type = String.join(" ", tokens.subList(i + 4, close)).toLowerCase(Locale.ROOT);
        if (TYPED.containsKey(type)) {
          typed(TYPED.get(type), i, close);
        }
      }
    }
  }

  /** Puts a typed literal in the stead of a cast. */
  private void typed(String words, int cast, int close) {
    String text = at(cast + 2).replaceFirst("^[nN]", "");
    String moment = words.startsWith("TIMESTAMP") ? text.replaceFirst("T(?=\\d)", " ") : text;
    tokens.subList(cast, close + 1).clear();
    tokens.addAll(cast, List.of(words, moment));
  }

  private static String unescaped(@Nullable String six, @Nullable String four) {
    String digits = six != null ? six : four;
    return digits == null ? "\\" : Character.toString(Integer.parseInt(digits, 16));
  }

  /** {@code concat(a, b)}, as MariaDB gives {@code a || b} back. */
  private void withoutConcat() {
    for (int i = 0; i + 1 < tokens.size(); i++) {
      if (isWord(i, "concat") && at(i + 1).equals("(")) {
        int close = closing(i + 1);
        int depth = 0;
        for (int j = i + 1; j < close; j++) {
          depth += SqlToken.depthOf(at(j));
          if (depth == 1 && at(j).equals(",")) {
            tokens.set(j, "||");
          }
        }
        tokens.remove(i);
      }
    }
  }

  /** {@code 'raw'::character varying(20)}, and {@code _utf8mb4'raw'} as MariaDB gives it. */
  private void withoutCasts() {
    for (int i = 0; i < tokens.size(); i++) {
      if (at(i).equals("::")) {
        int end = endOfType(i + 1);
        tokens.subList(i, end).clear();
        i--;
      } else if (at(i).matches("_(?:utf8\\w*|latin1|binary)") && at(i + 1).startsWith("'")) {
        tokens.remove(i);
      }
    }
  }

  private int endOfType(int begin) {
    int end = begin + 1;
    for (String rest : TYPES_OF_WORDS.getOrDefault(at(begin).toLowerCase(Locale.ROOT), List.of())) {
      int after = afterBrackets(end);
      String[] words = rest.split(" ");
      boolean goesOn = true;
      for (int i = 0; i < words.length; i++) {
        goesOn &= isWord(after + i, words[i]);
      }
      if (goesOn) {
        end = after + words.length;
        break;
      }
    }
    end = afterBrackets(end);
    return at(end).equals("[") && at(end + 1).equals("]") ? end + 2 : end;
  }

  private int afterBrackets(int place) {
    return at(place).equals("(") ? closing(place) + 1 : place;
  }

  private int closing(int open) {
    return SqlToken.closing(tokens, token -> token, open);
  }

  /** {@code = ANY (ARRAY[…])} is how PostgreSQL gives IN back, {@code <> ALL} its negation. */
  private void withoutArrays() {
    for (int i = 0; i < tokens.size(); i++) {
      boolean any = at(i).equals("=") && isWord(i + 1, "ANY");
      boolean none = at(i).equals("<>") && isWord(i + 1, "ALL");
      if ((any || none) && at(i + 2).equals("(")) {
        int close = closing(i + 2);
        List<String> inner = new ArrayList<>(tokens.subList(i + 3, close));
        inner.removeIf(t -> t.equalsIgnoreCase("ARRAY") || t.equals("[") || t.equals("]"));
        while (inner.size() > 1 && inner.getFirst().equals("(") && inner.getLast().equals(")")) {
          inner = inner.subList(1, inner.size() - 1);
        }
        var whole = new ArrayList<String>(none ? List.of("NOT", "IN", "(") : List.of("IN", "("));
        whole.addAll(inner);
        whole.add(")");
        tokens.subList(i, close + 1).clear();
        tokens.addAll(i, whole);
      }
    }
  }

  private void withStandardWords() {
    for (int i = 0; i < tokens.size(); i++) {
      switch (at(i)) {
        case "~~" -> tokens.set(i, "LIKE");
        case "!~~" -> {
          tokens.set(i, "NOT");
          tokens.add(i + 1, "LIKE");
        }
        case "!=" -> tokens.set(i, "<>");
        case "DIV" -> tokens.set(i, "/");
        default -> {
          String function = FUNCTIONS.get(at(i).toLowerCase(Locale.ROOT));
          boolean called = at(i + 1).equals("(");
          if (function != null && CLOCKS.contains(function) && called) {
            tokens.set(i, function);
            tokens.subList(i + 1, closing(i + 1) + 1).clear();
          } else if (function != null && (called || CLOCKS.contains(function))) {
            tokens.set(i, function);
          }
        }
      }
    }
  }

  /** Brackets around one thing or around brackets, and those around everything. */
  private void withoutIdleBrackets() {
    for (int i = 0; i < tokens.size(); i++) {
      while (at(i).equals("(") && !bindsBrackets(i - 1)) {
        int close = closing(i);
        boolean one = close == i + 2;
        boolean doubled = at(i + 1).equals("(") && closing(i + 1) == close - 1;
        boolean all = i == 0 && close == tokens.size() - 1;
        if (!one && !doubled && !all) {
          break;
        }
        tokens.remove(close);
        tokens.remove(i);
      }
    }
  }

  /** Whether brackets behind that belong to it: a function, or a list. */
  private boolean bindsBrackets(int place) {
    return at(place).matches("(?i)(?!and$|or$|not$|then$|else$|when$|between$|like$)[\\p{L}_].*");
  }

  /** The expression with names bare where they need no quotation marks, or all as they were. */
  private String text(boolean bare) {
    var text = new StringBuilder();
    String before = "";
    for (String token : tokens) {
      boolean tight =
          text.isEmpty()
              || before.equals("(")
              || token.equals(")")
              || token.equals(",")
              || token.equals("(")
                  && before.matches("[\\p{L}_]+")
                  && !before.matches("(?i)and|or|not|in|then|else|when");
      text.append(tight ? "" : " ");
      boolean plain = bare && token.matches("\"[a-z_][a-z0-9_]*\"");
      text.append(plain ? token.substring(1, token.length() - 1) : token);
      before = token;
    }
    return text.toString();
  }
}
