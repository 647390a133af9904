package joiner.meaning;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Place;
import joiner.expression.Reference;
import joiner.expression.Scope;
import joiner.expression.Value;
import joiner.model.Design;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.OwnField;
import joiner.model.Summed;
import joiner.model.Table;
import joiner.naming.ConstraintNaming;

/** What one table says: each of its formulas read and bound, sound or not. */
public final class TableMeaning {
  private final Table table;
  private final Scope scope;
  private final List<Constraint.Unique> keys;
  private final Map<FieldId, List<Constraint.OfField>> ofFields = new LinkedHashMap<>();
  private final List<Constraint.Ruled> ruled;
  private final List<Constraint.Holds> rules;
  private final Optional<Checked> rowLabel;
  private final Map<FieldId, Checked> defaults = new LinkedHashMap<>();
  private final ComputedFields computing;
  private final Map<FieldId, Checked> computed = new LinkedHashMap<>();

  private TableMeaning(
      Optional<Design> design, Table table, TableScope scope, ComputedFields computing) {
    this.table = table;
    this.scope = scope;
    this.computing = computing;
    this.keys = keys(table);
    table.fields().forEach(f -> ofFields.put(f.id(), FieldConstraints.of(table, f)));
    var reading = new RuleReading(design, table, scope, computing);
    this.ruled = table.rules().stream().map(reading::read).toList();
    this.rules =
        ruled.stream()
            .filter(Constraint.Holds.class::isInstance)
            .map(Constraint.Holds.class::cast)
            .toList();
    this.rowLabel = table.rowLabel().map(formula -> written(formula.value(scope)));
    for (Field field : table.fields()) {
      field.defaultValue().map(Formula::constant).ifPresent(d -> defaults.put(field.id(), d));
      if (field.isComputed()) {
        computed.put(field.id(), computing.of(table, field));
      }
    }
  }

  private static List<Constraint.Unique> keys(Table table) {
    var keys = new ArrayList<Constraint.Unique>();
    if (!table.primaryKey().isEmpty()) {
      String name = ConstraintNaming.primaryKey(table.name());
      keys.add(new Constraint.Unique(name, table.primaryKey(), true));
    }
    table.uniqueKeys().forEach(k -> keys.add(new Constraint.Unique(k.name(), k.fields(), false)));
    return List.copyOf(keys);
  }

  /** What a table says that belongs to no design yet; otherwise ask {@link Draft#meaning()}. */
  public static TableMeaning of(Table table) {
    return new TableMeaning(
        Optional.empty(), table, new TableScope(table), new ComputedFields(Optional.empty()));
  }

  /** What a table of a design says. */
  static TableMeaning of(Design design, Table table) {
    return new TableMeaning(
        Optional.of(design),
        table,
        new TableScope(design, table),
        new ComputedFields(Optional.of(design)));
  }

  /** Whether it hangs on other tables too. */
  boolean reachesOut() {
    return table.rules().stream().anyMatch(rule -> rule.demand().reachesOut())
        || table.rowLabel().filter(Formula::reachesOut).isPresent()
        || table.fields().stream().anyMatch(field -> field.origin().reachesOut());
  }

  public Table table() {
    return table;
  }

  /** The names its formulas may use. */
  public Scope scope() {
    return scope;
  }

  /** Its primary key, if it has one, and its further keys. */
  public List<Constraint.Unique> keys() {
    return keys;
  }

  /** What is demanded of the values of one field. */
  public List<Constraint.OfField> constraintsOf(FieldId field) {
    return ofFields.getOrDefault(field, List.of());
  }

  /** The field of another row that is read over relationships; empty where no design is known. */
  public Optional<Field> fieldOf(FarField far) {
    return computing.design().map(far::end);
  }

  /**
   * What is demanded of a value that is read, where there is one: the way to another row may lead
   * nowhere, and of what is summed up nothing is known.
   */
  public List<Constraint.OfField> constraintsOf(Reference read) {
    return switch (read) {
      case OwnField own -> constraintsOf(own.field());
      case FarField far ->
          computing
              .design()
              .map(design -> FieldConstraints.of(far.table(design), far.end(design)))
              .orElse(List.of())
              .stream()
              .filter(constraint -> !(constraint instanceof Constraint.Required))
              .toList();
      default -> List.of();
    };
  }

  /** What its rules demand, in the table's order. */
  public List<Constraint.Ruled> ruled() {
    return ruled;
  }

  /** Those of its rules that each row keeps or breaks, in the table's order. */
  public List<Constraint.Holds> rules() {
    return rules;
  }

  /** The text by which people recognise a row, if the table has one. */
  public Optional<Checked> rowLabel() {
    return rowLabel;
  }

  /** The default of a field, if it has one. */
  public Optional<Checked> defaultOf(FieldId field) {
    return Optional.ofNullable(defaults.get(field));
  }

  /** What a field holds by default; empty where it has none, or that gives nothing. */
  public Optional<Value> valueByDefault(FieldId field, Evaluator evaluator) {
    if (!(defaults.get(field) instanceof Checked.Sound sound)) {
      return Optional.empty();
    }
    try {
      return Optional.of(evaluator.evaluate(sound.tree(), reference -> Value.NULL))
          .filter(value -> value != Value.NULL);
    } catch (EvaluationException e) {
      return Optional.empty(); // Findings tell a default that gives nothing.
    }
  }

  /** The field of another row that a formula is the path to, and nothing else. */
  public Optional<FarField> far(Formula formula) {
    return formula.value(scope)
            instanceof Checked.Sound(Expression.FieldRef(FarField far, Place place), var type)
        ? Optional.of(far)
        : Optional.empty();
  }

  /** What a computed field is worked out by, in terms of fields that are entered. */
  public Optional<Checked> computed(FieldId field) {
    return Optional.ofNullable(computed.get(field));
  }

  /** The type and size of what a formula over this table's fields gives, or why there is none. */
  public ResultType.Found resultOf(Checked.Sound formula) {
    return ResultType.of(formula, read -> computing.type(read, table));
  }

  /** A formula over this table's fields in terms of fields that are entered. */
  public Checked written(Checked formula) {
    return computing.written(formula, table);
  }

  /**
   * The fields of the row that a formula reads, in order of first use; those by which it reads
   * other rows are among them.
   */
  public static List<FieldId> fieldsOf(Checked.Sound formula) {
    return formula.reads().stream()
        .flatMap(reference -> fieldsOf(reference).stream())
        .distinct()
        .toList();
  }

  private static List<FieldId> fieldsOf(Reference reference) {
    return switch (reference) {
      case OwnField own -> List.of(own.field());
      case FarField far -> far.from();
      case Summed summed -> summed.from();
      default -> throw new IllegalArgumentException(reference.name() + " is no field of a table");
    };
  }
}
