package joiner.reasoning;

import com.microsoft.z3.BoolExpr;
import com.microsoft.z3.Context;
import com.microsoft.z3.Expr;
import com.microsoft.z3.IntExpr;
import com.microsoft.z3.IntNum;
import com.microsoft.z3.Model;
import com.microsoft.z3.Params;
import com.microsoft.z3.RatNum;
import com.microsoft.z3.Solver;
import com.microsoft.z3.Status;
import java.math.BigDecimal;
import java.math.MathContext;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Rule;
import joiner.reasoning.Understood.Verdict;
import joiner.shape.TextPattern;

/**
 * The rules of one table before the solver. What it says is impossible holds whatever it has no
 * words for ({@link Translation}); each row it finds is tried by the evaluator before it is shown.
 */
final class TableReasoning {
  /** So many rows are tried until one is what the solver says of it. */
  private static final int MOST_TRIED = 12;

  private static final int MOST_WITNESSES = 3;

  /** For so many of the things that are read telling values are looked for. */
  private static final int MOST_PREFERRED = 4;

  /** After so many questions that took too long no more is asked to find better rows. */
  private static final int MOST_UNANSWERED = 3;

  private static final Pattern CODED = Pattern.compile("\\\\u\\{([0-9a-fA-F]+)}");

  private final Context z3;
  private final Logic logic;
  private final TableMeaning meaning;
  private final Evaluator evaluator;
  private final Translation translation;
  private final Solver solver;
  private final List<Known> rules = new ArrayList<>();
  private final LocalDateTime now;

  /** How many questions about a rule took too long. */
  private int unanswered;

  /** That it is now, for rows that are shown. */
  private final BoolExpr today;

  /** A rule with what the solver is told of it. */
  private record Known(Rule rule, Expression tree, Term term, BoolExpr passes) {}

  TableReasoning(Context z3, TableMeaning meaning, Clock clock, Duration patience) {
    this.z3 = z3;
    this.logic = new Logic(z3);
    this.meaning = meaning;
    Instant instant = clock.instant();
    this.evaluator = new Evaluator(Clock.fixed(instant, clock.getZone()));
    this.translation = new Translation(logic, meaning);
    this.solver = z3.mkSolver();
    Params params = z3.mkParams();
    params.add("timeout", (int) patience.toMillis());
    params.add("random_seed", 1);
    solver.setParameters(params);
    for (Constraint.Holds holds : meaning.rules()) {
      if (holds.condition() instanceof Checked.Sound sound) {
        Term term = translation.of(sound.tree());
        BoolExpr passes = logic.and(logic.not(term.fails()), logic.or(term.isNull(), term.truth()));
        rules.add(new Known(holds.rule(), sound.tree(), term, passes));
      }
    }
    List<Reference> read = List.copyOf(translation.read().keySet());
    read.forEach(this::constrain);
    translation.kinds().forEach(kind -> solver.add(kind));
    this.now = LocalDateTime.ofInstant(instant, clock.getZone());
    this.today = translation.isNow(now);
  }

  /** Tells what a field that is read must be like. */
  private void constrain(Reference reference) {
    if (reference instanceof OwnField own) {
      Term term = translation.read(reference);
      for (Constraint.OfField constraint : meaning.constraintsOf(own.field())) {
        said(constraint, term)
            .ifPresent(
                says ->
                    solver.add(
                        constraint instanceof Constraint.Required
                            ? says
                            : logic.or(term.isNull(), says)));
      }
    }
  }

