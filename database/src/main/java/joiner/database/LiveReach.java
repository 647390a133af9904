package joiner.database;

import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.ddl.ShippedRows;
import joiner.engine.Dialect;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Formula;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.rows.ValueReader;

/**
 * The rows of a live database that a delete of rows of a table could reach, read without deleting
 * anything: those of the table, what refers to them and, where that goes along, what refers to
 * that; beside them the rows they are told by. What deleting the first ones does among these rows
 * is what it does there.
 *
 * @param draft the design with these rows
 * @param first how many rows of the table were followed; they stand first
 * @param all whether the table has no others
 */
public record LiveReach(Draft draft, int first, boolean all) {
  /** So many rows are taken along before it is given up. */
  private static final int MOST_ROWS = 300_000;

  /** So many keys stand in one query. */
  private static final int KEYS_AT_ONCE = 200;

  /**
   * Reads them.
   *
   * @param where a condition on rows of the table; only those that meet it are followed
   * @param most so many rows of the table are followed
   * @throws TargetRefusedException if it cannot be reached or read, too many rows hang together, or
   *     the condition cannot be asked there
   * @throws CancellationException if the progress says to stop
   */
  public static LiveReach of(
      Draft draft,
      Target target,
      TableId table,
      Optional<Formula> where,
      int most,
      Clock clock,
      Progress progress)
      throws TargetRefusedException {
    String met =
        where.isPresent()
            ? " WHERE " + condition(draft, LiveTarget.dialectOf(target.url()), table, where.get())
            : "";
    LiveReach reach =
        LiveTarget.read(
            target,
            "cannot be asked",
            live -> new Reading(draft, live, clock, progress).from(table, met, most));
    if (reach.draft.rows().count() > MOST_ROWS) {
      throw new TargetRefusedException(
          "More than "
              + Counts.of(MOST_ROWS)
              + " rows hang together there; this is not worked out. Read a part of the database"
              + " into sample rows and ask those.");
    }
    return reach;
  }

  /** A condition on rows of a table as the engine writes it. */
  private static String condition(Draft draft, Dialect dialect, TableId id, Formula where)
      throws TargetRefusedException {
    Table table = draft.design().table(id);
    TableMeaning meaning = draft.meaning().of(table);
    return switch (meaning.written(where.condition(meaning.scope()))) {
      case Checked.Faulty(var problems) ->
          throw new TargetRefusedException(problems.getFirst().message());
      case Checked.Sound sound
          when sound.reads().stream().anyMatch(r -> !(r instanceof OwnField)) ->
          throw new TargetRefusedException(
              "The condition reads other tables; name fields of "
                  + table.label()
                  + " only, or find the rows in Ask.");
      case Checked.Sound sound ->
          switch (dialect.sayCondition(sound.tree())) {
            case Support.Kept(String sql) -> sql;
            case Support.Impossible(String why) -> throw new TargetRefusedException(why + ".");
          };
    };
  }

  /** Rows as they come, each once. */
  private static final class Reading {
    private final Draft draft;
    private final LiveTarget live;
    private final Dialect dialect;
    private final Evaluator evaluator;
    private final Progress progress;
    private final Map<TableId, Set<List<Optional<String>>>> rows = new LinkedHashMap<>();
    private final Map<TableId, Set<List<Optional<String>>>> followed = new HashMap<>();
    private final Deque<Step> ahead = new ArrayDeque<>();
    private int count;

    private record Step(TableId table, List<List<Optional<String>>> rows) {}

    Reading(Draft draft, LiveTarget live, Clock clock, Progress progress) {
      this.draft = draft;
      this.live = live;
      this.dialect = live.dialect();
      this.evaluator = new Evaluator(clock);
      this.progress = progress;
    }

    LiveReach from(TableId id, String where, int most) throws SQLException {
      Table table = draft.design().table(id);
      List<List<Optional<String>>> first =
          RowReading.rows(live, table, where + RowReading.inOrder(dialect, table), most + 1);
      boolean all = first.size() <= most;
      List<List<Optional<String>>> start = first.subList(0, Math.min(most, first.size()));
      follow(id, start);
      int followed = start.size();
      while (!ahead.isEmpty() && count <= MOST_ROWS) {
        Step step = ahead.poll();
        for (Relationship down : draft.design().childrenOf(step.table)) {
          goOn(down);
          var children = children(down, keys(down.parent(), step.rows, down.parentFields()));
          if (down.onDelete() == ReferentialAction.CASCADE) {
            follow(down.child(), children);
          } else {
            take(down.child(), children);
          }
        }
      }
      beside();
      return new LiveReach(draft.withRows(new SampleRows(taken())), followed, all);
    }

    private void goOn(Relationship down) {
      String name = draft.design().table(down.child()).name();
      if (!progress.reached(count, MOST_ROWS, name)) {
        throw new CancellationException("Reading was stopped.");
      }
    }

