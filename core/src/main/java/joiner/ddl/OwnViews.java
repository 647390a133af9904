package joiner.ddl;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogChanges;
import joiner.catalog.Surroundings;
import joiner.catalog.TableChange;
import joiner.catalog.View;
import joiner.engine.Dialect;

/**
 * The views that a design makes, while its tables change: they go first and are made anew in the
 * end, unless nothing changes at all.
 */
final class OwnViews {
  private final List<View> before;
  private final List<View> after;
  private final Surroundings there;
  private final Dialect dialect;
  private final boolean touched;

  /**
   * The views of two schemas.
   *
   * @param there what stands around the tables of the database, these views among it
   */
  OwnViews(
      Catalog before, Catalog after, Surroundings there, CatalogChanges changes, Dialect dialect) {
    this.before = before.around().views();
    this.after = after.around().views();
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
    Set<String> own =
        before.stream()
            .map(view -> dialect.identifiers().stored(view.name()))
            .collect(Collectors.toSet());
    return new Surroundings(
        there.views().stream().filter(view -> !own.contains(view.name())).toList(),
        there.triggers(),
        there.grants());
  }

  /** Whether a view is there, or nothing is known of what is. */
  private boolean isThere(View view) {
    String name = dialect.identifiers().stored(view.name());
    return there.equals(Surroundings.NONE)
        || there.views().stream().anyMatch(other -> other.name().equals(name));
  }

  /** Statements with those around them that let the views go and make them. */
  List<Statement> around(List<Statement> statements) {
    if (!touched) {
      return statements;
    }
    var first = new ArrayList<Statement>();
    before.stream()
        .filter(this::isThere)
        .forEach(
            view ->
                first.add(
                    Statement.of(Statement.Section.RELEASES, "", dialect.alter().dropView(view))));
    first.addAll(Definitions.all(new Surroundings(after, List.of(), List.of()), dialect));
    return Stream.concat(first.stream(), statements.stream())
        .sorted(Comparator.comparing(Statement::section))
        .toList();
  }
}
