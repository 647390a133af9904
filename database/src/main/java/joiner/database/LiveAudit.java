package joiner.database;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import joiner.audit.AuditReport;
import joiner.audit.SetQuestions;
import joiner.audit.TableAudit;
import joiner.audit.Violation;
import joiner.meaning.Draft;
import joiner.model.Table;

/**
 * What in the rows of a live database breaks a design, counted by the database itself. Nothing is
 * changed there, and no row comes here.
 *
 * @param report counts; rows are not named
 * @param notices what could not be asked, a sentence each
 */
public record LiveAudit(AuditReport report, List<String> notices) {
  public LiveAudit {
    notices = List.copyOf(notices);
  }

  /**
   * Asks a database about all tables of a design, by their names.
   *
   * @throws TargetRefusedException if it cannot be reached or read
   */
  public static LiveAudit of(Draft draft, Target target, Progress progress)
      throws TargetRefusedException {
    return LiveTarget.read(target, "cannot be read", live -> ask(draft, live, progress));
  }

  private static LiveAudit ask(Draft draft, LiveTarget live, Progress progress)
      throws SQLException {
    var tables = new ArrayList<TableAudit>();
    var notices = new ArrayList<String>();
    Set<String> there = live.tableNames();
    int done = 0;
    for (Table table : draft.design().tables()) {
      if (!progress.reached(done++, draft.design().tables().size(), table.name())) {
        notices.add("The audit was stopped before " + table.label() + ".");
        break;
      }
      if (table.fields().isEmpty()) {
        continue;
      }
      if (there.contains(live.comparable(live.dialect().identifiers().stored(table.name())))) {
        tables.add(ask(draft, table, live, notices));
      } else {
        notices.add("There is no table " + table.name() + "; nothing was asked of it.");
      }
    }
    return new LiveAudit(new AuditReport(tables), notices);
  }

  private static TableAudit ask(Draft draft, Table table, LiveTarget live, List<String> notices)
      throws SQLException {
    SetQuestions asked = SetQuestions.of(draft, table, live.dialect());
    notices.addAll(asked.notAsked());
    var violations = new ArrayList<Violation>();
    long rows = 0;
    for (SetQuestions.Question question : asked.questions()) {
      try (var statement = live.reading(question.sql());
          ResultSet answer = statement.executeQuery()) {
        answer.next();
        int first = question.countsRows() ? 2 : 1;
        rows = question.countsRows() ? answer.getLong(1) : rows;
        for (int i = 0; i < question.about().size(); i++) {
          long count = answer.getLong(first + i);
          if (count > 0) {
            violations.add(SetQuestions.Question.of(question.about().get(i), count));
          }
        }
      } catch (SQLException refused) {
        live.rollback(); // Some engines answer nothing more after an error.
        notices.add(
            "A question about " + table.label() + " was refused: " + refused.getMessage().strip());
      }
    }
    return new TableAudit(
        table.id(), Math.toIntExact(Math.min(rows, Integer.MAX_VALUE)), violations, List.of());
  }
}
