package joiner.finding;

import java.util.function.Consumer;
import java.util.function.Supplier;
import joiner.meaning.FormulaRows;
import joiner.meaning.RowLabels;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.Table;
import joiner.naming.Counts;

/**
 * Whoever picks a row tells it from others by its label (common practice, no source). Of large
 * tables the first rows are looked at.
 */
final class RowLabelShared implements WholeCheck {
  private static final int MOST_ROWS = 2_000;
  private static final TableFinding FINDING =
      new TableFinding("row-label-shared", Severity.ADVICE, Topic.SHAPE);

  @Override
  public String id() {
    return FINDING.id();
  }

  @Override
  public void run(CheckedDesign checked, Consumer<Finding> found) {
    var formulas =
        new FormulaRows(
            checked.draft(), CheckedDesign.ANY_DAY); // What it indexes serves all tables.
    for (Table table : checked.design().tables()) {
      boolean picked = !checked.childrenOf(table.id()).isEmpty();
      if (picked && table.rowLabel().isPresent() && checked.rows(table).count() > 1) {
        run(checked, table, formulas, found);
      }
    }
  }

  private static void run(
      CheckedDesign checked, Table table, FormulaRows formulas, Consumer<Finding> found) {
    TableMeaning meaning = checked.meaning(table);
    Supplier<RowLabels.Shared> count =
        () -> new RowLabels(meaning, formulas, CheckedDesign.ANY_DAY).shared(MOST_ROWS);
    boolean ofItself = table.rowLabel().filter(label -> !label.reachesOut()).isPresent();
    RowLabels.Shared shared =
        ofItself && table.fields().stream().noneMatch(Field::isComputed)
            ? checked.known().sharedLabels(meaning, checked.rows(table), count)
            : count.get();
    if (shared.rows() > 0) {
      found.accept(
          FINDING.about(
              table,
              Counts.of(shared.rows(), "row", "rows")
                  + " of "
                  + table.label()
                  + " share their row label with another, as “"
                  + shared.often()
                  + "”.",
              "Who picks one of them cannot tell which it is; put more into the label."));
    }
  }
}
