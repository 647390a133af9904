package joiner.joining;

import java.math.BigDecimal;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.Links;
import joiner.meaning.Means;
import joiner.model.Question;

/**
 * Answers questions from the rows of a draft. Time is linear in the combinations of rows that the
 * joins make, and log-linear in the lines. Belongs to one thread.
 */
public final class Answering {
  /** So many combinations are looked at before the question is given up. */
  private static final int MOST_COMBINATIONS = 5_000_000;

  /** After so many it is looked whether somebody still waits. */
  private static final int ASKED_EVERY = 1_000;

  private final Links links;
  private final FormulaRows rows;
  private final Evaluator evaluator;

  /** Answers from the rows of that draft; what formulas say of the clock is said of this one. */
  public Answering(Draft draft, Clock clock) {
    this.rows = new FormulaRows(draft, clock);
    this.links = new Links(draft, rows);
    this.evaluator = new Evaluator(clock);
  }

  /** A question cannot be answered; the message says why and what to do. */
  public static final class Unanswered extends RuntimeException {
    private static final long serialVersionUID = 1;

    Unanswered(String message) {
      super(message, null, false, false);
    }
  }

  /**
   * Answers a question.
   *
   * @throws Unanswered where a value cannot be worked out, or there are too many combinations
   */
  public Answer answer(Bound bound) {
    return answer(bound, () -> false);
  }

  /**
   * Answers a question, as long as somebody waits for it.
   *
   * @param stopped whether nobody does any more
   * @throws Unanswered then, and as above
   */
  public Answer answer(Bound bound, BooleanSupplier stopped) {
    Collection<Line> all;
    List<Line> left;
    try {
      all = lines(bound, stopped).values();
      left = all.stream().filter(line -> isLeft(bound, line)).toList();
    } catch (EvaluationException e) {
      throw new Unanswered("A value cannot be worked out: " + e.getMessage() + ".");
    }
    List<Line> sorted = left.stream().sorted(order(bound)).toList();
    boolean cut =
        bound.question().first().isPresent() && bound.question().first().getAsInt() < sorted.size();
    List<List<Value>> said =
        sorted.stream()
            .limit(bound.question().first().orElse(Integer.MAX_VALUE))
            .map(Line::values)
            .toList();
    List<Line> told = bound.having().isEmpty() ? sorted : List.copyOf(all); // Some left for that.
    return new Answer(bound, said, cut, repeated(bound, told), leftOut(bound));
  }

  /** Whether a line meets the conditions on lines. */
  private boolean isLeft(Bound bound, Line line) {
    return bound.having().stream()
        .allMatch(
            condition ->
                evaluator.evaluate(
                        condition, read -> line.values.get(((LineScope.OfLine) read).column()))
                    == Value.TRUE);
  }

  private Map<List<Object>, Line> lines(Bound bound, BooleanSupplier stopped) {
    var joins = new Joins(bound, links, rows, evaluator);
    List<Integer> apart = bound.apart();
    List<Bound.Shown> shown = bound.shown();
    var watched = new Watched(bound);
    Map<List<Object>, Line> lines = new LinkedHashMap<>();
    if (shown.isEmpty() && apart.isEmpty()) { // All rows make one line, even where there are none.
      lines.put(List.of(), new Line(bound, watched, List.of()));
    }
    boolean all =
        joins.each(
            count -> {
              List<Value> values = shown.stream().map(s -> joins.value(s.of())).toList();
              var key = new ArrayList<Object>(values);
              apart.forEach(role -> key.add(joins.row(role)));
              lines.computeIfAbsent(key, k -> new Line(bound, watched, values)).add(joins);
              return count < MOST_COMBINATIONS
                  && !(count % ASKED_EVERY == 0 && stopped.getAsBoolean());
            });
    if (!all) {
      throw new Unanswered(
          stopped.getAsBoolean()
              ? "It was stopped."
              : "More than five million combinations of rows come of these joins; add a condition,"
                  + " or ask of fewer tables.");
    }
    lines.values().forEach(line -> line.finish(evaluator));
    return lines;
  }

  /** Which columns may count a row twice, by the design. */
  private static final class Watched {
    private final Set<Integer> columns = new HashSet<>();

    Watched(Bound bound) {
      var repetition = new Repetition(bound);
      for (int i = 0; i < bound.columns().size(); i++) {
        if (bound.columns().get(i) instanceof Bound.Folded folded
            && !folded.once()
            && folded.fold().hangsOnRepetition()
            && !repetition.of(folded.role()).isEmpty()) {
          columns.add(i);
        }
      }
    }
  }

  /** A line while it is made. */
  private static final class Line {
    private final Bound bound;
    private final List<Value> shown;
    private final Folding[] folds;
    private final Folding[] once;
    private List<Value> values = List.of();

    Line(Bound bound, Watched watched, List<Value> shown) {
      this.bound = bound;
      this.shown = shown;
      int count = bound.columns().size();
      this.folds = new Folding[count];
      this.once = new Folding[count];
      for (int i = 0; i < count; i++) {
        if (bound.columns().get(i) instanceof Bound.Folded folded) {
          folds[i] = new Folding(folded, folded.once());
          if (watched.columns.contains(i)) {
            once[i] = new Folding(folded, true);
          }
        }
      }
    }

    void add(Joins joins) {
      for (int i = 0; i < folds.length; i++) {
        if (folds[i] != null) {
          folds[i].add(joins);
        }
        if (once[i] != null) {
          once[i].add(joins);
        }
      }
    }

