package joiner.joining;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Place;
import joiner.expression.Problem;
import joiner.expression.SqlText;
import joiner.meaning.AskedField;
import joiner.meaning.QuestionScope;
import joiner.model.Design;
import joiner.model.Question;

/** What conditions leave open: each such value is like the field it stands against. */
final class OpenValues {
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

  /** The first name with a colon that a question does not leave open yet. */
  static Optional<String> unknown(Question question, Formula formula) {
    return Asking.names(formula)
        .filter(name -> name.startsWith(":"))
        .filter(name -> question.parameters().stream().noneMatch(p -> p.written().equals(name)))
        .findFirst();
  }

  /** Whether a formula waits for a value that is not filled in. */
  static boolean isOpen(Question question, Formula formula) {
    return Asking.names(formula)
        .anyMatch(
            name ->
                question.parameters().stream()
                    .anyMatch(p -> p.written().equals(name) && p.text().isBlank()));
  }

  /** The same with what a condition newly leaves open. */
  Question opened(Question question, Formula formula) throws Asking.Refused {
    Question open = question;
    for (String name : Asking.names(formula).filter(n -> n.startsWith(":")).toList()) {
      String bare = name.substring(1);
      if (open.parameters().stream().noneMatch(p -> p.name().equals(bare))) {
        var parameters = new ArrayList<>(open.parameters());
        parameters.add(open(bare, formula, open));
        open = open.withParameters(parameters);
      }
    }
    return open;
  }

  /** What is left open, like the first field of the condition that it can stand against. */
  private Question.Parameter open(String name, Formula formula, Question question)
      throws Asking.Refused {
    for (List<String> path : formula.names()) {
      if (scope(List.of()).find(path).orElse(null) instanceof AskedField read
          && QuestionScope.field(read, everything, design).isPresent()) {
        var open = new Question.Parameter(name, named(read), "");
        var with = new ArrayList<>(question.parameters());
        with.add(open);
        boolean others =
            Asking.names(formula).anyMatch(n -> n.startsWith(":") && scope(with).find(n).isEmpty());
        if (others || formula.condition(scope(with)) instanceof Checked.Sound) {
          return open;
        }
      }
    }
    if (formula.condition(scope(question.parameters())) instanceof Checked.Faulty(var problems)) {
      for (Problem problem : problems) {
        if (formula.text().charAt(problem.span().start()) != ':') { // Something else is wrong.
          throw new Asking.Refused(problem.message());
        }
      }
    }
    throw new Asking.Refused(
        "It is not seen what :" + name + " is; compare it with a field of the type it has.");
  }

  private static Formula named(AskedField read) {
    return new Formula(SqlText.iso().write(new Expression.Name(read.path(), Place.NOWHERE)));
  }
}
