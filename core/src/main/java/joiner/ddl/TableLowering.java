package joiner.ddl;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.catalog.CatalogIndex;
import joiner.catalog.CatalogTable;
import joiner.catalog.Check;
import joiner.catalog.Column;
import joiner.catalog.Exclusion;
import joiner.catalog.ForeignKey;
import joiner.catalog.Generated;
import joiner.catalog.Key;
import joiner.catalog.Sequence;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;
import joiner.catalog.Trigger;
import joiner.catalog.View;
import joiner.engine.Dialect;
import joiner.engine.InCheck;
import joiner.engine.Support;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Place;
import joiner.expression.Reference;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.OwnField;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Summed;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;
import joiner.rows.Rows;
import joiner.shape.TextPattern;

/**
 * Says one table of a design in terms of a schema, as far as an engine can keep it; what it cannot
 * keep is a shortfall. Names are those of the design, made shorter and different where the engine
 * needs that.
 */
final class TableLowering {
  private final Design design;
  private final TableMeaning meaning;
  private final Table table;
  private final List<Relationship> relationships;
  private final Dialect dialect;
  private final ConstraintNames names;

  /** Fields the engine counts up. */
  private final Set<FieldId> counting = new HashSet<>();

  /** Fields that a change of the row's parent changes. */
  private final Set<FieldId> moved = new HashSet<>();

  /** Computed fields that are no columns there. */
  private final Set<FieldId> left = new HashSet<>();

  private final TableView view;
  private final TableUpkeep upkeep;

  private final List<Check> checks = new ArrayList<>();
  private final List<Exclusion> exclusions = new ArrayList<>();
  private final List<Trigger> ruleTriggers = new ArrayList<>();
  private final List<Sequence> sequences = new ArrayList<>();
  private final List<Shortfall> shortfalls = new ArrayList<>();

  /**
   * A table to lower.
   *
   * @param relationships in which it is the child
   */
  TableLowering(
      Design design,
      TableMeaning meaning,
      List<Relationship> relationships,
      Dialect dialect,
      ConstraintNames names) {
    this.design = design;
    this.meaning = meaning;
    this.table = meaning.table();
    this.relationships = relationships;
    this.dialect = dialect;
    this.names = names;
    this.view = new TableView(design, table, dialect);
    this.upkeep = new TableUpkeep(design, meaning, dialect, names, new Unmade());
    table.fields().stream().filter(this::counts).forEach(field -> counting.add(field.id()));
    relationships.stream()
        .filter(TableLowering::movesChildren)
        .forEach(r -> moved.addAll(r.childFields()));
  }

  /**
   * The table as the engine is to make it.
   *
   * @param isLate which foreign keys are declared only when all tables are there
   * @param stopped relationships that have to do without their actions
   * @param rows that go along
   */
  CatalogTable lower(Predicate<Relationship> isLate, Set<RelationshipId> stopped, Rows rows) {
    List<Column> columns =
        table.fields().stream().flatMap(field -> column(field, rows).stream()).toList();
    Optional<Key> primary = Optional.empty();
    var uniques = new ArrayList<Key>();
    for (Constraint.Unique key : meaning.keys()) {
      String name = names.take(key.name());
      if (!isConstrained(key.fields(), "the key " + key.name())) {
        continue;
      }
      if (key.primary()) {
        primary = Optional.of(new Key(name, table.namesOf(key.fields())));
      } else if (isNew(key.fields(), "the key " + key.name(), uniques)
          && isIndexed(key.fields(), "the key " + key.name())) {
        uniques.add(new Key(name, table.namesOf(key.fields())));
      }
    }
    List<ForeignKey> references =
        relationships.stream()
            .filter(r -> isKept(r, isLate.test(r)))
            .map(r -> reference(r, isLate.test(r), stopped.contains(r.id())))
            .toList();
    table.fields().stream().filter(this::isColumn).forEach(this::constraints);
    meaning.ruled().forEach(this::rule);
    List<CatalogIndex> indexes =
        table.indexes().stream()
            .filter(i -> isNew(i.fields(), "the index " + i.name(), uniques))
            .filter(i -> isConstrained(i.fields(), "the index " + i.name()))
            .filter(i -> isIndexed(i.fields(), "the index " + i.name()))
            .map(
                i ->
                    new CatalogIndex(
                        names.take(i.name()),
                        table.namesOf(i.fields()),
                        Set.copyOf(table.namesOf(List.copyOf(i.descending())))))
            .toList();
    upkeep.keep(columns, relationships);
    return new CatalogTable(
        table.name(), columns, primary, uniques, references, checks, indexes, table.description());
  }

