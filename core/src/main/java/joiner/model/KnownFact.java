package joiner.model;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import joiner.naming.WordList;

/**
 * What somebody knows of the business, whatever the rows of a table say: some of its fields decide
 * others (a functional dependency), or they do not, though the rows look so.
 *
 * @param determinant fields that decide
 * @param dependents what they decide, or do not; none of the determinant
 * @param holds whether it is so
 */
public record KnownFact(List<FieldId> determinant, List<FieldId> dependents, boolean holds) {
  public KnownFact {
    determinant = List.copyOf(determinant);
    dependents = List.copyOf(dependents);
    var all = new HashSet<>(determinant);
    all.addAll(dependents);
    if (determinant.isEmpty() || dependents.isEmpty()) {
      throw new IllegalArgumentException("a fact has fields that decide and fields decided");
    }
    if (all.size() != determinant.size() + dependents.size()) {
      throw new IllegalArgumentException("a fact has a field twice");
    }
  }

  /** The same of the fields that are there; none where one that decides is gone. */
  Optional<KnownFact> standing(Set<FieldId> there) {
    List<FieldId> left = dependents.stream().filter(there::contains).toList();
    return there.containsAll(determinant) && !left.isEmpty()
        ? Optional.of(new KnownFact(determinant, left, holds))
        : Optional.empty();
  }

  /** The same without what another says something about. */
  Optional<KnownFact> less(KnownFact other) {
    List<FieldId> left = dependents.stream().filter(f -> !other.dependents.contains(f)).toList();
    return left.isEmpty() ? Optional.empty() : Optional.of(new KnownFact(determinant, left, holds));
  }

  /** The same of other fields. */
  public KnownFact under(UnaryOperator<FieldId> other) {
    return new KnownFact(
        determinant.stream().map(other).toList(), dependents.stream().map(other).toList(), holds);
  }

  /** As people say it: “Course decides Minutes”. */
  public String words(Table of) {
    boolean one = determinant.size() == 1;
    String says =
        holds ? (one ? " decides " : " decide ") : one ? " does not decide " : " do not decide ";
    return WordList.and(of.labelsOf(determinant)) + says + WordList.and(of.labelsOf(dependents));
  }

  /** Whether it is about what the same fields decide. */
  public boolean isOf(List<FieldId> fields) {
    return determinant.size() == fields.size() && determinant.containsAll(fields);
  }
}
