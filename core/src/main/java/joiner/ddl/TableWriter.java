package joiner.ddl;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Predicate;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Kind;
import joiner.expression.RuleLanguage;
import joiner.expression.Span;
import joiner.expression.SqlText;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.Limits;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.UniqueKey;
import joiner.naming.IdentifierRules;
import joiner.rows.ReadValue;
import joiner.rows.ValueReader;
import joiner.shape.TextPattern;

/** Writes one table, and remembers what it promised and what it could not say. */
final class TableWriter {
  private static final Span NOWHERE = new Span(0, 0);

  private final Design design;
  private final Table table;
  private final List<Relationship> relationships;
  private final Predicate<Relationship> isLate;
  private final Dialect dialect;
  private final ConstraintNames names;
  private final List<String> lines = new ArrayList<>();
  private final List<Statement> late = new ArrayList<>();
  private final List<Shortfall> shortfalls = new ArrayList<>();
  private final Map<String, Catalog.Column> columns = new LinkedHashMap<>();
  private final Set<Catalog.Reference> references = new HashSet<>();
  private final Set<String> checks = new HashSet<>();
  private boolean keyInside;

  TableWriter(
      Design design,
      Table table,
      List<Relationship> relationships,
      Predicate<Relationship> isLate,
      Dialect dialect,
      ConstraintNames names) {
    this.design = design;
    this.table = table;
    this.relationships = relationships;
    this.isLate = isLate;
    this.dialect = dialect;
    this.names = names;
  }

  /** The CREATE TABLE statement. */
  Statement create() {
    table.fields().forEach(this::column);
    primaryKey();
    table.uniqueKeys().forEach(this::unique);
    relationships.forEach(this::reference);
    table.fields().forEach(this::fieldChecks);
    table.rules().forEach(this::rule);
    String comment =
        table.label() + (table.description().isBlank() ? "" : ": " + table.description());
    String inside = dialect.tableComment(table.name(), "").isPresent() ? "" : describedInside();
    return new Statement(
        Statement.Section.TABLES,
        comment,
        "CREATE TABLE "
            + dialect.name(table.name())
            + " ("
            + inside
            + "\n  "
            + String.join(",\n  ", lines)
            + "\n)",
        Optional.of(dialect.name(table.name())));
  }

  /** Where the engine keeps no descriptions, they stand as comments in the text it keeps. */
  private String describedInside() {
    return table.description().isBlank() ? "" : " -- " + table.description().replaceAll("\\R", " ");
  }

  List<Statement> late() {
    return late;
  }

  List<Shortfall> shortfalls() {
    return shortfalls;
  }

  Catalog.CatalogTable promise() {
    boolean described = dialect.tableComment(table.name(), "").isPresent();
    Set<List<String>> uniques = new HashSet<>();
    table.uniqueKeys().forEach(key -> uniques.add(stored(table.namesOf(key.fields()))));
    Set<List<String>> indexes = new HashSet<>();
    for (Index index : table.indexes()) {
      indexes.add(stored(table.namesOf(index.fields())));
    }
    return new Catalog.CatalogTable(
        columns,
        stored(table.namesOf(table.primaryKey())),
        uniques,
        references,
        checks,
        indexes,
        described ? table.description() : "");
  }

  private List<String> stored(List<String> plain) {
    IdentifierRules rules = dialect.identifiers();
    return plain.stream().map(rules::stored).toList();
  }

  private void column(Field field) {
    boolean required = table.isRequired(field.id());
    Optional<String> counter =
        field.type() instanceof FieldType.Counter type
            ? dialect.counter(table, field, type)
            : Optional.empty();
    if (field.type() instanceof FieldType.Counter && counter.isEmpty()) {
      shortfall(
          field.label(),
          dialect.engine()
              + " counts only a column that is the whole primary key; give numbers yourself.");
    }
    dialect.typeLoss(field.type()).ifPresent(loss -> shortfall(field.label(), loss));
    if (field.type() instanceof FieldType.WebAddress || field.type() instanceof FieldType.Kept) {
      shortfall(
          "the form of " + field.label(), "it is kept as text; its form is only seen by an audit.");
    }
    Optional<Given> given = defaultOf(field);
    String type = counter.orElseGet(() -> dialect.type(field.type()));
    boolean isKey = counter.isPresent() && dialect.countsAsKey();
    keyInside |= isKey;
    String line =
        dialect.name(field.name())
            + " "
            + type
            + given.map(g -> dialect.defaultClause(g.sql(), g.literal())).orElse("")
            + (required && !isKey ? " NOT NULL" : "");
    lines.add(line);
    boolean described = dialect.columnComment(table.name(), field.name(), "").isPresent();
    columns.put(
        dialect.identifiers().stored(field.name()),
        new Catalog.Column(
            dialect.type(field.type()),
            required,
            given.map(Given::sql),
            counter.isPresent(),
            described ? field.description() : ""));
  }

