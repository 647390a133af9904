package joiner.meaning;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.expression.Width;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.OwnField;
import joiner.model.Question;
import joiner.naming.WordList;

/**
 * The names that formulas of a question may use: each role, and behind it what formulas of its
 * table may use; values left open, with a colon. A field is found without its role where only one
 * role has it.
 */
public final class QuestionScope implements Scope {
  private static final int MOST_NAMED = 4;

  private final Map<String, Scope> roles = new LinkedHashMap<>();

  /** What is left open, by what formulas call it. */
  private final Map<String, AskedValue> open = new LinkedHashMap<>();

  private final String label;

  /** The names of a question over the tables of a design; those of tables that are gone are not. */
  public QuestionScope(Question question, Design design) {
    this("this question", question.roles(), question.parameters(), design);
  }

  /**
   * The names of some roles, whether they are joined or not, and of what is left open, as far as
   * what it is like is among them.
   */
  public QuestionScope(
      String label, List<Question.Role> all, List<Question.Parameter> parameters, Design design) {
    this.label = label;
    for (int i = 0; i < all.size(); i++) {
      int place = i;
      String name = all.get(i).name();
      design
          .find(all.get(i).table())
          .ifPresent(
              table -> roles.put(name, new OfRole(place, name, new TableScope(design, table))));
    }
    for (Question.Parameter parameter : parameters) {
      like(parameter, all, design)
          .ifPresent(like -> open.put(parameter.written(), new AskedValue(parameter, like)));
    }
  }

  private Optional<Field> like(
      Question.Parameter parameter, List<Question.Role> all, Design design) {
    if (!(parameter.like().value(this) instanceof Checked.Sound like)) {
      return Optional.empty();
    }
    return switch (like.tree()) {
      case Expression.FieldRef(AskedField asked, var place) -> field(asked, all, design);
      case Expression tree when like.type().kind() == Kind.WHOLE ->
          Optional.of(number(parameter, new FieldType.WholeNumber(Width.BITS_64)));
      case Expression tree when like.type().kind() == Kind.NUMBER ->
          Optional.of(number(parameter, new FieldType.AnyNumber()));
      default -> Optional.empty();
    };
  }

  private static Field number(Question.Parameter parameter, FieldType type) {
    return Field.of(parameter.name(), parameter.name(), type);
  }

  /** The field that is read, unless a formula of the table stands for it. */
  public static Optional<Field> field(AskedField read, List<Question.Role> all, Design design) {
    return switch (read.of()) {
      case OwnField own ->
          design.find(all.get(read.role()).table()).map(table -> table.field(own.field()));
      case FarField far -> Optional.of(far.end(design));
      default -> Optional.empty();
    };
  }

  @Override
  public String label() {
    return label;
  }

  @Override
  public Collection<String> names() {
    return Stream.concat(
            roles.values().stream()
                .flatMap(role -> role.names().stream())
                .distinct()
                .filter(name -> having(name).size() == 1),
            open.keySet().stream())
        .toList();
  }

  private List<Reference> having(String name) {
    return roles.values().stream().flatMap(role -> role.find(name).stream()).toList();
  }

  @Override
  public Optional<Reference> find(String name) {
    if (open.containsKey(name)) {
      return Optional.of(open.get(name));
    }
    List<Reference> found = having(name);
    return found.size() == 1 ? Optional.of(found.getFirst()) : Optional.empty();
  }

  @Override
  public Optional<String> against(String name) {
    List<String> all = having(name).stream().map(Reference::name).limit(MOST_NAMED).toList();
    return all.size() < 2
        ? Optional.empty()
        : Optional.of("Several tables have " + name + ": write " + WordList.or(all) + ".");
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