  private Optional<BoolExpr> said(Constraint.OfField constraint, Term term) {
    return switch (constraint) {
      case Constraint.Required required -> Optional.of(logic.not(term.isNull()));
      case Constraint.Longest longest -> length(term, longest.most(), true);
      case Constraint.Shortest shortest -> length(term, shortest.least(), false);
      case Constraint.Listed listed ->
          Optional.of(
              logic.or(
                  listed.values().stream()
                      .map(
                          value ->
                              logic.same(
                                  term.value(), translation.literal(value, Kind.NULL).value()))
                      .toList()));
      case Constraint.Bounded bounded ->
          bounded.bound().map(bound -> bounded(bounded, bound, term));
      case Constraint.Matching(String name, Field field, String text, TextPattern.Read read) ->
          read instanceof TextPattern.Read.Understood(TextPattern pattern)
              ? pattern
                  .tree()
                  .flatMap(new Patterns(logic)::of)
                  .map(regular -> z3.mkInRe(Logic.text(term.value()), regular))
              : Optional.empty();
      case Constraint.OfType type -> Optional.empty();
      case Constraint.MostBytes most -> Optional.empty();
      case Constraint.OfMedia media -> Optional.empty();
    };
  }

  private Optional<BoolExpr> length(Term term, int bound, boolean most) {
    if (!term.value().getSort().equals(z3.getStringSort())) {
      return Optional.empty();
    }
    IntExpr length = z3.mkLength(Logic.text(term.value()));
    return Optional.of(
        most ? logic.atMost(length, logic.whole(bound)) : logic.atMost(logic.whole(bound), length));
  }

  private BoolExpr bounded(Constraint.Bounded bounded, Value bound, Term term) {
    Expr<?> limit = translation.literal(bound, Kind.NULL).value();
    return switch (bounded.side()) {
      case AT_LEAST -> logic.atMost(limit, term.value());
      case AT_MOST -> logic.atMost(term.value(), limit);
      case GREATER -> logic.less(limit, term.value());
      case LESS -> logic.less(term.value(), limit);
      case EQUAL -> logic.same(term.value(), limit);
      case NOT_EQUAL -> logic.not(logic.same(term.value(), limit));
    };
  }

  List<Understood> rules() {
    Set<Known> clashing = clashing();
    return rules.stream().map(known -> understood(known, clashing)).toList();
  }

  private Status check(BoolExpr... all) {
    Status status = solver.check(all);
    unanswered += status == Status.UNKNOWN ? 1 : 0;
    return status;
  }

  private Understood understood(Known known, Set<Known> clashing) {
    unanswered = 0;
    BoolExpr refused = logic.not(known.passes);
    Status passing = check(known.passes);
    Status failing = check(refused);
    if (passing == Status.UNSATISFIABLE) {
      return found(known, Verdict.NEVER, List.of());
    }
    if (failing == Status.UNSATISFIABLE) {
      return found(known, Verdict.ALWAYS, List.of());
    }
    List<Known> others = rules.stream().filter(other -> other != known).toList();
    if (clashing.contains(known)) {
      return found(known, Verdict.CONTRADICTS, clashing.stream().filter(o -> o != known).toList());
    }
    boolean possible = check(passes(others)) != Status.UNSATISFIABLE;
    if (possible && checkWith(refused, others) == Status.UNSATISFIABLE) {
      return found(known, Verdict.IMPLIED, fewest(refused, others));
    }
    return found(known, Verdict.FINE, List.of());
  }

  /** The fewest rules that cannot be kept together, each of which can be kept; empty: all can. */
  private Set<Known> clashing() {
    List<Known> keepable =
        rules.stream().filter(known -> check(known.passes) != Status.UNSATISFIABLE).toList();
    return check(passes(keepable)) == Status.UNSATISFIABLE
        ? new LinkedHashSet<>(fewest(logic.yes(), keepable))
        : Set.of();
  }

  private static BoolExpr[] passes(List<Known> all) {
    return all.stream().map(Known::passes).toArray(BoolExpr[]::new);
  }

  private Status checkWith(BoolExpr one, List<Known> others) {
    return check(
        Stream.concat(Stream.of(one), others.stream().map(Known::passes)).toArray(BoolExpr[]::new));
  }

  /** Rules that are impossible together with something, none of which can be left out. */
  private List<Known> fewest(BoolExpr with, List<Known> all) {
    var left = new ArrayList<>(all);
    for (Known one : all) {
      var without = new ArrayList<>(left);
      without.remove(one);
      if (checkWith(with, without) == Status.UNSATISFIABLE) {
        left = without;
      }
    }
    return left;
  }

