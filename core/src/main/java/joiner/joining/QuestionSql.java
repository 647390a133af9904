package joiner.joining;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.engine.Dialect;
import joiner.engine.RowsQuery;
import joiner.engine.Support;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.expression.Width;
import joiner.meaning.AskedField;
import joiner.meaning.Means;
import joiner.model.FieldId;
import joiner.model.Question;
import joiner.naming.NamingPolicy;
import joiner.naming.WordList;

/**
 * A question as one query of an engine. Where rows of a role count once in a line though joins
 * repeat them, the joined rows are named first and each role is summed up over its different rows.
 */
public final class QuestionSql {
  private final Bound bound;
  private final Dialect dialect;
  private final List<RowsQuery> rows = new ArrayList<>();
  private final List<String> aliases = new ArrayList<>();

  private QuestionSql(Bound bound, Dialect dialect) {
    this.bound = bound;
    this.dialect = dialect;
    for (Bound.Joined role : bound.roles()) {
      String alias = alias(role.name());
      aliases.add(alias);
      rows.add(new RowsQuery(bound.design(), role.table(), dialect, alias));
    }
  }

  /** The first letters of the words, and a number where others begin so. */
  private String alias(String name) {
    String letters =
        NamingPolicy.nameFor(name).lines().findFirst().orElse("r").toLowerCase(Locale.ROOT);
    String first =
        Arrays.stream(letters.split("_"))
            .filter(word -> !word.isEmpty())
            .map(word -> word.substring(0, 1))
            .collect(Collectors.joining());
    String start = first.isEmpty() || !Character.isLetter(first.charAt(0)) ? "r" : first;
    int number = 1; // A number keeps it from being a word of the language, such as "as" or "on".
    while (aliases.contains(start + number)) {
      number++;
    }
    return start + number;
  }

  /** The question in the words of an engine, or what it cannot say. */
  public static Support of(Bound bound, Dialect dialect) {
    try {
      return new Support.Kept(new QuestionSql(bound, dialect).query(true));
    } catch (RowsQuery.Unsaid unsaid) {
      return new Support.Impossible(unsaid.getMessage());
    }
  }

  /** The same as a view keeps it: without an order, unless it says which lines are the first. */
  public static Support ofView(Bound bound, Dialect dialect) {
    if (!bound.question().parameters().isEmpty()) {
      return new Support.Impossible(
          "a view has nothing to fill in, and this asks for "
              + WordList.and(
                  bound.question().parameters().stream().map(Question.Parameter::name).toList()));
    }
    try {
      boolean ordered = bound.question().first().isPresent();
      return new Support.Kept(new QuestionSql(bound, dialect).query(ordered));
    } catch (RowsQuery.Unsaid unsaid) {
      return new Support.Impossible(unsaid.getMessage());
    }
  }

  /** A column of what is selected from. */
  private record Named(List<String> path, ValueType type) implements Reference {}

  private static Expression named(ValueType type, String... path) {
    return new Expression.FieldRef(new Named(List.of(path), type), Place.NOWHERE);
  }

  private String query(boolean ordered) {
    List<String> names = LineScope.names(bound.question());
    boolean plainly =
        bound.folded().stream()
            .allMatch(f -> !needsRowsOnce(f) && f.fold() != Question.Fold.AVERAGE);
    if (plainly && bound.having().isEmpty() && !(ordered && isOrdered())) {
      return joined(names);
    }
    var with = new ArrayList<String>();
    List<Expression> last =
        bound.folded().stream().anyMatch(this::needsRowsOnce) ? once(with) : grouped(with);
    var selected = new ArrayList<String>();
    for (int i = 0; i < last.size(); i++) {
      selected.add(said(last.get(i)) + " AS " + dialect.name(names.get(i)));
    }
    return "WITH "
        + String.join(",\n", with)
        + "\nSELECT "
        + String.join(",\n  ", selected)
        + from
        + left(last)
        + (ordered && isOrdered() ? order(last) : "");
  }

  /** The conditions on lines, over what their columns come to. */
  private String left(List<Expression> columns) {
    List<String> conditions =
        bound.having().stream()
            .map(
                condition ->
                    kept(
                        dialect.sayCondition(
                            Binding.replaced(
                                condition,
                                read -> columns.get(((LineScope.OfLine) read).column())))))
            .toList();
    return conditions.isEmpty() ? "" : "\nWHERE " + bracketed(conditions);
  }

  /** What the last selection is taken from. */
  private String from = "";

  private boolean isOrdered() {
    return !bound.question().order().isEmpty() || bound.question().first().isPresent();
  }

