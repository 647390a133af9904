package joiner.joining;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.expression.ValueType;
import joiner.meaning.QuestionScope;
import joiner.model.Question;
import joiner.naming.NamingPolicy;

/** The names that conditions on lines may use: those of the columns, and values left open. */
public final class LineScope implements Scope {
  private final List<String> names;
  private final List<ValueType> types;
  private final QuestionScope question;

  /**
   * The names of a question's columns.
   *
   * @param types of the columns, in their order
   */
  LineScope(Question question, List<ValueType> types, QuestionScope scope) {
    this.names = names(question);
    this.types = types;
    this.question = scope;
  }

  /** A column of a line. */
  record OfLine(int column, String called, ValueType type) implements Reference {
    @Override
    public List<String> path() {
      return List.of(called);
    }
  }

  /** What the columns are called by conditions and by queries, in their order. */
  public static List<String> names(Question question) {
    var names = new ArrayList<String>();
    for (Question.Column column : question.columns()) {
      names.add(NamingPolicy.free(NamingPolicy.nameFor(column.label()), names));
    }
    return names;
  }

  @Override
  public String label() {
    return "the lines of this question";
  }

  @Override
  public Collection<String> names() {
    return Stream.concat(names.stream(), question.names().stream().filter(n -> n.startsWith(":")))
        .toList();
  }

  @Override
  public Optional<Reference> find(String name) {
    if (name.startsWith(":")) {
      return question.find(name);
    }
    for (int i = 0; i < names.size(); i++) {
      if (names.get(i).equalsIgnoreCase(name)) {
        return Optional.of(new OfLine(i, names.get(i), types.get(i)));
      }
    }
    return Optional.empty();
  }
}