  private Understood found(Known known, Verdict verdict, List<Known> by) {
    List<Witness> passes =
        verdict == Verdict.NEVER ? List.of() : witnesses(known, known.passes, true);
    List<Witness> fails =
        verdict == Verdict.ALWAYS ? List.of() : witnesses(known, logic.not(known.passes), false);
    boolean shown =
        (verdict == Verdict.NEVER || !passes.isEmpty())
            && (verdict == Verdict.ALWAYS || !fails.isEmpty());
    Verdict sure = verdict == Verdict.FINE && !shown ? Verdict.UNDECIDED : verdict;
    return new Understood(
        known.rule,
        sure,
        by.stream().map(Known::rule).toList(),
        passes,
        fails,
        verdict == Verdict.NEVER || verdict == Verdict.ALWAYS ? List.of() : notes(known));
  }

  /** What follows for fields and defaults where the rule is kept. */
  private List<String> notes(Known known) {
    var notes = new ArrayList<String>();
    if (check(known.passes, logic.not(known.term.isNull())) == Status.UNSATISFIABLE) {
      notes.add("It is true of no row; rows pass only where it is unknown.");
    }
    for (Reference reference : known.tree.reads()) {
      if (reference instanceof OwnField own && meaning.computed(own.field()).isEmpty()) {
        ofField(known, meaning.table().field(own.field()), notes);
      }
    }
    return notes;
  }

  private void ofField(Known known, Field field, List<String> notes) {
    Term term = translation.read(OwnField.of(field));
    boolean required = meaning.table().isRequired(field.id());
    if (!required && check(known.passes, term.isNull()) == Status.UNSATISFIABLE) {
      notes.add("It makes " + field.label() + " required.");
    }
    if (check(known.passes, logic.not(term.isNull())) == Status.UNSATISFIABLE) {
      notes.add("It lets " + field.label() + " have no value.");
    }
    defaultOf(field.id())
        .filter(value -> !(value instanceof Value.Null))
        .map(value -> is(term, value))
        .filter(usual -> check(known.passes, usual, today) == Status.UNSATISFIABLE)
        .ifPresent(usual -> notes.add("It refuses the default of " + field.label() + "."));
  }

  private Optional<Value> defaultOf(FieldId field) {
    try {
      return meaning.defaultOf(field).orElse(null) instanceof Checked.Sound sound
          ? Optional.of(evaluator.evaluate(sound.tree(), reference -> Value.NULL))
          : Optional.empty();
    } catch (EvaluationException never) {
      return Optional.empty();
    }
  }

  private BoolExpr is(Term term, Value value) {
    if (value instanceof Value.Null) {
      return term.isNull();
    }
    Expr<?> literal = translation.literal(value, Kind.NULL).value();
    boolean comparable =
        literal.getSort().equals(term.value().getSort())
            || literal.isReal() && term.value().isInt()
            || literal.isInt() && term.value().isReal();
    return comparable
        ? logic.and(logic.not(term.isNull()), logic.same(term.value(), literal))
        : logic.no();
  }

  /** Telling rows first: one at the values the rule names, some with a value missing, another. */
  private List<Witness> witnesses(Known known, BoolExpr wanted, boolean pass) {
    List<Reference> read =
        known.tree.reads().stream()
            .filter(r -> !(r instanceof OwnField own) || meaning.computed(own.field()).isEmpty())
            .toList();
    var found = new LinkedHashSet<Witness>();
    Candidates candidates = Candidates.of(known.tree, meaning, now);
    List<BoolExpr> base = List.of(wanted, today);
    row(known, read, whole(base, read, candidates, false), pass).ifPresent(found::add);
    for (Reference reference : read.stream().limit(MOST_PREFERRED).toList()) {
      var without = new ArrayList<>(base);
      without.add(translation.read(reference).isNull());
      if (found.size() < MOST_WITNESSES - 1 && isPossible(without)) {
        for (Reference other : read.stream().limit(MOST_PREFERRED).toList()) {
          prefer(without, wishes(other, candidates));
        }
        row(known, read, without, pass).ifPresent(found::add);
      }
    }
    row(known, read, whole(base, read, candidates, true), pass).ifPresent(found::add);
    if (found.isEmpty()) {
      row(known, read, new ArrayList<>(base), pass).ifPresent(found::add);
    }
    return found.stream().limit(MOST_WITNESSES).toList();
  }

