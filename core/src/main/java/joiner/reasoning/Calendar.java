package joiner.reasoning;

import com.microsoft.z3.BoolExpr;
import com.microsoft.z3.IntExpr;
import joiner.expression.Expression;

/**
 * What a day or a moment says, from its number of days since 1970: the proleptic Gregorian calendar
 * by whole divisions (Howard Hinnant, "chrono-Compatible Low-Level Date Algorithms", 2021). Days
 * lie in the years 1 to 9999.
 */
final class Calendar {
  private final Logic logic;

  Calendar(Logic logic) {
    this.logic = logic;
  }

  /** A part of a date. */
  IntExpr part(Expression.Part part, IntExpr days) {
    if (part == Expression.Part.ISODOW) { // 1970 began on a Thursday.
      IntExpr since = logic.plus(days, logic.whole(3));
      return logic.plus(logic.z3().mkMod(since, logic.whole(7)), logic.whole(1));
    }
    IntExpr shifted = logic.plus(days, logic.whole(719_468));
    IntExpr era = logic.floorDivided(shifted, 146_097);
    IntExpr ofEra = logic.minus(shifted, logic.times(146_097, era));
    IntExpr years =
        logic.floorDivided(
            logic.minus(
                logic.plus(
                    logic.minus(ofEra, logic.floorDivided(ofEra, 1_460)),
                    logic.floorDivided(ofEra, 36_524)),
                logic.floorDivided(ofEra, 146_096)),
            365);
    IntExpr before =
        logic.minus(
            logic.plus(logic.times(365, years), logic.floorDivided(years, 4)),
            logic.floorDivided(years, 100));
    IntExpr ofYear = logic.minus(ofEra, before); // The year begins in March.
    IntExpr month = logic.floorDivided(logic.plus(logic.times(5, ofYear), logic.whole(2)), 153);
    BoolExpr late = logic.less(month, logic.whole(10));
    IntExpr usual =
        (IntExpr)
            logic.either(
                late, logic.plus(month, logic.whole(3)), logic.minus(month, logic.whole(9)));
    return switch (part) {
      case MONTH -> usual;
      case DAY ->
          logic.plus(
              logic.minus(
                  ofYear,
                  logic.floorDivided(logic.plus(logic.times(153, month), logic.whole(2)), 5)),
              logic.whole(1));
      case YEAR ->
          logic.plus(
              years,
              logic.times(400, era),
              (IntExpr) logic.either(late, logic.whole(0), logic.whole(1)));
      case ISODOW, HOUR, MINUTE -> throw new IllegalArgumentException(part + " is no such part");
    };
  }
}
