package joiner.compare;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.catalog.Catalog;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.Exclusion;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.catalog.SqlExpression;
import joiner.catalog.Trigger;
import joiner.catalog.View;
import joiner.engine.Answers;
import joiner.engine.Dialect;
import joiner.model.ReferentialAction;
import joiner.naming.IdentifierRules;

/**
 * Compares what was promised with what the database really holds, element by element.
 *
 * @param counts what was looked at → how much of it was promised and found
 * @param differences each promised element that is missing or different, a sentence each
 */
public record Verification(Map<String, Count> counts, List<String> differences) {
  public Verification {
    counts = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(counts));
    differences = List.copyOf(differences);
  }

  /** How many elements of one sort were promised and how many of them found. */
  public record Count(int promised, int found) {}

  /** Whether everything promised is there. */
  public boolean holds() {
    return differences.isEmpty();
  }

  /**
   * Compares two schemas. Elements that were not promised do not count.
   *
   * @param dialect of the engine that made the promise
   * @param answers of the engine itself
   */
  public static Verification of(Catalog promised, Catalog found, Dialect dialect, Answers answers) {
    IdentifierRules rules = dialect.identifiers();
    var comparison = new Comparison(dialect, answers);
    Map<String, CatalogTable> there = new HashMap<>();
    PromisedNames.in(found, promised, dialect, answers)
        .tables()
        .forEach(table -> there.put(table.name(), table));
    for (CatalogTable table : promised.tables()) {
      Optional<CatalogTable> is = Optional.ofNullable(there.get(rules.stored(table.name())));
      comparison.expect("tables", is.isPresent(), "The table " + table.name() + " is missing.");
      is.ifPresent(other -> comparison.table(table, other));
    }
    Set<String> views = found.around().views().stream().map(View::name).collect(Collectors.toSet());
    for (View view : promised.around().views()) {
      boolean is = views.contains(rules.stored(view.name()));
      comparison.expect("views", is, "The view " + view.name() + " is missing.");
    }
    Set<String> triggers =
        found.around().triggers().stream().map(Trigger::name).collect(Collectors.toSet());
    for (Trigger trigger : promised.around().triggers()) {
      boolean is = triggers.contains(rules.stored(trigger.name()));
      comparison.expect("triggers", is, "The trigger " + trigger.name() + " is missing.");
    }
    Set<String> exclusions =
        found.around().exclusions().stream().map(Exclusion::name).collect(Collectors.toSet());
    for (Exclusion exclusion : promised.around().exclusions()) {
      boolean is = exclusions.contains(rules.stored(exclusion.name()));
      comparison.expect(
          "indexes and constraints of rules",
          is,
          exclusion.table() + " lacks " + exclusion.name() + ".");
    }
    return new Verification(comparison.counts, comparison.differences);
  }

  /** The same with the number of rows of each table compared too. */
  public Verification withRows(Map<String, Integer> promised, Map<String, Integer> found) {
    var all = new Tally();
    all.counts.putAll(counts);
    all.differences.addAll(differences);
    promised.forEach(
        (table, count) ->
            all.expect(
                "tables with all their rows",
                count.equals(found.get(table)),
                table + " should have " + count + " rows and has " + found.get(table) + "."));
    return new Verification(all.counts, all.differences);
  }

  /** Counts what was looked at and keeps what differs. */
  private static class Tally {
    final Map<String, Count> counts = new LinkedHashMap<>();
    final List<String> differences = new ArrayList<>();

    void expect(String sort, boolean there, String difference) {
      Count before = counts.getOrDefault(sort, new Count(0, 0));
      counts.put(sort, new Count(before.promised + 1, before.found + (there ? 1 : 0)));
      if (!there) {
        differences.add(difference);
      }
    }
  }

  private static final class Comparison extends Tally {
    private final IdentifierRules rules;
    private final Dialect dialect;
    private final boolean showsComments;
    private final Answers answers;

    Comparison(Dialect dialect, Answers answers) {
      this.dialect = dialect;
      this.rules = dialect.identifiers();
      this.showsComments = dialect.showsComments();
      this.answers = answers;
    }

    private List<String> stored(List<String> names) {
      return names.stream().map(rules::stored).toList();
    }

    void table(CatalogTable promised, CatalogTable is) {
      String name = promised.name();
      Map<String, Column> columns = new HashMap<>();
      is.columns().forEach(column -> columns.put(column.name(), column));
      for (Column column : promised.columns()) {
        Optional<Column> found = Optional.ofNullable(columns.get(rules.stored(column.name())));
        String path = name + "." + column.name();
        expect("fields", found.isPresent(), "The field " + path + " is missing.");
        found.ifPresent(other -> column(path, column, other));
      }
      keys(promised, is);
      references(promised, is);
      Set<String> checks = is.checks().stream().map(Check::name).collect(Collectors.toSet());
      for (Check check : promised.checks()) {
        boolean there = checks.contains(rules.stored(check.name()));
        expect("checks", there, name + " lacks the check " + check.name() + ".");
      }
      if (!promised.comment().isEmpty() && showsComments) {
        boolean same = promised.comment().equals(is.comment());
        expect("descriptions", same, "The description of " + name + " differs.");
      }
    }

    private void keys(CatalogTable promised, CatalogTable is) {
      String name = promised.name();
      List<String> primary = is.primaryKey().map(Key::columns).orElse(List.of());
      promised
          .primaryKey()
          .ifPresent(
              key ->
                  expect(
                      "keys",
                      stored(key.columns()).equals(primary),
                      name
                          + " should be identified by "
                          + key.columns()
                          + " and is by "
                          + primary
                          + "."));
      // A key that says the same as the primary key is kept by that.
      Set<List<String>> unique = new HashSet<>(List.of(primary));
      is.uniqueKeys().forEach(key -> unique.add(key.columns()));
      for (Key key : promised.uniqueKeys()) {
        boolean there = unique.contains(stored(key.columns()));
        expect("keys", there, name + " lacks the unique key " + key.columns() + ".");
      }
      Set<List<String>> useful = new HashSet<>(unique);
      is.indexes().forEach(index -> useful.add(index.columns()));
      for (CatalogIndex index : promised.indexes()) {
        boolean there = useful.contains(stored(index.columns()));
        expect("indexes", there, name + " lacks the index on " + index.columns() + ".");
      }
    }

    /** A foreign key by what it says, for engines lose or change names. */
    private record Reference(
        Map<String, String> pairs,
        String parent,
        ReferentialAction onDelete,
        ReferentialAction onUpdate) {}

    private static Reference reference(
        ForeignKey key, List<String> columns, String parent, List<String> parentColumns) {
      Map<String, String> pairs = new HashMap<>();
      for (int i = 0; i < columns.size(); i++) {
        pairs.put(columns.get(i), parentColumns.get(i));
      }
      return new Reference(pairs, parent, key.onDelete(), key.onUpdate());
    }

    private void references(CatalogTable promised, CatalogTable is) {
      var found = new ArrayList<Reference>();
      for (ForeignKey key : is.foreignKeys()) {
        found.add(reference(key, key.columns(), key.parent(), key.parentColumns()));
      }
      for (ForeignKey key : promised.foreignKeys()) {
        Reference wanted =
            reference(
                key,
                stored(key.columns()),
                rules.stored(key.parent()),
                stored(key.parentColumns()));
        expect(
            "relationships with their actions",
            found.remove(wanted),
            promised.name() + " lacks the foreign key " + key.name() + " as it was promised.");
      }
    }

    private void column(String path, Column promised, Column is) {
      expect(
          "types",
          promised.type().equals(is.type()),
          path
              + " should be "
              + dialect.spell(promised.type())
              + " and is "
              + dialect.spell(is.type())
              + ".");
      if (promised.generated().isPresent()) {
        boolean computed = is.generated().isPresent();
        expect("computed columns", computed, path + " should be computed and is not.");
      }
      if (promised.required()) {
        expect(
            "required fields",
            is.required() || promised.counts(),
            path + " should be required and may be empty.");
      }
      if (promised.counts()) {
        expect("counters", is.counts(), path + " should count up by itself and does not.");
      } else {
        promised.defaultValue().ifPresent(value -> defaultValue(path, value, is));
      }
      if (!promised.comment().isEmpty() && showsComments) {
        boolean same = promised.comment().equals(is.comment());
        expect("descriptions", same, "The description of " + path + " differs.");
      }
    }

    private void defaultValue(String path, SqlExpression promised, Column is) {
      boolean same =
          is.defaultValue()
              .filter(v -> promised.varies() || answers.haveOneValue(promised, v))
              .isPresent();
      String found = is.defaultValue().map(SqlExpression::sql).orElse("none");
      expect(
          "defaults",
          same,
          path + " should have the default " + promised.sql() + " and has " + found + ".");
    }
  }
}
