package joiner.reasoning;

import com.microsoft.z3.BoolExpr;
import com.microsoft.z3.Context;
import com.microsoft.z3.IntExpr;
import com.microsoft.z3.Model;
import com.microsoft.z3.Params;
import com.microsoft.z3.Solver;
import com.microsoft.z3.Status;
import com.microsoft.z3.Z3Exception;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
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
import joiner.model.RuleId;
import joiner.naming.WordList;
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

  private final Context z3;
  private final Logic logic;
  private final TableMeaning meaning;
  private final Evaluator evaluator;
  private final Translation translation;
  private final Solver solver;
  private final List<Constraint.Ruled> asked;
  private final List<Known> rules = new ArrayList<>();

  /** Which rows the rules on several rows are about. */
  private final Map<RuleId, Term> conditions = new HashMap<>();

  private final LocalDateTime now;

  /** How many questions about a rule took too long. */
  private int unanswered;

  /** That it is now, for rows that are shown. */
  private final BoolExpr today;

  /** A rule with what the solver is told of it. */
  private record Known(Rule rule, Expression tree, Term term, BoolExpr passes) {}

  /**
   * Some rules of a table.
   *
   * @param asked those that say something about each other
   */
  TableReasoning(
      Context z3,
      TableMeaning meaning,
      List<Constraint.Ruled> asked,
      Clock clock,
      Duration patience) {
    this.asked = List.copyOf(asked);
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
    for (Constraint.Ruled ruled : asked) {
      Components.formulas(ruled)
          .forEach(
              sound -> {
                Term term = translation.of(sound.tree());
                if (ruled instanceof Constraint.Holds) {
                  BoolExpr passes =
                      logic.and(logic.not(term.fails()), logic.or(term.isNull(), term.truth()));
                  rules.add(new Known(ruled.rule(), sound.tree(), term, passes));
                } else {
                  conditions.put(ruled.rule().id(), term);
                }
              });
    }
    List<Reference> read = List.copyOf(translation.read().keySet());
    read.forEach(this::constrain);
    translation.kinds().forEach(kind -> solver.add(kind));
    this.now = LocalDateTime.ofInstant(instant, clock.getZone());
    this.today = translation.isNow(now);
  }

  /** Tells what a field that is read must be like. */
  private void constrain(Reference reference) {
    Term term = translation.read(reference);
    for (Constraint.OfField constraint : meaning.constraintsOf(reference)) {
      said(constraint, term)
          .ifPresent(
              says ->
                  solver.add(
                      constraint instanceof Constraint.Required
                          ? says
                          : logic.or(term.isNull(), says)));
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
                      .map(value -> compared(term, Expression.Comparison.EQUAL, value))
                      .toList()));
      case Constraint.Bounded bounded ->
          bounded.bound().map(bound -> compared(term, bounded.side(), bound));
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

  /** How a value that is there compares with one that is written out. */
  private BoolExpr compared(Term term, Expression.Comparison side, Value value) {
    return translation.compared(side, term, translation.literal(value, Kind.NULL)).truth();
  }

  List<Understood> rules() {
    Set<Known> never =
        rules.stream()
            .filter(known -> check(known.passes) == Status.UNSATISFIABLE)
            .collect(Collectors.toCollection(TableReasoning::byIdentity));
    Set<Known> clashing = clashing(rules.stream().filter(known -> !never.contains(known)).toList());
    List<Understood> ofRows =
        rules.stream()
            .map(
                known ->
                    never.contains(known)
                        ? found(known, Verdict.NEVER, List.of())
                        : understood(known, clashing))
            .toList();
    List<Understood> others =
        asked.stream()
            .filter(ruled -> !(ruled instanceof Constraint.Holds))
            .map(this::overRows)
            .toList();
    return Stream.concat(ofRows.stream(), others.stream()).toList();
  }

  /** A row that keeps all conditions, or the fewest that none keeps. */
  Together together() {
    for (Known known : rules) {
      if (check(known.passes) == Status.UNSATISFIABLE) {
        return new Together(Optional.empty(), List.of(known.rule));
      }
    }
    Set<Known> clashing = clashing(rules);
    if (!clashing.isEmpty() || rules.isEmpty()) {
      return new Together(
          Optional.empty(), rules.stream().filter(clashing::contains).map(Known::rule).toList());
    }
    Sought sought = new Sought(passes(rules)).with(today);
    var inputs = new LinkedHashSet<Reference>();
    rules.forEach(known -> inputs(known.tree, inputs));
    List<Reference> read = List.copyOf(inputs);
    for (Known known : rules) {
      Candidates candidates = Candidates.of(known.tree, meaning, now);
      var own = new LinkedHashSet<Reference>();
      inputs(known.tree, own);
      sought = whole(sought, own.stream().limit(MOST_PREFERRED).toList(), candidates, false);
    }
    return new Together(row(rules, read, sought, true), List.of());
  }

  /** What a rule on several rows is worth. */
  private Understood overRows(Constraint.Ruled ruled) {
    Optional<Term> condition = Optional.ofNullable(conditions.get(ruled.rule().id()));
    boolean none =
        condition
            .filter(term -> check(logic.not(term.isNull()), term.truth()) == Status.UNSATISFIABLE)
            .isPresent();
    if (none) {
      return said(
          ruled, Verdict.ALWAYS, "Its condition is true of no row, so that it says nothing.");
    }
    List<FieldId> per =
        switch (ruled) {
          case Constraint.Alone alone -> alone.per();
          case Constraint.Apart apart -> apart.periods().per();
          default -> List.of();
        };
    if (!per.isEmpty() && meaning.table().isUnique(per)) {
      String fields = WordList.and(meaning.table().labelsOf(per));
      return said(
          ruled,
          Verdict.ALWAYS,
          "No two rows have the same " + fields + " anyway, so that it says nothing.");
    }
    return new Understood(ruled.rule(), Verdict.FINE, List.of(), List.of(), List.of(), List.of());
  }

  private static Understood said(Constraint.Ruled ruled, Verdict verdict, String why) {
    var note = new Note(Note.Kind.OTHER, Optional.empty(), why);
    return new Understood(ruled.rule(), verdict, List.of(), List.of(), List.of(), List.of(note));
  }

  private static Set<Known> byIdentity() {
    return Collections.newSetFromMap(new IdentityHashMap<>());
  }

  /** On some conditions on texts the solver gives up with an error, which is no answer either. */
  private Status check(BoolExpr... all) {
    Status status;
    try {
      status = solver.check(all);
    } catch (Z3Exception gaveUp) {
      status = Status.UNKNOWN;
    }
    unanswered += status == Status.UNKNOWN ? 1 : 0;
    return status;
  }

  private Understood understood(Known known, Set<Known> clashing) {
    unanswered = 0;
    BoolExpr refused = logic.not(known.passes);
    if (check(refused) == Status.UNSATISFIABLE) {
      return found(known, Verdict.ALWAYS, List.of());
    }
    List<Known> others = rules.stream().filter(other -> other != known).toList();
    if (clashing.contains(known)) {
      return found(known, Verdict.CONTRADICTS, others.stream().filter(clashing::contains).toList());
    }
    boolean possible = check(passes(others)) != Status.UNSATISFIABLE;
    if (possible && checkWith(refused, others) == Status.UNSATISFIABLE) {
      return found(known, Verdict.IMPLIED, fewest(refused, others));
    }
    return found(known, Verdict.FINE, List.of());
  }

  /**
   * The fewest of some rules that cannot be kept together; empty: all can.
   *
   * @param keepable rules each of which can be kept by itself
   */
  private Set<Known> clashing(List<Known> keepable) {
    Set<Known> clashing = byIdentity();
    if (check(passes(keepable)) == Status.UNSATISFIABLE) {
      clashing.addAll(fewest(logic.yes(), keepable));
    }
    return clashing;
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
    var notes = new ArrayList<Note>();
    if (verdict != Verdict.NEVER && verdict != Verdict.ALWAYS) {
      notes.addAll(notes(known));
    }
    if (verdict == Verdict.IMPLIED
        && by.size() == 1
        && check(known.passes, logic.not(by.getFirst().passes)) == Status.UNSATISFIABLE) {
      String words = "It says the very same as " + by.getFirst().rule.label() + ".";
      notes.add(new Note(Note.Kind.EQUAL, Optional.empty(), words));
    }
    return new Understood(
        known.rule, sure, by.stream().map(Known::rule).toList(), passes, fails, notes);
  }

  /** What follows for fields and defaults where the rule is kept. */
  private List<Note> notes(Known known) {
    var notes = new ArrayList<Note>();
    if (check(known.passes, logic.not(known.term.isNull())) == Status.UNSATISFIABLE) {
      notes.add(
          new Note(
              Note.Kind.NEVER_TRUE,
              Optional.empty(),
              "It is true of no row; rows pass only where it is unknown."));
    }
    for (Reference reference : known.tree.reads()) {
      if (reference instanceof OwnField own && meaning.computed(own.field()).isEmpty()) {
        ofField(known, meaning.table().field(own.field()), notes);
      }
    }
    return notes;
  }

  private void ofField(Known known, Field field, List<Note> notes) {
    Term term = translation.read(OwnField.of(field));
    boolean required = meaning.table().isRequired(field.id());
    if (!required && check(known.passes, term.isNull()) == Status.UNSATISFIABLE) {
      notes.add(note(Note.Kind.REQUIRES, field, "It makes " + field.label() + " required."));
    }
    if (check(known.passes, logic.not(term.isNull())) == Status.UNSATISFIABLE) {
      notes.add(note(Note.Kind.EMPTIES, field, "It lets " + field.label() + " have no value."));
    }
    meaning
        .valueByDefault(field.id(), evaluator)
        .map(value -> is(term, value))
        .filter(usual -> check(known.passes, usual, today) == Status.UNSATISFIABLE)
        .ifPresent(
            usual ->
                notes.add(
                    note(
                        Note.Kind.REFUSES_DEFAULT,
                        field,
                        "It refuses the default of " + field.label() + ".")));
  }

  private static Note note(Note.Kind kind, Field field, String words) {
    return new Note(kind, Optional.of(field.id()), words);
  }

  private BoolExpr is(Term term, Value value) {
    Term literal = translation.literal(value, Kind.NULL);
    return Translation.areOfOneSort(term, literal)
        ? logic.and(logic.not(term.isNull()), logic.same(term.value(), literal.value()))
        : logic.no();
  }

  /** Telling rows first: one at the values the rule names, some with a value missing, another. */
  private List<Witness> witnesses(Known known, BoolExpr wanted, boolean pass) {
    var inputs = new LinkedHashSet<Reference>();
    inputs(known.tree, inputs);
    List<Reference> read = List.copyOf(inputs);
    List<Reference> preferred = read.stream().limit(MOST_PREFERRED).toList();
    var found = new LinkedHashSet<Witness>();
    Candidates candidates = Candidates.of(known.tree, meaning, now);
    Sought base = new Sought(wanted).with(today);
    row(known, read, whole(base, preferred, candidates, false), pass).ifPresent(found::add);
    for (Reference reference : preferred) {
      Sought without = base.with(translation.read(reference).isNull());
      if (found.size() < MOST_WITNESSES - 1 && without.isPossible()) {
        for (Reference other : preferred) {
          without = preferring(without, wishes(other, candidates));
        }
        row(known, read, without, pass).ifPresent(found::add);
      }
    }
    row(known, read, whole(base, preferred, candidates, true), pass).ifPresent(found::add);
    if (found.isEmpty()) {
      row(known, read, base, pass).ifPresent(found::add);
    }
    return found.stream().limit(MOST_WITNESSES).toList();
  }

  /** What a row must have so that a condition can be worked out, what is computed taken apart. */
  private void inputs(Expression tree, Set<Reference> inputs) {
    for (Reference reference : tree.reads()) {
      Optional<Expression> by = formula(reference);
      by.ifPresentOrElse(of -> inputs(of, inputs), () -> inputs.add(reference));
    }
  }

  /** What a field of the row is worked out by. */
  private Optional<Expression> formula(Reference reference) {
    return reference instanceof OwnField own
            && meaning.computed(own.field()).orElse(null) instanceof Checked.Sound by
        ? Optional.of(by.tree())
        : Optional.empty();
  }

  private List<BoolExpr> wishes(Reference reference, Candidates candidates) {
    Term term = translation.read(reference);
    return candidates.of(reference).stream().map(value -> is(term, value)).toList();
  }

  /** A row that has a value everywhere, as far as it can: the first that is named, or the last. */
  private Sought whole(
      Sought base, List<Reference> preferred, Candidates candidates, boolean last) {
    Sought whole = base;
    for (Reference reference : preferred) {
      List<BoolExpr> wishes = wishes(reference, candidates);
      whole = preferring(whole, last ? wishes.reversed() : wishes);
      whole = preferring(whole, List.of(logic.not(translation.read(reference).isNull())));
    }
    return whole;
  }

  /** With the first of some wishes that can be had. */
  private Sought preferring(Sought sought, List<BoolExpr> wishes) {
    if (unanswered >= MOST_UNANSWERED) {
      return sought;
    }
    return wishes.stream().map(sought::with).filter(Sought::isPossible).findFirst().orElse(sought);
  }

  /** What a row must meet, with one that meets it, once one was looked for. */
  private final class Sought {
    private final List<BoolExpr> all;
    private Optional<Model> met = Optional.empty();

    Sought(BoolExpr... all) {
      this.all = List.of(all);
    }

    /** This and more; a row found before is not looked for again where it meets that as well. */
    Sought with(BoolExpr more) {
      var with = new Sought(Stream.concat(all.stream(), Stream.of(more)).toArray(BoolExpr[]::new));
      with.met = met.filter(model -> model.eval(more, true).isTrue());
      return with;
    }

    boolean isPossible() {
      if (met.isEmpty() && check(all.toArray(BoolExpr[]::new)) == Status.SATISFIABLE) {
        met = Optional.of(solver.getModel());
      }
      return met.isPresent();
    }

    Optional<Model> model() {
      return isPossible() ? met : Optional.empty();
    }
  }

  /** A row of that sort which the evaluator sees as the solver does. */
  private Optional<Witness> row(Known known, List<Reference> read, Sought sought, boolean pass) {
    return row(List.of(known), read, sought, pass);
  }

  private Optional<Witness> row(
      List<Known> all, List<Reference> read, Sought sought, boolean pass) {
    Sought left = sought;
    for (int i = 0; i < MOST_TRIED && unanswered < MOST_UNANSWERED; i++) {
      Optional<Model> model = left.model();
      if (model.isEmpty()) {
        return Optional.empty();
      }
      Optional<Witness> row = witness(model.get(), read);
      if (row.filter(witness -> all.stream().allMatch(k -> isAsSaid(k, witness, pass)))
          .isPresent()) {
        return row;
      }
      left = left.with(logic.not(sameRow(model.get(), read)));
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
        values.entrySet().stream().allMatch(entry -> fits(entry.getKey(), entry.getValue()));
    return fits && passes(known.tree, values) == pass;
  }

  private boolean fits(Reference read, Value value) {
    Predicate<Constraint.OfField> kept =
        constraint ->
            switch (constraint) {
              case Constraint.Required required -> !(value instanceof Value.Null);
              case Constraint.OfValue of -> value instanceof Value.Null || of.isKeptBy(value);
              case Constraint.OfType type -> true;
            };
    return meaning.constraintsOf(read).stream().allMatch(kept);
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
            formula(reference)
                .map(by -> evaluate(by, values))
                .orElseGet(() -> Objects.requireNonNull(values.get(reference))));
  }

  /** The values a model has; empty where one is none that Joiner can show. */
  private Optional<Witness> witness(Model model, List<Reference> read) {
    Map<Reference, Value> values = new LinkedHashMap<>();
    for (Reference reference : read) {
      Term term = translation.read(reference);
      Optional<Value> value =
          model.eval(term.isNull(), true).isTrue()
              ? Optional.of(Value.NULL)
              : Solved.value(model.eval(term.value(), true), reference.type().kind());
      if (value.isEmpty()) {
        return Optional.empty();
      }
      values.put(reference, value.get());
    }
    return Optional.of(new Witness(values));
  }
}
