package joiner.ddl;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.Generated;
import joiner.catalog.Key;
import joiner.catalog.SqlType;
import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Scope;
import joiner.expression.Value;
import joiner.meaning.TableMeaning;
import joiner.model.ByteSize;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.Origin;
import joiner.model.OwnField;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.UniqueKey;
import joiner.naming.ConstraintNaming;
import joiner.naming.NamingPolicy;

/** Makes a table of a design of one of a schema. */
final class TableRaising {
  private final CatalogTable from;
  private final Map<String, Field> fields = new LinkedHashMap<>();
  private final List<Rule> rules = new ArrayList<>();
  private final List<String> unread = new ArrayList<>();

  TableRaising(CatalogTable from) {
    this.from = from;
  }

  Table raise() {
    from.columns().forEach(column -> fields.put(column.name(), field(column)));
    String label = NamingPolicy.labelFor(from.name());
    Table bare =
        Table.of(from.name(), label, Noun.ofLabel(label))
            .withDescription(from.comment())
            .withFields(List.copyOf(fields.values()));
    Scope scope = TableMeaning.of(bare).scope();
    from.columns()
        .forEach(column -> column.generated().ifPresent(how -> computed(column, how, scope)));
    from.checks().forEach(check -> check(check, scope));
    Table table = bare.withFields(List.copyOf(fields.values())).withRules(rules);
    return table
        .withPrimaryKey(from.primaryKey().map(key -> ids(key.columns())).orElse(List.of()))
        .withUniqueKeys(uniqueKeys())
        .withIndexes(indexes());
  }

  List<String> unread() {
    return unread;
  }

  private static List<FieldId> ids(List<String> columns) {
    return columns.stream().map(FieldId::new).toList();
  }

  private boolean areFields(List<String> columns, String what) {
    boolean all = fields.keySet().containsAll(columns);
    if (!all) {
      unread.add(
          what + " of " + from.name() + " is over something that is no column: " + columns + ".");
    }
    return all;
  }

  private List<UniqueKey> uniqueKeys() {
    var keys = new ArrayList<UniqueKey>();
    for (Key key : from.uniqueKeys()) {
      if (areFields(key.columns(), "The unique key " + key.name())) {
        String wanted =
            key.name().isEmpty() ? ConstraintNaming.unique(from.name(), key.columns()) : key.name();
        String name = NamingPolicy.free(wanted, keys.stream().map(UniqueKey::name).toList());
        keys.add(new UniqueKey(name, ids(key.columns())));
      }
    }
    return keys;
  }

  /** An index that an engine made by itself for a foreign key bears the key's name. */
  private boolean isOfItsKey(CatalogIndex index) {
    return from.foreignKeys().stream()
        .anyMatch(
            key ->
                key.columns().equals(index.columns())
                    && !key.name().isEmpty()
                    && index.name().startsWith(key.name()));
  }

  private List<Index> indexes() {
    var indexes = new ArrayList<Index>();
    for (CatalogIndex index : from.indexes()) {
      if (!isOfItsKey(index) && areFields(index.columns(), "The index " + index.name())) {
        indexes.add(
            new Index(index.name(), ids(index.columns()))
                .withDescending(Set.copyOf(ids(List.copyOf(index.descending())))));
      }
    }
    return indexes;
  }

  private Field field(Column column) {
    boolean inKey =
        from.primaryKey().filter(key -> key.columns().contains(column.name())).isPresent();
    return new Field(
        new FieldId(column.name()),
        column.name(),
        NamingPolicy.labelFor(column.name()),
        type(column),
        column.required() && !inKey,
        defaultOf(column),
        Limits.NONE,
        column.comment(),
        "",
        Origin.TYPED,
        Extras.NONE);
  }

  /** What a column is computed by, where that can be read. */
  private void computed(Column column, Generated how, Scope scope) {
    FoundSql.read(how.sql(), formula -> formula.value(scope) instanceof Checked.Sound)
        .ifPresentOrElse(
            formula ->
                put(
                    fields
                        .get(column.name())
                        .withDefault(Optional.empty())
                        .withOrigin(new Origin.Computed(formula))),
            () ->
                unread.add(
                    from.name()
                        + "."
                        + column.name()
                        + " is computed by the database ("
                        + how.sql().strip()
                        + "), which cannot be read; here it is a field that people fill in."));
  }