  private boolean needsRowsOnce(Bound.Folded folded) {
    return folded.once() && folded.fold().hangsOnRepetition() && !isDistinctCount(folded);
  }

  /** A row is told by one column, so that counting the different ones is counting the rows. */
  private boolean isDistinctCount(Bound.Folded folded) {
    return folded.fold() == Question.Fold.COUNT
        && folded.of().isEmpty()
        && bound.roles().get(folded.role()).key().size() == 1;
  }

  private String said(Expression tree) {
    return kept(dialect.say(tree));
  }

  private static String kept(Support support) {
    return switch (support) {
      case Support.Kept kept -> kept.sql();
      case Support.Impossible impossible -> throw new RowsQuery.Unsaid(impossible.loss());
    };
  }

  /** A formula of the question in columns of the joined tables. */
  private Expression read(Expression tree) {
    return Binding.replaced(
        tree,
        read -> {
          var asked = (AskedField) read;
          return rows.get(asked.role()).read(asked.of(), Place.NOWHERE);
        });
  }

  private String value(Expression tree) {
    return said(read(tree));
  }

  /** One selection from the joined tables, grouped where lines or folds ask for it. */
  private String joined(List<String> names) {
    var selected = new ArrayList<String>();
    for (int i = 0; i < bound.columns().size(); i++) {
      String sql =
          switch (bound.columns().get(i)) {
            case Bound.Shown shown -> value(shown.of());
            case Bound.Folded folded -> fold(folded, folded.of().map(this::value));
          };
      selected.add(sql + " AS " + dialect.name(names.get(i)));
    }
    return selection(String.join(",\n  ", selected));
  }

  private String selection(String selected) {
    List<String> group = needsGroups() ? lineOf() : List.of();
    return "SELECT " + selected + tables() + groupBy(group);
  }

  /** What makes a line: the values shown and the keys of rows that are told apart. */
  private List<String> lineOf() {
    Set<String> line = new LinkedHashSet<>();
    bound.shown().forEach(shown -> line.add(value(shown.of())));
    bound.apart().forEach(role -> line.addAll(key(role)));
    return List.copyOf(line);
  }

  private List<String> key(int role) {
    return bound.roles().get(role).key().stream().map(rows.get(role)::own).toList();
  }

  /** Without folds, and where each combination is a line by itself, nothing needs a group. */
  private boolean needsGroups() {
    return !bound.folded().isEmpty() || !new Repetition(bound).eachCombinationIsALine();
  }

  /** A fold over the joined tables; rows without a value of their own are counted by their key. */
  private String fold(Bound.Folded folded, Optional<String> of) {
    String key = rows.get(folded.role()).own(bound.roles().get(folded.role()).key().getFirst());
    return folded(folded, of.orElse((folded.once() ? "DISTINCT " : "") + key));
  }

  /** Sum and count of a mean, or the one thing that anything else is made of. */
  private List<Bound.Folded> parts(Bound.Folded folded) {
    if (folded.fold() != Question.Fold.AVERAGE) {
      return List.of(folded);
    }
    Expression of = folded.of().orElseThrow();
    ValueType numbers = ValueType.number(ValueType.UNKNOWN);
    return List.of(
        new Bound.Folded(
            "", Question.Fold.SUM, folded.role(), folded.of(), numbers, folded.once(), 0),
        new Bound.Folded(
            "",
            Question.Fold.COUNT,
            folded.role(),
            Optional.of(of),
            ValueType.whole(Width.BITS_64),
            folded.once(),
            0));
  }

  /** What parts come to, once each is a column. */
  private static Expression whole(Bound.Folded folded, List<Expression> parts) {
    return folded.fold() == Question.Fold.AVERAGE
        ? Means.of(parts.get(0), parts.get(1), folded.decimals())
        : parts.getFirst();
  }

  /** Lines with their folds as one named selection. */
  private List<Expression> grouped(List<String> with) {
    var selected = new ArrayList<String>();
    var columns = new ArrayList<Expression>();
    int folds = 0;
    for (Bound.Column column : bound.columns()) {
      switch (column) {
        case Bound.Shown shown -> {
          String name = "c" + (selected.size() + 1);
          selected.add(value(shown.of()) + " AS " + name);
          columns.add(named(shown.type(), "a", name));
        }
        case Bound.Folded folded -> {
          var parts = new ArrayList<Expression>();
          for (Bound.Folded part : parts(folded)) {
            String name = "f" + ++folds;
            selected.add(fold(part, part.of().map(this::value)) + " AS " + name);
            parts.add(named(part.type(), "a", name));
          }
          columns.add(whole(folded, parts));
        }
      }
    }
    with.add(named("grouped", selection(String.join(", ", selected))));
    from = "\nFROM grouped a";
    return columns;
  }

