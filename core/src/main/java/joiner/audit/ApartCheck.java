package joiner.audit;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.model.Demand;
import joiner.model.Table;

/**
 * Looks for periods that begin before one that began earlier has ended, and for those that leave a
 * gap behind the ones before. Keeps the periods, puts them in order and goes along them once, so
 * that it takes n log n of n rows.
 */
final class ApartCheck implements RowsCheck {
  private final Table table;
  private final Constraint.Apart apart;
  private final List<TypedCells> per;
  private final TypedCells from;
  private final TypedCells until;
  private final Map<List<Value>, List<Period>> periods = new HashMap<>();
  private final Broken broken;

  /**
   * When something goes on.
   *
   * @param until NULL: for ever
   */
  private record Period(int row, Value from, Value until) {}

  ApartCheck(
      Table table,
      Constraint.Apart apart,
      List<TypedCells> per,
      TypedCells from,
      TypedCells until,
      int mostRows) {
    this.table = table;
    this.apart = apart;
    this.per = List.copyOf(per);
    this.from = from;
    this.until = until;
    this.broken = new Broken(mostRows);
  }

  @Override
  public void check(int rows, int first) {
    for (int i = 0; i < rows; i++) {
      int row = i;
      List<Value> key = per.stream().map(field -> field.value(row)).toList();
      var period = new Period(first + i, from.value(i), until.value(i));
      if (counts(period) && key.stream().noneMatch(Value.Null.class::isInstance)) {
        periods.computeIfAbsent(key, k -> new ArrayList<>()).add(period);
      }
    }
  }

  private boolean counts(Period period) {
    if (period.from instanceof Value.Null) {
      return false;
    }
    if (period.until instanceof Value.Null) {
      return true;
    }
    int order = Evaluator.order(period.from, period.until);
    return apart.periods().closed() ? order <= 0 : order < 0;
  }

  @Override
  public KnownAudit.Found found() {
    periods.values().forEach(this::along);
    return RuleCheck.found(table, apart.fields(), apart.rule(), broken);
  }

  private void along(List<Period> all) {
    Demand.Apart demand = apart.periods();
    all.sort(Comparator.comparing(Period::from, Evaluator::order).thenComparing(Period::row));
    Value reached = all.getFirst().until;
    for (Period period : all.subList(1, all.size())) {
      int order = reached instanceof Value.Null ? -1 : Evaluator.order(period.from, reached);
      boolean overlaps = demand.closed() ? order <= 0 : order < 0;
      boolean gap =
          demand.gapless()
              && !overlaps
              && Evaluator.order(period.from, demand.closed() ? next(reached) : reached) > 0;
      if (overlaps || gap) {
        broken.add(period.row);
      }
      reached = later(reached, period.until);
    }
  }

  private static Value later(Value one, Value other) {
    return one instanceof Value.Null
            || !(other instanceof Value.Null) && Evaluator.order(one, other) >= 0
        ? one
        : other;
  }

  /** The first that does not belong to a period any more. */
  private static Value next(Value last) {
    return switch (last) {
      case Value.Date day -> new Value.Date(day.date().plusDays(1));
      case Value.Num number -> new Value.Num(number.number().add(BigDecimal.ONE), number.whole());
      default -> throw new IllegalArgumentException("there is no next of " + last);
    };
  }
}
