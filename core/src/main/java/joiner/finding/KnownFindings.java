package joiner.finding;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

/**
 * Findings about single tables that still hold from the last run. Tables and rows never change in
 * place, so the same values have the same findings. Belongs to one thread at a time.
 */
public final class KnownFindings {
  /** A finding with the place of its check in the list. */
  record Numbered(int check, Finding finding) {}

  private record Known(Table table, Rows rows, List<Numbered> findings) {}

  private Map<TableId, Known> known = Map.of();

  /** Adds the findings of all tables to the lists of their checks. */
  void update(
      CheckedDesign design,
      BiFunction<Table, Rows, List<Numbered>> check,
      List<List<Finding>> byCheck) {
    Map<TableId, Known> next = HashMap.newHashMap(design.design().tables().size());
    for (Table table : design.design().tables()) {
      Rows rows = design.rows(table);
      Known before = known.get(table.id());
      boolean holds = before != null && before.table == table && before.rows == rows;
      Known now = holds ? before : new Known(table, rows, check.apply(table, rows));
      next.put(table.id(), now);
      now.findings.forEach(numbered -> byCheck.get(numbered.check).add(numbered.finding));
    }
    known = next;
  }
}
