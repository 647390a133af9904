package joiner.ddl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.catalog.CatalogChanges;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.ForeignKey;
import joiner.catalog.Key;
import joiner.catalog.Sequence;
import joiner.catalog.TableChange;
import joiner.catalog.TableChange.ColumnChange;
import joiner.ddl.Statement.Section;
import joiner.engine.Alter;
import joiner.engine.Dialect;

/**
 * Prints the changes of a schema as the statements that bring a database from one to the other, its
 * rows kept. What depends on something that changes lets go of it first and is declared again in
 * the end, which also looks at the rows anew. A table that an engine cannot change where it is has
 * its rows set aside, is made anew and gets them back. The sections of {@link Statement.Section}
 * are the order in which that is safe: nothing is dropped that something still refers to, nothing
 * is declared before what it refers to is there.
 */
final class ChangeWriter {
  private final Dialect dialect;
  private final Alter alter;
  private final CatalogChanges changes;
  private final List<Statement> statements = new ArrayList<>();

  /** Names before of tables that are made anew. */
  private final Set<String> anew = new LinkedHashSet<>();

  /** Tables that stay, by their names before. */
  private final Map<String, TableChange> kept = new LinkedHashMap<>();

  /** What lets go although it stays: per table before, the names of its constraints. */
  private final Map<String, Released> released = new HashMap<>();

  private static final class Released {
    final Set<ForeignKey> references = new HashSet<>();
    final Set<Key> keys = new HashSet<>();
    final Set<CatalogIndex> indexes = new HashSet<>();
    boolean checks;
  }

  ChangeWriter(CatalogChanges changes, Dialect dialect) {
    this.dialect = dialect;
    this.alter = dialect.alter();
    this.changes = changes;
    changes.kept().forEach(change -> kept.put(change.before().name(), change));
    changes.before().tables().forEach(table -> released.put(table.name(), new Released()));
  }

  /** The statements, section by section. */
  List<Statement> write() {
    decideAnew();
    inPlace().forEach(this::releaseParts);
    inPlace().forEach(this::releaseReferences);
    release();
    setAside();
    remove();
    rename();
    inPlace().forEach(this::columns);
    make();
    inPlace().forEach(this::declare);
    changes.kept().forEach(this::describe);
    tidy();
    return statements;
  }

  private List<TableChange> inPlace() {
    return changes.kept().stream().filter(change -> !isAnew(change)).toList();
  }

  /** Whether foreign keys are declared by themselves; otherwise they come with their table. */
  private boolean declaresLater() {
    return dialect.addsReferences() && !dialect.refersAhead();
  }

  private boolean isAnew(TableChange change) {
    return anew.contains(change.before().name());
  }

  private void say(Section section, String sql) {
    statements.add(Statement.of(section, "", sql));
  }

