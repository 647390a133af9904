package joiner.desktop.work;

import java.util.List;
import joiner.audit.AuditReport;
import joiner.finding.Finding;
import joiner.finding.Severity;

/**
 * What checks and audit say of one state of the design.
 *
 * @param millis how long the checks and the audit took
 */
public record Verdict(List<Finding> findings, AuditReport audit, long millis) {
  /** Before the first check. */
  public static final Verdict NONE = new Verdict(List.of(), new AuditReport(List.of()), 0);

  public Verdict {
    findings = List.copyOf(findings);
  }

  /** Findings that are errors. */
  public long toFix() {
    return findings.stream().filter(finding -> finding.severity() == Severity.ERROR).count()
        + audit.violations().count();
  }

  /** Findings that are not errors. */
  public long toConsider() {
    return findings.stream().filter(finding -> finding.severity() != Severity.ERROR).count()
        + audit.hints().count();
  }
}
