package joiner.ddl;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import joiner.catalog.CatalogChanges;
import joiner.catalog.CatalogTable;
import joiner.catalog.Column;
import joiner.catalog.Exclusion;
import joiner.catalog.Grant;
import joiner.catalog.Sequence;
import joiner.catalog.Surroundings;
import joiner.catalog.TableChange;
import joiner.catalog.TableChange.ColumnChange;
import joiner.catalog.Trigger;
import joiner.catalog.View;
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
  private final ChangePlan plan;
  private final Dialect dialect;
  private final Alter alter;
  private final CatalogChanges changes;
  private final Surroundings there;
  private final List<Statement> statements = new ArrayList<>();
  private final Map<Trigger, String> lost = new LinkedHashMap<>();

  /**
   * Changes to print.
   *
   * @param there what stands around the tables, under the names that the engine stores
   */
  ChangeWriter(CatalogChanges changes, Surroundings there, Dialect dialect) {
    this.there = there;
    this.plan = new ChangePlan(changes, dialect);
    this.dialect = dialect;
    this.alter = plan.alter();
    this.changes = changes;
  }

  /** The statements, section by section. */
  List<Statement> write() {
    var releases = new Releases(plan);
    List<View> views = meetsViews() ? there.views() : List.of();
    views.reversed().forEach(view -> say(Section.RELEASES, alter.dropView(view)));
    releases.statements().forEach(sql -> say(Section.RELEASES, sql));
    plan.aside().forEach((table, aside) -> say(Section.ASIDE, alter.setAside(table, aside)));
    remove();
    rename();
    plan.inPlace().forEach(this::columns);
    make();
    plan.inPlace().forEach(change -> statements.addAll(releases.declared(change)));
    plan.inPlace().forEach(this::describe);
    around(views);
    tidy();
    return statements.stream().sorted(Comparator.comparing(Statement::section)).toList();
  }

  private void say(Section section, String sql) {
    statements.add(Statement.of(section, "", sql));
  }

  /** Children before their parents. */
  private void remove() {
    for (CatalogTable table : changes.before().tables().reversed()) {
      if (!plan.stays(table.name())) {
        say(Section.REMOVALS, "DROP TABLE " + dialect.name(table.name()));
      }
    }
    for (TableChange change : plan.inPlace()) {
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
    for (TableChange change : plan.inPlace()) {
      there.add(change.before().name());
      if (change.isRenamed()) {
        tables.put(change.before().name(), change.after().name());
      }
    }
    new RenameOrder(tables, there)
        .each((from, to) -> say(Section.RENAMES, alter.renameTable(from, to)));
    for (TableChange change : plan.inPlace()) {
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
      Definitions.soFar(sequence).ifPresent(statements::add);
    }
    Map<String, TableChange> again =
        changes.kept().stream()
            .filter(plan::isAnew)
            .collect(Collectors.toMap(change -> change.after().name(), change -> change));
    var made = changes.made().stream().map(CatalogTable::name).collect(Collectors.toSet());
    for (CatalogTable table : changes.after().tables()) {
      Optional<TableChange> change = Optional.ofNullable(again.get(table.name()));
      if (change.isPresent() || made.contains(table.name())) {
        statements.addAll(Definitions.all(table.withReferences(plan.declaresLater()), dialect, ""));
        change.ifPresent(this::putBack);
      }
    }
  }

  private void putBack(TableChange change) {
    String table = change.after().name();
    Map<String, String> was = new HashMap<>();
    change.columns().forEach((before, after) -> was.put(after, before));
    List<ColumnChange> columns =
        change.staying().stream().filter(c -> c.after().generated().isEmpty()).toList();
    Optional<Column> counter =
        columns.stream().map(ColumnChange::after).filter(Column::counts).findFirst();
    if (counter.isPresent()) {
      alter.beforeNumbers(table).forEach(sql -> say(Section.ROWS, sql));
    }
    Map<String, String> values = new LinkedHashMap<>();
    String aside = plan.aside().get(change.before().name());
    for (ColumnChange column : columns) {
      String to = column.after().name();
      String from = dialect.name(aside) + "." + dialect.name(was.get(to));
      values.put(to, alter.carried(column, from));
    }
    alter
        .putBack(new Alter.Return(change.after(), values, aside))
        .forEach(sql -> say(Section.ROWS, sql));
    counter.ifPresent(
        numbers ->
            alter.afterNumbers(table, numbers.name()).forEach(sql -> say(Section.ROWS, sql)));
  }

  private void describe(TableChange change) {
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

  /** Whether views would hinder a change. */
  private boolean meetsViews() {
    return alter.bindsViews()
        && (!plan.aside().isEmpty()
            || !changes.dropped().isEmpty()
            || plan.inPlace().stream()
                .anyMatch(
                    change ->
                        !change.dropped().isEmpty()
                            || change.changed().stream().anyMatch(ColumnChange::ofType)));
  }

  /** What went with tables that were made anew comes back, and views that were in the way. */
  private void around(List<View> views) {
    Map<String, TableChange> anew = new HashMap<>();
    for (TableChange change : changes.kept()) {
      if (plan.isAnew(change)) {
        anew.put(dialect.identifiers().stored(change.before().name()), change);
      }
    }
    var triggers = new ArrayList<Trigger>();
    for (Trigger trigger : there.triggers()) {
      TableChange change = anew.get(trigger.table());
      if (change != null && change.isRenamed()) {
        lost.put(trigger, change.after().name());
      } else if (change != null) {
        triggers.add(trigger);
      }
    }
    List<Exclusion> exclusions =
        there.exclusions().stream()
            .filter(
                e ->
                    Optional.ofNullable(anew.get(e.table()))
                        .filter(c -> !c.isRenamed())
                        .isPresent())
            .toList();
    List<Grant> grants =
        there.grants().stream()
            .filter(grant -> anew.containsKey(grant.on()))
            .map(grant -> grant.on(anew.get(grant.on()).after().name()))
            .toList();
    statements.addAll(
        Definitions.all(new Surroundings(views, triggers, exclusions, grants), dialect));
  }

  /** Triggers that go with their tables, for they call them as they were, and their new names. */
  Map<Trigger, String> lost() {
    return lost;
  }

  private void tidy() {
    plan.aside()
        .values()
        .forEach(aside -> say(Section.TIDYING, "DROP TABLE " + dialect.name(aside)));
    changes
        .sequencesDropped()
        .forEach(sequence -> statements.add(Definitions.drop(sequence, dialect)));
  }
}
