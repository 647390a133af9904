package joiner.ddl;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogChanges;
import joiner.catalog.Exclusion;
import joiner.catalog.Surroundings;
import joiner.catalog.TableChange;
import joiner.catalog.Trigger;
import joiner.catalog.View;
import joiner.engine.Dialect;

/**
 * The views and triggers that a design makes, while its tables change: they go first and are made
 * anew in the end, unless nothing changes at all.
 */
final class OwnSurroundings {
  private final Surroundings before;
  private final Surroundings after;
  private final Surroundings there;
  private final Dialect dialect;
  private final boolean touched;

  /**
   * Those of two schemas.
   *
   * @param there what stands around the tables of the database, these among it
   */
  OwnSurroundings(
      Catalog before, Catalog after, Surroundings there, CatalogChanges changes, Dialect dialect) {
    this.before = before.around();
    this.after = after.around();
    this.there = there;
    this.dialect = dialect;
    this.touched =
        !this.before.equals(this.after)
            || !changes.dropped().isEmpty()
            || changes.kept().stream().anyMatch(TableChange::isOfSubstance)
            || changes.kept().stream().anyMatch(TableChange::isRenamed);
  }

  /** What stands there beside them. */
  Surroundings others() {
    Set<String> views = stored(before.views().stream().map(View::name));
    Set<String> triggers = stored(before.triggers().stream().map(Trigger::name));
    Set<String> exclusions = stored(before.exclusions().stream().map(Exclusion::name));
    return new Surroundings(
        there.views().stream().filter(view -> !views.contains(view.name())).toList(),
        there.triggers().stream().filter(t -> !triggers.contains(t.name())).toList(),
        there.exclusions().stream().filter(e -> !exclusions.contains(e.name())).toList(),
        there.grants());
  }

  private Set<String> stored(Stream<String> names) {
    return names.map(dialect.identifiers()::stored).collect(Collectors.toSet());
  }

  /** Whether something of a name is there, or nothing is known of what is. */
  private boolean isThere(String name, Stream<String> found) {
    return there.equals(Surroundings.NONE)
        || found.anyMatch(dialect.identifiers().stored(name)::equals);
  }

  private boolean isThere(Trigger trigger) {
    return isThere(trigger.name(), there.triggers().stream().map(Trigger::name));
  }

  private boolean isThere(Exclusion exclusion) {
    return isThere(exclusion.name(), there.exclusions().stream().map(Exclusion::name));
  }

  private boolean isThere(View view) {
    return isThere(view.name(), there.views().stream().map(View::name));
  }

  /** Statements with those around them that let the views go and make them. */
  List<Statement> around(List<Statement> statements) {
    if (!touched) {
      return statements;
    }
    var first = new ArrayList<Statement>();
    before.triggers().stream()
        .filter(this::isThere)
        .flatMap(trigger -> dialect.alter().dropTrigger(trigger).stream())
        .forEach(sql -> first.add(Statement.of(Statement.Section.RELEASES, "", sql)));
    before.exclusions().stream()
        .filter(this::isThere)
        .forEach(
            exclusion ->
                first.add(
                    Statement.of(
                        Statement.Section.RELEASES, "", dialect.alter().dropExclusion(exclusion))));
    before.views().stream()
        .filter(this::isThere)
        .forEach(
            view ->
                first.add(
                    Statement.of(Statement.Section.RELEASES, "", dialect.alter().dropView(view))));
    first.addAll(Definitions.all(after, dialect));
    return Stream.concat(first.stream(), statements.stream())
        .sorted(Comparator.comparing(Statement::section))
        .toList();
  }
}
