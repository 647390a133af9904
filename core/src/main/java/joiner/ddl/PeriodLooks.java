package joiner.ddl;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.catalog.Trigger.Event;
import joiner.engine.Dialect;
import joiner.engine.RowsQuery;
import joiner.engine.Upkeep;
import joiner.engine.Upkeep.Looked;
import joiner.model.Demand;
import joiner.model.Table;

/** What has to be looked at so that periods do not overlap, or leave no gap. */
final class PeriodLooks {
  private final Table table;
  private final Dialect dialect;
  private final RowText text;
  private final String says;

  /**
   * For the periods of a table's rows.
   *
   * @param says what whoever breaks the rule is told
   */
  PeriodLooks(Table table, Dialect dialect, String says) {
    this.table = table;
    this.dialect = dialect;
    this.text = new RowText(dialect);
    this.says = says;
  }

  /** That a row has the values of another in the fields periods are told apart by. */
  private String samePer(Demand.Apart periods, String one, String other) {
    return periods.per().isEmpty()
        ? ""
        : RowsQuery.same(
                periods.per().stream().map(f -> text.column(one, table, f)).toList(),
                periods.per().stream().map(f -> text.column(other, table, f)).toList())
            + " AND ";
  }

  private String counts(Demand.Apart periods, String of) {
    String from = text.column(of, table, periods.from());
    String until = text.column(of, table, periods.until());
    String before = from + (periods.closed() ? " <= " : " < ") + until;
    return from + " IS NOT NULL AND (" + until + " IS NULL OR " + before + ")";
  }

  /** Another period at the same time. */
  Looked overlapping(Demand.Apart periods) {
    String before = periods.closed() ? " <= " : " < ";
    String another =
        table.primaryKey().stream()
            .map(key -> text.column("o", table, key) + " <> " + text.column(Looked.ROW, table, key))
            .collect(Collectors.joining(" OR ", "(", ")"));
    String found =
        "SELECT 1 FROM "
            + dialect.name(table.name())
            + " o WHERE "
            + samePer(periods, "o", Looked.ROW)
            + another
            + " AND "
            + counts(periods, "o")
            + " AND "
            + counts(periods, Looked.ROW)
            + " AND ("
            + text.column(Looked.ROW, table, periods.until())
            + " IS NULL OR "
            + text.column("o", table, periods.from())
            + before
            + text.column(Looked.ROW, table, periods.until())
            + ") AND ("
            + text.column("o", table, periods.until())
            + " IS NULL OR "
            + text.column(Looked.ROW, table, periods.from())
            + before
            + text.column("o", table, periods.until())
            + ")";
    return new Looked(
        table.name(),
        Set.of(Event.INSERT, Event.UPDATE),
        fields(periods),
        List.of(),
        found,
        says,
        false);
  }

  private List<String> fields(Demand.Apart periods) {
    return table.namesOf(
        Stream.concat(periods.per().stream(), Stream.of(periods.from(), periods.until())).toList());
  }

  /** A period that others came before, none of which ends where it begins. */
  Looked gaps(Demand.Apart periods) {
    String from = "FROM " + dialect.name(table.name()) + " ";
    String earlier =
        "EXISTS (SELECT 1 "
            + from
            + "e WHERE "
            + samePer(periods, "e", "o")
            + counts(periods, "e")
            + " AND "
            + text.column("e", table, periods.from())
            + " < "
            + text.column("o", table, periods.from())
            + ")";
    String meeting =
        "NOT EXISTS (SELECT 1 "
            + from
            + "e WHERE "
            + samePer(periods, "e", "o")
            + counts(periods, "e")
            + " AND "
            + text.column("e", table, periods.until())
            + (periods.closed() ? " + 1" : "")
            + " = "
            + text.column("o", table, periods.from())
            + ")";
    String found =
        "SELECT 1 "
            + from
            + "o WHERE "
            + samePer(periods, "o", Looked.ROW)
            + counts(periods, "o")
            + " AND "
            + earlier
            + " AND "
            + meeting;
    return new Looked(
        table.name(),
        Set.of(Event.INSERT, Event.UPDATE),
        fields(periods),
        List.of(new Upkeep.Held(Optional.empty(), table.name(), true)),
        found,
        says,
        true);
  }
}
