package joiner.entry;

import java.time.Clock;
import java.util.Optional;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.audit.KnownAudit;
import joiner.meaning.Draft;

/**
 * What is known of a draft into which rows are entered, so that one trial after the other looks
 * only at what its own rows touch. Belongs to one thread at a time.
 */
public final class KnownTrials {
  private final KnownAudit drafts = new KnownAudit();
  private final KnownAudit trials = new KnownAudit();
  private Optional<Draft> of = Optional.empty();
  private Optional<AuditReport> report = Optional.empty();

  /** What breaks the design before anything is entered. */
  AuditReport before(Draft draft, Clock clock) {
    if (of.filter(known -> known == draft).isEmpty() || report.isEmpty()) {
      report = Optional.of(Audit.of(draft, clock, drafts, () -> false));
      of = Optional.of(draft);
    }
    return report.get();
  }

  /** What breaks it with the rows. */
  AuditReport after(Draft draft, Clock clock) {
    return Audit.of(draft, clock, trials, () -> false);
  }
}