  List<Shortfall> shortfalls() {
    return shortfalls;
  }

  /** By which the table's counters count. */
  List<Sequence> sequences() {
    return Stream.concat(sequences.stream(), upkeep.numbers().stream()).toList();
  }

  /** What the engine does of itself when rows change. */
  List<Trigger> triggers() {
    return Stream.concat(upkeep.triggers().stream(), ruleTriggers.stream()).toList();
  }

  /** By what rows exclude each other beside keys. */
  List<Exclusion> exclusions() {
    return exclusions;
  }

  /** Whether no key says already what another key or index would say. */
  private boolean isNew(List<FieldId> fields, String subject, List<Key> uniques) {
    List<String> columns = table.namesOf(fields);
    boolean doubled =
        dialect.refusesDoubledKeys()
            && (fields.equals(table.primaryKey())
                || uniques.stream().anyMatch(key -> key.columns().equals(columns)));
    if (doubled) {
      shortfall(
          subject,
          "a key of the same fields does its work; " + dialect.engine() + " takes no second.");
    }
    return !doubled;
  }

  private boolean isIndexed(List<FieldId> fields, String subject) {
    List<SqlType> types = fields.stream().map(f -> SqlType.of(table.field(f).type())).toList();
    Optional<String> loss = dialect.indexLoss(types);
    loss.ifPresent(reason -> shortfall(subject, reason + "."));
    return loss.isEmpty();
  }

  private boolean isColumn(Field field) {
    return !left.contains(field.id());
  }

  /** Whether a key or an index can be on those fields. */
  private boolean isConstrained(List<FieldId> fields, String subject) {
    Optional<Field> without =
        fields.stream().map(table::field).filter(f -> !isColumn(f)).findFirst();
    without.ifPresent(
        field -> shortfall(subject, field.label() + " is no column of the table there."));
    boolean refused =
        !dialect.constrainsComputed() && fields.stream().anyMatch(f -> table.field(f).isComputed());
    if (refused) {
      shortfall(subject, dialect.engine() + " has none on what it computes.");
    }
    return without.isEmpty() && !refused;
  }

  /** A column of the table; a computed field may have none. */
  private Optional<Column> column(Field field, Rows rows) {
    Optional<Checked> computed = meaning.computed(field.id());
    if (computed.isEmpty()) {
      return Optional.of(entered(field, rows));
    }
    return switch (generated(computed.get())) {
      case Support.Kept kept -> {
        SqlType type = SqlType.of(field.type());
        dialect.typeLoss(type).ifPresent(loss -> shortfall(field.label(), loss));
        yield Optional.of(
            new Column(
                field.name(),
                dialect.keptAs(type),
                false,
                Optional.empty(),
                false,
                Optional.of(
                    new Generated(kept.sql(), dialect.computing() == Dialect.Computing.STORED)),
                field.remark()));
      }
      case Support.Impossible impossible -> {
        left.add(field.id());
        String where = inView(field, computed.get());
        shortfalls.add(
            new Shortfall(
                table.id(),
                "the computed field " + field.label() + " of " + table.label(),
                impossible.loss() + "; " + where,
                view.holds(field),
                Optional.of(field.id())));
        yield Optional.empty();
      }
    };
  }

  /** Puts a computed field that is no column into the table's view; says where it stands. */
  private String inView(Field field, Checked computed) {
    if (!(computed instanceof Checked.Sound sound)) {
      return "it is left out.";
    }
    return switch (view.add(field, sound.tree())) {
      case Support.Kept kept -> "it stands in the view of the table.";
      case Support.Impossible impossible ->
          "it is left out of the table and of its view, for " + impossible.loss() + ".";
    };
  }

  /** The view of the table, if anything stands in it alone; once the table was lowered. */
  Optional<View> view() {
    if (view.isEmpty()) {
      return Optional.empty();
    }
    String name = names.take(ConstraintNaming.view(table.name()));
    List<Field> all = table.fields().stream().filter(f -> isColumn(f) || view.holds(f)).toList();
    return Optional.of(new View(name, false, view.definition(name, all)));
  }

