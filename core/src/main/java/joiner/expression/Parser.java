package joiner.expression;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Period;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import joiner.expression.Expression.Arithmetic;
import joiner.expression.Expression.Comparison;

/**
 * Reads SQL expressions by operator precedence (Vaughan Pratt, "Top Down Operator Precedence",
 * 1973): OR, AND, NOT, predicates, plus and minus, times and divide, sign. Linear in the text;
 * nesting is limited to {@link #DEEPEST}. Only the words of the grammar are reserved, so that
 * fields may be called year, value or position.
 */
final class Parser {
  /** How deep brackets and prefixes may nest, and how long a chain of arithmetic may be. */
  static final int DEEPEST = 200;

  private static final Set<String> RESERVED =
      Set.of(
          "AND", "OR", "NOT", "IN", "IS", "BETWEEN", "LIKE", "ESCAPE", "NULL", "TRUE", "FALSE",
          "UNKNOWN", "CASE", "WHEN", "THEN", "ELSE", "END", "FROM", "FOR", "SELECT", "AS");

  private static final Set<String> CLOCKS =
      Set.of("CURRENT_DATE", "CURRENT_TIMESTAMP", "LOCALTIMESTAMP", "CURRENT_USER");

  private final List<Token> tokens;
  private int at;
  private int depth;

  private Parser(List<Token> tokens) {
    this.tokens = tokens;
  }

  /** Whether a name means something else unless it is quoted. */
  static boolean isWord(String name) {
    String upper = name.toUpperCase(Locale.ROOT);
    return RESERVED.contains(upper) || CLOCKS.contains(upper);
  }

  static Expression parse(String text) {
    var parser = new Parser(Lexer.tokens(text));
    Expression expression = parser.or();
    if (parser.peek().type() != Token.Type.END) {
      throw parser.unexpected("an operator such as AND, = or + was expected, or the end");
    }
    return expression;
  }

  private Expression or() {
    enter();
    var operands = new ArrayList<Expression>();
    operands.add(and());
    while (acceptWord("OR")) {
      operands.add(and());
    }
    depth--;
    return operands.size() == 1
        ? operands.getFirst()
        : new Expression.Or(operands, operands.getFirst().place().to(operands.getLast().place()));
  }

  private Expression and() {
    var operands = new ArrayList<Expression>();
    operands.add(not());
    while (acceptWord("AND")) {
      operands.add(not());
    }
    return operands.size() == 1
        ? operands.getFirst()
        : new Expression.And(operands, operands.getFirst().place().to(operands.getLast().place()));
  }

  private Expression not() {
    Token token = peek();
    if (acceptWord("NOT")) {
      enter();
      Expression operand = not();
      depth--;
      return new Expression.Not(operand, token.place().to(operand.place()));
    }
    return predicate();
  }

  private Expression predicate() {
    Expression left = sum();
    while (true) {
      Optional<Comparison> comparison = comparison();
      if (comparison.isPresent()) {
        Expression right = sum();
        left =
            new Expression.Compare(comparison.get(), left, right, left.place().to(right.place()));
        rejectChain();
      } else if (peek().isWord("IS")) {
        left = is(left);
      } else if (startsPredicate()) {
        left = negatable(left);
      } else {
        return left;
      }
    }
  }

  private void rejectChain() {
    if (comparison().isPresent()) {
      at--;
      throw unexpected("a comparison has two sides; join two comparisons with AND");
    }
  }

  private Optional<Comparison> comparison() {
    for (Comparison comparison : Comparison.values()) {
      if (acceptSign(comparison.sql())) {
        return Optional.of(comparison);
      }
    }
    return Optional.empty();
  }

  private boolean startsPredicate() {
    Token token = peek();
    Token word = token.isWord("NOT") ? tokens.get(at + 1) : token;
    return word.isWord("BETWEEN") || word.isWord("IN") || word.isWord("LIKE");
  }

  private Expression is(Expression operand) {
    at++;
    boolean negated = acceptWord("NOT");
    Token word = peek();
    Place place = operand.place().to(word.place());
    if (acceptWord("NULL")) {
      return new Expression.IsNull(operand, negated, place);
    }
    if (acceptWord("TRUE")) {
      return new Expression.IsTruth(operand, Optional.of(true), negated, place);
    }
    if (acceptWord("FALSE")) {
      return new Expression.IsTruth(operand, Optional.of(false), negated, place);
    }
    if (acceptWord("UNKNOWN")) {
      return new Expression.IsTruth(operand, Optional.empty(), negated, place);
    }
    throw unexpected("NULL, TRUE, FALSE or UNKNOWN was expected after IS");
  }

