package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.catalog.Check;
import joiner.catalog.Exclusion;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;
import joiner.catalog.Trigger;
import joiner.catalog.Trigger.Event;
import joiner.engine.Dialect;
import joiner.engine.RowsQuery;
import joiner.engine.Support;
import joiner.engine.Upkeep;
import joiner.engine.Upkeep.Looked;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.meaning.Constraint;
import joiner.meaning.DemandWords;
import joiner.meaning.Messages;
import joiner.meaning.TableMeaning;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;

/**
 * By what an engine keeps the rules of one table: a check, where each row tells by itself; an index
 * or a constraint by which rows exclude each other, where it has one; otherwise triggers that look
 * at what a change leaves behind.
 *
 * <p>A trigger first makes whoever changes what the same rule is about wait, so that two people do
 * not each see only their own change; that holds where each statement sees what others have
 * finished before (READ COMMITTED), or all is serializable.
 */
final class RuleKeeping {
  private final Design design;
  private final TableMeaning meaning;
  private final Table table;
  private final Dialect dialect;
  private final RowText text;
  private final ConstraintNames names;
  private final Function<Expression, Support> checks;
  private final Predicate<Expression> unseen;

  /**
   * Nothing yet.
   *
   * @param checks whether the engine keeps a condition by a check
   * @param unseen whether what a condition reads is changed without a trigger being called
   */
  RuleKeeping(
      Design design,
      TableMeaning meaning,
      Dialect dialect,
      ConstraintNames names,
      Function<Expression, Support> checks,
      Predicate<Expression> unseen) {
    this.design = design;
    this.meaning = meaning;
    this.table = meaning.table();
    this.dialect = dialect;
    this.text = new RowText(dialect);
    this.names = names;
    this.checks = checks;
    this.unseen = unseen;
  }

  /** How the engine keeps a rule. */
  Keeping of(Constraint.Ruled ruled) {
    return switch (ruled) {
      case Constraint.Holds(Rule rule, Checked condition) ->
          condition instanceof Checked.Sound sound
              ? holds(rule, sound.tree())
              : Keeping.none("it cannot be read; see the findings");
      case Constraint.Alone alone -> alone(alone);
      case Constraint.Apart apart -> apart(apart.rule(), apart.periods());
      case Constraint.Tree tree -> tree(tree);
      case Constraint.Stays stays -> stays(stays);
      case Constraint.Lost lost -> Keeping.none("it cannot be read; see the findings");
    };
  }

  private String says(Rule rule) {
    return rule.message().isBlank()
        ? DemandWords.of(design, table, rule.demand())
        : Messages.labelled(rule.message().strip(), table);
  }

  private Supplier<String> naming(Rule rule) {
    return () -> names.take(rule.name());
  }

  private Keeping holds(Rule rule, Expression tree) {
    Support check = checks.apply(tree);
    return switch (check) {
      case Support.Kept kept ->
          Keeping.check(
              new Check(names.take(rule.name()), new SqlExpression(kept.sql(), Optional.of(tree))));
      case Support.Impossible(String loss) ->
          unseen.test(tree) ? Keeping.none(loss) : looked(rule, tree, loss);
    };
  }

  /** Looks at the rows that a change can make a condition false for. */
  private Keeping looked(Rule rule, Expression tree, String loss) {
    var looks = new ReachingLooks(design, table, dialect, says(rule));
    boolean atEnd = ReachingLooks.isAtEnd(tree);
    Optional<String> against = looks.against(tree, atEnd);
    if (against.isPresent() || dialect.upkeep().isEmpty()) {
      return Keeping.none(against.orElse(loss));
    }
    try {
      return made(rule, looks.of(tree, atEnd), loss);
    } catch (RowsQuery.Unsaid unsaid) {
      return Keeping.none(unsaid.getMessage());
    }
  }

