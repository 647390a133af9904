package joiner.finding;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.edit.ChangeField;
import joiner.meaning.Constraint;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.shape.PatternExamples;
import joiner.shape.TextPattern;

/** A pattern that no value seen has is more likely wrong than all of them. */
final class PatternWithoutMatch extends FieldCheck {
  /** Fewer values tell nothing. */
  private static final int ENOUGH = 3;

  PatternWithoutMatch() {
    super("pattern-without-match", Severity.WARNING, Topic.SHAPE);
  }

  @Override
  void run(TableMeaning meaning, Field field, Rows rows, Report report) {
    for (Constraint.OfField held : meaning.constraintsOf(field.id())) {
      if (held instanceof Constraint.Matching matching
          && matching.read() instanceof TextPattern.Read.Understood(var pattern)) {
        run(meaning.table(), field, pattern, rows, report);
      }
    }
  }

  private static void run(Table table, Field field, TextPattern pattern, Rows rows, Report report) {
    List<String> values =
        IntStream.range(0, rows.count())
            .mapToObj(row -> rows.cell(row, field.id()))
            .flatMap(Optional::stream)
            .toList();
    if (values.size() < ENOUGH || values.stream().anyMatch(pattern::matches)) {
      return;
    }
    Remedy[] remedies =
        PatternExamples.of(values).stream()
            .map(
                seen ->
                    new Remedy(
                        "Use " + seen.expression(),
                        ChangeField.limits(
                            table,
                            field,
                            field.limits().withPattern(Optional.of(seen.expression())))))
            .toArray(Remedy[]::new);
    report.found(
        "No " + named(table, field) + " in the rows has the pattern " + pattern.expression() + ".",
        "None of "
            + values.size()
            + " values seen has it, so rather the pattern is wrong than all of them.",
        remedies);
  }
}
