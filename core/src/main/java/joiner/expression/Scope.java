package joiner.expression;

import java.util.Collection;
import java.util.List;
import java.util.Optional;

/** The names a formula may use, and what they refer to. */
public interface Scope {
  /** A scope without names, as that of a default. */
  Scope EMPTY =
      new Scope() {
        @Override
        public String label() {
          return "";
        }

        @Override
        public Collection<String> names() {
          return List.of();
        }

        @Override
        public Optional<Reference> find(String name) {
          return Optional.empty();
        }
      };

  /** What people call it, as in "There is no field peak in Firing". */
  String label();

  /** All names, in their order. */
  Collection<String> names();

  /** What a name refers to: the one written just so, else one that differs only by case. */
  Optional<Reference> find(String name);

  /** Why a name is not found though something has it; a sentence with what to do. */
  default Optional<String> against(String name) {
    return Optional.empty();
  }

  /** All names that lead to another row, in their order. */
  default Collection<String> ways() {
    return List.of();
  }

  /** The names of the row that a name leads to, such as a parent's; found like others. */
  default Optional<Scope> over(String way) {
    return Optional.empty();
  }

  /** What a path refers to. */
  default Optional<Reference> find(List<String> path) {
    return path.size() == 1
        ? find(path.getFirst())
        : over(path.getFirst()).flatMap(scope -> scope.find(path.subList(1, path.size())));
  }
}