  /** What a column is computed by, or why there can be none. */
  private Support generated(Checked computed) {
    if (!(computed instanceof Checked.Sound sound)) {
      return new Support.Impossible("what it is worked out by cannot be read; see the findings");
    }
    if (dialect.computing() == Dialect.Computing.NOT) {
      return new Support.Impossible(dialect.engine() + " computes no columns");
    }
    Optional<String> elsewhere = elsewhere(sound.tree());
    if (elsewhere.isPresent()) {
      return new Support.Impossible(
          "a column is computed from its own row, and this reads " + elsewhere.get());
    }
    if (sound.readsClock()) {
      return new Support.Impossible(
          "what is kept does not change with the clock or with who asks, and this does");
    }
    boolean counted =
        dialect.refusedInChecks().contains(InCheck.COUNTER) && readsAny(sound.tree(), counting);
    return counted
        ? new Support.Impossible(
            dialect.engine() + " computes nothing from " + InCheck.COUNTER.words())
        : dialect.sayComputed(sound.tree());
  }

  /** What an expression reads first of the rows of other tables, in words. */
  private Optional<String> elsewhere(Expression tree) {
    return tree.reads().stream().flatMap(read -> elsewhere(read).stream()).findFirst();
  }

  private Optional<String> elsewhere(Reference read) {
    return switch (read) {
      case FarField far -> Optional.of(far.name());
      case Summed summed -> {
        Table child = design.table(design.relationship(summed.children()).child());
        yield Optional.of("the " + child.noun().plural() + " that refer to it");
      }
      default -> Optional.empty();
    };
  }

  private Column entered(Field field, Rows rows) {
    SqlType type = SqlType.of(field.type());
    boolean counts = counting.contains(field.id());
    if (field.type() instanceof FieldType.Counter counter) {
      type = counts ? dialect.counterType(counter.width()) : type;
      if (!counts) {
        shortfall(
            field.label(),
            dialect.engine()
                + " counts only a column that is the whole primary key; give numbers yourself.");
      }
    }
    dialect.typeLoss(type).ifPresent(loss -> shortfall(field.label(), loss));
    if (field.type() instanceof FieldType.WebAddress || field.type() instanceof FieldType.Kept) {
      shortfall(
          "the form of " + field.label(), "it is kept as text; its form is only seen by an audit.");
    }
    return new Column(
        field.name(),
        dialect.keptAs(type),
        required(field),
        counts ? next(field, rows) : upkeep.generated(field).or(() -> defaultOf(field)),
        counts,
        field.remark());
  }

  private boolean required(Field field) {
    boolean required = table.isRequired(field.id());
    if (required && upkeep.isFilledLater(field)) {
      shortfall(
          "that " + field.label() + " has a value",
          dialect.engine() + " numbers a row once it is there, so that the column may be empty.");
      return false;
    }
    return required;
  }

  /** Taken from a sequence, where the engine's columns do not count by themselves. */
  private Optional<SqlExpression> next(Field counter, Rows rows) {
    if (dialect.next("").isEmpty()) {
      return Optional.empty();
    }
    String name = names.take(ConstraintNaming.sequence(table.name(), counter.name()));
    sequences.add(new Sequence(name, Counted.next(rows, counter).orElse(1)));
    return dialect.next(name).map(SqlExpression::found);
  }

  private boolean counts(Field field) {
    return field.type() instanceof FieldType.Counter counter
        && dialect.counter(dialect.counterType(counter.width()), isWholeKey(field)).isPresent();
  }

  private boolean isWholeKey(Field field) {
    return table.primaryKey().equals(List.of(field.id()));
  }

  private Optional<SqlExpression> defaultOf(Field field) {
    Optional<Checked> given = meaning.defaultOf(field.id());
    if (given.isEmpty()) {
      return Optional.empty();
    }
    String subject = "the default of " + field.label();
    return switch (given.get()) {
      case Checked.Sound sound ->
          switch (dialect.say(sound.tree())) {
            case Support.Kept kept ->
                Optional.of(new SqlExpression(kept.sql(), Optional.of(sound.tree())));
            case Support.Impossible impossible -> {
              unmade(field, subject, impossible.loss() + ".");
              yield Optional.empty();
            }
          };
      case Checked.Faulty faulty -> {
        unmade(field, subject, "it cannot be read; see the findings.");
        yield Optional.empty();
      }
    };
  }

