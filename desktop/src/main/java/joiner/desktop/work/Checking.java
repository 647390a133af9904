package joiner.desktop.work;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.audit.KnownAudit;
import joiner.finding.DesignChecks;
import joiner.finding.Finding;
import joiner.finding.KnownFindings;
import joiner.meaning.Draft;

/** Findings and audit of the open design, always of its newest state. */
final class Checking {
  private final KnownFindings knownFindings = new KnownFindings();
  private final KnownAudit knownAudit = new KnownAudit();
  private final Computed<Draft, Timed<List<Finding>>> findings;
  private final Computed<Draft, Timed<AuditReport>> audit;
  private final ReadOnlyObjectWrapper<Verdict> verdict = new ReadOnlyObjectWrapper<>(Verdict.NONE);

  private record Timed<T>(T value, long nanos) {}

  Checking(Runner runner, Clock clock) {
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
            (left, right) -> left == right,
            (draft, progress) -> {
              long start = System.nanoTime();
              AuditReport report = Audit.of(draft, clock, knownAudit, progress::stopped);
              return new Timed<>(report, System.nanoTime() - start);
            });
    findings.answerProperty().subscribe(value -> show());
    audit.answerProperty().subscribe(value -> show());
  }

  ReadOnlyObjectProperty<Verdict> verdictProperty() {
    return verdict.getReadOnlyProperty();
  }

  void ask(Draft draft) {
    findings.ask(draft);
    audit.ask(draft);
  }

  private void show() {
    boolean current =
        findings.answer().current().isPresent() && audit.answer().current().isPresent();
    Optional<Failure> failure =
        Stream.of(findings.answer(), audit.answer())
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
            foundLatest.map(Timed::value).orElse(Verdict.NONE.findings()),
            auditLatest.map(Timed::value).orElse(Verdict.NONE.audit()),
            nanos / 1_000_000,
            failure.isPresent() ? Verdict.State.FAILED : state,
            failure));
  }
}
