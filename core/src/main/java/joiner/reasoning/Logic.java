package joiner.reasoning;

import com.microsoft.z3.ArithExpr;
import com.microsoft.z3.BoolExpr;
import com.microsoft.z3.CharSort;
import com.microsoft.z3.Context;
import com.microsoft.z3.Expr;
import com.microsoft.z3.IntExpr;
import com.microsoft.z3.RealExpr;
import com.microsoft.z3.SeqSort;
import java.math.BigDecimal;
import java.util.List;
import joiner.expression.Kind;

/** Short words for what the solver is told. Times are whole microseconds, dates whole days. */
final class Logic {
  /** In what the solver counts time. */
  static final long MICROS = 1_000_000;

  static final long DAY = 86_400 * MICROS;

  /** The solver's texts have characters up to here. */
  static final int LAST_CHARACTER = 0x2FFFF;

  private final Context z3;

  Logic(Context z3) {
    this.z3 = z3;
  }

  Context z3() {
    return z3;
  }

  BoolExpr yes() {
    return z3.mkTrue();
  }

  BoolExpr no() {
    return z3.mkFalse();
  }

  BoolExpr and(BoolExpr... all) {
    return z3.mkAnd(all);
  }

  BoolExpr or(BoolExpr... all) {
    return z3.mkOr(all);
  }

  BoolExpr or(List<BoolExpr> all) {
    return z3.mkOr(all.toArray(BoolExpr[]::new));
  }

  BoolExpr not(BoolExpr one) {
    return z3.mkNot(one);
  }

  BoolExpr same(Expr<?> one, Expr<?> other) {
    return isReal(one) == isReal(other) ? z3.mkEq(one, other) : z3.mkEq(real(one), real(other));
  }

  BoolExpr less(Expr<?> one, Expr<?> other) {
    return isReal(one) == isReal(other)
        ? z3.mkLt(arith(one), arith(other))
        : z3.mkLt(real(one), real(other));
  }

  BoolExpr atMost(Expr<?> one, Expr<?> other) {
    return not(less(other, one));
  }

  private static boolean isReal(Expr<?> expr) {
    return expr instanceof RealExpr;
  }

  @SuppressWarnings({"unchecked", "rawtypes"})
  static ArithExpr arith(Expr<?> expr) {
    return (ArithExpr) expr;
  }

  RealExpr real(Expr<?> expr) {
    return expr instanceof RealExpr already ? already : z3.mkInt2Real((IntExpr) expr);
  }

  IntExpr whole(long number) {
    return z3.mkInt(number);
  }

  RealExpr number(BigDecimal number) {
    return z3.mkReal(number.toPlainString());
  }

  @SuppressWarnings("unchecked")
  static Expr<SeqSort<CharSort>> text(Expr<?> expr) {
    return (Expr<SeqSort<CharSort>>) expr;
  }

  /** A text written out; the solver reads other characters than ASCII by their numbers. */
  Expr<SeqSort<CharSort>> literal(String text) {
    var written = new StringBuilder();
    text.codePoints()
        .forEach(
            point -> {
              if (point >= ' ' && point < 127 && point != '\\') {
                written.appendCodePoint(point);
              } else {
                written.append("\\u{").append(Integer.toHexString(point)).append('}');
              }
            });
    return z3.mkString(written.toString());
  }

  /** A constant of a kind that nothing is known of. */
  Expr<?> unknown(String name, Kind kind) {
    return switch (kind) {
      case BOOLEAN -> (BoolExpr) z3.mkFreshConst(name, z3.getBoolSort());
      case NUMBER -> (RealExpr) z3.mkFreshConst(name, z3.getRealSort());
      case TEXT, UUID, BYTES -> z3.mkFreshConst(name, z3.getStringSort());
      case WHOLE, DATE, TIME, DATE_TIME, ZONED, INTERVAL, NULL ->
          (IntExpr) z3.mkFreshConst(name, z3.getIntSort());
    };
  }

  Expr<?> either(BoolExpr condition, Expr<?> one, Expr<?> other) {
    boolean mixed = isReal(one) != isReal(other) && one instanceof ArithExpr<?>;
    return mixed ? chosen(condition, real(one), real(other)) : chosen(condition, one, other);
  }

  @SuppressWarnings({"unchecked", "rawtypes"})
  private Expr<?> chosen(BoolExpr condition, Expr one, Expr other) {
    return z3.mkITE(condition, one, other);
  }

  /** Division without a remainder, towards zero; the solver's goes down for what is above zero. */
  IntExpr quotient(IntExpr one, IntExpr other) {
    IntExpr quotient = (IntExpr) z3.mkDiv(absolute(one), absolute(other));
    BoolExpr negative = z3.mkXor(isNegative(one), isNegative(other));
    return (IntExpr) z3.mkITE(negative, z3.mkUnaryMinus(quotient), quotient);
  }

  /** Division by a number above zero, downwards. */
  IntExpr floorDivided(IntExpr one, long by) {
    return (IntExpr) z3.mkDiv(one, whole(by));
  }

  IntExpr absolute(IntExpr one) {
    return (IntExpr) z3.mkITE(isNegative(one), z3.mkUnaryMinus(one), one);
  }

  private BoolExpr isNegative(IntExpr one) {
    return z3.mkLt(one, whole(0));
  }

  IntExpr plus(IntExpr... all) {
    return (IntExpr) z3.mkAdd(all);
  }

  IntExpr minus(IntExpr one, IntExpr other) {
    return (IntExpr) z3.mkSub(one, other);
  }

  IntExpr times(long factor, IntExpr one) {
    return (IntExpr) z3.mkMul(whole(factor), one);
  }
}