  private Keeping made(Rule rule, List<Looked> looks, String loss) {
    Upkeep upkeep = dialect.upkeep().orElseThrow();
    var triggers = new ArrayList<Trigger>();
    for (Looked look : looks) {
      List<Trigger> made = upkeep.looking(naming(rule), look);
      if (made.isEmpty()) {
        return Keeping.none(loss);
      }
      triggers.addAll(made);
    }
    boolean atEnd = looks.stream().anyMatch(Looked::atEnd);
    return Keeping.triggers(
        atEnd ? Keeping.Means.DEFERRED_TRIGGER : Keeping.Means.TRIGGER, triggers);
  }

  private Keeping stays(Constraint.Stays stays) {
    Expression when = stays.when().tree();
    Optional<String> against = notColumns(stays.values());
    if (when.reads().stream().anyMatch(read -> !(read instanceof OwnField))) {
      against = Optional.of("its condition reads rows of other tables");
    }
    if (against.isPresent()) {
      return Keeping.none(against.get());
    }
    return switch (dialect.sayCondition(when)) {
      case Support.Impossible(String loss) -> Keeping.none(loss);
      case Support.Kept(String sql) -> {
        String before =
            TableMeaning.fieldsOf(stays.when()).stream()
                .map(
                    field ->
                        text.column(Looked.BEFORE, table, field) + " AS " + text.name(table, field))
                .collect(Collectors.joining(", "));
        String changed =
            stays.values().stream().map(this::changed).collect(Collectors.joining(" OR "));
        yield made(
            stays.rule(),
            new Looked(
                table.name(),
                Set.of(Event.UPDATE),
                table.namesOf(stays.values()),
                List.of(),
                "SELECT 1 FROM (SELECT "
                    + (before.isEmpty() ? "1 AS one" : before)
                    + ") was WHERE ("
                    + sql
                    + ") AND ("
                    + changed
                    + ")",
                says(stays.rule()),
                false));
      }
    };
  }

  /** That a value is another after a change than before. */
  private String changed(FieldId field) {
    String is = text.column(Looked.ROW, table, field);
    String was = text.column(Looked.BEFORE, table, field);
    return is + " <> " + was + " OR (" + is + " IS NULL) <> (" + was + " IS NULL)";
  }

  private Optional<String> notColumns(List<FieldId> fields) {
    return fields.stream()
        .map(table::field)
        .filter(field -> field.isComputed())
        .findFirst()
        .map(field -> field.label() + " is worked out, and there may be no column of it");
  }

  private Keeping alone(Constraint.Alone alone) {
    Expression where = alone.where().tree();
    Optional<String> against = notColumns(alone.per());
    if (where.reads().stream().anyMatch(read -> !(read instanceof OwnField))) {
      against = Optional.of("its condition reads rows of other tables");
    } else if (alone.where().readsClock()) {
      against = Optional.of("its condition changes with the clock");
    }
    if (against.isPresent()) {
      return Keeping.none(against.get());
    }
    return switch (dialect.sayCondition(where)) {
      case Support.Impossible(String loss) -> Keeping.none(loss);
      case Support.Kept kept -> alone(alone, kept.sql());
    };
  }

  private Keeping alone(Constraint.Alone alone, String where) {
    List<String> columns = table.namesOf(alone.per());
    if (dialect.hasPartialIndexes()) {
      String name = names.take(alone.name());
      String on = columns.isEmpty() ? "(" + where + ")" : dialect.names(columns);
      return Keeping.exclusion(
          Keeping.Means.UNIQUE_INDEX,
          new Exclusion(
              name,
              table.name(),
              true,
              Optional.empty(),
              "CREATE UNIQUE INDEX "
                  + dialect.name(name)
                  + " ON "
                  + dialect.name(table.name())
                  + " ("
                  + on
                  + ") WHERE "
                  + where),
          List.of());
    }
    List<String> here = columns.stream().map(dialect::name).toList();
    String which =
        Stream.concat(
                here.isEmpty()
                    ? Stream.empty()
                    : Stream.of(RowsQuery.same(here, text.changed(table, alone.per()))),
                Stream.of("(" + where + ")"))
            .collect(Collectors.joining(" AND "));
    return made(
        alone.rule(),
        new Looked(
            table.name(),
            Set.of(Event.INSERT, Event.UPDATE),
            table.namesOf(alone.fields()),
            List.of(),
            "SELECT 1 FROM "
                + dialect.name(table.name())
                + " WHERE "
                + which
                + " HAVING COUNT(*) > 1",
            says(alone.rule()),
            false));
  }

