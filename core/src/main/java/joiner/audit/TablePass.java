package joiner.audit;

import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.FormulaRows;
import joiner.meaning.TableMeaning;
import joiner.model.Demand;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Table;

/**
 * One pass over the rows of a table: what is to be looked at is told first; then every batch of
 * rows is typed once and looked at by all.
 */
final class TablePass {
  private final TableMeaning meaning;
  private final Table table;
  private final FormulaRows others;
  private final Clock clock;
  private final int mostRows;
  private final int batchRows;
  private final Map<FieldId, TypedCells> cells = new LinkedHashMap<>();
  private final Map<FieldId, WorkedCells> worked = new LinkedHashMap<>();
  private final List<CellCheck> cellChecks = new ArrayList<>();
  private final List<KeyPut> puts = new ArrayList<>();
  private final List<ReferenceCheck> references = new ArrayList<>();
  private final List<ChildlessCheck> childless = new ArrayList<>();
  private final List<RuleCheck> rules = new ArrayList<>();
  private final List<RowsCheck> together = new ArrayList<>();
  private int rows;

  /**
   * A pass over a table.
   *
   * @param others the rows that its rules reach out to
   * @param mostRows how many offending rows of a constraint are named
   * @param batchRows how many rows a batch has at most
   */
  TablePass(TableMeaning meaning, FormulaRows others, Clock clock, int mostRows, int batchRows) {
    this.meaning = meaning;
    this.table = meaning.table();
    this.others = others;
    this.clock = clock;
    this.mostRows = mostRows;
    this.batchRows = batchRows;
  }

  /** Whether anything is to be looked at. */
  boolean isWanted() {
    return Stream.of(cellChecks, puts, references, childless, rules, together)
        .anyMatch(checks -> !checks.isEmpty());
  }

  /** The fields that are read, in the order of their columns in a batch. */
  List<FieldId> fields() {
    return List.copyOf(cells.keySet());
  }

  /** How many rows went by. */
  int rows() {
    return rows;
  }

  private TypedCells cells(FieldId id) {
    Optional<Checked> formula = meaning.computed(id);
    if (formula.isPresent() && !worked.containsKey(id)) {
      if (formula.get() instanceof Checked.Sound sound) {
        TableMeaning.fieldsOf(sound).forEach(this::cells);
      }
      TypedCells own = column(id);
      worked.put(id, new WorkedCells(table.id(), own, formula.get(), clock, mostRows));
    }
    return column(id);
  }

  private TypedCells column(FieldId id) {
    return cells.computeIfAbsent(id, f -> new TypedCells(table.field(f), cells.size(), batchRows));
  }

  private List<TypedCells> cells(List<FieldId> fields) {
    return fields.stream().map(this::cells).toList();
  }

  /** Everything each cell of a field keeps or breaks by itself. */
  List<CellCheck> checkCells(Field field) {
    var checks = new ArrayList<CellCheck>();
    for (Constraint.OfField constraint : meaning.constraintsOf(field.id())) {
      checks.add(new CellCheck(table.id(), constraint, cells(field.id()), mostRows));
    }
    cellChecks.addAll(checks);
    return checks;
  }

  /** What a computed field holds beside what it is worked out as. */
  List<Violation> foundWorked(FieldId id) {
    return Optional.ofNullable(worked.get(id)).map(WorkedCells::found).orElse(List.of());
  }

  KeyPut putKeys(List<FieldId> fields, Keys keys, Optional<Constraint.Unique> unique) {
    var put =
        new KeyPut(
            table, fields, new KeyReader(cells(fields), keys.form()), keys, unique, mostRows);
    puts.add(put);
    return put;
  }

  ReferenceCheck checkReference(Relationship relationship, Table parent, Keys parents) {
    var reader = new KeyReader(cells(relationship.childFields()), parents.form());
    var check = new ReferenceCheck(relationship, parent, reader, parents, mostRows);
    references.add(check);
    return check;
  }

  /** Whether each row has a child by a relationship, in the other table's keys. */
  ChildlessCheck checkChildren(Relationship relationship, Table child, Keys children) {
    var reader = new KeyReader(cells(relationship.parentFields()), children.form());
    var check = new ChildlessCheck(relationship, table, child, reader, children, mostRows);
    childless.add(check);
    return check;
  }

  RuleCheck checkRule(Constraint.Holds holds, Checked.Sound sound) {
    holds.fields().forEach(this::cells);
    var program = new RuleProgram(sound.tree(), cells, clock, batchRows);
    var check = new RuleCheck(table, holds.rule(), holds.fields(), program, this::row, mostRows);
    rules.add(check);
    return check;
  }

  /** Whether rows keep a rule on several of them; empty where it cannot be read. */
  Optional<RowsCheck> checkTogether(Constraint.Ruled ruled) {
    Optional<RowsCheck> check =
        switch (ruled) {
          case Constraint.Alone alone -> Optional.of(alone(alone));
          case Constraint.Apart apart -> {
            Demand.Apart periods = apart.periods();
            yield Optional.of(
                new ApartCheck(
                    table,
                    apart,
                    cells(periods.per()),
                    cells(periods.from()),
                    cells(periods.until()),
                    mostRows));
          }
          case Constraint.Tree tree ->
              Optional.of(
                  new TreeCheck(
                      table,
                      tree,
                      cells(tree.over().parentFields()),
                      cells(tree.over().childFields()),
                      mostRows));
          case Constraint.Holds holds -> Optional.empty();
          case Constraint.Stays stays -> Optional.empty();
          case Constraint.Lost lost -> Optional.empty();
        };
    check.ifPresent(together::add);
    return check;
  }

  private RowsCheck alone(Constraint.Alone alone) {
    alone.fields().forEach(this::cells);
    Expression where = alone.where().tree();
    var isNot = new Expression.IsTruth(where, Optional.of(true), true, where.place());
    var program = new RuleProgram(isNot, cells, clock, batchRows);
    return new AloneCheck(table, alone, cells(alone.per()), program, this::row, mostRows);
  }

  private Function<Reference, Value> row(int row) {
    return others.row(field -> cells(field).value(row));
  }

  /** Takes a batch of rows. */
  void take(CellBatch batch) {
    cells.values().forEach(field -> field.read(batch));
    worked.values().forEach(field -> field.work(batch.rows(), batch.first(), this::row));
    cellChecks.forEach(check -> check.check(batch.rows(), batch.first()));
    rules.forEach(check -> check.check(batch.rows(), batch.first()));
    puts.forEach(put -> put.put(batch.rows(), batch.first()));
    references.forEach(check -> check.check(batch.rows(), batch.first()));
    childless.forEach(check -> check.check(batch.rows(), batch.first()));
    together.forEach(check -> check.check(batch.rows(), batch.first()));
    rows = batch.first() + batch.rows();
  }

  /** All rows went by. */
  void end() {
    puts.forEach(KeyPut::end);
  }

  /** Lets go of what was asked of other tables, which is answered when all of them went by. */
  void close() {
    references.forEach(ReferenceCheck::close);
    childless.forEach(ChildlessCheck::close);
  }
}
