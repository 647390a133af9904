package joiner.reasoning;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.OwnField;

/** Values that tell something of a rule: those it names, and those next to them. */
final class Candidates {
  /** So many are tried for one thing that is read. */
  private static final int MOST = 10;

  private final Map<Reference, Set<Value>> named = new HashMap<>();
  private final TableMeaning meaning;
  private final LocalDateTime noon;

  private Candidates(TableMeaning meaning, LocalDateTime now) {
    this.meaning = meaning;
    this.noon = now.toLocalDate().atTime(LocalTime.NOON);
  }

  /**
   * The candidates of a rule.
   *
   * @param now the moment of those that nothing is named for
   */
  static Candidates of(Expression tree, TableMeaning meaning, LocalDateTime now) {
    var candidates = new Candidates(meaning, now);
    candidates.collect(tree);
    return candidates;
  }

  /** What is compared with what is read is named for it. */
  private void collect(Expression e) {
    boolean compares =
        e instanceof Expression.Compare
            || e instanceof Expression.Between
            || e instanceof Expression.In
            || e instanceof Expression.Like
            || e instanceof Expression.Case;
    if (compares) {
      Set<Value> values = new LinkedHashSet<>();
      literals(e, values);
      e.reads().forEach(r -> named.computeIfAbsent(r, x -> new LinkedHashSet<>()).addAll(values));
    }
    e.parts().forEach(this::collect);
  }

  private static void literals(Expression e, Set<Value> values) {
    if (e instanceof Expression.Literal(Value value, Kind kind, var place)
        && !(value instanceof Value.Null)) {
      values.add(value);
    }
    e.parts().forEach(part -> literals(part, values));
  }

  /** Values to be tried for what is read, the ones that are named first. */
  List<Value> of(Reference reference) {
    Stream<Value> here =
        named.getOrDefault(reference, Set.of()).stream().flatMap(value -> around(value, reference));
    return Stream.of(here, limits(reference), usual(reference.type().kind()))
        .flatMap(values -> values)
        .distinct()
        .limit(MOST)
        .toList();
  }

  private Stream<Value> limits(Reference reference) {
    return reference instanceof OwnField own
        ? meaning.constraintsOf(own.field()).stream()
            .flatMap(
                constraint ->
                    switch (constraint) {
                      case Constraint.Listed listed ->
                          listed.values().stream().sorted(Evaluator::order);
                      case Constraint.Bounded bounded -> bounded.bound().stream();
                      default -> Stream.<Value>empty();
                    })
        : Stream.empty();
  }

  private Stream<Value> usual(Kind kind) {
    return switch (kind) {
      case WHOLE -> Stream.of(Value.whole(1), Value.whole(2), Value.whole(0));
      case NUMBER -> Stream.of(new Value.Num(BigDecimal.ONE, false));
      case TEXT -> Stream.of(new Value.Text("a"));
      case BOOLEAN -> Stream.of(Value.TRUE, Value.FALSE);
      case DATE ->
          Stream.of(0, 1, -1).map(days -> new Value.Date(noon.toLocalDate().plusDays(days)));
      case TIME -> Stream.of(0, 1).map(h -> new Value.Time(noon.toLocalTime().plusHours(h)));
      case DATE_TIME ->
          Stream.of(0, 1, -1, 24 * 400).map(h -> new Value.DateTime(noon.plusHours(h)));
      case ZONED ->
          Stream.of(0, 1, -1).map(h -> new Value.Zoned(noon.plusHours(h).atOffset(ZoneOffset.UTC)));
      default -> Stream.of();
    };
  }

  /** A value and its neighbours, as far as the kind has such. */
  private static Stream<Value> around(Value value, Reference reference) {
    Kind kind = reference.type().kind();
    return switch (value) {
      case Value.Num num when kind.isNumeric() -> {
        int scale = kind == Kind.WHOLE ? 0 : Math.max(0, reference.type().scale());
        BigDecimal step = BigDecimal.ONE.scaleByPowerOfTen(-scale);
        yield Stream.of(num.number(), num.number().subtract(step), num.number().add(step))
            .filter(number -> kind != Kind.WHOLE || number.stripTrailingZeros().scale() <= 0)
            .map(number -> new Value.Num(number, kind == Kind.WHOLE));
      }
      case Value.Date date when kind == Kind.DATE ->
          Stream.of(
              date,
              new Value.Date(date.date().minusDays(1)),
              new Value.Date(date.date().plusDays(1)));
      case Value.Time time when kind == Kind.TIME ->
          Stream.of(time, new Value.Time(time.time().minusSeconds(1)));
      case Value.DateTime at when kind == Kind.DATE_TIME ->
          Stream.of(at, new Value.DateTime(at.at().minusSeconds(1)));
      case Value.Text text when kind == Kind.TEXT || kind == Kind.UUID -> Stream.of(text);
      default -> Stream.of();
    };
  }
}