    /** Takes rows whose own children are looked for, too. */
    private void follow(TableId table, List<List<Optional<String>>> some) {
      take(table, some);
      Set<List<Optional<String>>> known = followed.computeIfAbsent(table, t -> new HashSet<>());
      List<List<Optional<String>>> fresh = some.stream().filter(known::add).toList();
      if (!fresh.isEmpty()) {
        ahead.add(new Step(table, fresh));
      }
    }

    private void take(TableId table, List<List<Optional<String>>> some) {
      Set<List<Optional<String>>> known = rows.computeIfAbsent(table, t -> new LinkedHashSet<>());
      for (List<Optional<String>> row : some) {
        count += known.add(row) ? 1 : 0;
      }
    }

    /**
     * What the reached rows refer to and are told by; the other children of rows that must have
     * one; the rows that references lead to by default.
     */
    private void beside() throws SQLException {
      for (Relationship r : draft.design().relationships()) {
        if (count > MOST_ROWS || !rows.containsKey(r.child())) {
          continue;
        }
        goOn(r);
        var referring = List.copyOf(rows.get(r.child()));
        Set<List<String>> keys = keys(r.child(), referring, r.childFields());
        take(r.parent(), found(r.parent(), r.parentFields(), keys));
        if (r.parentNeedsChild()) {
          take(r.child(), children(r, keys));
        }
        if (r.onDelete() == ReferentialAction.SET_DEFAULT) {
          take(r.parent(), found(r.parent(), r.parentFields(), byDefault(r)));
        }
      }
    }

    private Set<List<String>> byDefault(Relationship r) {
      TableMeaning meaning = draft.meaning().of(r.child());
      List<String> key =
          r.childFields().stream()
              .flatMap(field -> meaning.valueByDefault(field, evaluator).stream())
              .map(Evaluator::show)
              .toList();
      return key.size() == r.childFields().size() ? Set.of(key) : Set.of();
    }

    private List<List<Optional<String>>> children(Relationship down, Set<List<String>> keys)
        throws SQLException {
      return found(down.child(), down.childFields(), keys);
    }

    /** The values of fields in some rows, each combination once; those with a gap refer to none. */
    private Set<List<String>> keys(
        TableId table, List<List<Optional<String>>> some, List<FieldId> fields) {
      List<FieldId> order = fields(table).stream().map(Field::id).toList();
      Set<List<String>> keys = new LinkedHashSet<>();
      for (List<Optional<String>> row : some) {
        List<String> key =
            fields.stream().flatMap(field -> row.get(order.indexOf(field)).stream()).toList();
        if (key.size() == fields.size()) {
          keys.add(key);
        }
      }
      return keys;
    }

    private List<Field> fields(TableId table) {
      return ShippedRows.fields(draft.design().table(table));
    }

    /** The rows of a table that have one of the keys. */
    private List<List<Optional<String>>> found(
        TableId id, List<FieldId> fields, Set<List<String>> keys) throws SQLException {
      Table table = draft.design().table(id);
      var all = new ArrayList<List<Optional<String>>>();
      List<List<String>> list = List.copyOf(keys);
      for (int from = 0; from < list.size(); from += KEYS_AT_ONCE) {
        var some = list.subList(from, Math.min(from + KEYS_AT_ONCE, list.size()));
        all.addAll(
            RowReading.rows(live, table, " WHERE " + have(table, fields, some), MOST_ROWS + 1));
      }
      return all;
    }

    private String have(Table table, List<FieldId> fields, List<List<String>> keys) {
      if (fields.size() == 1) {
        String values =
            keys.stream()
                .map(key -> literal(table, fields.getFirst(), key.getFirst()))
                .collect(Collectors.joining(", "));
        return dialect.name(table.field(fields.getFirst()).name()) + " IN (" + values + ")";
      }
      return keys.stream()
          .map(
              key ->
                  IntStream.range(0, key.size())
                      .mapToObj(
                          i ->
                              dialect.name(table.field(fields.get(i)).name())
                                  + " = "
                                  + literal(table, fields.get(i), key.get(i)))
                      .collect(Collectors.joining(" AND ", "(", ")")))
          .collect(Collectors.joining(" OR "));
    }

    private String literal(Table table, FieldId field, String text) {
      Value value = ValueReader.valueOrNull(Optional.of(text), table.field(field).type());
      return dialect.literal(value == Value.NULL ? new Value.Text(text) : value);
    }

    private Map<TableId, Rows> taken() {
      Map<TableId, Rows> taken = new LinkedHashMap<>();
      rows.forEach(
          (table, some) ->
              taken.put(
                  table,
                  Rows.of(fields(table).stream().map(Field::id).toList(), List.copyOf(some))));
      return taken;
    }
  }
}
