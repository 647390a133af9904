package joiner.audit;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.engine.Dialect;
import joiner.engine.RowsQuery;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;

/**
 * What a database is asked about a rule on several rows of one table: how many rows break it, each
 * counted as the audit of the same rows counts it.
 */
final class TogetherQuestions {
  private static final String BEGAN = "began";
  private static final String REACHED = "reached";

  private final Design design;
  private final Table table;
  private final Dialect dialect;

  TogetherQuestions(Design design, Table table, Dialect dialect) {
    this.design = design;
    this.table = table;
    this.dialect = dialect;
  }

  /** A query for the number of rows that break a rule, or why it cannot be asked. */
  Support of(Constraint.Ruled ruled) {
    try {
      return switch (ruled) {
        case Constraint.Holds(Rule rule, Checked condition) -> holds(condition);
        case Constraint.Alone alone -> alone(alone);
        case Constraint.Apart apart -> apart(apart);
        case Constraint.Tree tree -> tree(tree);
        case Constraint.Stays stays -> new Support.Impossible("no row breaks it by itself");
        case Constraint.Lost(Rule rule, String why) -> new Support.Impossible(why);
      };
    } catch (RowsQuery.Unsaid unsaid) {
      return new Support.Impossible(unsaid.getMessage());
    }
  }

  private Support holds(Checked condition) {
    if (!(condition instanceof Checked.Sound sound)) {
      return new Support.Impossible("it cannot be read");
    }
    var rows = new RowsQuery(design, table, dialect);
    String holds = rows.condition(sound.tree());
    return new Support.Kept("SELECT COUNT(*)" + rows.from() + " WHERE NOT (" + holds + ")");
  }

  private String column(FieldId field) {
    return dialect.name(table.field(field).name());
  }

  private List<String> columns(List<FieldId> fields) {
    return fields.stream().map(field -> "t." + column(field)).toList();
  }

  private boolean isComputed(List<FieldId> fields) {
    return fields.stream().anyMatch(field -> table.field(field).isComputed());
  }

  private Support alone(Constraint.Alone alone) {
    if (isComputed(alone.per())) {
      return new Support.Impossible("a field it speaks of is worked out");
    }
    var rows = new RowsQuery(design, table, dialect);
    String where = "(" + rows.condition(alone.where().tree()) + ")";
    List<String> per = alone.per().stream().map(rows::own).toList();
    String counted = "SELECT COUNT(*) AS n" + rows.from() + " WHERE " + where;
    String grouped =
        per.isEmpty()
            ? counted
            : counted + " AND " + SetQuestions.filled(per) + " GROUP BY " + String.join(", ", per);
    return new Support.Kept("SELECT SUM(n - 1) FROM (" + grouped + " HAVING COUNT(*) > 1) d");
  }

  private Support apart(Constraint.Apart apart) {
    Demand.Apart periods = apart.periods();
    if (isComputed(apart.fields())) {
      return new Support.Impossible("a field it speaks of is worked out");
    }
    String overlaps =
        "endless = 1 OR " + dialect.name(BEGAN) + before(periods) + dialect.name(REACHED);
    String broken = periods.gapless() ? overlaps + " OR " + gap(periods) : overlaps;
    return new Support.Kept(
        "SELECT COUNT(*) FROM (" + along(periods) + ") d WHERE earlier > 0 AND (" + broken + ")");
  }

  private static String before(Demand.Apart periods) {
    return periods.closed() ? " <= " : " < ";
  }

  /** Along the periods in their order, how far those before have reached. */
  private String along(Demand.Apart periods) {
    String from = column(periods.from());
    String until = column(periods.until());
    List<String> per = periods.per().stream().map(this::column).toList();
    String earlier =
        " OVER ("
            + (per.isEmpty() ? "" : "PARTITION BY " + String.join(", ", per) + " ")
            + "ORDER BY "
            + from
            + " ROWS BETWEEN UNBOUNDED PRECEDING AND 1 PRECEDING) AS ";
    List<String> selected =
        List.of(
            from + " AS " + dialect.name(BEGAN),
            "MAX(" + until + ")" + earlier + dialect.name(REACHED),
            "MAX(CASE WHEN " + until + " IS NULL THEN 1 ELSE 0 END)" + earlier + "endless",
            "COUNT(*)" + earlier + "earlier");
    List<String> filled = Stream.concat(per.stream(), Stream.of(from)).toList();
    return "SELECT "
        + String.join(", ", selected)
        + " FROM "
        + dialect.name(table.name())
        + " WHERE "
        + SetQuestions.filled(filled)
        + " AND ("
        + until
        + " IS NULL OR "
        + from
        + before(periods)
        + until
        + ")";
  }

  private String gap(Demand.Apart periods) {
    Field from = table.field(periods.from());
    Table along =
        Table.of("d", "d", table.noun())
            .withFields(
                List.of(
                    from.withId(new FieldId(BEGAN)).withName(BEGAN),
                    from.withId(new FieldId(REACHED)).withName(REACHED)));
    String step = from.type().kind() == Kind.DATE ? " + INTERVAL '1' DAY" : " + 1";
    String behind = BEGAN + " > " + REACHED + (periods.closed() ? step : "");
    Checked read = new Formula(behind).condition(TableMeaning.of(along).scope());
    if (read instanceof Checked.Sound sound
        && dialect.sayCondition(sound.tree()) instanceof Support.Kept kept) {
      return kept.sql();
    }
    throw new IllegalStateException(behind + " is no condition");
  }

  private Support tree(Constraint.Tree tree) {
    if (!dialect.followsRows()) {
      return new Support.Impossible(dialect.engine() + " follows no rows from one to the next");
    }
    Relationship r = tree.over();
    int size = r.childFields().size();
    List<String> starts = numbered("s", size);
    List<String> ends = numbered("k", size);
    List<String> own = columns(r.parentFields());
    List<String> up = columns(r.childFields());
    String from = " FROM " + dialect.name(table.name()) + " t";
    String walk =
        "WITH RECURSIVE w ("
            + String.join(", ", starts)
            + ", "
            + String.join(", ", ends)
            + ") AS (SELECT "
            + String.join(", ", own)
            + ", "
            + String.join(", ", up)
            + from
            + " WHERE "
            + SetQuestions.filled(up)
            + " UNION SELECT "
            + starts.stream().map(s -> "w." + s).collect(Collectors.joining(", "))
            + ", "
            + String.join(", ", up)
            + from
            + " JOIN w ON "
            + RowsQuery.same(own, ends.stream().map(k -> "w." + k).toList())
            + " WHERE "
            + SetQuestions.filled(up)
            + ")";
    String back = "SELECT DISTINCT " + String.join(", ", starts) + " FROM w WHERE ";
    return new Support.Kept(
        walk + " SELECT COUNT(*) FROM (" + back + RowsQuery.same(starts, ends) + ") d");
  }

  private static List<String> numbered(String letter, int size) {
    return IntStream.rangeClosed(1, size).mapToObj(i -> letter + i).toList();
  }
}
