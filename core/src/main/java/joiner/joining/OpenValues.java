package joiner.joining;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Place;
import joiner.expression.Problem;
import joiner.expression.Scope;
import joiner.expression.SqlText;
import joiner.expression.ValueType;
import joiner.meaning.AskedField;
import joiner.meaning.QuestionScope;
import joiner.model.Design;
import joiner.model.Question;

/** What conditions leave open: each such value is like the field or count it stands against. */
final class OpenValues {
  /** Stands for what is no field but a number. */
  private static final Formula A_COUNT = new Formula("0");

  private static final Formula A_NUMBER = new Formula("0.0");

  /** So many values are left open by one condition at most. */
  private static final int MOST_AT_ONCE = 4;

  private final Design design;
  private final List<Question.Role> everything;

  /**
   * Values over a design.
   *
   * @param everything all tables, as conditions may name them
   */
  OpenValues(Design design, List<Question.Role> everything) {
    this.design = design;
    this.everything = everything;
  }

  /** The names that conditions may use where those values are left open. */
  QuestionScope scope(List<Question.Parameter> parameters) {
    return new QuestionScope("this design", everything, parameters, design);
  }

  /** Whether a formula waits for a value that is not filled in. */
  static boolean isOpen(Question question, Formula formula) {
    return Asking.names(formula)
        .anyMatch(
            name ->
                question.parameters().stream()
                    .anyMatch(p -> p.written().equals(name) && p.text().isBlank()));
  }

  /** The same with what a condition on rows newly leaves open, like the fields it names. */
  Question opened(Question question, Formula formula) throws Asking.Refused {
    List<Formula> likes =
        formula.names().stream()
            .flatMap(path -> scope(List.of()).find(path).stream())
            .filter(AskedField.class::isInstance)
            .map(AskedField.class::cast)
            .filter(read -> QuestionScope.field(read, everything, design).isPresent())
            .map(OpenValues::named)
            .distinct()
            .toList();
    return opened(question, formula, likes, this::scope);
  }

  /**
   * The same with what a condition on lines newly leaves open, like the columns it names.
   *
   * @param types of the columns
   */
  Question openedOnLines(Question question, Formula formula, List<ValueType> types)
      throws Asking.Refused {
    List<String> columns = LineScope.names(question);
    List<Formula> likes =
        Asking.names(formula)
            .map(columns::indexOf)
            .filter(place -> place >= 0)
            .map(place -> like(question.columns().get(place)))
            .distinct()
            .toList();
    return opened(question, formula, likes, open -> new LineScope(question, types, scope(open)));
  }

  /** What a value is like that a column is compared with. */
  private static Formula like(Question.Column column) {
    return switch (column) {
      case Question.Shown shown -> shown.of();
      case Question.Folded folded ->
          switch (folded.fold()) {
            case COUNT, DIFFERENT -> A_COUNT;
            case SUM, AVERAGE -> A_NUMBER;
            case LEAST, GREATEST -> folded.of().orElse(A_NUMBER);
          };
    };
  }

  private interface Names {
    Scope with(List<Question.Parameter> open);
  }

  /** Each new name is like one of those things, so that the condition can be read as a whole. */
  private static Question opened(
      Question question, Formula formula, List<Formula> likes, Names names) throws Asking.Refused {
    List<String> fresh =
        Asking.names(formula)
            .filter(name -> name.startsWith(":"))
            .filter(name -> question.parameters().stream().noneMatch(p -> p.written().equals(name)))
            .map(name -> name.substring(1))
            .distinct()
            .toList();
    if (fresh.isEmpty()) {
      return question;
    }
    Optional<List<Question.Parameter>> fitting =
        fresh.size() > MOST_AT_ONCE
            ? Optional.empty()
            : fitting(
                question.parameters(),
                fresh,
                likes,
                open -> formula.condition(names.with(open)) instanceof Checked.Sound);
    if (fitting.isPresent()) {
      return question.withParameters(fitting.get());
    }
    if (formula.condition(names.with(question.parameters()))
        instanceof Checked.Faulty(var problems)) {
      for (Problem problem : problems) {
        if (formula.text().charAt(problem.span().start()) != ':') { // Something else is wrong.
          throw new Asking.Refused(problem.message());
        }
      }
    }
    throw new Asking.Refused(
        "It is not seen what :"
            + fresh.getFirst()
            + " is; compare it with a field or a count of the type it has.");
  }

  /** The first way to take the names for something, name by name, that fits. */
  private static Optional<List<Question.Parameter>> fitting(
      List<Question.Parameter> open,
      List<String> names,
      List<Formula> likes,
      Predicate<List<Question.Parameter>> fits) {
    if (names.isEmpty()) {
      return fits.test(open) ? Optional.of(open) : Optional.empty();
    }
    for (Formula like : likes) {
      var with = new ArrayList<>(open);
      with.add(new Question.Parameter(names.getFirst(), like, ""));
      var all = fitting(with, names.subList(1, names.size()), likes, fits);
      if (all.isPresent()) {
        return all;
      }
    }
    return Optional.empty();
  }

  private static Formula named(AskedField read) {
    return new Formula(SqlText.iso().write(new Expression.Name(read.path(), Place.NOWHERE)));
  }
}
