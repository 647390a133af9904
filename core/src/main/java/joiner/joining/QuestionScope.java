package joiner.joining;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.meaning.Meaning;
import joiner.model.Question;

/**
 * The names that formulas of a question may use: each role, and behind it what formulas of its
 * table may use. A field is found without its role where only one role has it.
 */
public final class QuestionScope implements Scope {
  private final Map<String, Scope> roles = new LinkedHashMap<>();

  /** The names of a question over the tables of a design. */
  public QuestionScope(Question question, Meaning meaning) {
    List<Question.Role> all = question.roles();
    for (int i = 0; i < all.size(); i++) {
      Question.Role role = all.get(i);
      roles.put(role.name(), new OfRole(i, role.name(), meaning.of(role.table()).scope()));
    }
  }

  @Override
  public String label() {
    return "this question";
  }

  @Override
  public Collection<String> names() {
    return List.of();
  }

  @Override
  public Optional<Reference> find(String name) {
    List<Reference> found =
        roles.values().stream().flatMap(role -> role.find(name).stream()).toList();
    return found.size() == 1 ? Optional.of(found.getFirst()) : Optional.empty();
  }

  @Override
  public Collection<String> ways() {
    return roles.keySet();
  }

  @Override
  public Optional<Scope> over(String way) {
    return Optional.ofNullable(roles.get(way))
        .or(
            () ->
                roles.entrySet().stream()
                    .filter(role -> role.getKey().equalsIgnoreCase(way))
                    .map(Map.Entry::getValue)
                    .findFirst());
  }

  /** The names of one role's row, or of one it leads to. */
  private record OfRole(int role, String name, Scope of) implements Scope {
    @Override
    public String label() {
      return of.label();
    }

    @Override
    public Collection<String> names() {
      return of.names();
    }

    @Override
    public Optional<Reference> find(String wanted) {
      return of.find(wanted).map(found -> new AskedField(role, name, found));
    }

    @Override
    public Collection<String> ways() {
      return of.ways();
    }

    @Override
    public Optional<Scope> over(String way) {
      return of.over(way).map(further -> new OfRole(role, name, further));
    }
  }
}