  private static String named(String name, String query) {
    return name + " AS (\n  " + query.replace("\n", "\n  ") + ")";
  }

  /** The joined rows with all that is needed of them, lines, and each role summed up by itself. */
  private List<Expression> once(List<String> with) {
    var joined = new LinkedHashMap<String, String>();
    List<String> line = new ArrayList<>();
    var columns = new ArrayList<Expression>();
    bound
        .shown()
        .forEach(
            shown -> {
              line.add("c" + (line.size() + 1));
              joined.put(line.getLast(), value(shown.of()));
            });
    bound
        .apart()
        .forEach(
            role ->
                key(role)
                    .forEach(
                        key -> {
                          line.add("k" + (line.size() + 1));
                          joined.put(line.getLast(), key);
                        }));
    Map<Integer, Once> roles = new LinkedHashMap<>();
    var lines = new ArrayList<>(line);
    int shown = 0;
    for (Bound.Column column : bound.columns()) {
      switch (column) {
        case Bound.Shown of -> columns.add(named(of.type(), "l", "c" + ++shown));
        case Bound.Folded folded -> {
          var parts = new ArrayList<Expression>();
          for (Bound.Folded part : parts(folded)) {
            parts.add(part(part, folded.once(), joined, roles, lines));
          }
          columns.add(whole(folded, parts));
        }
      }
    }
    with.add(named("joined", "SELECT " + aliased(joined) + tables()));
    if (lines.isEmpty()) { // Everything is one line, and what it is made of stands beside it.
      lines.add("COUNT(*) AS n");
    }
    with.add(
        named("grouped", "SELECT " + String.join(", ", lines) + "\nFROM joined j" + groupBy(line)));
    var sources = new StringBuilder("\nFROM grouped l");
    roles.forEach(
        (role, once) -> {
          with.add(named(once.name, once.query(line)));
          sources.append("\nLEFT JOIN ").append(once.name).append(" ON ").append(once.same(line));
        });
    from = sources.toString();
    return columns;
  }

  private static String aliased(Map<String, String> columns) {
    return columns.entrySet().stream()
        .map(column -> column.getValue() + " AS " + column.getKey())
        .collect(Collectors.joining(", "));
  }

  private static String groupBy(List<String> line) {
    return line.isEmpty() ? "" : "\nGROUP BY " + String.join(", ", line);
  }

  /** What one part of a fold is read as in the end; its value joins the joined rows. */
  private Expression part(
      Bound.Folded part,
      boolean once,
      Map<String, String> joined,
      Map<Integer, Once> roles,
      List<String> lines) {
    Optional<String> value = part.of().map(this::value);
    List<String> key = key(part.role());
    if (!once) {
      String column = "v" + (joined.size() + 1);
      joined.put(column, value.orElse(key.getFirst()));
      String name = "f" + (lines.size() + 1);
      lines.add(folded(part, column) + " AS " + name);
      return named(part.type(), "l", name);
    }
    Once of = roles.computeIfAbsent(part.role(), role -> new Once(role, joined, key));
    String column = of.key.getFirst();
    if (value.isPresent()) {
      column = "v" + (joined.size() + 1);
      joined.put(column, value.get());
      of.values.add(column);
    }
    String name = "f" + (of.folds.size() + 1);
    of.folds.add(folded(part, column) + " AS " + name);
    Expression found = named(part.type(), of.name, name);
    return part.fold() == Question.Fold.COUNT || part.fold() == Question.Fold.DIFFERENT
        ? orNone(found)
        : found;
  }

  private static Expression orNone(Expression count) {
    var none = new Expression.Literal(Value.whole(0), Kind.WHOLE, Place.NOWHERE);
    return new Expression.Call(Expression.Function.COALESCE, List.of(count, none), Place.NOWHERE);
  }

  private String folded(Bound.Folded part, String column) {
    return switch (part.fold()) {
      case COUNT -> "COUNT(" + column + ")";
      case DIFFERENT -> "COUNT(DISTINCT " + column + ")";
      case SUM -> dialect.sum(column, part.type());
      case AVERAGE -> throw new IllegalStateException("a mean is made of two");
      case LEAST -> "MIN(" + column + ")";
      case GREATEST -> "MAX(" + column + ")";
    };
  }

