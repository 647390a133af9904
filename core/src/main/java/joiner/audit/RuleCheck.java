package joiner.audit;

import java.util.List;
import java.util.function.Function;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Messages;
import joiner.model.FieldId;
import joiner.model.Rule;
import joiner.model.Table;

/** Looks for rows for which a rule is false. */
final class RuleCheck {
  private final Table table;
  private final Rule rule;
  private final List<FieldId> fields;
  private final RuleProgram program;
  private final Function<Integer, Function<Reference, Value>> row;
  private final Broken broken;

  /**
   * Checks a rule.
   *
   * @param row gives for a row, from 0 in the batch, what formulas read
   */
  RuleCheck(
      Table table,
      Rule rule,
      List<FieldId> fields,
      RuleProgram program,
      Function<Integer, Function<Reference, Value>> row,
      int mostRows) {
    this.table = table;
    this.rule = rule;
    this.fields = List.copyOf(fields);
    this.program = program;
    this.row = row;
    this.broken = new Broken(mostRows);
  }

  /** Looks at so many rows that were read, the first of which has that number, from 0. */
  void check(int rows, int first) {
    program.check(rows, row, i -> broken.add(first + i));
  }

  KnownAudit.Found found() {
    return found(table, fields, rule, broken);
  }

  /** Rows that a rule refuses, in the rule's own words. */
  static KnownAudit.Found found(Table table, List<FieldId> fields, Rule rule, Broken broken) {
    if (broken.isEmpty()) {
      return KnownAudit.Found.NOTHING;
    }
    List<Integer> rows = broken.numbers();
    boolean one = broken.count() == 1;
    String says =
        rule.message().isBlank()
            ? (one ? "breaks the rule " : "break the rule ") + rule.label()
            : (one ? "is refused: " : "are refused: ") + Messages.labelled(rule.message(), table);
    return KnownAudit.Found.of(
        new Violation(
            Violation.Kind.RULE,
            table.id(),
            fields,
            rule.name(),
            broken.count(),
            rows,
            Sentences.rows(rows, broken.count()) + " " + says));
  }
}
