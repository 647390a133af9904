package joiner.ddl;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.naming.IdentifierRules;
import joiner.shape.TextPattern;

/** Writes one table, and remembers what it promised and what it could not say. */
final class TableWriter {
  private final Design design;
  private final TableMeaning meaning;
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
      TableMeaning meaning,
      List<Relationship> relationships,
      Predicate<Relationship> isLate,
      Dialect dialect,
      ConstraintNames names) {
    this.design = design;
    this.meaning = meaning;
    this.table = meaning.table();
    this.relationships = relationships;
    this.isLate = isLate;
    this.dialect = dialect;
    this.names = names;
  }

  /** The CREATE TABLE statement. */
  Statement create() {
    table.fields().forEach(this::column);
    meaning.keys().forEach(this::key);
    relationships.forEach(this::reference);
    table.fields().forEach(this::fieldChecks);
    meaning.rules().forEach(this::rule);
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
    Optional<Checked> given = meaning.defaultOf(field.id());
    if (given.isEmpty()) {
      return Optional.empty();
    }
    if (!(given.get() instanceof Checked.Sound sound)) {
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

  private void key(Constraint.Unique key) {
    if (key.primary() && keyInside) {
      return; // It stands in the column that counts up.
    }
    String sort = key.primary() ? "PRIMARY KEY" : "UNIQUE";
    constraint(key.name(), sort + " (" + columnsOf(key.fields()) + ")");
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
    for (Constraint.OfField constraint : meaning.constraintsOf(field.id())) {
      switch (constraint) {
        case Constraint.OfType c -> type(c);
        case Constraint.Required c -> {} // It stands in the column itself,
        case Constraint.Longest c -> {} // and so does the type with its length.
        case Constraint.Listed c -> check(c, "the choices of ");
        case Constraint.Bounded c -> check(c, "the limits of ");
        case Constraint.Shortest c -> check(c, "the least length of ");
        case Constraint.Matching c -> pattern(c);
      }
    }
  }

  private void type(Constraint.OfType type) {
    Field field = type.field();
    dialect
        .typeCheck(field.name(), field.type())
        .ifPresent(sql -> checks.add(stored(constraint(type.name(), "CHECK (" + sql + ")"))));
    if (field.type() instanceof FieldType.Email) {
      address(field);
    }
  }

  /** One @ with something on both sides and no blank, as the audit wants it. */
  private void address(Field field) {
    var form =
        new Expression.And(
            List.of(
                like(field, "%_@_%", false), like(field, "%@%@%", true), like(field, "% %", true)),
            Place.NOWHERE);
    String name = ConstraintNaming.check(table.name(), field.name(), "address");
    check(name, form, "the form of " + field.label());
  }

  private static Expression like(Field field, String pattern, boolean negated) {
    var text = new Expression.Literal(new Value.Text(pattern), Kind.TEXT, Place.NOWHERE);
    return new Expression.Like(reference(field), text, Optional.empty(), negated, Place.NOWHERE);
  }

  private String stored(String name) {
    return dialect.identifiers().stored(name);
  }

  private static Expression reference(Field field) {
    return new Expression.FieldRef(OwnField.of(field), Place.NOWHERE);
  }

  private void check(Constraint.OfValue constraint, String subject) {
    constraint
        .condition()
        .ifPresent(c -> check(constraint.name(), c, subject + constraint.field().label()));
  }

  private void pattern(Constraint.Matching matching) {
    String subject = "the pattern of " + matching.field().label();
    switch (matching.read()) {
      case TextPattern.Read.Refused refused -> shortfall(subject, refused.why());
      case TextPattern.Read.Understood understood ->
          written(
              matching.name(),
              Dialect.attempt(
                  matching.text(), text -> dialect.matches(matching.field().name(), text)),
              subject);
    }
  }

  private void rule(Constraint.Holds meant) {
    Rule rule = meant.rule();
    switch (meant.condition()) {
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