  private FieldType type(Column column) {
    return switch (column.type()) {
      case SqlType.Varchar t -> new FieldType.Text(Math.max(1, t.length()));
      case SqlType.LongText t -> new FieldType.LongText();
      case SqlType.Whole t when column.counts() -> new FieldType.Counter(t.width());
      case SqlType.Whole t -> new FieldType.WholeNumber(t.width());
      case SqlType.Decimal t -> decimal(t);
      case SqlType.AnyNumber t -> new FieldType.AnyNumber();
      case SqlType.TrueFalse t -> new FieldType.TrueFalse();
      case SqlType.Date t -> new FieldType.Date();
      case SqlType.Time t -> new FieldType.Time();
      case SqlType.Timestamp t -> new FieldType.DateTime(t.zoned());
      case SqlType.Uuid t -> new FieldType.Uuid();
      case SqlType.Bytes t -> new FieldType.Content(List.of(), Integer.MAX_VALUE);
      case SqlType.Other t -> {
        unread.add(
            from.name()
                + "."
                + column.name()
                + " has the type "
                + t.spelled()
                + "; it is taken as long text.");
        yield new FieldType.LongText();
      }
    };
  }

  private static FieldType decimal(SqlType.Decimal type) {
    boolean fits =
        type.precision() >= 1
            && type.precision() <= 38
            && type.scale() >= 0
            && type.scale() <= type.precision();
    return fits ? new FieldType.Decimal(type.precision(), type.scale()) : new FieldType.AnyNumber();
  }

  private Optional<Formula> defaultOf(Column column) {
    if (column.counts() || column.defaultValue().isEmpty()) {
      return Optional.empty();
    }
    String sql = truth(column, column.defaultValue().get().sql());
    Optional<Formula> formula = FoundSql.read(sql, f -> f.constant() instanceof Checked.Sound);
    if (formula.isEmpty()) {
      unread.add(
          "The default of "
              + from.name()
              + "."
              + column.name()
              + " cannot be read and is left out: "
              + sql);
    }
    return formula;
  }

  /** Engines without truth values write them as numbers. */
  private static String truth(Column column, String sql) {
    String bare = sql.replaceAll("[()\\s]", "");
    return column.type() instanceof SqlType.TrueFalse && bare.matches("[01]")
        ? bare.equals("1") ? "TRUE" : "FALSE"
        : sql;
  }

  private void check(Check check, Scope scope) {
    String sql = check.condition().sql();
    Optional<Formula> formula =
        FoundSql.read(sql, f -> f.condition(scope) instanceof Checked.Sound);
    if (formula.isEmpty()) {
      unread.add(
          "The check "
              + check.name()
              + " of "
              + from.name()
              + " cannot be read and is left out: "
              + sql);
      return;
    }
    Expression tree = ((Checked.Sound) formula.get().condition(scope)).tree();
    if (!becomesLimit(tree)) {
      String wanted = check.name().isEmpty() ? "rule" : check.name();
      String name = NamingPolicy.free(wanted, rules.stream().map(Rule::name).toList());
      rules.add(new Rule(name, NamingPolicy.labelFor(name), formula.get(), ""));
    }
  }

  /** Takes a condition on one field into its choices or limits, if it is one that they can say. */
  private boolean becomesLimit(Expression tree) {
    return switch (tree) {
      case Expression.In(
              Expression.FieldRef(OwnField own, var p),
              List<Expression> options,
              boolean negated,
              var q)
          when !negated ->
          listed(own, options);
      case Expression.Between(
              Expression.FieldRef(OwnField own, var p),
              Expression low,
              Expression high,
              boolean negated,
              var q)
          when !negated && !isText(own) ->
          both(own, low, high);
      case Expression.And(List<Expression> operands, var p) -> allBecomeLimits(operands);
      case Expression.Compare(var side, Expression left, Expression right, var p) ->
          bounded(side, left, right);
      default -> false;
    };
  }

