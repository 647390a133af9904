package joiner.finding;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import joiner.edit.DropQuestion;
import joiner.joining.Binding;
import joiner.model.Design;
import joiner.model.Question;
import joiner.model.Table;

/** Every question that is kept can be asked. */
final class QuestionFaulty implements WholeCheck {
  @Override
  public String id() {
    return "question-faulty";
  }

  @Override
  public void run(CheckedDesign design, Consumer<Finding> found) {
    Design of = design.design();
    for (Question question : of.questions()) {
      Optional<Table> about =
          question.roles().stream()
              .flatMap(role -> of.find(role.table()).stream())
              .findFirst()
              .or(() -> of.tables().stream().findFirst());
      if (about.isPresent()
          && Binding.of(of, design.draft().meaning(), question)
              instanceof Binding.Result.Faulty(List<Binding.Fault> faults)) {
        found.accept(
            new Finding(
                id(),
                Severity.WARNING,
                Topic.PROVE,
                about.get().id(),
                Optional.empty(),
                Optional.empty(),
                "The question "
                    + question.label()
                    + " cannot be asked: "
                    + faults.getFirst().message(),
                "It is not shipped as a view, and whoever relies on it gets no answer.",
                List.of(
                    new Remedy(
                        "Let the question go",
                        new DropQuestion(question.id(), question.label())))));
      }
    }
  }
}