  private boolean isKept(Relationship r, boolean late) {
    if (late && !dialect.addsReferences()) {
      String reason =
          r.isSelfReference()
              ? " looks at each row by itself, and rows here refer to each other in a circle or to themselves."
              : " declares a foreign key only with its table, and this one closes a circle.";
      shortfall("the relationship " + r.name(), dialect.engine() + reason);
      return false;
    }
    Table parent = design.table(r.parent());
    List<String> columns = parent.namesOf(r.parentFields());
    Set<String> nullable =
        r.parentFields().stream()
            .filter(field -> !parent.isRequired(field))
            .map(field -> parent.field(field).name())
            .collect(Collectors.toSet());
    boolean byIndex =
        !nullable.isEmpty()
            && dialect.uniqueWhereFilled(r.name(), parent.name(), columns, nullable).isPresent();
    if (byIndex) {
      shortfall(
          "the relationship " + r.name(),
          dialect.engine()
              + " keeps a key that may be empty by an index, which none can refer to.");
    }
    return !byIndex;
  }

  private ForeignKey reference(Relationship r, boolean late, boolean stopped) {
    Table parent = design.table(r.parent());
    return new ForeignKey(
        names.take(r.name()),
        table.namesOf(r.childFields()),
        parent.name(),
        parent.namesOf(r.parentFields()),
        kept(Dialect.Event.DELETE, r.onDelete(), r, stopped),
        kept(Dialect.Event.UPDATE, r.onUpdate(), r, stopped),
        late);
  }

  private static boolean movesChildren(Relationship r) {
    return r.onDelete() == ReferentialAction.SET_NULL
        || r.onUpdate() == ReferentialAction.CASCADE
        || r.onUpdate() == ReferentialAction.SET_NULL;
  }

  private ReferentialAction kept(
      Dialect.Event event, ReferentialAction action, Relationship r, boolean stopped) {
    ReferentialAction kept = dialect.keptAs(event, action);
    boolean gone = stopped && OneWay.acts(kept);
    Optional<String> loss =
        gone
            ? Optional.of(
                dialect.engine()
                    + " lets actions reach a table by one way only; the change is refused instead.")
            : dialect.actionLoss(event, action);
    loss.ifPresent(
        reason -> shortfall(event.sql() + " " + action.sql() + " of " + r.name(), reason));
    return gone ? ReferentialAction.NO_ACTION : kept;
  }

  private void constraints(Field field) {
    if (field.isComputed() && !dialect.constrainsComputed()) {
      shortfall(
          "what " + field.label() + " must be",
          dialect.engine() + " checks nothing that it computes.");
      return;
    }
    for (Constraint.OfField constraint : meaning.constraintsOf(field.id())) {
      switch (constraint) {
        case Constraint.OfType c -> type(c);
        case Constraint.Required c -> required(c); // It stands in the column itself,
        case Constraint.Longest c -> {} // and so does the type with its length.
        case Constraint.Listed c -> check(c, "the choices of ");
        case Constraint.Bounded c -> check(c, "the limits of ");
        case Constraint.Shortest c -> check(c, "the least length of ");
        case Constraint.Matching c -> pattern(c);
        case Constraint.MostBytes c -> check(c, "the greatest size of ");
        case Constraint.OfMedia c ->
            shortfall(
                "the kinds of file in " + field.label(), "they are only looked at by an audit.");
      }
    }
  }

  /** What is computed has a value where a check says so. */
  private void required(Constraint.Required required) {
    if (required.field().isComputed()) {
      var read = new Expression.FieldRef(OwnField.of(required.field()), Place.NOWHERE);
      check(
          required.name(),
          new Expression.IsNull(read, true, Place.NOWHERE),
          "that " + required.field().label() + " has a value");
    }
  }

