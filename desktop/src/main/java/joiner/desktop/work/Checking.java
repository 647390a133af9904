package joiner.desktop.work;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.audit.KnownAudit;
import joiner.finding.DesignChecks;
import joiner.finding.Finding;
import joiner.finding.KnownFindings;
import joiner.finding.RuleSense;
import joiner.meaning.Draft;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.SampleRows;
import joiner.source.LinkedFile;
import org.jspecify.annotations.Nullable;

/** Findings and audit of the open design, always of its newest state. */
final class Checking {
  private final KnownFindings knownFindings = new KnownFindings();
  private final KnownAudit knownAudit = new KnownAudit();
  private final Computed<Draft, Timed<List<Finding>>> findings;
  private final Computed<Question, Timed<Audited>> audit;
  private final Computed<Draft, List<Finding>> rules;
  private final Runner runner;
  private int round;
  private @Nullable Draft asked;
  private final ReadOnlyObjectWrapper<Verdict> verdict = new ReadOnlyObjectWrapper<>(Verdict.NONE);

  private record Timed<T>(T value, long nanos) {}

  /**
   * What was found.
   *
   * @param states of the files that have rows, as they were then
   */
  private record Audited(AuditReport report, Map<TableId, Object> states) {}

  /**
   * What to audit.
   *
   * @param round another one for the same draft where files were changed that have its rows
   */
  private record Question(Draft draft, int round) {}

  Checking(Runner runner, Clock clock, Solver solver) {
    this.runner = runner;
    this.findings =
        new Computed<>(
            runner,
            "Checking the design",
            Lane.CHECKING,
            (left, right) -> left == right,
            (draft, progress) -> {
              long start = System.nanoTime();
              List<Finding> found = DesignChecks.run(draft, knownFindings);
              return new Timed<>(found, System.nanoTime() - start);
            });
    this.audit =
        new Computed<>(
            runner,
            "Auditing the rows",
            Lane.CHECKING,
            (left, right) -> left.draft == right.draft && left.round == right.round,
            (question, progress) -> {
              long start = System.nanoTime();
              Draft draft = question.draft;
              Map<TableId, LinkedFile> files = LinkedFile.of(draft, progress::stopped);
              AuditReport report =
                  Audit.of(draft, files, clock, knownAudit, new Share(draft.rows(), progress));
              return new Timed<>(new Audited(report, states(files)), System.nanoTime() - start);
            });
    this.rules =
        new Computed<>(
            runner,
            "Weighing the rules",
            Lane.CHECKING,
            (left, right) -> left == right,
            (draft, progress) -> sense(draft, progress, solver));
    findings.answerProperty().subscribe(value -> show());
    rules.answerProperty().subscribe(value -> show());
    audit.answerProperty().subscribe(value -> show());
  }

  ReadOnlyObjectProperty<Verdict> verdictProperty() {
    return verdict.getReadOnlyProperty();
  }

  /** What makes no sense of the rules, table by table. */
  private static List<Finding> sense(Draft draft, Progress progress, Solver solver) {
    var found = new ArrayList<Finding>();
    for (Table table : draft.design().tables()) {
      if (progress.stopped()) {
        throw new CancellationException();
      }
      found.addAll(RuleSense.of(table, solver.rules(draft.meaning().of(table))));
    }
    return found;
  }

  void ask(Draft draft) {
    asked = draft;
    findings.ask(draft);
    audit.ask(new Question(draft, round));
    rules.ask(draft);
  }

  /** Of rules that were looked at earlier, what is about something that is still there. */
  private List<Finding> ofRules() {
    Draft draft = asked;
    return draft == null
        ? List.of()
        : rules.answer().latest().orElse(List.of()).stream()
            .filter(
                finding ->
                    draft
                        .design()
                        .find(finding.table())
                        .filter(table -> finding.field().map(table::hasField).orElse(true))
                        .isPresent())
            .toList();
  }

  /** Audits anew if files that have rows of a draft are others than when last looked at. */
  void lookForChanges(Draft draft) {
    if (!draft.rows().linked().isEmpty()) {
      runner.start(
          new Request<>(
              new Object(),
              "Looking at the files of rows",
              Lane.CHECKING,
              false,
              progress -> states(LinkedFile.of(draft, () -> false)),
              states -> askAgain(draft, states),
              failure -> {},
              () -> {}));
    }
  }

  private void askAgain(Draft draft, Map<TableId, Object> states) {
    Optional<Map<TableId, Object>> known =
        audit.answer().current().map(current -> current.value().states());
    if (known.isPresent() && !known.get().equals(states)) {
      round++;
      audit.ask(new Question(draft, round));
    }
  }

  private static Map<TableId, Object> states(Map<TableId, LinkedFile> files) {
    Map<TableId, Object> states = new HashMap<>();
    files.forEach((table, file) -> states.put(table, file.state()));
    return states;
  }

  /** How much of the rows in files went by; the others take no time that counts. */
  private static final class Share implements Audit.Watch {
    private final Map<TableId, Long> before = new HashMap<>();
    private final long all;
    private final Progress progress;

    Share(SampleRows rows, Progress progress) {
      this.progress = progress;
      long sum = 0;
      for (Map.Entry<TableId, LinkedRows> file : rows.linked().entrySet()) {
        sum += file.getValue().count();
      }
      all = Math.max(1, sum);
    }

    @Override
    public boolean goesOn(TableId table, long row) {
      before.put(table, row);
      progress.share(
          Math.min(1, before.values().stream().mapToLong(Long::longValue).sum() / (double) all));
      return !progress.stopped();
    }
  }

  private void show() {
    boolean current =
        findings.answer().current().isPresent() && audit.answer().current().isPresent();
    Optional<Failure> failure =
        Stream.of(findings.answer(), audit.answer(), rules.answer())
            .filter(Answer.Failed.class::isInstance)
            .map(answer -> ((Answer.Failed<?>) answer).failure())
            .findFirst();
    var foundLatest = findings.answer().latest();
    var auditLatest = audit.answer().latest();
    long nanos =
        foundLatest.map(Timed::nanos).orElse(0L) + auditLatest.map(Timed::nanos).orElse(0L);
    Verdict.State state = current ? Verdict.State.CURRENT : Verdict.State.CHECKING;
    verdict.set(
        new Verdict(
            Stream.concat(
                    foundLatest.map(Timed::value).orElse(Verdict.NONE.findings()).stream(),
                    ofRules().stream())
                .sorted(Comparator.comparing(Finding::severity))
                .toList(),
            auditLatest.map(known -> known.value().report()).orElse(Verdict.NONE.audit()),
            nanos / 1_000_000,
            failure.isPresent() ? Verdict.State.FAILED : state,
            rules.answer().current().isEmpty(),
            failure));
  }
}