  private Expression negatable(Expression operand) {
    boolean negated = acceptWord("NOT");
    if (acceptWord("BETWEEN")) {
      Expression low = sum();
      expectWord("AND", "BETWEEN has two ends: AND was expected");
      Expression high = sum();
      return new Expression.Between(operand, low, high, negated, operand.place().to(high.place()));
    }
    if (acceptWord("IN")) {
      return in(operand, negated);
    }
    at++;
    return like(operand, negated);
  }

  private Expression in(Expression operand, boolean negated) {
    expectSign("(", "a list in brackets was expected after IN");
    if (peek().isWord("SELECT")) {
      throw unexpected("a rule sees its own row only; list the values");
    }
    var options = new ArrayList<Expression>();
    do {
      options.add(or());
    } while (acceptSign(","));
    Token close = expectSign(")", "a comma or ) was expected in the list");
    return new Expression.In(operand, options, negated, operand.place().to(close.place()));
  }

  private Expression like(Expression operand, boolean negated) {
    Expression pattern = sum();
    Optional<Character> escape = Optional.empty();
    Place end = pattern.place();
    if (acceptWord("ESCAPE")) {
      Token token = peek();
      if (token.type() != Token.Type.STRING || token.text().length() != 1) {
        throw unexpected("one character in quotes was expected after ESCAPE");
      }
      at++;
      escape = Optional.of(token.text().charAt(0));
      end = token.place();
    }
    return new Expression.Like(operand, pattern, escape, negated, operand.place().to(end));
  }

  private Expression sum() {
    Expression left = product();
    int length = 0;
    while (true) {
      if (acceptSign("+")) {
        left = compute(Arithmetic.PLUS, left, product());
      } else if (acceptSign("-")) {
        left = compute(Arithmetic.MINUS, left, product());
      } else if (acceptSign("||")) {
        Expression right = product();
        left = new Expression.Concat(left, right, left.place().to(right.place()));
      } else {
        return left;
      }
      limitChain(++length, left);
    }
  }

  private Expression product() {
    Expression left = signed();
    int length = 0;
    while (true) {
      if (acceptSign("*")) {
        left = compute(Arithmetic.TIMES, left, signed());
      } else if (acceptSign("/")) {
        left = compute(Arithmetic.DIVIDE, left, signed());
      } else {
        return left;
      }
      limitChain(++length, left);
    }
  }

  private static Expression compute(Arithmetic operator, Expression left, Expression right) {
    return new Expression.Compute(operator, left, right, false, left.place().to(right.place()));
  }

  private static void limitChain(int length, Expression left) {
    if (length > DEEPEST) {
      throw new ParseFailure(
          left.place(), "Too many operators in one chain (limit " + DEEPEST + ").");
    }
  }

  private Expression signed() {
    Token token = peek();
    if (acceptSign("-")) {
      enter();
      Expression operand = signed();
      depth--;
      return new Expression.Negate(operand, token.place().to(operand.place()));
    }
    if (acceptSign("+")) {
      enter();
      Expression operand = signed();
      depth--;
      return operand;
    }
    return primary();
  }

  private Expression primary() {
    Token token = peek();
    return switch (token.type()) {
      case NUMBER -> number(token);
      case STRING -> {
        if (token.text().indexOf(0) >= 0) {
          throw new ParseFailure(token.place(), "No database holds the character NUL in a text.");
        }
        at++;
        yield new Expression.Literal(new Value.Text(token.text()), Kind.TEXT, token.place());
      }
      case QUOTED_NAME -> {
        yield name(token);
      }
      case WORD -> word(token);
      case SIGN -> bracket(token);
      case END -> throw unexpected(at == 0 ? "type a condition" : "a value was expected");
    };
  }

  private Expression number(Token token) {
    at++;
    boolean whole = token.text().chars().allMatch(c -> c >= '0' && c <= '9');
    try {
      var number = new BigDecimal(token.text());
      if (Math.abs((long) number.scale()) > 1_000 || number.precision() > 1_000) {
        throw new ParseFailure(token.place(), "The number is too long; at most 1000 digits.");
      }
      return new Expression.Literal(
          new Value.Num(number, whole), whole ? Kind.WHOLE : Kind.NUMBER, token.place());
    } catch (NumberFormatException e) {
      throw new ParseFailure(token.place(), "“" + token.text() + "” is not a number.");
    }
  }

  private Expression bracket(Token token) {
    if (!acceptSign("(")) {
      throw unexpected("a value was expected");
    }
    if (peek().isWord("SELECT")) {
      throw unexpected("a rule sees its own row only, so it has no queries");
    }
    Expression inner = or();
    expectSign(
        ")",
        "the bracket that opens at character "
            + (token.place().span().start() + 1)
            + " is never closed: ) was expected");
    return inner;
  }