  /** Where the engine does not keep types by itself, a check does. */
  private void type(Constraint.OfType type) {
    Field field = type.field();
    boolean kept = field.type() instanceof FieldType.Choice; // By the list of its choices.
    boolean counted = field.type() instanceof FieldType.Counter;
    if (!kept && !counted) {
      dialect
          .typeCheck(field.name(), SqlType.of(field.type()))
          .ifPresent(sql -> add(type.name(), new SqlExpression(sql, Optional.empty())));
    }
    String name = ConstraintNaming.check(table.name(), field.name(), "address");
    type.form().ifPresent(form -> check(name, form, "the form of " + field.label()));
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
          check(
              matching.name(),
              dialect.sayPattern(matching.field().name(), understood.pattern()),
              Optional.empty(),
              subject);
    }
  }

  private void rule(Constraint.Ruled ruled) {
    Keeping keeping = keeping(ruled);
    keeping.check().ifPresent(checks::add);
    keeping.exclusion().ifPresent(exclusions::add);
    ruleTriggers.addAll(keeping.triggers());
    if (!keeping.isKept()) {
      shortfall("the rule " + ruled.rule().label(), keeping.loss() + ".");
    }
  }

  /** How the engine keeps a rule of this table. */
  Keeping keeping(Constraint.Ruled ruled) {
    return new RuleKeeping(design, meaning, dialect, names, this::support, this::isUnseen)
        .of(ruled);
  }

  /** Whether the engine changes what a condition reads without calling triggers. */
  private boolean isUnseen(Expression condition) {
    return dialect.refusedInChecks().contains(InCheck.MOVED_BY_REFERENCE)
        && readsAny(condition, moved);
  }

  private void check(String name, Expression condition, String subject) {
    check(name, support(condition), Optional.of(condition), subject);
  }

  private void check(String name, Support support, Optional<Expression> condition, String subject) {
    switch (support) {
      case Support.Kept kept -> add(name, new SqlExpression(kept.sql(), condition));
      case Support.Impossible impossible -> shortfall(subject, impossible.loss() + ".");
    }
  }

  /** Whether the engine keeps a condition on the rows of this table by a check. */
  private Support support(Expression condition) {
    Optional<String> elsewhere = elsewhere(condition);
    if (elsewhere.isPresent()) {
      return new Support.Impossible(
          "a check sees one row of one table, and this reads " + elsewhere.get());
    }
    Optional<InCheck> refused =
        dialect.refusedInChecks().stream()
            .sorted()
            .filter(read -> reads(condition, read))
            .findFirst();
    if (refused.isPresent()) {
      return new Support.Impossible(
          dialect.engine() + " takes no check that reads " + refused.get().words());
    }
    return dialect.sayCondition(condition);
  }

  private boolean reads(Expression condition, InCheck what) {
    return switch (what) {
      case CLOCK -> condition.readsClock();
      case COUNTER -> readsAny(condition, counting);
      case MOVED_BY_REFERENCE -> readsAny(condition, moved);
      case LONG_TEXT -> compares(condition, unlimited());
    };
  }

  /** Whether any of those fields is read for more than its length, a pattern, or being there. */
  private static boolean compares(Expression tree, Set<FieldId> fields) {
    return switch (tree) {
      case Expression.FieldRef(OwnField own, var place) -> fields.contains(own.field());
      case Expression.IsNull(Expression.FieldRef field, var negated, var place) -> false;
      case Expression.Like e when e.operand() instanceof Expression.FieldRef ->
          compares(e.pattern(), fields);
      case Expression.Call e
          when (e.function() == Expression.Function.CHAR_LENGTH
                  || e.function() == Expression.Function.OCTET_LENGTH)
              && e.arguments().getFirst() instanceof Expression.FieldRef ->
          false;
      default -> tree.parts().stream().anyMatch(part -> compares(part, fields));
    };
  }

  /** Texts that the engine keeps without a limit. */
  private Set<FieldId> unlimited() {
    return table.fields().stream()
        .filter(f -> dialect.keptAs(SqlType.of(f.type())) instanceof SqlType.LongText)
        .map(Field::id)
        .collect(Collectors.toSet());
  }

  private static boolean readsAny(Expression condition, Set<FieldId> fields) {
    return condition.reads().stream()
        .anyMatch(to -> to instanceof OwnField own && fields.contains(own.field()));
  }

  private void add(String name, SqlExpression condition) {
    checks.add(new Check(names.take(name), condition));
  }

  private void unmade(Field field, String subject, String reason) {
    String what = subject + " of " + table.label();
    shortfalls.add(new Shortfall(table.id(), what, reason, false, Optional.of(field.id())));
  }

  /** What is not kept of values that nobody types, and of rows that must be there. */
  private final class Unmade implements TableUpkeep.Unmade {
    @Override
    public void tell(Field field, String subject, String why) {
      unmade(field, subject, why);
    }

    @Override
    public void tell(String subject, String why) {
      shortfalls.add(new Shortfall(table.id(), subject, why));
    }
  }

  private void shortfall(String subject, String reason) {
    shortfalls.add(new Shortfall(table.id(), subject + " of " + table.label(), reason));
  }
}