  /** BETWEEN is given back as two comparisons by some engines. */
  private boolean allBecomeLimits(List<Expression> operands) {
    Map<String, Field> before = new LinkedHashMap<>(fields);
    if (operands.stream().allMatch(this::becomesLimit)) {
      return true;
    }
    fields.putAll(before);
    return false;
  }

  private static boolean isText(OwnField own) {
    return own.type().kind() == Kind.TEXT;
  }

  private boolean listed(OwnField own, List<Expression> options) {
    Field field = fields.get(own.name());
    List<String> texts =
        options.stream().map(TableRaising::literal).flatMap(Optional::stream).toList();
    if (texts.size() != options.size() || !field.limits().allowed().isEmpty()) {
      return false;
    }
    boolean choice =
        field.type() instanceof FieldType.Text
            && texts.stream().distinct().count() == texts.size()
            && texts.stream().noneMatch(String::isEmpty);
    put(
        choice
            ? field.withType(FieldType.Choice.of(texts))
            : field.withLimits(field.limits().withAllowed(texts)));
    return true;
  }

  private boolean both(OwnField own, Expression low, Expression high) {
    Optional<String> least = literal(low);
    Optional<String> most = literal(high);
    Field field = fields.get(own.name());
    if (least.isEmpty()
        || most.isEmpty()
        || field.limits().minimum().isPresent()
        || field.limits().maximum().isPresent()) {
      return false;
    }
    put(field.withLimits(field.limits().withRange(least, most)));
    return true;
  }

  private boolean bounded(Comparison side, Expression left, Expression right) {
    Optional<String> bound = literal(right);
    if (bound.isEmpty()) {
      return false;
    }
    if (left instanceof Expression.Call(var function, var arguments, var p)
        && function == Expression.Function.CHAR_LENGTH
        && arguments.getFirst() instanceof Expression.FieldRef(OwnField own, var q)
        && bound.get().matches("\\d{1,9}")) {
      int length = Integer.parseInt(bound.get());
      return side == Comparison.AT_LEAST && leastLength(own, length)
          || side == Comparison.AT_MOST && greatestLength(own, length);
    }
    if (left instanceof Expression.Call(var function, var arguments, var p)
        && function == Expression.Function.OCTET_LENGTH
        && arguments.getFirst() instanceof Expression.FieldRef(OwnField own, var q)) {
      return side == Comparison.AT_MOST && mostBytes(own, bound.get());
    }
    if (!(left instanceof Expression.FieldRef(OwnField own, var p)) || isText(own)) {
      return false;
    }
    Field field = fields.get(own.name());
    if (!Limits.SIDES.contains(side) || field.limits().bound(side).isPresent()) {
      return false;
    }
    put(field.withLimits(field.limits().withBound(side, bound)));
    return true;
  }

  /** Engines that keep no lengths in their types keep them so. */
  private boolean greatestLength(OwnField own, int most) {
    Field field = fields.get(own.name());
    if (!(field.type() instanceof FieldType.LongText) || most < 1) {
      return false;
    }
    put(field.withType(new FieldType.Text(most)));
    return true;
  }

  private boolean mostBytes(OwnField own, String most) {
    Field field = fields.get(own.name());
    OptionalInt bytes = ByteSize.read(most);
    if (!(field.type() instanceof FieldType.Content content) || bytes.isEmpty()) {
      return false;
    }
    put(field.withType(new FieldType.Content(content.media(), bytes.getAsInt())));
    return true;
  }

  private boolean leastLength(OwnField own, int least) {
    Field field = fields.get(own.name());
    if (field.limits().minLength().isPresent()) {
      return false;
    }
    put(field.withLimits(field.limits().withMinLength(OptionalInt.of(least))));
    return true;
  }

  private void put(Field field) {
    fields.put(field.name(), field);
  }

  /** A value written out, as its text. */
  private static Optional<String> literal(Expression tree) {
    return switch (tree) {
      case Expression.Literal(Value value, var kind, var place)
          when !(value instanceof Value.Null) ->
          Optional.of(value instanceof Value.Text text ? text.text() : Evaluator.show(value));
      case Expression.Negate(Expression.Literal(Value value, var kind, var q), var p) ->
          Optional.of("-" + Evaluator.show(value));
      case Expression.Fitting fitting -> literal(fitting.operand());
      default -> Optional.empty();
    };
  }
}