  private Expression word(Token token) {
    String upper = token.text().toUpperCase(Locale.ROOT);
    Token following = tokens.get(at + 1);
    if (following.isSign("(")) {
      return call(token, upper);
    }
    Optional<Expression> literal = wordLiteral(token, upper, following);
    if (literal.isPresent()) {
      return literal.get();
    }
    if (upper.equals("CASE")) {
      return caseOf(token);
    }
    if (RESERVED.contains(upper)) {
      throw unexpected("a value was expected");
    }
    return name(token);
  }

  /** A name, and after points what it leads to. */
  private Expression name(Token token) {
    at++;
    var path = new ArrayList<>(List.of(token.text()));
    Place place = token.place();
    while (acceptSign(".")) {
      Token next = peek();
      if (next.type() != Token.Type.WORD && next.type() != Token.Type.QUOTED_NAME) {
        throw unexpected("after the point the name of a field was expected");
      }
      at++;
      path.add(next.text());
      place = place.to(next.place());
    }
    return new Expression.Name(path, place);
  }

  private Optional<Expression> wordLiteral(Token token, String upper, Token following) {
    boolean text = following.type() == Token.Type.STRING;
    return switch (upper) {
      case "NULL" -> one(new Expression.Literal(Value.NULL, Kind.NULL, token.place()));
      case "TRUE" -> one(new Expression.Literal(Value.TRUE, Kind.BOOLEAN, token.place()));
      case "FALSE" -> one(new Expression.Literal(Value.FALSE, Kind.BOOLEAN, token.place()));
      case "CURRENT_DATE" -> one(new Expression.Now(Kind.DATE, token.place()));
      case "CURRENT_TIMESTAMP" -> one(new Expression.Now(Kind.ZONED, token.place()));
      case "LOCALTIMESTAMP" -> one(new Expression.Now(Kind.DATE_TIME, token.place()));
      case "CURRENT_USER" -> one(new Expression.Now(Kind.TEXT, token.place()));
      case "DATE", "TIME", "TIMESTAMP" ->
          text ? Optional.of(moment(token, upper, following)) : Optional.empty();
      case "INTERVAL" -> text ? Optional.of(interval(token, following)) : Optional.empty();
      default -> Optional.empty();
    };
  }

  private Optional<Expression> one(Expression expression) {
    at++;
    return Optional.of(expression);
  }

  private Expression moment(Token word, String upper, Token text) {
    at += 2;
    Place place = word.place().to(text.place());
    try {
      return switch (upper) {
        case "DATE" ->
            new Expression.Literal(
                new Value.Date(inCalendar(LocalDate.parse(text.text()))), Kind.DATE, place);
        case "TIME" ->
            new Expression.Literal(new Value.Time(LocalTime.parse(text.text())), Kind.TIME, place);
        default -> {
          LocalDateTime at = LocalDateTime.parse(text.text().replace(' ', 'T'));
          inCalendar(at.toLocalDate());
          yield new Expression.Literal(new Value.DateTime(at), Kind.DATE_TIME, place);
        }
      };
    } catch (DateTimeException e) {
      String example =
          switch (upper) {
            case "DATE" -> "DATE '2026-03-14'";
            case "TIME" -> "TIME '18:05'";
            default -> "TIMESTAMP '2026-03-14 18:05'";
          };
      throw new ParseFailure(
          text.place(), "“" + text.text() + "” does not exist; write it like " + example + ".");
    }
  }

  private static LocalDate inCalendar(LocalDate date) {
    if (!Value.isInCalendar(date.getYear())) {
      throw new DateTimeException("year " + date.getYear());
    }
    return date;
  }

  private Expression interval(Token word, Token text) {
    at += 2;
    Token unit = peek();
    long amount;
    try {
      amount = Integer.parseInt(text.text());
    } catch (NumberFormatException e) {
      throw new ParseFailure(text.place(), "A whole number was expected, as in INTERVAL '14' DAY.");
    }
    at++;
    Value.Interval value =
        switch (unit.text().toUpperCase(Locale.ROOT)) {
          case "YEAR" -> new Value.Interval(Period.ofYears((int) amount), Duration.ZERO);
          case "MONTH" -> new Value.Interval(Period.ofMonths((int) amount), Duration.ZERO);
          case "DAY" -> new Value.Interval(Period.ofDays((int) amount), Duration.ZERO);
          case "HOUR" -> new Value.Interval(Period.ZERO, Duration.ofHours(amount));
          case "MINUTE" -> new Value.Interval(Period.ZERO, Duration.ofMinutes(amount));
          default -> {
            at--;
            throw unexpected("YEAR, MONTH, DAY, HOUR or MINUTE was expected after the number");
          }
        };
    return new Expression.Literal(value, Kind.INTERVAL, word.place().to(unit.place()));
  }

