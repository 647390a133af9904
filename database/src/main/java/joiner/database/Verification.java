package joiner.database;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import joiner.ddl.Catalog;

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

  /** Compares two catalogs. Elements that were not promised do not count. */
  static Verification of(Catalog promised, Catalog found) {
    var comparison = new Comparison();
    promised
        .tables()
        .forEach(
            (name, table) ->
                comparison.table(name, table, Optional.ofNullable(found.tables().get(name))));
    return new Verification(comparison.counts, comparison.differences);
  }

  /** The same with the number of rows of each table compared too. */
  Verification withRows(Map<String, Integer> promised, Map<String, Integer> found) {
    var comparison = new Comparison();
    comparison.counts.putAll(counts);
    comparison.differences.addAll(differences);
    promised.forEach(
        (table, count) ->
            comparison.expect(
                "tables with all their rows",
                count.equals(found.get(table)),
                table + " should have " + count + " rows and has " + found.get(table) + "."));
    return new Verification(comparison.counts, comparison.differences);
  }

  private static final class Comparison {
    private final Map<String, Count> counts = new LinkedHashMap<>();
    private final List<String> differences = new ArrayList<>();

    void expect(String sort, boolean there, String difference) {
      Count before = counts.getOrDefault(sort, new Count(0, 0));
      counts.put(sort, new Count(before.promised + 1, before.found + (there ? 1 : 0)));
      if (!there) {
        differences.add(difference);
      }
    }

    void table(String name, Catalog.CatalogTable promised, Optional<Catalog.CatalogTable> found) {
      expect("tables", found.isPresent(), "The table " + name + " is missing.");
      if (found.isEmpty()) {
        return;
      }
      Catalog.CatalogTable is = found.get();
      promised
          .columns()
          .forEach(
              (column, wanted) ->
                  column(
                      name + "." + column, wanted, Optional.ofNullable(is.columns().get(column))));
      if (!promised.primaryKey().isEmpty()) {
        expect(
            "keys",
            promised.primaryKey().equals(is.primaryKey()),
            name
                + " should be identified by "
                + promised.primaryKey()
                + " and is by "
                + is.primaryKey()
                + ".");
      }
      all("keys", promised.uniqueKeys(), is.uniqueKeys(), name + " lacks the unique key ");
      all(
          "relationships with their actions",
          promised.references(),
          is.references(),
          name + " lacks the foreign key ");
      all("checks", promised.checks(), is.checks(), name + " lacks the check ");
      Set<List<String>> useful = new HashSet<>(is.indexes());
      useful.addAll(is.uniqueKeys());
      useful.add(is.primaryKey());
      all("indexes", promised.indexes(), useful, name + " lacks the index on ");
      if (!promised.description().isEmpty()) {
        expect(
            "descriptions",
            promised.description().equals(is.description()),
            "The description of " + name + " differs.");
      }
    }

    private void all(String sort, Collection<?> promised, Collection<?> found, String sentence) {
      promised.forEach(element -> expect(sort, found.contains(element), sentence + element + "."));
    }

    private void column(String name, Catalog.Column promised, Optional<Catalog.Column> found) {
      expect("fields", found.isPresent(), "The field " + name + " is missing.");
      if (found.isEmpty()) {
        return;
      }
      Catalog.Column is = found.get();
      expect(
          "types",
          plain(promised.type()).equals(plain(is.type())),
          name + " should be " + promised.type() + " and is " + is.type() + ".");
      if (promised.required()) {
        expect(
            "required fields",
            is.required() || promised.generated(),
            name + " should be required and may be empty.");
      }
      promised
          .defaultText()
          .ifPresent(
              text ->
                  expect(
                      "defaults",
                      is.defaultText()
                          .map(Comparison::value)
                          .filter(value(text)::equals)
                          .isPresent(),
                      name
                          + " should have the default "
                          + text
                          + " and has "
                          + is.defaultText().orElse("none")
                          + "."));
      if (promised.generated()) {
        expect("counters", is.generated(), name + " should count up by itself and does not.");
      }
      if (!promised.description().isEmpty()) {
        expect(
            "descriptions",
            Objects.equals(promised.description(), is.description()),
            "The description of " + name + " differs.");
      }
    }

    private static String plain(String type) {
      return type.toLowerCase(Locale.ROOT).replace(" ", "");
    }

    /** A default without what engines add to it: casts, brackets, words before a quoted text. */
    private static String value(String text) {
      String bare =
          text.replaceAll("::[a-z ]+(\\(\\d+\\))?", "")
              .replaceAll("(?i)\\b(date|time|timestamp|interval) (?=')", "");
      // PostgreSQL gives negative numbers back in quotes.
      return bare.replaceAll("'(-?[0-9.]+)'", "$1")
          .replaceAll("[\\s()]", "")
          .toLowerCase(Locale.ROOT);
    }
  }
}