  private boolean isPossible(List<BoolExpr> all) {
    return check(all.toArray(BoolExpr[]::new)) == Status.SATISFIABLE;
  }

  private List<BoolExpr> wishes(Reference reference, Candidates candidates) {
    Term term = translation.read(reference);
    return candidates.of(reference).stream().map(value -> is(term, value)).toList();
  }

  /** A row that has a value everywhere, as far as it can: the first that is named, or the last. */
  private List<BoolExpr> whole(
      List<BoolExpr> base, List<Reference> read, Candidates candidates, boolean last) {
    var fixed = new ArrayList<>(base);
    for (Reference reference : read.stream().limit(MOST_PREFERRED).toList()) {
      List<BoolExpr> wishes = wishes(reference, candidates);
      prefer(fixed, last ? wishes.reversed() : wishes);
      prefer(fixed, List.of(logic.not(translation.read(reference).isNull())));
    }
    return fixed;
  }

  /** Adds the first of some wishes that can be had. */
  private void prefer(List<BoolExpr> fixed, List<BoolExpr> wishes) {
    for (BoolExpr wish : unanswered < MOST_UNANSWERED ? wishes : List.<BoolExpr>of()) {
      var tried = new ArrayList<>(fixed);
      tried.add(wish);
      if (check(tried.toArray(BoolExpr[]::new)) == Status.SATISFIABLE) {
        fixed.add(wish);
        return;
      }
    }
  }

  /** A row of that sort which the evaluator sees as the solver does. */
  private Optional<Witness> row(
      Known known, List<Reference> read, List<BoolExpr> fixed, boolean pass) {
    for (int i = 0; i < MOST_TRIED && unanswered < MOST_UNANSWERED; i++) {
      if (check(fixed.toArray(BoolExpr[]::new)) != Status.SATISFIABLE) {
        return Optional.empty();
      }
      Model model = solver.getModel();
      Optional<Witness> row = witness(model, read);
      if (row.filter(witness -> isAsSaid(known, witness, pass)).isPresent()) {
        return row;
      }
      fixed.add(logic.not(sameRow(model, read)));
    }
    return Optional.empty();
  }

  private BoolExpr sameRow(Model model, List<Reference> read) {
    return logic.and(
        read.stream()
            .map(translation::read)
            .flatMap(term -> Stream.of(term.isNull(), term.value()))
            .map(expr -> z3.mkEq(expr, model.eval(expr, true)))
            .toArray(BoolExpr[]::new));
  }

  private boolean isAsSaid(Known known, Witness witness, boolean pass) {
    Map<Reference, Value> values = witness.values();
    boolean fits =
        values.entrySet().stream()
            .allMatch(
                entry -> !(entry.getKey() instanceof OwnField own) || fits(own, entry.getValue()));
    return fits && passes(known.tree, values) == pass;
  }

  private boolean fits(OwnField own, Value value) {
    Predicate<Constraint.OfField> kept =
        constraint ->
            switch (constraint) {
              case Constraint.Required required -> !(value instanceof Value.Null);
              case Constraint.OfValue of -> value instanceof Value.Null || of.isKeptBy(value);
              case Constraint.OfType type -> true;
            };
    return meaning.constraintsOf(own.field()).stream().allMatch(kept);
  }

  /** Whether a row passes; one that cannot be worked out does not. */
  private boolean passes(Expression tree, Map<Reference, Value> values) {
    try {
      return !evaluate(tree, values).equals(Value.FALSE);
    } catch (EvaluationException refused) {
      return false;
    }
  }