  private Expression caseOf(Token start) {
    enter();
    at++;
    Optional<Expression> operand = peek().isWord("WHEN") ? Optional.empty() : Optional.of(or());
    var whens = new ArrayList<Expression.When>();
    while (acceptWord("WHEN")) {
      Expression condition = or();
      expectWord("THEN", "THEN was expected after the condition");
      whens.add(new Expression.When(condition, or()));
    }
    if (whens.isEmpty()) {
      throw unexpected("WHEN was expected after CASE");
    }
    Optional<Expression> otherwise = acceptWord("ELSE") ? Optional.of(or()) : Optional.empty();
    Token end = expectWord("END", "WHEN, ELSE or END was expected");
    depth--;
    return new Expression.Case(operand, whens, otherwise, start.place().to(end.place()));
  }

  private Expression call(Token name, String upper) {
    at += 2;
    if (upper.equals("EXTRACT")) {
      return extract(name);
    }
    if (upper.equals("CAST")) {
      return cast(name);
    }
    if (upper.equals("TRIM")) {
      return trim(name);
    }
    Expression.Function function =
        switch (upper) {
          case "CHARACTER_LENGTH" -> Expression.Function.CHAR_LENGTH;
          case "CEIL" -> Expression.Function.CEILING;
          default -> functionNamed(name, upper);
        };
    var arguments = new ArrayList<Expression>();
    if (!peek().isSign(")")) {
      arguments(function, arguments);
    }
    Token close = expectSign(")", "a comma or ) was expected after the argument of " + upper);
    Place place = name.place().to(close.place());
    if (!function.accepts(arguments.size())) {
      throw new ParseFailure(
          place,
          function + " takes " + function.arity() + " arguments, not " + arguments.size() + ".");
    }
    return new Expression.Call(function, arguments, place);
  }

  private void arguments(Expression.Function function, List<Expression> arguments) {
    if (function == Expression.Function.POSITION) {
      arguments.add(sum());
      expectWord("IN", "POSITION is written POSITION(part IN whole): IN was expected");
      arguments.add(sum());
      return;
    }
    arguments.add(or());
    if (function == Expression.Function.SUBSTRING) {
      expectWord("FROM", "SUBSTRING is written SUBSTRING(text FROM 1 FOR 2): FROM was expected");
      places(arguments);
      return;
    }
    if (function == Expression.Function.OVERLAY) {
      String form = "OVERLAY is written OVERLAY(text PLACING other FROM 1 FOR 2): ";
      expectWord("PLACING", form + "PLACING was expected");
      arguments.add(sum());
      expectWord("FROM", form + "FROM was expected");
      places(arguments);
      return;
    }
    while (acceptSign(",")) {
      arguments.add(or());
    }
  }

  /** Where in a text something begins and, behind FOR, how long it is. */
  private void places(List<Expression> arguments) {
    arguments.add(sum());
    if (acceptWord("FOR")) {
      arguments.add(sum());
    }
  }

  /** {@code TRIM([LEADING | TRAILING | BOTH] [character] FROM text)}, or of a text alone. */
  private Expression trim(Token name) {
    Expression.Function ends =
        acceptEnd("LEADING")
            ? Expression.Function.LTRIM
            : acceptEnd("TRAILING") ? Expression.Function.RTRIM : Expression.Function.TRIM;
    boolean told = acceptEnd("BOTH") || ends != Expression.Function.TRIM;
    var arguments = new ArrayList<Expression>();
    if (acceptWord("FROM")) {
      arguments.add(sum());
    } else {
      Expression first = or();
      boolean ofAnother = acceptWord("FROM");
      if (told && !ofAnother) {
        throw unexpected("TRIM is written TRIM(LEADING '0' FROM text): FROM was expected");
      }
      if (ofAnother) {
        arguments.add(sum());
      }
      arguments.add(first);
    }
    Token close = expectSign(")", ") was expected");
    return new Expression.Call(ends, arguments, name.place().to(close.place()));
  }

  /** A word before what is taken off, unless it is a field of that name. */
  private boolean acceptEnd(String word) {
    return tokens.get(at + 1).type() != Token.Type.SIGN && acceptWord(word);
  }