  /** A default as the engine reads it, and whether it is a value written out. */
  private record Given(String sql, boolean literal) {}

  private static boolean isLiteral(Expression tree) {
    return switch (tree) {
      case Expression.Literal e -> true;
      case Expression.Negate e -> isLiteral(e.operand());
      case Expression.Fitting e -> isLiteral(e.operand());
      case Expression.Now e -> e.kind() == Kind.DATE;
      default -> false;
    };
  }

  private Optional<Given> defaultOf(Field field) {
    if (field.defaultValue().isEmpty()) {
      return Optional.empty();
    }
    if (!(RuleLanguage.constant(field.defaultValue().get()) instanceof Checked.Sound sound)) {
      shortfall("the default of " + field.label(), "it cannot be read; see the findings.");
      return Optional.empty();
    }
    return switch (Dialect.attempt(sound, s -> dialect.text().write(s.tree()))) {
      case Dialect.Attempt.Written written ->
          Optional.of(new Given(written.sql(), isLiteral(sound.tree())));
      case Dialect.Attempt.Failed failed -> {
        shortfall("the default of " + field.label(), failed.reason() + ".");
        yield Optional.empty();
      }
    };
  }

  private void primaryKey() {
    if (!table.primaryKey().isEmpty() && !keyInside) {
      constraint("pk_" + table.name(), "PRIMARY KEY (" + columnsOf(table.primaryKey()) + ")");
    }
  }

  private void unique(UniqueKey key) {
    constraint(key.name(), "UNIQUE (" + columnsOf(key.fields()) + ")");
  }

  private String columnsOf(List<FieldId> fields) {
    return dialect.names(table.namesOf(fields));
  }

  private String constraint(String wanted, String body) {
    String name = names.take(wanted);
    lines.add("CONSTRAINT " + dialect.name(name) + " " + body);
    return name;
  }

  private void reference(Relationship r) {
    Table parent = design.table(r.parent());
    String body =
        "FOREIGN KEY ("
            + columnsOf(r.childFields())
            + ") REFERENCES "
            + dialect.name(parent.name())
            + " ("
            + dialect.names(parent.namesOf(r.parentFields()))
            + ")"
            + action(" ON DELETE ", r.onDelete().sql())
            + action(" ON UPDATE ", r.onUpdate().sql());
    if (isLate.test(r)) {
      String name = dialect.name(names.take(r.name()));
      late.add(
          Statement.of(
              Statement.Section.RELATIONSHIPS,
              "",
              "ALTER TABLE "
                  + dialect.name(table.name())
                  + " ADD CONSTRAINT "
                  + name
                  + " "
                  + body));
    } else {
      constraint(r.name(), body);
    }
    references.add(
        new Catalog.Reference(
            stored(table.namesOf(r.childFields())),
            dialect.identifiers().stored(parent.name()),
            stored(parent.namesOf(r.parentFields())),
            r.onDelete().sql(),
            r.onUpdate().sql()));
  }

  private static String action(String words, String action) {
    return action.equals("NO ACTION") ? "" : words + action;
  }

  private void fieldChecks(Field field) {
    String stem = "ck_" + table.name() + "_" + field.name();
    if (field.type() instanceof FieldType.Choice choice) {
      check(stem + "_choices", in(field, choice.values()), "the choices of " + field.label());
    }
    if (!field.limits().allowed().isEmpty()) {
      check(
          stem + "_choices",
          in(field, field.limits().allowed()),
          "the choices of " + field.label());
    }
    dialect
        .typeCheck(field.name(), field.type())
        .ifPresent(sql -> checks.add(stored(constraint(stem + "_type", "CHECK (" + sql + ")"))));
    if (field.type() instanceof FieldType.Email) {
      email(field, stem);
    }
    limits(field, stem);
  }

