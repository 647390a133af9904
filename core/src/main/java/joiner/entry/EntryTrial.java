package joiner.entry;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import joiner.audit.AuditReport;
import joiner.audit.TableAudit;
import joiner.audit.Violation;
import joiner.edit.EnterRows;
import joiner.meaning.Draft;
import joiner.meaning.WorkedOut;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.RowId;
import joiner.rows.Rows;

/**
 * Rows entered on trial: the draft as it would be, and what in it the design forbids that it did
 * not before. It is the audit that says so, so that nothing is refused here that passes there, and
 * the other way round.
 *
 * @param after the draft with the rows
 * @param refusals in the order of tables and rows
 */
public record EntryTrial(EnterRows edit, Draft before, Draft after, List<Refusal> refusals) {
  public EntryTrial {
    refusals = List.copyOf(refusals);
  }

  /**
   * Tries rows.
   *
   * @param known what is known of the draft; it may be used again for the next trial
   * @throws joiner.edit.EditRefusedException if the rows cannot be entered at all
   */
  public static EntryTrial of(Draft draft, EnterRows edit, KnownTrials known, Clock clock) {
    AuditReport before = known.before(draft, clock);
    Draft after = edit.apply(draft);
    AuditReport now = known.after(after, clock);
    return new EntryTrial(
        edit, draft, after, new Comparing(draft, after, edit, before, clock).of(now));
  }

  public boolean isRefused() {
    return !refusals.isEmpty();
  }

  /**
   * What the cells of the row that was entered first hold then: typed, filled in, copied and worked
   * out.
   *
   * @param first what was entered
   */
  public Map<FieldId, String> shown(Entered first, Clock clock) {
    Table table = after.design().table(first.table());
    Rows rows = after.rows().of(table.id());
    int added = before.rows().of(table.id()).count();
    int row = first.row().map(id -> rows.place(id).orElseThrow()).orElse(added);
    WorkedOut computed = WorkedOut.of(after, table, clock);
    Map<FieldId, String> cells = new LinkedHashMap<>();
    for (Field field : table.fields()) {
      Optional<String> text =
          field.isComputed() ? computed.cell(rows, row, field.id()) : rows.cell(row, field.id());
      text.ifPresent(t -> cells.put(field.id(), t));
    }
    return cells;
  }

  /** What of the rows after is new in what breaks the design. */
  private static final class Comparing {
    private final Draft after;
    private final RefusalWords words;

    /** Which rows broke which constraint before. */
    private final Set<Broken> broken = new HashSet<>();

    /** Which of the rows entered a row is. */
    private final Map<TableId, Map<RowId, Integer>> entered = new HashMap<>();

    private record Broken(TableId table, String constraint, List<?> fields, RowId row) {}

    Comparing(Draft before, Draft after, EnterRows edit, AuditReport report, Clock clock) {
      this.after = after;
      this.words = new RefusalWords(after, clock);
      for (Violation violation : violations(report)) {
        Rows rows = before.rows().of(violation.table());
        violation.rows().forEach(row -> broken.add(broken(violation, rows.id(row - 1))));
      }
      Map<TableId, Integer> added = new HashMap<>();
      for (int i = 0; i < edit.rows().size(); i++) {
        EnterRows.One one = edit.rows().get(i);
        int gone = edit.gone().getOrDefault(one.table(), Set.of()).size();
        int first = before.rows().of(one.table()).count() - gone;
        int place =
            one.row().isPresent() ? 0 : first + added.merge(one.table(), 1, Integer::sum) - 1;
        RowId id = one.row().orElseGet(() -> after.rows().of(one.table()).id(place));
        entered.computeIfAbsent(one.table(), t -> new HashMap<>()).put(id, i);
      }
    }

    private static Broken broken(Violation violation, RowId row) {
      return new Broken(violation.table(), violation.constraint(), violation.fields(), row);
    }

    private static List<Violation> violations(AuditReport report) {
      return report.tables().stream().map(TableAudit::violations).flatMap(List::stream).toList();
    }

    List<Refusal> of(AuditReport now) {
      var refusals = new ArrayList<Refusal>();
      for (Violation violation : violations(now)) {
        Rows rows = after.rows().of(violation.table());
        for (int number : violation.rows()) {
          RowId id = rows.id(number - 1);
          Integer at = entered.getOrDefault(violation.table(), Map.of()).get(id);
          if (at != null || !broken.contains(broken(violation, id))) {
            refusals.add(
                new Refusal(
                    violation.table(),
                    at == null ? OptionalInt.empty() : OptionalInt.of(at),
                    number,
                    violation.fields(),
                    violation.kind(),
                    violation.constraint(),
                    words.of(violation, number - 1)));
          }
        }
      }
      return refusals;
    }
  }
}