  private static Expression.Function functionNamed(Token name, String upper) {
    try {
      return Expression.Function.valueOf(upper);
    } catch (IllegalArgumentException e) {
      throw new ParseFailure(
          name.place(),
          "There is no function “"
              + name.text()
              + "”; there are CHAR_LENGTH, OCTET_LENGTH, UPPER, LOWER, TRIM, LTRIM, RTRIM, LPAD,"
              + " RPAD, SUBSTRING, OVERLAY, POSITION, CONCAT_WS, ABS, MOD, ROUND, FLOOR, CEILING,"
              + " COALESCE, NULLIF, EXTRACT and CAST.");
    }
  }

  private Expression extract(Token name) {
    Token part = peek();
    Optional<Expression.Part> found = named(Expression.Part.values(), part);
    Optional<Expression.Unit> counted = named(Expression.Unit.values(), part);
    if (found.isEmpty() && counted.isEmpty()) {
      throw unexpected("YEAR, MONTH, DAY, ISODOW, HOUR or MINUTE was expected after EXTRACT(");
    }
    at++;
    expectWord("FROM", "EXTRACT is written EXTRACT(YEAR FROM field): FROM was expected");
    boolean bracketed = peek().isSign("(");
    Expression operand = or();
    Token behind = peek();
    Optional<Expression.Unit> unit = named(Expression.Unit.values(), behind);
    if (unit.isPresent() && bracketed) {
      return elapsed(name, counted, unit.get(), operand);
    }
    if (found.isEmpty()) {
      throw new ParseFailure(
          part.place(),
          "SECOND is counted between two moments: EXTRACT(SECOND FROM (later - earlier) SECOND).");
    }
    Token close = expectSign(")", ") was expected");
    return new Expression.Extract(found.get(), operand, Kind.NULL, name.place().to(close.place()));
  }

  /** {@code (later - earlier) unit} is behind; a precision in brackets says nothing here. */
  private Expression elapsed(
      Token name, Optional<Expression.Unit> counted, Expression.Unit unit, Expression between) {
    boolean difference =
        between instanceof Expression.Compute e && e.operator() == Expression.Arithmetic.MINUS;
    if (!difference || !counted.equals(Optional.of(unit))) {
      throw unexpected(
          "what lies between two moments is told in one unit, as in EXTRACT(DAY FROM (later -"
              + " earlier) DAY)");
    }
    at++;
    if (acceptSign("(")) {
      at++;
      expectSign(")", ") was expected");
    }
    Token close = expectSign(")", ") was expected");
    var e = (Expression.Compute) between;
    return new Expression.Elapsed(
        unit, e.left(), e.right(), Kind.NULL, name.place().to(close.place()));
  }

  private static <E extends Enum<E>> Optional<E> named(E[] all, Token word) {
    return word.type() == Token.Type.WORD
        ? Arrays.stream(all).filter(one -> one.name().equalsIgnoreCase(word.text())).findFirst()
        : Optional.empty();
  }

  private Expression cast(Token name) {
    Expression operand = or();
    expectWord("AS", "CAST is written CAST(field AS VARCHAR): AS was expected");
    expectWord("VARCHAR", "only CAST(… AS VARCHAR) is known: VARCHAR was expected");
    Token close = expectSign(")", ") was expected");
    return new Expression.ToText(operand, Kind.NULL, 0, name.place().to(close.place()));
  }

  private void enter() {
    if (++depth > DEEPEST) {
      throw new ParseFailure(peek().place(), "Nested too deeply (limit " + DEEPEST + ").");
    }
  }

  private Token peek() {
    return tokens.get(at);
  }

  private boolean acceptWord(String word) {
    boolean found = peek().isWord(word);
    at += found ? 1 : 0;
    return found;
  }

  private boolean acceptSign(String sign) {
    boolean found = peek().isSign(sign);
    at += found ? 1 : 0;
    return found;
  }

  private Token expectWord(String word, String expected) {
    Token token = peek();
    if (!acceptWord(word)) {
      throw unexpected(expected);
    }
    return token;
  }

  private Token expectSign(String sign, String expected) {
    Token token = peek();
    if (!acceptSign(sign)) {
      throw unexpected(expected);
    }
    return token;
  }

  private ParseFailure unexpected(String expected) {
    Token token = peek();
    Place place = token.place();
    String sentence = Character.toUpperCase(expected.charAt(0)) + expected.substring(1);
    if (token.type() == Token.Type.END && at == 0) {
      return new ParseFailure(place, "There is nothing here yet; " + expected + ".");
    }
    return new ParseFailure(place, sentence + "; found " + token.shown() + ".");
  }
}
