package joiner.engine;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Summed;
import joiner.model.Table;

/**
 * The rows of a table with what formulas read beside them. Each way to another row is one outer
 * join, and so is each group of rows that are summed up; there is one row for each of the table.
 */
public final class RowsQuery {
  private final Design design;
  private final Table table;
  private final Dialect dialect;
  private final Aliases aliases;

  /** What stands for the rows that a way leads to, from the table on. */
  private final Map<List<RelationshipId>, String> joined = new LinkedHashMap<>();

  private final Map<SumsOf, Sums> sums = new LinkedHashMap<>();

  /** Of rows that are summed up, to which row alone they refer, where that is said. */
  private final Map<RelationshipId, List<String>> only = new HashMap<>();

  /** Joins in the order in which they were needed. */
  private final List<Join> joins = new ArrayList<>();

  /**
   * What stands for rows.
   *
   * @param own for the table's own
   * @param ways for those that ways lead to, before a number
   * @param sums for those that are summed up, before a number
   */
  private record Aliases(String own, String ways, String sums) {}

  /** Which rows are summed up for which. */
  private record SumsOf(List<RelationshipId> over, RelationshipId children) {}

  private sealed interface Join {}

  private record Way(List<RelationshipId> over, String alias) implements Join {}

  /** Rows that are summed up, with what is made of them. */
  private record Sums(SumsOf of, String alias, RowsQuery rows, List<String> made) implements Join {}

  /** A column of what is joined. */
  private record Joined(List<String> path, ValueType type) implements Reference {}

  /** The engine has no words for something. */
  public static final class Unsaid extends RuntimeException {
    private static final long serialVersionUID = 1;

    /** For want of words. */
    public Unsaid(String loss) {
      super(loss, null, false, false);
    }
  }

  /** The rows of a table of a design, and nothing beside them yet. */
  public RowsQuery(Design design, Table table, Dialect dialect) {
    this(design, table, dialect, new Aliases("t0", "t", "s"));
  }

  /** The same where other tables stand beside, with an alias for the rows of this one. */
  public RowsQuery(Design design, Table table, Dialect dialect, String alias) {
    this(design, table, dialect, new Aliases(alias, alias + "_", alias + "_s"));
  }

  private RowsQuery(Design design, Table table, Dialect dialect, Aliases aliases) {
    this.design = design;
    this.table = table;
    this.dialect = dialect;
    this.aliases = aliases;
  }

  /**
   * Sums up only rows that refer by a relationship to one row of the table.
   *
   * @param values what they refer to it by, in the order of the relationship's fields
   */
  public RowsQuery only(RelationshipId children, List<String> values) {
    only.put(children, List.copyOf(values));
    return this;
  }

  /** A column of the table itself. */
  public String own(FieldId field) {
    return column(aliases.own, table, field);
  }

  private String column(String alias, Table of, FieldId field) {
    return alias + "." + dialect.name(of.field(field).name());
  }

  /**
   * A formula of the table as the query says it; what it reads is joined.
   *
   * @throws Unsaid if the engine cannot
   */
  public String value(Expression tree) {
    return kept(dialect.say(read(tree)));
  }

  /**
   * A condition on the table's rows as the query says it; what it reads is joined.
   *
   * @throws Unsaid if the engine cannot
   */
  public String condition(Expression tree) {
    return kept(dialect.sayCondition(read(tree)));
  }

  /** What stands for the rows that a way leads to, once something was read over it. */
  public String at(List<RelationshipId> way) {
    return alias(way);
  }

  private static String kept(Support support) {
    return switch (support) {
      case Support.Kept kept -> kept.sql();
      case Support.Impossible impossible -> throw new Unsaid(impossible.loss());
    };
  }

  private Expression read(Expression tree) {
    return tree instanceof Expression.FieldRef(Reference to, Place place)
        ? read(to, place)
        : tree.withParts(this::read);
  }

  /** Something of a row as an expression the engine's texts can be made of; it is joined. */
  public Expression read(Reference to, Place place) {
    return switch (to) {
      case OwnField own ->
          new Expression.FieldRef(new Joined(List.of(aliases.own, own.name()), own.type()), place);
      case FarField far -> {
        Table end = far.table(design);
        List<String> path = List.of(alias(far.over()), end.field(far.field()).name());
        yield new Expression.FieldRef(new Joined(path, far.type()), place);
      }
      case Summed summed -> summed(summed, place);
      default -> throw new IllegalArgumentException(to.name() + " is no field of a row");
    };
  }

  /** The rows a way leads to; those before on the way are joined first. */
  private String alias(List<RelationshipId> way) {
    if (way.isEmpty()) {
      return aliases.own;
    }
    alias(way.subList(0, way.size() - 1));
    return joined.computeIfAbsent(
        List.copyOf(way),
        over -> {
          String alias = aliases.ways + (joined.size() + 1);
          joins.add(new Way(over, alias));
          return alias;
        });
  }

