package joiner.expression;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/** A parsed SQL expression. Chains of AND and OR are flat lists, so that they may be long. */
public sealed interface Expression {
  /** Where it was read from; it makes no difference to equality. */
  Place place();

  /** What it reads, in order of first use. */
  default Set<Reference> reads() {
    var reads = new LinkedHashSet<Reference>();
    Walk.references(this, reads::add);
    return reads;
  }

  /** Whether its value may change with the clock. */
  default boolean readsClock() {
    return Walk.any(this, node -> node instanceof Now);
  }

  /** Its direct parts, in order. */
  default List<Expression> parts() {
    return Walk.parts(this);
  }

  /** The same expression with each of its direct parts replaced. */
  default Expression withParts(UnaryOperator<Expression> part) {
    return Walk.withParts(this, part);
  }

  /** A value written out. */
  record Literal(Value value, Kind kind, Place place) implements Expression {}

  /**
   * A name as it was written; the type check finds out what it refers to.
   *
   * @param path the name itself, last; before it what leads to the row that has it
   */
  record Name(List<String> path, Place place) implements Expression {
    public Name {
      path = List.copyOf(path);
    }

    /** All of it, with points between. */
    String text() {
      return String.join(".", path);
    }
  }

  /** Something of the row that the scope knows; made by the type check from {@link Name}. */
  record FieldRef(Reference to, Place place) implements Expression {}

  /** NOT operand. */
  record Not(Expression operand, Place place) implements Expression {}

  /** Minus operand. */
  record Negate(Expression operand, Place place) implements Expression {}

  /** All of two or more conditions. */
  record And(List<Expression> operands, Place place) implements Expression {
    public And {
      operands = List.copyOf(operands);
    }
  }

  /** Any of two or more conditions. */
  record Or(List<Expression> operands, Place place) implements Expression {
    public Or {
      operands = List.copyOf(operands);
    }
  }

  /** left operator right. */
  record Compare(Comparison operator, Expression left, Expression right, Place place)
      implements Expression {}

  /**
   * left operator right, on numbers; {@code whole} if both are whole numbers, so that division
   * truncates.
   */
  record Compute(Arithmetic operator, Expression left, Expression right, boolean whole, Place place)
      implements Expression {}

  /** A moment plus or minus an interval; made by the type check from {@link Compute}. */
  record Shift(Expression moment, Value.Interval interval, boolean back, Kind kind, Place place)
      implements Expression {}

  /** A date taken as the start of its day; made by the type check. */
  record StartOfDay(Expression date, Place place) implements Expression {}

  /**
   * A whole number that fits its width, as engines keep the results of their arithmetic; made by
   * the type check.
   */
  record Fitting(Expression operand, Width width, Place place) implements Expression {}

  /** A text that is put in order by code points, whatever the locale; made by the type check. */
  record CodePoints(Expression operand, Place place) implements Expression {}

  /** left || right. */
  record Concat(Expression left, Expression right, Place place) implements Expression {}

  /** operand [NOT] BETWEEN low AND high. */
  record Between(Expression operand, Expression low, Expression high, boolean negated, Place place)
      implements Expression {}

  /** operand [NOT] IN (options). */
  record In(Expression operand, List<Expression> options, boolean negated, Place place)
      implements Expression {
    public In {
      options = List.copyOf(options);
    }
  }

  /** operand [NOT] LIKE pattern [ESCAPE escape]. */
  record Like(
      Expression operand,
      Expression pattern,
      Optional<Character> escape,
      boolean negated,
      Place place)
      implements Expression {}

  /** operand IS [NOT] NULL. */
  record IsNull(Expression operand, boolean negated, Place place) implements Expression {}

  /** operand IS [NOT] TRUE, FALSE or UNKNOWN; an empty truth is UNKNOWN. */
  record IsTruth(Expression operand, Optional<Boolean> truth, boolean negated, Place place)
      implements Expression {}

  /** CASE [operand] WHEN … THEN … [ELSE …] END. */
  record Case(
      Optional<Expression> operand, List<When> whens, Optional<Expression> otherwise, Place place)
      implements Expression {
    public Case {
      whens = List.copyOf(whens);
    }
  }

  /** One branch of a {@link Case}. */
  record When(Expression condition, Expression result) {}

  /** A function of the SQL standard. */
  record Call(Function function, List<Expression> arguments, Place place) implements Expression {
    public Call {
      arguments = List.copyOf(arguments);
    }
  }

