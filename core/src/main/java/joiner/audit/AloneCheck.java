package joiner.audit;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.model.Table;

/**
 * Looks for rows that a condition is true of and that have the same values in some fields as one
 * before. Keeps the values of the rows that the condition is true of.
 */
final class AloneCheck implements RowsCheck {
  private final Table table;
  private final Constraint.Alone alone;
  private final List<TypedCells> per;
  private final RuleProgram notWhere;
  private final Function<Integer, Function<Reference, Value>> row;
  private final Set<List<Value>> taken = new HashSet<>();
  private final Broken broken;

  /**
   * Checks a rule.
   *
   * @param notWhere false for the rows that the condition is true of
   * @param row gives for a row, from 0 in the batch, what formulas read
   */
  AloneCheck(
      Table table,
      Constraint.Alone alone,
      List<TypedCells> per,
      RuleProgram notWhere,
      Function<Integer, Function<Reference, Value>> row,
      int mostRows) {
    this.table = table;
    this.alone = alone;
    this.per = List.copyOf(per);
    this.notWhere = notWhere;
    this.row = row;
    this.broken = new Broken(mostRows);
  }

  @Override
  public void check(int rows, int first) {
    notWhere.check(
        rows,
        row,
        i -> {
          List<Value> key = per.stream().map(field -> field.value(i)).toList();
          if (key.stream().noneMatch(Value.Null.class::isInstance) && !taken.add(key)) {
            broken.add(first + i);
          }
        });
  }

  @Override
  public KnownAudit.Found found() {
    return RuleCheck.found(table, alone.fields(), alone.rule(), broken);
  }
}
