package joiner.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Question;

/** Keeps a question in the design, in the place of the one it was before. */
public record KeepQuestion(Question question) implements Edit {
  @Override
  public String name() {
    return "keep the question " + question.label();
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    if (question.label().isBlank() || question.name().isBlank()) {
      throw new EditRefusedException("Give the question a name.");
    }
    if (question.columns().isEmpty()) {
      throw new EditRefusedException("The question shows nothing yet; name a field to show.");
    }
    boolean taken =
        design.tableNamed(question.name()).isPresent()
            || design.questions().stream()
                .anyMatch(q -> !q.id().equals(question.id()) && q.name().equals(question.name()));
    if (taken) {
      throw new EditRefusedException(
          "There is a table or a question named " + question.name() + "; choose another name.");
    }
    List<Question> all = new ArrayList<>(design.questions());
    boolean there = all.stream().anyMatch(q -> q.id().equals(question.id()));
    if (there) {
      all.replaceAll(q -> q.id().equals(question.id()) ? question : q);
      return draft.withDesign(design.withQuestions(all));
    }
    return draft.withDesign(
        design.withQuestions(Stream.concat(all.stream(), Stream.of(question)).toList()));
  }
}
