package joiner.meaning;

import java.math.BigDecimal;
import java.util.List;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.expression.Width;
import joiner.model.FieldType;

/**
 * The type and size that hold whatever a formula gives, from the types of the fields it reads. It
 * looks at no value, so a size may be greater than any that comes; it is never smaller.
 */
public final class ResultType {
  /** Digits of a number of which it cannot be told how great it becomes. */
  private static final int MOST_DIGITS = 38;

  /** A sum has room for a million values as great as their field lets them be. */
  private static final int DIGITS_OF_ROWS = 6;

  /** As texts, a date has 10 characters, a time up to 18, a moment up to 29, a UUID 36. */
  private static final int TIME_LENGTH = 18;

  private static final int MOMENT_LENGTH = 29;
  private static final int DATE_LENGTH = 10;

  /** The years 1 to 9999 have some 3,650,000 days. */
  private static final int DAYS_DIGITS = 7;

  private static final int SECONDS_DIGITS = 12;
  private static final int UUID_LENGTH = 36;
  private static final BigDecimal LONGEST = BigDecimal.valueOf(Integer.MAX_VALUE);

  private final Function<Reference, FieldType> types;

  private ResultType(Function<Reference, FieldType> types) {
    this.types = types;
  }

  /** A type, or why there is none. */
  public sealed interface Found {
    /** A type that holds all results. */
    record Type(FieldType type) implements Found {}

    /** No type, for a reason, as a sentence. */
    record None(String why) implements Found {}
  }

  /**
   * The narrowest type that holds all results of a formula.
   *
   * @param types of what the formula reads
   */
  static Found of(Checked.Sound formula, Function<Reference, FieldType> types) {
    return new ResultType(types).of(formula);
  }

  private Found of(Checked.Sound formula) {
    ValueType type = formula.type();
    return switch (type.kind()) {
      case BOOLEAN -> new Found.Type(new FieldType.TrueFalse());
      case WHOLE -> new Found.Type(new FieldType.WholeNumber(type.width()));
      case NUMBER -> number(formula.tree(), type.scale());
      case TEXT -> new Found.Type(text(formula.tree()));
      case DATE -> new Found.Type(new FieldType.Date());
      case TIME -> new Found.Type(new FieldType.Time());
      case DATE_TIME -> new Found.Type(new FieldType.DateTime(false));
      case ZONED -> new Found.Type(new FieldType.DateTime(true));
      case UUID -> new Found.Type(new FieldType.Uuid());
      case BYTES -> new Found.None("A file is not worked out; it is kept where it was taken in.");
      case INTERVAL -> new Found.None("No field holds a length of time.");
      case NULL -> new Found.None("It never has a value.");
    };
  }

  private Found number(Expression tree, int scale) {
    if (scale == ValueType.UNKNOWN) {
      return new Found.None(
          "How many decimals a quotient has differs from engine to engine; say it by ROUND(…, 2).");
    }
    int digits = Math.min(MOST_DIGITS - scale, wholeDigits(tree));
    return new Found.Type(new FieldType.Decimal(Math.max(1, digits + scale), scale));
  }

  private FieldType text(Expression tree) {
    OptionalInt most = length(tree);
    return most.isPresent()
        ? new FieldType.Text(Math.max(1, most.getAsInt()))
        : new FieldType.LongText();
  }

  /** The greatest length of a text, in code points; empty without a limit. */
  private OptionalInt length(Expression tree) {
    return switch (tree) {
      case Expression.Literal(Value.Text(String text), var kind, var place) ->
          OptionalInt.of(text.codePointCount(0, text.length()));
      case Expression.Literal literal -> OptionalInt.of(0);
      case Expression.FieldRef(Reference to, var place) -> types.apply(to).length();
      case Expression.CodePoints e -> length(e.operand());
      case Expression.Concat e -> sum(length(e.left()), length(e.right()));
      case Expression.Case e ->
          most(
              Stream.concat(e.whens().stream().map(Expression.When::result), e.otherwise().stream())
                  .toList());
      case Expression.ToText e -> written(e);
      case Expression.Call e -> called(e);
      default -> OptionalInt.empty();
    };
  }

  private OptionalInt called(Expression.Call e) {
    return switch (e.function()) {
      case UPPER, LOWER, TRIM, LTRIM, RTRIM, NULLIF -> length(e.arguments().getFirst());
      case LPAD, RPAD -> written(e.arguments().get(1));
      case CONCAT_WS -> joined(e.arguments());
      case COALESCE -> most(e.arguments());
      case SUBSTRING -> {
        OptionalInt whole = length(e.arguments().getFirst());
        boolean cut =
            e.arguments().size() > 2
                && e.arguments().get(2)
                    instanceof Expression.Literal(Value.Num num, var kind, var place)
                && num.number().compareTo(LONGEST) <= 0;
        if (!cut) {
          yield whole;
        }
        int most = written(e.arguments().get(2)).orElseThrow();
        yield OptionalInt.of(Math.min(whole.orElse(most), most));
      }
      default -> OptionalInt.empty();
    };
  }

  /** A number that is written out. */
  private static OptionalInt written(Expression number) {
    return number instanceof Expression.Literal(Value.Num num, var kind, var place)
        ? OptionalInt.of(num.number().intValue())
        : OptionalInt.empty();
  }

  private OptionalInt joined(List<Expression> texts) {
    OptionalInt between = length(texts.getFirst());
    OptionalInt all = OptionalInt.of(0);
    for (int i = 1; i < texts.size(); i++) {
      all = sum(all, i == 1 ? length(texts.get(i)) : sum(between, length(texts.get(i))));
    }
    return all;
  }