  /** Tables that the engine cannot change where they are, and what has to go with them. */
  private void decideAnew() {
    for (TableChange change : changes.kept()) {
      if (!alter.inPlace(change)) {
        anew.add(change.before().name());
      }
    }
    if (!alter.takesFamily()) {
      return;
    }
    Map<String, List<String>> children = new HashMap<>();
    for (CatalogTable table : changes.before().tables()) {
      for (ForeignKey key : table.foreignKeys()) {
        children.computeIfAbsent(key.parent(), name -> new ArrayList<>()).add(table.name());
      }
    }
    var open = new ArrayList<>(anew);
    changes.dropped().forEach(table -> open.add(table.name()));
    changes.kept().stream()
        .filter(TableChange::isRenamed)
        .forEach(change -> open.add(change.before().name()));
    while (!open.isEmpty()) {
      for (String child : children.getOrDefault(open.removeLast(), List.of())) {
        if (kept.containsKey(child) && anew.add(child)) {
          open.add(child);
        }
      }
    }
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
    own.keys.addAll(change.gone(ChangeWriter::primaryKey));
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

  private static List<Key> primaryKey(CatalogTable table) {
    return table.primaryKey().stream().toList();
  }

  private static List<Key> keys(CatalogTable table) {
    var keys = new ArrayList<>(table.uniqueKeys());
    table.primaryKey().ifPresent(keys::add);
    return keys;
  }

  /** Foreign keys to what goes, is made anew or lets go of the columns they refer to. */
  private void releaseReferences(TableChange change) {
    if (!declaresLater()) {
      return;
    }
    Released own = released.get(change.before().name());
    var letGo = new ArrayList<List<String>>();
    own.keys.forEach(key -> letGo.add(key.columns()));
    own.indexes.forEach(index -> letGo.add(index.columns()));
    for (ForeignKey key : change.before().foreignKeys()) {
      boolean parentStays = kept.containsKey(key.parent()) && !anew.contains(key.parent());
      if (!parentStays
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
    if (declaresLater()) {
      for (CatalogTable table : changes.before().tables()) {
        boolean whole = !kept.containsKey(table.name()) || anew.contains(table.name());
        table.foreignKeys().stream()
            .filter(key -> whole || released.get(table.name()).references.contains(key))
            .flatMap(key -> alter.dropReference(table.name(), key).stream())
            .forEach(sql -> say(Section.RELEASES, sql));
      }
    }
    for (TableChange change : inPlace()) {
      CatalogTable table = change.before();
      Released own = released.get(table.name());
      var goes = new HashSet<>(change.gone(CatalogTable::checks));
      for (Check check : table.checks()) {
        if (own.checks || goes.contains(check)) {
          say(Section.RELEASES, alter.dropCheck(table.name(), check.name()));
        }
      }
      own.indexes.forEach(i -> say(Section.RELEASES, alter.dropIndex(table.name(), i.name())));
      own.keys.forEach(key -> drop(table, key));
    }
  }

  private void drop(CatalogTable table, Key key) {
    boolean primary = table.primaryKey().filter(key::equals).isPresent();
    Optional<String> sql =
        !primary && new Definitions(dialect, table).isIndex(key)
            ? Optional.of(alter.dropIndex(table.name(), key.name()))
            : alter.dropKey(table.name(), key, primary);
    sql.ifPresent(statement -> say(Section.RELEASES, statement));
  }

  private void setAside() {
    for (String table : anew) {
      say(Section.ASIDE, alter.setAside(table, aside(table)));
    }
  }

  /** A name that no table has, before or after. */
  private String aside(String table) {
    var taken = new HashSet<String>();
    changes.before().tables().forEach(t -> taken.add(t.name().toLowerCase(Locale.ROOT)));
    changes.after().tables().forEach(t -> taken.add(t.name().toLowerCase(Locale.ROOT)));
    int place = 1;
    for (CatalogTable other : changes.before().tables()) {
      while (taken.contains("set_aside_" + place)) {
        place++;
      }
      if (other.name().equals(table)) {
        break;
      }
      place++;
    }
    return "set_aside_" + place;
  }

  /** Children before their parents. */
  private void remove() {
    for (CatalogTable table : changes.before().tables().reversed()) {
      if (!kept.containsKey(table.name()) || anew.contains(table.name())) {
        say(Section.REMOVALS, "DROP TABLE " + dialect.name(table.name()));
      }
    }
    for (TableChange change : inPlace()) {
      for (Column column : change.dropped()) {
        alter
            .dropColumn(change.before().name(), column.name())
            .forEach(sql -> say(Section.REMOVALS, sql));
      }
    }
  }

  private void rename() {
    Map<String, String> tables = new LinkedHashMap<>();
    var there = new HashSet<String>();
    for (TableChange change : inPlace()) {
      there.add(change.before().name());
      if (change.isRenamed()) {
        tables.put(change.before().name(), change.after().name());
      }
    }
    new RenameOrder(tables, there)
        .each((from, to) -> say(Section.RENAMES, alter.renameTable(from, to)));
    for (TableChange change : inPlace()) {
      String table = change.after().name();
      new RenameOrder(change.columnsRenamed(), change.columns().keySet())
          .each((from, to) -> say(Section.RENAMES, alter.renameColumn(table, from, to)));
    }
  }

  private void columns(TableChange change) {
    String table = change.after().name();
    var definitions = new Definitions(dialect, change.after());
    for (ColumnChange column : change.changed()) {
      alter
          .changeColumn(table, column, definitions.column(column.after()))
          .forEach(sql -> say(Section.COLUMNS, sql));
    }
    for (Column column : change.added()) {
      alter
          .addColumn(table, column, definitions.column(column))
          .forEach(sql -> say(Section.COLUMNS, sql));
    }
  }

  /** Tables that come and those made anew, in their order, and the rows of the latter. */
  private void make() {
    for (Sequence sequence : changes.sequencesMade()) {
      statements.add(Definitions.create(sequence, dialect));
    }
    Map<String, TableChange> again =
        changes.kept().stream()
            .filter(this::isAnew)
            .collect(Collectors.toMap(change -> change.after().name(), change -> change));
    var made = changes.made().stream().map(CatalogTable::name).collect(Collectors.toSet());
    for (CatalogTable table : changes.after().tables()) {
      Optional<TableChange> change = Optional.ofNullable(again.get(table.name()));
      if (change.isPresent() || made.contains(table.name())) {
        var definitions = new Definitions(dialect, table.withReferences(declaresLater()));
        statements.add(definitions.create(""));
        change.ifPresent(this::putBack);
        statements.addAll(definitions.lateReferences());
        statements.addAll(definitions.indexes());
        statements.addAll(definitions.comments());
      }
    }
  }

  private void putBack(TableChange change) {
    String table = change.after().name();
    Map<String, String> was = new HashMap<>();
    change.columns().forEach((before, after) -> was.put(after, before));
    List<ColumnChange> columns = change.staying();
    Optional<Column> counter =
        columns.stream().map(ColumnChange::after).filter(Column::counts).findFirst();
    if (counter.isPresent()) {
      alter.beforeReturn(table).forEach(sql -> say(Section.ROWS, sql));
    }
    Map<String, String> values = new LinkedHashMap<>();
    String aside = aside(change.before().name());
    for (ColumnChange column : columns) {
      String to = column.after().name();
      String from = dialect.name(aside) + "." + dialect.name(was.get(to));
      values.put(to, alter.carried(column, from));
    }
    alter
        .putBack(new Alter.Return(change.after(), values, aside))
        .forEach(sql -> say(Section.ROWS, sql));
    alter.afterReturn(table, counter).forEach(sql -> say(Section.ROWS, sql));
  }

  /** What comes, and what has let go. */
  private void declare(TableChange change) {
    CatalogTable table = change.after();
    var definitions = new Definitions(dialect, table);
    Released own = released.get(change.before().name());
    Set<Key> keys = again(change, CatalogTable::uniqueKeys, own.keys);
    again(change, ChangeWriter::primaryKey, own.keys)
        .forEach(key -> statements.add(definitions.adding(key, true)));
    keys.forEach(key -> statements.add(definitions.adding(key, false)));
    List<Check> checks = own.checks ? table.checks() : change.come(CatalogTable::checks);
    checks.forEach(check -> statements.add(definitions.adding(check)));
    again(change, CatalogTable::foreignKeys, own.references)
        .forEach(key -> statements.add(definitions.adding(key)));
    again(change, CatalogTable::indexes, own.indexes)
        .forEach(index -> statements.add(definitions.adding(index)));
  }

  /** Parts after that are new or whose forerunner has let go. */
  private static <T> Set<T> again(
      TableChange change, java.util.function.Function<CatalogTable, List<T>> parts, Set<T> letGo) {
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

  private void describe(TableChange change) {
    if (isAnew(change)) {
      return;
    }
    String table = change.after().name();
    String old = change.before().comment();
    String now = change.after().comment();
    if (!old.equals(now)) {
      alter.describeTable(table, old, now).ifPresent(sql -> say(Section.DESCRIPTIONS, sql));
    }
    for (ColumnChange column : change.changed()) {
      describe(table, column.after().name(), column.before().comment(), column.after().comment());
    }
    change.added().forEach(column -> describe(table, column.name(), "", column.comment()));
  }

  private void describe(String table, String column, String old, String now) {
    if (!old.equals(now)) {
      alter
          .describeColumn(table, column, old, now)
          .ifPresent(sql -> say(Section.DESCRIPTIONS, sql));
    }
  }

  private void tidy() {
    anew.forEach(table -> say(Section.TIDYING, "DROP TABLE " + dialect.name(aside(table))));
    changes
        .sequencesDropped()
        .forEach(s -> say(Section.TIDYING, "DROP SEQUENCE " + dialect.name(s.name())));
  }
}
