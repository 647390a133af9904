package joiner.ddl;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
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
import joiner.expression.Reference;
import joiner.meaning.Constraint;
import joiner.meaning.DemandWords;
import joiner.meaning.Messages;
import joiner.meaning.TableMeaning;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Summed;
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
  private static final String ROW = Looked.ROW;

  private final Design design;
  private final TableMeaning meaning;
  private final Table table;
  private final Dialect dialect;
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
    boolean sums = tree.reads().stream().anyMatch(Summed.class::isInstance);
    boolean atEnd = sums && !isUpperBound(tree);
    Optional<String> against = against(tree, atEnd);
    if (against.isPresent() || dialect.upkeep().isEmpty()) {
      return Keeping.none(against.orElse(loss));
    }
    try {
      var looks = new ArrayList<Looked>();
      if (atEnd || tree.reads().stream().anyMatch(read -> !(read instanceof Summed))) {
        looks.add(ownRow(rule, tree, atEnd));
      }
      tree.reads().stream()
          .filter(Summed.class::isInstance)
          .map(read -> ((Summed) read).children())
          .distinct()
          .forEach(children -> looks.addAll(ofChildren(rule, tree, children, atEnd)));
      looks.addAll(ofParents(rule, tree, atEnd));
      return made(rule, looks, loss);
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

  /** Why no trigger can look at a condition. */
  private Optional<String> against(Expression tree, boolean atEnd) {
    boolean deep =
        tree.reads().stream()
            .filter(Summed.class::isInstance)
            .map(Summed.class::cast)
            .anyMatch(
                summed ->
                    !summed.over().isEmpty()
                        || summed.parts().stream()
                            .flatMap(part -> part.reads().stream())
                            .anyMatch(read -> !(read instanceof OwnField)));
    if (deep) {
      return Optional.of("it reads rows of too many tables for a trigger");
    }
    if (table.primaryKey().isEmpty()) {
      return Optional.of(table.label() + " has no primary key by which a trigger finds a row");
    }
    boolean ends = dialect.upkeep().filter(Upkeep::looksAtTheEnd).isPresent();
    return atEnd && !ends
        ? Optional.of(
            "it only holds once a transaction has ended, and "
                + dialect.engine()
                + " looks at no transaction as a whole")
        : Optional.empty();
  }

  /**
   * Whether more of what is summed up can only break it, and fewer only mend it, so that it holds
   * after each single change of a well-ordered transaction.
   */
  private static boolean isUpperBound(Expression tree) {
    return switch (tree) {
      case Expression.And(List<Expression> all, var place) ->
          all.stream().allMatch(RuleKeeping::isUpperBound);
      case Expression.Compare(var operator, var left, var right, var place) ->
          (operator == Expression.Comparison.AT_MOST || operator == Expression.Comparison.LESS)
              && left instanceof Expression.FieldRef(Summed summed, var at)
              && (summed.fold() == Summed.Fold.COUNT || summed.fold() == Summed.Fold.SUM)
              && right instanceof Expression.Literal;
      default -> tree.reads().stream().noneMatch(Summed.class::isInstance);
    };
  }

  private String name(Table of, FieldId field) {
    return dialect.name(of.field(field).name());
  }

  private String row(Table of, FieldId field) {
    return ROW + "." + name(of, field);
  }

  private static String broken(String condition) {
    return "NOT (" + condition + ")";
  }

  /** The rows of the table that some condition finds and the rule's is false for. */
  private String found(RowsQuery rows, Expression tree, String which) {
    String condition = rows.condition(tree);
    return "SELECT 1" + rows.from() + "\nWHERE " + which + " AND " + broken(condition);
  }

  private String same(List<String> left, List<String> right) {
    return IntStream.range(0, left.size())
        .mapToObj(i -> left.get(i) + " = " + right.get(i))
        .collect(Collectors.joining(" AND "));
  }

  private List<String> rowOf(Table of, List<FieldId> fields) {
    return fields.stream().map(field -> row(of, field)).toList();
  }

  private Looked ownRow(Rule rule, Expression tree, boolean atEnd) {
    var rows = new RowsQuery(design, table, dialect);
    for (Reference read : tree.reads()) {
      if (read instanceof Summed summed) {
        Relationship r = design.relationship(summed.children());
        rows.only(r.id(), rowOf(table, r.parentFields()));
      }
    }
    List<String> own = table.primaryKey().stream().map(rows::own).toList();
    String found = found(rows, tree, same(own, rowOf(table, table.primaryKey())));
    Set<FieldId> read = new LinkedHashSet<>(table.primaryKey());
    tree.reads().forEach(reference -> read.addAll(ofRow(reference)));
    return new Looked(
        table.name(),
        Set.of(Event.INSERT, Event.UPDATE),
        table.namesOf(List.copyOf(read)),
        parentsRead(tree),
        found,
        says(rule),
        atEnd);
  }

  private static List<FieldId> ofRow(Reference read) {
    return switch (read) {
      case OwnField own -> List.of(own.field());
      case FarField far -> far.from();
      case Summed summed -> summed.from();
      default -> List.of();
    };
  }

  /** What holds the rows still that a row reads over relationships. */
  private List<Upkeep.Held> parentsRead(Expression tree) {
    return ways(tree).keySet().stream()
        .filter(way -> ways(tree).keySet().stream().noneMatch(other -> goesOn(way, other)))
        .map(way -> new Upkeep.Held(Optional.of(heldOn(way)), table.name(), false))
        .toList();
  }

  private static boolean goesOn(List<RelationshipId> way, List<RelationshipId> further) {
    return further.size() > way.size() && further.subList(0, way.size()).equals(way);
  }

  private String heldOn(List<RelationshipId> way) {
    var sql = new StringBuilder("SELECT 1 FROM ");
    for (int i = 0; i < way.size(); i++) {
      Relationship up = design.relationship(way.get(i));
      Table parent = design.table(up.parent());
      String alias = "h" + (i + 1);
      sql.append(i == 0 ? "" : " JOIN ").append(dialect.name(parent.name())).append(' ');
      sql.append(alias);
      if (i > 0) {
        String before = "h" + i;
        Table child = design.table(up.child());
        sql.append(" ON ")
            .append(
                same(
                    aliased(alias, parent, up.parentFields()),
                    aliased(before, child, up.childFields())));
      }
    }
    Relationship first = design.relationship(way.getFirst());
    return sql.append(" WHERE ")
        .append(
            same(
                aliased("h1", design.table(first.parent()), first.parentFields()),
                rowOf(table, first.childFields())))
        .toString();
  }

  private List<String> aliased(String alias, Table of, List<FieldId> fields) {
    return fields.stream().map(field -> alias + "." + name(of, field)).toList();
  }

  /** The ways a condition reads over, with the fields that are read where each ends. */
  private Map<List<RelationshipId>, Set<FieldId>> ways(Expression tree) {
    Map<List<RelationshipId>, Set<FieldId>> ways = new LinkedHashMap<>();
    for (Reference read : tree.reads()) {
      if (read instanceof FarField far) {
        for (int end = 1; end <= far.over().size(); end++) {
          Set<FieldId> fields =
              ways.computeIfAbsent(far.over().subList(0, end), way -> new LinkedHashSet<>());
          if (end == far.over().size()) {
            fields.add(far.field());
          } else {
            fields.addAll(design.relationship(far.over().get(end)).childFields());
          }
        }
      }
    }
    return ways;
  }

  /** The rows that read something of a row which changes. */
  private List<Looked> ofParents(Rule rule, Expression tree, boolean atEnd) {
    var looks = new ArrayList<Looked>();
    ways(tree)
        .forEach(
            (way, fields) -> {
              Relationship last = design.relationship(way.getLast());
              Table parent = design.table(last.parent());
              var rows = new RowsQuery(design, table, dialect);
              String condition = rows.condition(tree);
              List<String> there =
                  last.parentFields().stream()
                      .map(field -> rows.at(way) + "." + name(parent, field))
                      .toList();
              looks.add(
                  new Looked(
                      parent.name(),
                      Set.of(Event.UPDATE),
                      parent.namesOf(List.copyOf(fields)),
                      List.of(),
                      "SELECT 1"
                          + rows.from()
                          + "\nWHERE "
                          + same(there, rowOf(parent, last.parentFields()))
                          + " AND "
                          + broken(condition),
                      says(rule),
                      atEnd));
            });
    return looks;
  }

  /** The row that rows refer to, whenever these come, go or change. */
  private List<Looked> ofChildren(
      Rule rule, Expression tree, RelationshipId children, boolean atEnd) {
    Relationship r = design.relationship(children);
    Table child = design.table(r.child());
    List<String> key = rowOf(child, r.childFields());
    var rows = new RowsQuery(design, table, dialect).only(children, key);
    List<String> own = r.parentFields().stream().map(rows::own).toList();
    String found = found(rows, tree, same(own, key));
    Set<FieldId> read = new LinkedHashSet<>(r.childFields());
    boolean adds = false;
    for (Reference reference : tree.reads()) {
      if (reference instanceof Summed summed && summed.children().equals(children)) {
        adds |= summed.fold() != Summed.Fold.COUNT;
        summed.parts().forEach(part -> part.reads().forEach(of -> read.addAll(ofRow(of))));
      }
    }
    String parent =
        "SELECT 1 FROM "
            + dialect.name(table.name())
            + " h1 WHERE "
            + same(aliased("h1", table, r.parentFields()), key);
    List<Upkeep.Held> held = List.of(new Upkeep.Held(Optional.of(parent), table.name(), true));
    var looks = new ArrayList<Looked>();
    List<String> columns = child.namesOf(List.copyOf(read));
    looks.add(
        new Looked(
            child.name(),
            Set.of(Event.INSERT, Event.UPDATE),
            columns,
            held,
            found,
            says(rule),
            atEnd));
    if (atEnd || adds) { // What goes may have been less than nothing.
      looks.add(
          new Looked(
                  child.name(),
                  Set.of(Event.DELETE, Event.UPDATE),
                  columns,
                  held,
                  found,
                  says(rule),
                  atEnd)
              .ofRowBefore());
    }
    return looks;
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
                .map(field -> column(Looked.BEFORE, field) + " AS " + name(table, field))
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
    String is = column(ROW, field);
    String was = column(Looked.BEFORE, field);
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
                here.isEmpty() ? Stream.empty() : Stream.of(same(here, rowOf(table, alone.per()))),
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
    return made(rule, overlapping(rule, periods));
  }

  private Keeping excluded(Rule rule, Demand.Apart periods, Exclusion exclusion) {
    if (!periods.gapless()) {
      return Keeping.exclusion(Keeping.Means.EXCLUSION, exclusion, List.of());
    }
    Keeping gaps = made(rule, List.of(gaps(rule, periods), gaps(rule, periods).ofRowBefore()), "");
    return Keeping.exclusion(Keeping.Means.EXCLUSION, exclusion, gaps.triggers());
  }

  private String column(String of, FieldId field) {
    return of + "." + name(table, field);
  }

  /** That a row has the values of another in the fields periods are told apart by. */
  private String samePer(Demand.Apart periods, String one, String other) {
    return periods.per().isEmpty()
        ? ""
        : same(
                periods.per().stream().map(f -> column(one, f)).toList(),
                periods.per().stream().map(f -> column(other, f)).toList())
            + " AND ";
  }

  private String counts(Demand.Apart periods, String of) {
    String from = column(of, periods.from());
    String until = column(of, periods.until());
    String before = from + (periods.closed() ? " <= " : " < ") + until;
    return from + " IS NOT NULL AND (" + until + " IS NULL OR " + before + ")";
  }

  private Looked overlapping(Rule rule, Demand.Apart periods) {
    String before = periods.closed() ? " <= " : " < ";
    String another =
        table.primaryKey().stream()
            .map(key -> column("o", key) + " <> " + row(table, key))
            .collect(Collectors.joining(" OR ", "(", ")"));
    String found =
        "SELECT 1 FROM "
            + dialect.name(table.name())
            + " o WHERE "
            + samePer(periods, "o", ROW)
            + another
            + " AND "
            + counts(periods, "o")
            + " AND "
            + counts(periods, ROW)
            + " AND ("
            + column(ROW, periods.until())
            + " IS NULL OR "
            + column("o", periods.from())
            + before
            + column(ROW, periods.until())
            + ") AND ("
            + column("o", periods.until())
            + " IS NULL OR "
            + column(ROW, periods.from())
            + before
            + column("o", periods.until())
            + ")";
    return new Looked(
        table.name(),
        Set.of(Event.INSERT, Event.UPDATE),
        fields(periods),
        List.of(),
        found,
        says(rule),
        false);
  }

  private List<String> fields(Demand.Apart periods) {
    return table.namesOf(
        Stream.concat(periods.per().stream(), Stream.of(periods.from(), periods.until())).toList());
  }

  /** A period that others came before, none of which ends where it begins. */
  private Looked gaps(Rule rule, Demand.Apart periods) {
    String from = "FROM " + dialect.name(table.name()) + " ";
    String earlier =
        "EXISTS (SELECT 1 "
            + from
            + "e WHERE "
            + samePer(periods, "e", "o")
            + counts(periods, "e")
            + " AND "
            + column("e", periods.from())
            + " < "
            + column("o", periods.from())
            + ")";
    String meeting =
        "NOT EXISTS (SELECT 1 "
            + from
            + "e WHERE "
            + samePer(periods, "e", "o")
            + counts(periods, "e")
            + " AND "
            + column("e", periods.until())
            + (periods.closed() ? " + 1" : "")
            + " = "
            + column("o", periods.from())
            + ")";
    String found =
        "SELECT 1 "
            + from
            + "o WHERE "
            + samePer(periods, "o", ROW)
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
        says(rule),
        true);
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
            + String.join(", ", rowOf(table, r.childFields()))
            + " UNION SELECT "
            + String.join(", ", aliased("t", table, r.childFields()))
            + " FROM "
            + dialect.name(table.name())
            + " t JOIN "
            + up
            + " ON "
            + same(aliased("t", table, r.parentFields()), above)
            + ") SELECT 1 FROM "
            + up
            + " WHERE "
            + same(above, rowOf(table, r.parentFields()));
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
