package joiner.edit;

import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.QuestionId;

/**
 * Lets a question go that was kept.
 *
 * @param label of the question
 */
public record DropQuestion(QuestionId question, String label) implements Edit {
  @Override
  public String name() {
    return "let go of the question " + label;
  }

  @Override
  public Draft apply(Draft draft) {
    Design design = draft.design();
    return draft.withDesign(
        design.withQuestions(
            design.questions().stream().filter(q -> !q.id().equals(question)).toList()));
  }
}