  /** One @ with something on both sides and no blank, as the audit wants it. */
  private void email(Field field, String stem) {
    String name = SqlText.iso().write(reference(field));
    String condition =
        name + " LIKE '%_@_%' AND " + name + " NOT LIKE '%@%@%' AND " + name + " NOT LIKE '% %'";
    if (RuleLanguage.condition(condition, table) instanceof Checked.Sound sound) {
      check(stem + "_address", sound.tree(), "the form of " + field.label());
    }
  }

  private String stored(String name) {
    return dialect.identifiers().stored(name);
  }

  private static Expression in(Field field, List<String> texts) {
    List<Expression> options = texts.stream().map(text -> literal(text, field)).toList();
    return new Expression.In(reference(field), options, false, NOWHERE);
  }

  private static Expression reference(Field field) {
    return new Expression.FieldRef(field.name(), NOWHERE);
  }

  private static Expression literal(String text, Field field) {
    return ValueReader.bound(text, field.type()) instanceof ReadValue.Fits fits
        ? new Expression.Literal(fits.value(), Kind.of(field.type()), NOWHERE)
        : new Expression.Literal(new joiner.expression.Value.Text(text), Kind.TEXT, NOWHERE);
  }

  private void limits(Field field, String stem) {
    Limits limits = field.limits();
    limits
        .minimum()
        .ifPresent(text -> compare(field, stem + "_minimum", Comparison.AT_LEAST, text));
    limits.maximum().ifPresent(text -> compare(field, stem + "_maximum", Comparison.AT_MOST, text));
    limits.above().ifPresent(text -> compare(field, stem + "_above", Comparison.GREATER, text));
    limits.below().ifPresent(text -> compare(field, stem + "_below", Comparison.LESS, text));
    minLength(field, stem, limits.minLength());
    limits.pattern().ifPresent(pattern -> pattern(field, stem, pattern));
  }

  private void compare(Field field, String name, Comparison operator, String text) {
    Expression value = reference(field);
    if (Kind.of(field.type()) == Kind.TEXT) {
      value = new Expression.CodePoints(value, NOWHERE);
    }
    check(
        name,
        new Expression.Compare(operator, value, literal(text, field), NOWHERE),
        "the limits of " + field.label());
  }

  private void minLength(Field field, String stem, OptionalInt least) {
    if (least.isPresent()) {
      var length =
          new Expression.Call(Expression.Function.CHAR_LENGTH, List.of(reference(field)), NOWHERE);
      var bound =
          new Expression.Literal(
              joiner.expression.Value.whole(least.getAsInt()), Kind.WHOLE, NOWHERE);
      check(
          stem + "_length",
          new Expression.Compare(Comparison.AT_LEAST, length, bound, NOWHERE),
          "the least length of " + field.label());
    }
  }

  private void pattern(Field field, String stem, String pattern) {
    String subject = "the pattern of " + field.label();
    switch (TextPattern.of(pattern)) {
      case TextPattern.Read.Refused refused -> shortfall(subject, refused.why());
      case TextPattern.Read.Understood understood ->
          written(
              stem + "_pattern",
              Dialect.attempt(pattern, p -> dialect.matches(field.name(), p)),
              subject);
    }
  }

  private void rule(Rule rule) {
    switch (RuleLanguage.condition(rule.condition(), table)) {
      case Checked.Sound sound -> check(rule.name(), sound.tree(), "the rule " + rule.label());
      case Checked.Faulty faulty ->
          shortfall("the rule " + rule.label(), "it cannot be read; see the findings.");
    }
  }

  private void check(String name, Expression condition, String subject) {
    written(name, Dialect.attempt(condition, c -> dialect.text().write(c)), subject);
  }

  private void written(String name, Dialect.Attempt attempt, String subject) {
    switch (attempt) {
      case Dialect.Attempt.Written written ->
          checks.add(stored(constraint(name, "CHECK (" + written.sql() + ")")));
      case Dialect.Attempt.Failed failed -> shortfall(subject, failed.reason() + ".");
    }
  }

  private void shortfall(String subject, String reason) {
    shortfalls.add(new Shortfall(table.id(), subject + " of " + table.label(), reason));
  }
}
