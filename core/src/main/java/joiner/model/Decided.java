package joiner.model;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.dependency.AttributeSet;
import joiner.dependency.Closure;
import joiner.dependency.Dependency;

/** What fields of a table decide, by its keys and by what is known of it. */
public final class Decided {
  private final Table table;
  private final List<FieldId> ids;
  private final Closure closure;

  public Decided(Table table) {
    this.table = table;
    this.ids = table.fieldIds();
    var dependencies = new ArrayList<Dependency>();
    AttributeSet all = AttributeSet.first(ids.size());
    table.keys().forEach(key -> dependencies.add(new Dependency(places(key), all)));
    table.facts().stream()
        .filter(KnownFact::holds)
        .forEach(
            fact ->
                dependencies.add(
                    new Dependency(places(fact.determinant()), places(fact.dependents()))));
    this.closure = new Closure(ids.size(), dependencies);
  }

  private AttributeSet places(Collection<FieldId> fields) {
    return AttributeSet.of(fields.stream().mapToInt(ids::indexOf).toArray());
  }

  /** All fields that those decide, themselves too. */
  public Set<FieldId> by(Collection<FieldId> fields) {
    return closure.of(places(fields)).places().mapToObj(ids::get).collect(Collectors.toSet());
  }

  /** Whether those fields decide all others, so that they identify a row. */
  public boolean identifies(Collection<FieldId> fields) {
    return by(fields).size() == ids.size();
  }

  /** What is known that keeps the table below Boyce–Codd normal form. */
  public List<KnownFact> belowBoyceCodd() {
    return table.facts().stream()
        .filter(fact -> fact.holds() && !identifies(fact.determinant()))
        .toList();
  }
}