  private Keeping made(Rule rule, Looked look) {
    return dialect.upkeep().isEmpty()
        ? Keeping.none(dialect.engine() + " has nothing that keeps it")
        : made(rule, List.of(look), dialect.engine() + " has nothing that keeps it");
  }

  private Keeping apart(Rule rule, Demand.Apart periods) {
    Optional<String> against =
        notColumns(
            Stream.concat(periods.per().stream(), Stream.of(periods.from(), periods.until()))
                .toList());
    if (against.isPresent()) {
      return Keeping.none(against.get());
    }
    SqlType type = SqlType.of(table.field(periods.from()).type());
    var said =
        new Dialect.Periods(
            table.name(),
            table.namesOf(periods.per()),
            table.field(periods.from()).name(),
            table.field(periods.until()).name(),
            type,
            periods.closed());
    if (dialect.excludesPeriods()) {
      return excluded(rule, periods, dialect.apart(names.take(rule.name()), said));
    }
    if (periods.gapless()) {
      return Keeping.none(
          "that no gap is left only holds once a transaction has ended, and "
              + dialect.engine()
              + " looks at no transaction as a whole");
    }
    if (table.primaryKey().isEmpty()) {
      return Keeping.none(table.label() + " has no primary key by which a trigger finds a row");
    }
    return made(rule, new PeriodLooks(table, dialect, says(rule)).overlapping(periods));
  }

  private Keeping excluded(Rule rule, Demand.Apart periods, Exclusion exclusion) {
    if (!periods.gapless()) {
      return Keeping.exclusion(Keeping.Means.EXCLUSION, exclusion, List.of());
    }
    Looked gaps = new PeriodLooks(table, dialect, says(rule)).gaps(periods);
    Keeping kept = made(rule, List.of(gaps, gaps.ofRowBefore()), "");
    return Keeping.exclusion(Keeping.Means.EXCLUSION, exclusion, kept.triggers());
  }

  private Keeping tree(Constraint.Tree tree) {
    Relationship r = tree.over();
    List<String> keys =
        IntStream.rangeClosed(1, r.childFields().size()).mapToObj(i -> "k" + i).toList();
    String up = dialect.name("up_from_here");
    List<String> above = keys.stream().map(key -> up + "." + key).toList();
    String found =
        "WITH RECURSIVE "
            + up
            + " ("
            + String.join(", ", keys)
            + ") AS (SELECT "
            + String.join(", ", text.changed(table, r.childFields()))
            + " UNION SELECT "
            + String.join(", ", text.columns("t", table, r.childFields()))
            + " FROM "
            + dialect.name(table.name())
            + " t JOIN "
            + up
            + " ON "
            + RowsQuery.same(text.columns("t", table, r.parentFields()), above)
            + ") SELECT 1 FROM "
            + up
            + " WHERE "
            + RowsQuery.same(above, text.changed(table, r.parentFields()));
    return made(
        tree.rule(),
        new Looked(
            table.name(),
            Set.of(Event.INSERT, Event.UPDATE),
            table.namesOf(
                Stream.concat(r.childFields().stream(), r.parentFields().stream())
                    .distinct()
                    .toList()),
            List.of(new Upkeep.Held(Optional.empty(), table.name(), true)),
            found,
            says(tree.rule()),
            false));
  }
}