  private Value evaluate(Expression tree, Map<Reference, Value> values) {
    return evaluator.evaluate(
        tree,
        reference ->
            values.containsKey(reference)
                ? values.get(reference)
                : reference instanceof OwnField own
                        && meaning.computed(own.field()).orElse(null) instanceof Checked.Sound by
                    ? evaluate(by.tree(), values)
                    : Value.NULL);
  }

  /** The values a model has; empty where one is none that Joiner can show. */
  private Optional<Witness> witness(Model model, List<Reference> read) {
    Map<Reference, Value> values = new LinkedHashMap<>();
    var all = new LinkedHashSet<>(read);
    translation.read().keySet().stream()
        .filter(r -> !(r instanceof OwnField own) || meaning.computed(own.field()).isEmpty())
        .forEach(all::add);
    for (Reference reference : all) {
      Term term = translation.read(reference);
      Optional<Value> value =
          model.eval(term.isNull(), true).isTrue()
              ? Optional.of(Value.NULL)
              : value(model.eval(term.value(), true), reference.type().kind());
      if (value.isEmpty()) {
        return Optional.empty();
      }
      if (read.contains(reference)) {
        values.put(reference, value.get());
      }
    }
    return Optional.of(new Witness(values));
  }

  private static Optional<Value> value(Expr<?> of, Kind kind) {
    return switch (kind) {
      case BOOLEAN -> Optional.of(Value.of(of.isTrue()));
      case WHOLE -> Optional.of(new Value.Num(new BigDecimal(((IntNum) of).getBigInteger()), true));
      case NUMBER -> number(of).map(number -> new Value.Num(number, false));
      case TEXT ->
          Optional.of(text(of.getString())).filter(TableReasoning::isReadable).map(Value.Text::new);
      case UUID -> Value.uuid(text(of.getString())).map(value -> value);
      case DATE -> Optional.of(new Value.Date(LocalDate.ofEpochDay(number(of, 1))));
      case TIME -> Optional.of(new Value.Time(LocalTime.ofNanoOfDay(number(of, 1) * 1_000)));
      case DATE_TIME -> Optional.of(new Value.DateTime(moment(number(of, 1))));
      case ZONED -> Optional.of(new Value.Zoned(moment(number(of, 1)).atOffset(ZoneOffset.UTC)));
      case BYTES, INTERVAL, NULL -> Optional.empty();
    };
  }

  private static long number(Expr<?> of, int scale) {
    return ((IntNum) of).getBigInteger().longValueExact() / scale;
  }

  private static LocalDateTime moment(long micros) {
    return LocalDateTime.ofEpochSecond(
        Math.floorDiv(micros, Logic.MICROS),
        (int) Math.floorMod(micros, Logic.MICROS) * 1_000,
        ZoneOffset.UTC);
  }

  private static Optional<BigDecimal> number(Expr<?> of) {
    if (!(of instanceof RatNum ratio)) {
      return Optional.empty();
    }
    try {
      return Optional.of(
          new BigDecimal(ratio.getBigIntNumerator())
              .divide(new BigDecimal(ratio.getBigIntDenominator()), MathContext.UNLIMITED));
    } catch (ArithmeticException endless) {
      return Optional.empty();
    }
  }

  /**
   * Nobody learns from a row of control characters, and not every engine takes it; a text of no
   * character cannot be told from none in a file, nor in Oracle.
   */
  private static boolean isReadable(String text) {
    return !text.isEmpty() && text.codePoints().allMatch(TableReasoning::isReadable);
  }

  private static boolean isReadable(int point) {
    return !Character.isISOControl(point)
        && Character.isDefined(point)
        && Character.getType(point) != Character.SURROGATE;
  }

  /** The solver writes other characters than ASCII by their numbers. */
  private static String text(String written) {
    Matcher coded = CODED.matcher(written);
    var text = new StringBuilder();
    int from = 0;
    while (coded.find()) {
      text.append(written, from, coded.start());
      text.appendCodePoint(Integer.parseInt(coded.group(1), 16));
      from = coded.end();
    }
    return text.append(written.substring(from)).toString();
  }
}
