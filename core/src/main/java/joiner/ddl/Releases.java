package joiner.ddl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.catalog.TableChange;
import joiner.catalog.TableChange.ColumnChange;
import joiner.engine.Alter;
import joiner.engine.Dialect;

/**
 * What has to let go before tables are changed where they are, and is declared again or anew in the
 * end: what itself changes, what a change of a column would meet, and foreign keys to either.
 */
final class Releases {
  private final ChangePlan plan;
  private final Dialect dialect;
  private final Alter alter;
  private final List<String> statements = new ArrayList<>();

  /** By the names of tables before. */
  private final Map<String, Released> released = new HashMap<>();

  private static final class Released {
    final Set<ForeignKey> references = new LinkedHashSet<>();
    final Set<Key> keys = new LinkedHashSet<>();
    final Set<CatalogIndex> indexes = new LinkedHashSet<>();
    boolean checks;
  }

  Releases(ChangePlan plan) {
    this.plan = plan;
    this.dialect = plan.dialect();
    this.alter = plan.alter();
    plan.changes().before().tables().forEach(t -> released.put(t.name(), new Released()));
    plan.inPlace().forEach(this::releaseParts);
    if (plan.declaresLater()) {
      plan.inPlace().forEach(this::releaseReferences);
    }
    release();
  }

  /** The statements that let go. */
  List<String> statements() {
    return statements;
  }

  /** What is declared in the end on a table that was changed where it is. */
  List<Statement> declared(TableChange change) {
    CatalogTable table = change.after();
    var definitions = new Definitions(dialect, table);
    Released own = released.get(change.before().name());
    var declared = new ArrayList<Statement>();
    again(change, Releases::primaryKey, own.keys)
        .forEach(key -> declared.add(definitions.adding(key, true)));
    again(change, CatalogTable::uniqueKeys, own.keys)
        .forEach(key -> declared.add(definitions.adding(key, false)));
    List<Check> checks = own.checks ? table.checks() : change.come(CatalogTable::checks);
    checks.forEach(check -> declared.add(definitions.adding(check)));
    again(change, CatalogTable::foreignKeys, own.references)
        .forEach(key -> declared.add(definitions.adding(key)));
    again(change, CatalogTable::indexes, own.indexes)
        .forEach(index -> declared.add(definitions.adding(index)));
    return declared;
  }

  /** Parts after that are new or whose forerunner has let go. */
  private static <T> Set<T> again(
      TableChange change, Function<CatalogTable, List<T>> parts, Set<T> letGo) {
    Set<T> all = new LinkedHashSet<>(change.come(parts));
    List<T> before = parts.apply(change.before());
    for (int i = 0; i < before.size(); i++) {
      T renamed = parts.apply(change.renamed()).get(i);
      if (letGo.contains(before.get(i)) && parts.apply(change.after()).contains(renamed)) {
        all.add(renamed);
      }
    }
    return all;
  }

  /** Keys, indexes and checks that a change of a column would meet. */
  private void releaseParts(TableChange change) {
    var inTheWay = new HashSet<String>();
    for (ColumnChange column : change.changed()) {
      if (alter.standsInTheWay(column)) {
        inTheWay.add(column.after().name());
      }
    }
    Released own = released.get(change.before().name());
    own.checks =
        !inTheWay.isEmpty() || !change.columnsRenamed().isEmpty() || !change.dropped().isEmpty();
    own.keys.addAll(change.gone(CatalogTable::uniqueKeys));
    own.keys.addAll(change.gone(Releases::primaryKey));
    own.indexes.addAll(change.gone(CatalogTable::indexes));
    Map<String, String> now = change.columns();
    keys(change.before()).stream()
        .filter(key -> meets(key.columns(), inTheWay, now))
        .forEach(own.keys::add);
    change.before().indexes().stream()
        .filter(index -> meets(index.columns(), inTheWay, now))
        .forEach(own.indexes::add);
    change.before().foreignKeys().stream()
        .filter(key -> meets(key.columns(), inTheWay, now))
        .forEach(own.references::add);
    own.references.addAll(change.gone(CatalogTable::foreignKeys));
  }

  private static boolean meets(
      List<String> columns, Set<String> inTheWay, Map<String, String> now) {
    return columns.stream().anyMatch(column -> inTheWay.contains(now.getOrDefault(column, "")));
  }

  /** The primary key as a list of one or none. */
  static List<Key> primaryKey(CatalogTable table) {
    return table.primaryKey().stream().toList();
  }

  private static List<Key> keys(CatalogTable table) {
    var keys = new ArrayList<>(table.uniqueKeys());
    table.primaryKey().ifPresent(keys::add);
    return keys;
  }

  /** Foreign keys to what goes, is made anew or lets go of the columns they refer to. */
  private void releaseReferences(TableChange change) {
    Released own = released.get(change.before().name());
    var letGo = new ArrayList<List<String>>();
    own.keys.forEach(key -> letGo.add(key.columns()));
    own.indexes.forEach(index -> letGo.add(index.columns()));
    for (ForeignKey key : change.before().foreignKeys()) {
      if (!plan.stays(key.parent())
          || letGo.stream().anyMatch(columns -> alter.leansOn(key, columns))
          || released.get(key.parent()).keys.stream().anyMatch(k -> serves(k, key))) {
        own.references.add(key);
      }
    }
  }

  private static boolean serves(Key key, ForeignKey reference) {
    return Set.copyOf(key.columns()).equals(Set.copyOf(reference.parentColumns()));
  }

  /** Takes away what lets go, references first; tables that go let go of each other too. */
  private void release() {
    if (plan.declaresLater()) {
      for (CatalogTable table : plan.changes().before().tables()) {
        boolean whole = !plan.stays(table.name());
        table.foreignKeys().stream()
            .filter(key -> whole || released.get(table.name()).references.contains(key))
            .flatMap(key -> alter.dropReference(table.name(), key).stream())
            .forEach(statements::add);
      }
    }
    for (TableChange change : plan.inPlace()) {
      CatalogTable table = change.before();
      Released own = released.get(table.name());
      var goes = new HashSet<>(change.gone(CatalogTable::checks));
      for (Check check : table.checks()) {
        if (own.checks || goes.contains(check)) {
          statements.add(alter.dropCheck(table.name(), check.name()));
        }
      }
      own.indexes.forEach(i -> statements.add(alter.dropIndex(table.name(), i.name())));
      own.keys.forEach(key -> drop(table, key));
    }
  }

  private void drop(CatalogTable table, Key key) {
    boolean primary = table.primaryKey().filter(key::equals).isPresent();
    boolean index = !primary && new Definitions(dialect, table).isIndex(key);
    statements.add(
        index
            ? alter.dropIndex(table.name(), key.name())
            : alter.dropKey(table.name(), key, primary));
  }
}