  /** Where no row refers to one there is no group, and a count is 0. */
  private Expression summed(Summed summed, Place place) {
    alias(summed.over());
    var of = new SumsOf(summed.over(), summed.children());
    Sums group = sums.computeIfAbsent(of, this::sums);
    String made = made(summed, group.rows);
    if (!group.made.contains(made)) {
      group.made.add(made);
    }
    String name = "v" + (group.made.indexOf(made) + 1);
    var column =
        new Expression.FieldRef(new Joined(List.of(group.alias, name), summed.type()), place);
    return summed.fold() == Summed.Fold.COUNT
        ? new Expression.Call(
            Expression.Function.COALESCE,
            List.of(column, new Expression.Literal(Value.whole(0), Kind.WHOLE, place)),
            place)
        : column;
  }

  private Sums sums(SumsOf of) {
    Table child = design.table(design.relationship(of.children).child());
    var rows = new RowsQuery(design, child, dialect);
    var group = new Sums(of, aliases.sums + (sums.size() + 1), rows, new ArrayList<>());
    joins.add(group);
    return group;
  }

  /** Rows that do not count have no value, so that one pass over the rows makes everything. */
  private String made(Summed summed, RowsQuery rows) {
    Expression of =
        summed.of().orElse(new Expression.Literal(Value.whole(1), Kind.WHOLE, Place.NOWHERE));
    String value = rows.value(summed.where().map(where -> onlyWhere(where, of)).orElse(of));
    return switch (summed.fold()) {
      case COUNT -> summed.where().isEmpty() ? "COUNT(*)" : "COUNT(" + value + ")";
      case SUM -> dialect.sum(value, summed.type());
      case LEAST -> "MIN(" + value + ")";
      case GREATEST -> "MAX(" + value + ")";
      case JOINED -> dialect.joinedTexts(value, order(summed, rows), summed.between());
    };
  }

  private static Expression onlyWhere(Expression where, Expression of) {
    return new Expression.Case(
        Optional.empty(), List.of(new Expression.When(where, of)), Optional.empty(), Place.NOWHERE);
  }

  /** Rows that nothing puts in order come last, whatever the engine does with them. */
  private static List<String> order(Summed summed, RowsQuery rows) {
    var order = new ArrayList<String>();
    summed
        .by()
        .map(rows::value)
        .ifPresent(
            by -> {
              order.add("CASE WHEN " + by + " IS NULL THEN 1 ELSE 0 END");
              order.add(by);
            });
    order.add(rows.value(new Expression.CodePoints(summed.of().orElseThrow(), Place.NOWHERE)));
    return order;
  }

  /** What the rows are taken from: FROM with all joins, over several lines. */
  public String from() {
    return "\nFROM " + own() + beside();
  }

  /** The table under its alias. */
  public String own() {
    return dialect.name(table.name()) + " " + aliases.own;
  }

  /** The joins alone, each on a line of its own behind the table. */
  public String beside() {
    return joins.stream().map(join -> "\nLEFT JOIN " + said(join)).collect(Collectors.joining());
  }

  private String said(Join join) {
    return switch (join) {
      case Way way -> {
        Relationship last = design.relationship(way.over.getLast());
        Table parent = design.table(last.parent());
        List<String> keys =
            last.parentFields().stream().map(f -> column(way.alias, parent, f)).toList();
        String before = alias(way.over.subList(0, way.over.size() - 1));
        Table child = design.table(last.child());
        List<String> from = last.childFields().stream().map(f -> column(before, child, f)).toList();
        yield dialect.name(parent.name()) + " " + way.alias + on(from, keys);
      }
      case Sums group -> {
        Relationship over = design.relationship(group.of.children);
        Table parent = design.table(over.parent());
        String before = alias(group.of.over);
        List<String> from =
            over.parentFields().stream().map(f -> column(before, parent, f)).toList();
        List<String> keys =
            IntStream.rangeClosed(1, from.size())
                .mapToObj(i -> group.alias + "." + dialect.name("k" + i))
                .toList();
        yield "(" + grouped(group, over) + ") " + group.alias + on(from, keys);
      }
    };
  }

  private static String on(List<String> left, List<String> right) {
    return " ON " + same(left, right);
  }

  /** That values are the same, one by one. */
  public static String same(List<String> left, List<String> right) {
    return IntStream.range(0, left.size())
        .mapToObj(i -> left.get(i) + " = " + right.get(i))
        .collect(Collectors.joining(" AND "));
  }

  private boolean isOnly(Sums group) {
    return group.of.over.isEmpty() && only.containsKey(group.of.children);
  }

  private String which(Sums group, List<String> keys) {
    if (!isOnly(group)) {
      return "";
    }
    return "\nWHERE " + same(keys, only.get(group.of.children));
  }

  private String grouped(Sums group, Relationship over) {
    List<String> keys = over.childFields().stream().map(group.rows::own).toList();
    var selected = new ArrayList<String>();
    for (int i = 0; i < keys.size(); i++) {
      selected.add(keys.get(i) + " AS " + dialect.name("k" + (i + 1)));
    }
    for (int i = 0; i < group.made.size(); i++) {
      selected.add(group.made.get(i) + " AS " + dialect.name("v" + (i + 1)));
    }
    String sql =
        "SELECT "
            + String.join(", ", selected)
            + group.rows.from()
            + which(group, keys)
            + "\nGROUP BY "
            + String.join(", ", keys)
            + (isOnly(group) ? dialect.lockingRead() : "");
    return sql.replace("\n", "\n  ");
  }
}
