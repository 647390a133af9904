package joiner.meaning;

import java.util.List;
import joiner.expression.Reference;
import joiner.expression.ValueType;
import joiner.model.Field;
import joiner.model.Question;

/**
 * A value that a formula of a question leaves open.
 *
 * @param like the field whose type it has
 */
public record AskedValue(Question.Parameter parameter, Field like) implements Reference {
  @Override
  public List<String> path() {
    return List.of(parameter.written());
  }

  @Override
  public ValueType type() {
    return like.type().valueType();
  }
}