  /** The different rows of a role within each line. */
  private final class Once {
    final String name;
    final List<String> key = new ArrayList<>();
    final Set<String> values = new LinkedHashSet<>();
    final List<String> folds = new ArrayList<>();

    Once(int role, Map<String, String> joined, List<String> columns) {
      this.name = aliases.get(role) + "_once";
      for (String column : columns) {
        String called = "k" + (joined.size() + 1);
        joined.put(called, column);
        key.add(called);
      }
    }

    String query(List<String> line) {
      var all = new ArrayList<>(line);
      all.addAll(key);
      all.addAll(values);
      var selected = new ArrayList<>(line);
      selected.addAll(folds);
      return "SELECT "
          + String.join(", ", selected)
          + "\nFROM (SELECT DISTINCT "
          + String.join(", ", all)
          + " FROM joined WHERE "
          + key.getFirst()
          + " IS NOT NULL) d"
          + groupBy(line);
    }

    /** Lines are the same where nothing stands against nothing, too. */
    String same(List<String> line) {
      return line.isEmpty()
          ? "1 = 1"
          : line.stream()
              .map(
                  c ->
                      "(l.%1$s = %2$s.%1$s OR (l.%1$s IS NULL AND %2$s.%1$s IS NULL))"
                          .formatted(c, name))
              .collect(Collectors.joining(" AND "));
    }
  }

  /** FROM with all joins, and WHERE. */
  private String tables() {
    Map<Integer, List<String>> conditions = new HashMap<>();
    for (Bound.Where where : bound.where()) {
      conditions
          .computeIfAbsent(where.group(), g -> new ArrayList<>())
          .add(kept(dialect.sayCondition(read(where.condition()))));
    }
    String where = conditions.containsKey(0) ? "\nWHERE " + bracketed(conditions.get(0)) : "";
    return "\nFROM " + group(0, conditions) + where;
  }

  private static String bracketed(List<String> conditions) {
    return conditions.size() == 1
        ? conditions.getFirst()
        : conditions.stream().map(c -> "(" + c + ")").collect(Collectors.joining(" AND "));
  }

  /** The tables of a group with those of the groups within it. */
  private String group(int group, Map<Integer, List<String>> conditions) {
    var sql = new StringBuilder();
    for (int role : bound.members(group)) {
      if (role == group) {
        sql.append(rows.get(role).own());
      } else {
        sql.append("\nJOIN ").append(rows.get(role).own()).append(" ON ").append(on(role));
      }
      sql.append(rows.get(role).beside());
    }
    for (int inner : bound.within(group)) {
      String tables = group(inner, conditions);
      boolean alone = !tables.contains("\n");
      sql.append("\nLEFT JOIN ")
          .append(alone ? tables : "(" + tables.replace("\n", "\n  ") + ")")
          .append(" ON ")
          .append(on(inner));
      if (conditions.containsKey(inner)) {
        conditions.get(inner).forEach(c -> sql.append(" AND (").append(c).append(")"));
      }
    }
    return sql.toString();
  }

  private String on(int role) {
    Bound.Joined joined = bound.roles().get(role);
    var over = joined.over().orElseThrow();
    List<FieldId> here = joined.down() ? over.childFields() : over.parentFields();
    List<FieldId> there = joined.down() ? over.parentFields() : over.childFields();
    return RowsQuery.same(
        there.stream().map(rows.get(joined.from())::own).toList(),
        here.stream().map(rows.get(role)::own).toList());
  }

  /** By the columns asked for, then by all others; what has no value comes last. */
  private String order(List<Expression> columns) {
    Question question = bound.question();
    Set<Integer> all = new LinkedHashSet<>();
    Set<Integer> descending = new TreeSet<>();
    for (Question.Order order : question.order()) {
      if (order.column() < columns.size() && all.add(order.column()) && order.descending()) {
        descending.add(order.column());
      }
    }
    IntStream.range(0, columns.size()).forEach(all::add);
    String by =
        all.stream()
            .map(
                i -> {
                  Expression column = columns.get(i);
                  boolean text = bound.columns().get(i).type().kind() == Kind.TEXT;
                  Expression value =
                      text ? new Expression.CodePoints(column, Place.NOWHERE) : column;
                  return "CASE WHEN "
                      + said(column)
                      + " IS NULL THEN 1 ELSE 0 END, "
                      + said(value)
                      + (descending.contains(i) ? " DESC" : "");
                })
            .collect(Collectors.joining(", "));
    String first =
        question.first().isPresent() ? "\n" + dialect.first(question.first().getAsInt()) : "";
    return "\nORDER BY " + by + first;
  }
}
