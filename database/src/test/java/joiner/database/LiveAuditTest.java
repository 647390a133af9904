package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import joiner.Pottery;
import joiner.SpoiltRows;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.audit.TableAudit;
import joiner.audit.Violation;
import joiner.ddl.RowsChoice;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.Demand;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Rule;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A database counts what the audit of the same rows finds. */
class LiveAuditTest {
  @TempDir private static Path folder;

  /**
   * SQLite cannot be asked for patterns, which it says for each, H2 not for circles, and none for
   * kinds of file.
   */
  private static List<String> notices(LiveAudit audit) {
    return audit.notices().stream()
        .filter(n -> !n.contains("no regular expressions"))
        .filter(n -> !n.contains("first bytes of each file"))
        .filter(n -> !n.contains("follows no rows from one to the next"))
        .toList();
  }

  /** What a database is asked: it works out by itself what is computed, in its own way. */
  private static boolean isAsked(String count) {
    return !count.contains("kind of file of ") && !count.contains("price_per_100g");
  }

  @Test
  void everyEngineCountsWhatTheAuditFinds() throws Exception {
    var kinds = EnumSet.noneOf(Violation.Kind.class);
    for (long seed : Tries.of(2).toArray()) {
      Draft draft = SpoiltRows.in(Pottery.broken(), new Random(seed));
      Draft open = new Draft(SpoiltRows.open(draft.design()), draft.rows());
      AuditReport expected = Audit.of(draft, Pottery.CLOCK);
      expected.violations().map(Violation::kind).forEach(kinds::add);
      for (String url : Databases.fresh(folder)) {
        Shipment.ship(open, Target.of(url), RowsChoice.ALL, Progress.NONE);
        LiveAudit audit = LiveAudit.of(draft, Target.of(url), Progress.NONE);
        Databases.drop(url);
        assertThat(notices(audit)).as(url).isEmpty();
        boolean asksCircles =
            audit.notices().stream().noneMatch(n -> n.contains("follows no rows"));
        boolean asksPatterns =
            audit.notices().stream().noneMatch(n -> n.contains("no regular expressions"));
        assertThat(SpoiltRows.counts(audit.report()))
            .as(url)
            .isEqualTo(
                SpoiltRows.counts(expected).stream()
                    .filter(LiveAuditTest::isAsked)
                    .filter(count -> asksPatterns || !count.contains(" pattern of "))
                    .filter(count -> asksCircles || !count.contains("no_circle_of_referrals"))
                    .toList());
        assertThat(audit.report().rows()).isEqualTo(expected.rows());
      }
    }
    assertThat(kinds).contains(Violation.Kind.ORPHAN, Violation.Kind.CHILDLESS);
  }

  @Test
  void whatCannotBeAskedIsToldAndTheRestIsAsked() throws Exception {
    Draft demo = Pottery.demo();
    var dear =
        new Rule(
            "dear",
            "Dear",
            new Demand.Alone(List.of(new FieldId("price_per_100g")), new Formula("TRUE")),
            "");
    Draft draft =
        demo.withDesign(
            demo.design().withTable(new TableId("material"), t -> t.withRuleAdded(dear)));
    Design fewer = demo.design().withoutTable(new TableId("piece_glaze"));
    for (String url : Databases.fresh(folder)) {
      Draft part = new Draft(fewer, demo.rows().without(new TableId("piece_glaze")));
      Shipment.ship(part, Target.of(url), RowsChoice.ALL, Progress.NONE);
      LiveAudit audit = LiveAudit.of(draft, Target.of(url), Progress.NONE);
      Databases.drop(url);
      assertThat(notices(audit))
          .as(url)
          .containsExactlyInAnyOrder(
              "The rule Dear of Material was not asked: a field it speaks of is worked out.",
              "There is no table piece_glaze; nothing was asked of it.");
      assertThat(audit.report().total()).isZero();
      assertThat(audit.report().tables())
          .extracting(TableAudit::table)
          .hasSize(fewer.tables().size());
    }
  }

  @Test
  void aDatabaseThatIsNotThereIsToldAndNoneIsMade() {
    Target nowhere = Target.of("jdbc:sqlite:" + folder.resolve("none.sqlite"));
    assertThatThrownBy(() -> LiveAudit.of(Pottery.demo(), nowhere, Progress.NONE))
        .isInstanceOf(TargetRefusedException.class);
    assertThat(folder.resolve("none.sqlite")).doesNotExist();
  }
}