  /**
   * EXTRACT(part FROM operand); what carries a zone is taken in UTC, for engines differ in whose
   * zone they take.
   *
   * @param kind of the operand, once checked
   */
  record Extract(Part part, Expression operand, Kind kind, Place place) implements Expression {}

  /**
   * EXTRACT(unit FROM (later - earlier) unit): how many whole units lie between two dates or
   * moments, less than zero where the later one comes first; what is begun of a unit does not
   * count. The type check leaves days between dates and seconds between moments, the rest it writes
   * out as their quotients.
   *
   * @param kind of what it is between, once checked
   */
  record Elapsed(Unit unit, Expression later, Expression earlier, Kind kind, Place place)
      implements Expression {}

  /**
   * CAST(operand AS VARCHAR).
   *
   * @param kind of the operand, once checked
   * @param scale how many decimals a number has
   */
  record ToText(Expression operand, Kind kind, int scale, Place place) implements Expression {}

  /**
   * What holds as it is read: CURRENT_DATE, CURRENT_TIMESTAMP or LOCALTIMESTAMP, or, of the kind
   * text, CURRENT_USER.
   */
  record Now(Kind kind, Place place) implements Expression {}

  /** Comparison operators. */
  enum Comparison {
    EQUAL("="),
    NOT_EQUAL("<>"),
    LESS("<"),
    AT_MOST("<="),
    GREATER(">"),
    AT_LEAST(">=");

    private final String sql;

    Comparison(String sql) {
      this.sql = sql;
    }

    public String sql() {
      return sql;
    }

    /** Whether the operator holds for that result of {@code compareTo}. */
    public boolean holds(int order) {
      return switch (this) {
        case EQUAL -> order == 0;
        case NOT_EQUAL -> order != 0;
        case LESS -> order < 0;
        case AT_MOST -> order <= 0;
        case GREATER -> order > 0;
        case AT_LEAST -> order >= 0;
      };
    }
  }

  /** Arithmetic operators. */
  enum Arithmetic {
    PLUS("+"),
    MINUS("-"),
    TIMES("*"),
    DIVIDE("/");

    private final String sql;

    Arithmetic(String sql) {
      this.sql = sql;
    }

    public String sql() {
      return sql;
    }
  }

  /**
   * Functions, named as in ISO/IEC 9075-2:2023. ROUND and CONCAT_WS are none of it: every engine
   * has the first, nearly every one the second, which joins texts by the first of them and leaves
   * out what is empty. A TRIM of one end only is LTRIM or RTRIM.
   */
  enum Function {
    CHAR_LENGTH(1, 1),
    OCTET_LENGTH(1, 1),
    UPPER(1, 1),
    LOWER(1, 1),
    TRIM(1, 2),
    LTRIM(1, 2),
    RTRIM(1, 2),
    LPAD(2, 3),
    RPAD(2, 3),
    CONCAT_WS(3, 100),
    OVERLAY(3, 4),
    SUBSTRING(2, 3),
    POSITION(2, 2),
    ABS(1, 1),
    MOD(2, 2),
    ROUND(1, 2),
    FLOOR(1, 1),
    CEILING(1, 1),
    COALESCE(1, 100),
    NULLIF(2, 2);

    private final int fewest;
    private final int most;

    Function(int fewest, int most) {
      this.fewest = fewest;
      this.most = most;
    }

    boolean accepts(int arguments) {
      return arguments >= fewest && arguments <= most;
    }

    String arity() {
      return fewest == most ? String.valueOf(fewest) : fewest + " to " + most;
    }
  }

  /**
   * What EXTRACT takes out. ISODOW is the day of the week by ISO 8601, 1 for Monday to 7 for
   * Sunday; ISO/IEC 9075-2 has no word for it, this one is that of several engines.
   */
  enum Part {
    YEAR,
    MONTH,
    DAY,
    ISODOW,
    HOUR,
    MINUTE;

    /** Whether it is part of the time of day, else of the date. */
    boolean isOfDay() {
      return this == HOUR || this == MINUTE;
    }
  }

  /** In what is counted what lies between two moments. */
  enum Unit {
    DAY(86_400),
    HOUR(3_600),
    MINUTE(60),
    SECOND(1);

    private final int seconds;

    Unit(int seconds) {
      this.seconds = seconds;
    }

    /** How long it is, in seconds. */
    int seconds() {
      return seconds;
    }
  }
}
