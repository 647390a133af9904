package joiner.desktop.work;

import java.util.List;
import java.util.Optional;
import joiner.audit.AuditReport;
import joiner.finding.Finding;
import joiner.finding.Severity;

/**
 * What checks and audit say, and whether they say it of the design as it stands.
 *
 * @param findings of the design; of an earlier state while they are worked out anew
 * @param audit of its rows; of an earlier state while it is worked out anew
 * @param millis how long both took when they last ran
 * @param state whether both are of the design as it stands
 * @param weighing whether it is still found out what the rules mean together
 * @param failure why they could not be worked out, if so
 */
public record Verdict(
    List<Finding> findings,
    AuditReport audit,
    long millis,
    State state,
    boolean weighing,
    Optional<Failure> failure) {
  /** Whether a verdict is of the design as it stands. */
  public enum State {
    /** Checks or audit still run. */
    CHECKING,
    /** Both are done. */
    CURRENT,
    /** One of them failed. */
    FAILED
  }

  /** Before the first check. */
  public static final Verdict NONE =
      new Verdict(
          List.of(), new AuditReport(List.of()), 0, State.CHECKING, false, Optional.empty());

  public Verdict {
    findings = List.copyOf(findings);
  }

  /** Whether everything here is of the design as it stands. */
  public boolean isCurrent() {
    return state == State.CURRENT;
  }

  /** Findings that are errors. */
  public long toFix() {
    return findings.stream().filter(finding -> finding.severity() == Severity.ERROR).count()
        + audit.wrong();
  }

  /** Findings that are not errors. */
  public long toConsider() {
    return findings.stream().filter(finding -> finding.severity() != Severity.ERROR).count()
        + audit.hints().count();
  }
}
