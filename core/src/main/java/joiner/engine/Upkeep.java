package joiner.engine;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BinaryOperator;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import joiner.catalog.Trigger;

/**
 * How an engine keeps values that nobody types: by triggers and by defaults with another value each
 * time. Names are given unquoted.
 */
public abstract class Upkeep {
  private final Dialect dialect;

  Upkeep(Dialect dialect) {
    this.dialect = dialect;
  }

  /**
   * A column that is noted again with each change of its row.
   *
   * @param value what is noted, in the engine's spelling
   */
  public record Followed(String column, String value) {}

  /**
   * What is kept when rows of a table change.
   *
   * @param stays columns whose values stay once they are there
   * @param others columns that are none of those followed
   * @param key of the table; empty where it has none
   */
  public record Kept(
      String table,
      List<String> stays,
      List<Followed> followed,
      List<String> others,
      List<String> key) {
    public Kept {
      stays = List.copyOf(stays);
      followed = List.copyOf(followed);
      others = List.copyOf(others);
      key = List.copyOf(key);
    }
  }

  /**
   * A column that is filled with what another row says when its own is made.
   *
   * @param select a query for the value up to its conditions
   * @param keys columns of the first other row, in the engine's spelling
   * @param columns those of the row that refer to them
   */
  public record Copied(String column, String select, List<String> keys, List<String> columns) {
    public Copied {
      keys = List.copyOf(keys);
      columns = List.copyOf(columns);
    }
  }

  /** The triggers that fill columns of new rows; empty: the engine does not. */
  public abstract List<Trigger> copying(
      String name, String table, List<Copied> copied, List<String> key);

  /** A query for the value of one row, which is called so. */
  final String query(Copied copied, String row) {
    var conditions = new ArrayList<String>();
    for (int i = 0; i < copied.keys().size(); i++) {
      conditions.add(copied.keys().get(i) + " = " + row + "." + name(copied.columns().get(i)));
    }
    return copied.select() + " WHERE " + String.join(" AND ", conditions);
  }

  /** The triggers that keep what changes must not, or must, touch. */
  public abstract List<Trigger> keeping(String name, Kept kept);

  /**
   * Rows each of which must have another that refers to it, at the end of every transaction.
   *
   * @param parent the table of those rows
   * @param row columns by which a row of it is found again
   * @param keys columns that are referred to, in the order of {@code columns}
   * @param child the table of the rows that refer
   * @param columns by which they do
   * @param says what is demanded, for whoever breaks it
   */
  public record Needed(
      String parent,
      List<String> row,
      List<String> keys,
      String child,
      List<String> columns,
      String says) {
    public Needed {
      row = List.copyOf(row);
      keys = List.copyOf(keys);
      columns = List.copyOf(columns);
    }
  }

  /**
   * The triggers that refuse a transaction after which a row would be without one that refers to
   * it; empty: the engine looks at no transaction as a whole.
   *
   * @param coming the name of the trigger on rows that must have others
   * @param leaving the name of that on rows that refer
   */
  public List<Trigger> needing(String coming, String leaving, Needed needed) {
    return List.of();
  }

  /**
   * Rows that are held still before something is looked at, so that whoever changes them waits.
   *
   * @param rows a query for them; empty: all of the table
   * @param alone whether others may not hold them at the same time
   */
  public record Held(Optional<String> rows, String table, boolean alone) {}

  /**
   * What must not be found after a row of a table was changed.
   *
   * @param events which changes are looked at
   * @param columns changes of others are not looked at
   * @param held what is held still before
   * @param found a query that finds something where the change is refused
   * @param says what is demanded, for whoever breaks it
   * @param atEnd whether it only has to be so once the transaction ends
   * @param before whether the row is meant as it was before the change
   */
  public record Looked(
      String table,
      Set<Trigger.Event> events,
      List<String> columns,
      List<Held> held,
      String found,
      String says,
      boolean atEnd,
      boolean before) {
    /** What stands in queries for the row that was changed. */
    public static final String ROW = "\uE000";

    /** What stands in queries for the row as it was before it was changed. */
    public static final String BEFORE = "\uE001";

    public Looked {
      events = EnumSet.copyOf(events);
      columns = List.copyOf(columns);
      held = List.copyOf(held);
    }

    /** A look at the row as it is after the change. */
    public Looked(
        String table,
        Set<Trigger.Event> events,
        List<String> columns,
        List<Held> held,
        String found,
        String says,
        boolean atEnd) {
      this(table, events, columns, held, found, says, atEnd, false);
    }

    /** The same look at the row as it was, when it goes or changes. */
    public Looked ofRowBefore() {
      Set<Trigger.Event> going = EnumSet.of(Trigger.Event.DELETE, Trigger.Event.UPDATE);
      return new Looked(table, going, columns, held, found, says, atEnd, true);
    }

    private String ofRow(String query) {
      return query.replace(ROW, before ? "OLD" : "NEW").replace(BEFORE, "OLD");
    }
  }

  /** Whether triggers can look once a transaction ends. */
  public boolean looksAtTheEnd() {
    return false;
  }

  /**
   * The triggers that look at what a change leaves behind; empty: the engine has none.
   *
   * @param names gives a name for each
   */
  public List<Trigger> looking(Supplier<String> names, Looked look) {
    return List.of();
  }

  /** What is found, of the row that was changed. */
  static String found(Looked look) {
    return look.ofRow(look.found());
  }

  /** What is selected of rows that are held, from their first table on. */
  static String heldFrom(Looked look, Held held, String all) {
    return held.rows().map(sql -> look.ofRow(sql.substring("SELECT 1".length()))).orElse(all);
  }

  /** The events in their order. */
  static List<Trigger.Event> inOrder(Looked look) {
    return look.events().stream().sorted().toList();
  }

  /**
   * Lines that fill columns which have no value yet.
   *
   * @param row what the new row is called
   * @param filled a statement that fills a column, given as it is called, with the value of a query
   */
  final List<String> filling(List<Copied> copied, String row, BinaryOperator<String> filled) {
    var lines = new ArrayList<String>();
    for (Copied one : copied) {
      String column = row + "." + name(one.column());
      lines.add("IF " + column + " IS NULL THEN");
      lines.add("  " + filled.apply(column, query(one, row)) + ";");
      lines.add("END IF;");
    }
    return lines;
  }

  final String name(String name) {
    return dialect.name(name);
  }

  final String names(List<String> names) {
    return dialect.names(names);
  }

  final String text(String text) {
    return Dialect.quoted(text);
  }

  final String stayed(Kept kept, String column) {
    return text(column + " of " + kept.table() + " stays as it was entered");
  }

  static Trigger before(
      Trigger.Event event, String name, String table, String definition, Optional<String> calls) {
    return new Trigger(name, table, Trigger.Timing.BEFORE, EnumSet.of(event), definition, calls);
  }

  static Trigger after(Trigger.Event event, String name, String table, String definition) {
    return new Trigger(
        name, table, Trigger.Timing.AFTER, EnumSet.of(event), definition, Optional.empty());
  }

  final String lines(List<String> lines) {
    return lines.stream().map(line -> "  " + line + "\n").collect(Collectors.joining());
  }
}