  private OptionalInt written(Expression.ToText e) {
    return switch (e.kind()) {
      case TEXT -> length(e.operand());
      case WHOLE -> OptionalInt.of(wholeDigits(e.operand()) + 1);
      case NUMBER -> OptionalInt.of(wholeDigits(e.operand()) + 2 + Math.max(0, e.scale()));
      case DATE -> OptionalInt.of(DATE_LENGTH);
      case TIME -> OptionalInt.of(TIME_LENGTH);
      case DATE_TIME -> OptionalInt.of(MOMENT_LENGTH);
      case UUID -> OptionalInt.of(UUID_LENGTH);
      case BOOLEAN, ZONED, INTERVAL, BYTES, NULL -> OptionalInt.empty();
    };
  }

  private static OptionalInt sum(OptionalInt one, OptionalInt other) {
    return one.isPresent() && other.isPresent()
        ? OptionalInt.of(one.getAsInt() + other.getAsInt())
        : OptionalInt.empty();
  }

  private OptionalInt most(List<Expression> parts) {
    OptionalInt most = OptionalInt.of(0);
    for (Expression part : parts) {
      OptionalInt one = length(part);
      most =
          one.isPresent() && most.isPresent()
              ? OptionalInt.of(Math.max(one.getAsInt(), most.getAsInt()))
              : OptionalInt.empty();
    }
    return most;
  }

  /** The greatest number of digits before the point. */
  private int wholeDigits(Expression tree) {
    return switch (tree) {
      case Expression.Literal(Value.Num num, var kind, var place) ->
          Math.max(0, num.number().precision() - num.number().scale());
      case Expression.FieldRef(Reference to, var place) -> digits(types.apply(to));
      case Expression.Negate e -> wholeDigits(e.operand());
      case Expression.Fitting e ->
          Math.min(wholeDigits(e.operand()), String.valueOf(e.width().max()).length());
      case Expression.Compute e -> computed(e);
      case Expression.Case e ->
          Stream.concat(e.whens().stream().map(Expression.When::result), e.otherwise().stream())
              .mapToInt(this::wholeDigits)
              .max()
              .orElse(0);
      case Expression.Call e -> calledDigits(e);
      case Expression.Extract e -> 4;
      case Expression.Elapsed e -> e.kind() == Kind.DATE ? DAYS_DIGITS : SECONDS_DIGITS;
      default -> 0;
    };
  }

  private int computed(Expression.Compute e) {
    int left = wholeDigits(e.left());
    int right = wholeDigits(e.right());
    return Math.min(
        MOST_DIGITS,
        switch (e.operator()) {
          case PLUS, MINUS -> Math.max(left, right) + 1;
          case TIMES -> left + right;
          case DIVIDE -> left + decimals(e.right());
        });
  }

  /** A number below one makes a quotient greater, by as many digits as it may have decimals. */
  private int decimals(Expression tree) {
    return switch (tree) {
      case Expression.Literal(Value.Num num, var kind, var place) ->
          Math.max(0, num.number().scale());
      case Expression.FieldRef(Reference to, var place) ->
          Math.max(0, types.apply(to).valueType().scale());
      case Expression.Fitting fitting -> 0;
      default -> MOST_DIGITS;
    };
  }

  private int calledDigits(Expression.Call e) {
    return switch (e.function()) {
      case ABS, MOD, NULLIF -> wholeDigits(e.arguments().getFirst());
      case ROUND, FLOOR, CEILING -> wholeDigits(e.arguments().getFirst()) + 1;
      case COALESCE -> e.arguments().stream().mapToInt(this::wholeDigits).max().orElse(0);
      default -> String.valueOf(Integer.MAX_VALUE).length();
    };
  }

  private static int digits(FieldType type) {
    return switch (type) {
      case FieldType.Decimal t -> t.precision() - t.scale();
      case FieldType.Money t -> t.precision() - t.scale();
      default ->
          type.kind() == Kind.WHOLE
              ? String.valueOf(type.valueType().width().max()).length()
              : MOST_DIGITS;
    };
  }

  /**
   * Whether a field of a declared type holds all that comes, each as it is worked out: numbers with
   * the same decimals and the same width, so that formulas which read the field mean the same as if
   * they had its formula in them.
   */
  public static boolean holds(FieldType declared, FieldType result) {
    return switch (result) {
      case FieldType.Text text ->
          declared.kind() == Kind.TEXT
              && declared.length().orElse(Integer.MAX_VALUE) >= text.maxLength();
      case FieldType.LongText text -> declared.kind() == Kind.TEXT && declared.length().isEmpty();
      case FieldType.Decimal decimal ->
          declared.kind() == Kind.NUMBER
              && declared.valueType().scale() == decimal.scale()
              && digits(declared) >= digits(decimal);
      case FieldType.WholeNumber whole -> declared.equals(whole);
      default -> declared.equals(result);
    };
  }

  /**
   * What holds a sum of values.
   *
   * @param holds what holds each of them
   */
  public static FieldType sum(FieldType holds, ValueType type) {
    if (type.kind() == Kind.WHOLE) {
      return new FieldType.WholeNumber(Width.BITS_64);
    }
    int digits = holds instanceof FieldType.Decimal d ? d.precision() : MOST_DIGITS;
    return new FieldType.Decimal(Math.min(MOST_DIGITS, digits + DIGITS_OF_ROWS), type.scale());
  }

  /** A declared type, made so wide that it holds a result; another where it cannot. */
  public static FieldType fitted(FieldType declared, FieldType result) {
    if (holds(declared, result)) {
      return declared;
    }
    return switch (result) {
      case FieldType.Text text when declared instanceof FieldType.Sized sized ->
          sized.withMaxLength(text.maxLength());
      case FieldType.Decimal d when declared instanceof FieldType.Money ->
          new FieldType.Money(d.precision(), d.scale());
      default -> result;
    };
  }
}
