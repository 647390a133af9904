package joiner.ddl;

import java.util.List;
import joiner.catalog.View;
import joiner.engine.Dialect;
import joiner.engine.Support;
import joiner.joining.Binding;
import joiner.joining.QuestionSql;
import joiner.meaning.Draft;
import joiner.model.Question;
import joiner.model.Table;

/** A question that is kept, as a view. */
final class QuestionView {
  private final Draft draft;
  private final Question question;
  private final Dialect dialect;
  private final ConstraintNames names;

  QuestionView(Draft draft, Question question, Dialect dialect, ConstraintNames names) {
    this.draft = draft;
    this.question = question;
    this.dialect = dialect;
    this.names = names;
  }

  /** Adds the view, or why there is none. */
  void lower(List<View> views, List<Shortfall> shortfalls) {
    switch (Binding.of(draft.design(), draft.meaning(), question)) {
      case Binding.Result.Faulty(var faults) ->
          shortfall("it cannot be asked: " + faults.getFirst().message(), shortfalls);
      case Binding.Result.Sound(var bound) -> {
        switch (QuestionSql.ofView(bound, dialect)) {
          case Support.Kept(String query) -> {
            String name = names.take(question.name());
            views.add(new View(name, false, "CREATE VIEW " + dialect.name(name) + " AS\n" + query));
          }
          case Support.Impossible(String loss) ->
              shortfall(dialect.engine() + " cannot answer it: " + loss + ".", shortfalls);
        }
      }
    }
  }

  private void shortfall(String why, List<Shortfall> shortfalls) {
    question.roles().stream()
        .flatMap(role -> draft.design().find(role.table()).stream())
        .findFirst()
        .or(() -> draft.design().tables().stream().findFirst())
        .map(Table::id)
        .ifPresent(
            table ->
                shortfalls.add(
                    new Shortfall(
                        table, "the question " + question.label(), "it is left out, for " + why)));
  }
}