    void finish(Evaluator evaluator) {
      var all = new ArrayList<Value>();
      int next = 0;
      for (int i = 0; i < folds.length; i++) {
        all.add(folds[i] == null ? shown.get(next++) : folds[i].value(evaluator));
      }
      values = List.copyOf(all);
    }

    List<Value> values() {
      return values;
    }
  }

  private Comparator<Line> order(Bound bound) {
    Comparator<Line> order = (one, other) -> 0;
    for (Question.Order by : bound.question().order()) {
      if (by.column() < bound.columns().size()) {
        order = order.thenComparing(by(by.column(), by.descending()));
      }
    }
    for (int i = 0; i < bound.columns().size(); i++) {
      order = order.thenComparing(by(i, false));
    }
    return order;
  }

  /** What has no value comes last, either way. */
  private static Comparator<Line> by(int column, boolean descending) {
    Comparator<Value> values = Evaluator::order;
    Comparator<Value> directed = descending ? values.reversed() : values;
    return (one, other) -> {
      Value left = one.values().get(column);
      Value right = other.values().get(column);
      if (left == Value.NULL || right == Value.NULL) {
        return Boolean.compare(left == Value.NULL, right == Value.NULL);
      }
      return directed.compare(left, right);
    };
  }

  private List<Answer.Repeated> repeated(Bound bound, List<Line> lines) {
    var all = new ArrayList<Answer.Repeated>();
    for (int i = 0; i < bound.columns().size(); i++) {
      int column = i;
      List<Line> different =
          lines.stream()
              .filter(line -> line.once[column] != null)
              .filter(line -> !line.once[column].value(evaluator).equals(line.values.get(column)))
              .toList();
      different.stream()
          .max(Comparator.comparingInt(line -> line.once[column].most()))
          .ifPresent(
              worst ->
                  all.add(
                      new Answer.Repeated(
                          column,
                          worst.once[column].most(),
                          different.size(),
                          worst.values,
                          worst.values.get(column),
                          worst.once[column].value(evaluator))));
    }
    return all;
  }

  /** Rows of a role that have no match where one is asked for, whatever the conditions say. */
  private List<Answer.LeftOut> leftOut(Bound bound) {
    var all = new ArrayList<Answer.LeftOut>();
    for (int i = 1; i < bound.roles().size(); i++) {
      Bound.Joined joined = bound.roles().get(i);
      if (!joined.kept()) {
        int without = without(joined);
        if (without > 0) {
          all.add(new Answer.LeftOut(joined.from(), i, without));
        }
      }
    }
    return all;
  }

  private int without(Bound.Joined joined) {
    var over = joined.over().orElseThrow();
    return (int)
        (joined.down()
            ? Arrays.stream(links.children(over)).filter(c -> c.length == 0).count()
            : IntStream.of(links.parents(over)).filter(p -> p == Links.NONE).count());
  }

  /** What rows come to in one line. */
  private static final class Folding {
    private final Bound.Folded folded;
    private final boolean once;
    private final Map<Integer, Integer> seen = new HashMap<>();
    private final Set<Value> different = new HashSet<>();
    private long count;
    private BigDecimal sum = BigDecimal.ZERO;
    private Optional<Value> extreme = Optional.empty();

    Folding(Bound.Folded folded, boolean once) {
      this.folded = folded;
      this.once = once;
    }

    void add(Joins joins) {
      int row = joins.row(folded.role());
      if (row == Links.NONE || (once && seen.merge(row, 1, Integer::sum) > 1)) {
        return;
      }
      Value value = folded.of().map(joins::value).orElse(Value.TRUE);
      if (value == Value.NULL) {
        return;
      }
      count++;
      switch (folded.fold()) {
        case COUNT -> {}
        case DIFFERENT -> different.add(value);
        case SUM, AVERAGE -> sum = sum.add(((Value.Num) value).number());
        case LEAST -> extreme = Optional.of(extreme.filter(e -> isLess(e, value)).orElse(value));
        case GREATEST -> extreme = Optional.of(extreme.filter(e -> isLess(value, e)).orElse(value));
      }
    }

    private static boolean isLess(Value one, Value other) {
      return Evaluator.order(one, other) < 0;
    }

    int most() {
      return seen.values().stream().max(Integer::compare).orElse(0);
    }

    Value value(Evaluator evaluator) {
      return switch (folded.fold()) {
        case COUNT -> Value.whole(count);
        case DIFFERENT -> Value.whole(different.size());
        case SUM -> count == 0 ? Value.NULL : sum(folded.type().kind());
        case AVERAGE -> count == 0 ? Value.NULL : mean(evaluator);
        case LEAST, GREATEST -> extreme.orElse(Value.NULL);
      };
    }

    private Value sum(Kind kind) {
      boolean whole = kind == Kind.WHOLE;
      if (whole && sum.toBigInteger().bitLength() >= Long.SIZE) {
        throw new EvaluationException("the sum leaves the whole numbers of 64 bits");
      }
      return new Value.Num(sum, whole);
    }

    private Value mean(Evaluator evaluator) {
      var read = new SumAndCount(new Value.Num(sum, false), Value.whole(count));
      return evaluator.evaluate(
          Means.of(SumAndCount.SUM, SumAndCount.COUNT, folded.decimals()), read::value);
    }
  }
}
