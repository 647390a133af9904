package joiner.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import joiner.Tries;
import joiner.compare.Comparison;
import joiner.compare.Verification;
import joiner.ddl.RowsChoice;
import joiner.finding.DesignChecks;
import joiner.finding.Severity;
import joiner.meaning.Draft;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A law: a sound design is accepted by every engine, everything promised is read back, and the
 * design compared with the database differs in nothing.
 */
class ShippedDesignsTest {
  @TempDir private static Path folder;

  @Test
  void everySoundDesignIsShippedAndReadBackWhole() throws Exception {
    var problems = new ArrayList<String>();
    int shipped = 0;
    for (long seed : Tries.of(60).toArray()) {
      Draft draft = SoundDesigns.draft(seed);
      assertThat(DesignChecks.run(draft))
          .as("seed " + seed)
          .filteredOn(finding -> finding.severity() == Severity.ERROR)
          .isEmpty();
      for (String url : Databases.fresh(folder)) {
        ship(draft, url).forEach(problem -> problems.add("seed " + seed + ", " + problem));
        Databases.drop(url);
        shipped++;
      }
    }
    assertThat(shipped).isPositive();
    assertThat(problems).isEmpty();
  }

  private static List<String> ship(Draft draft, String url) throws Exception {
    String engine = Shipment.dialectOf(url).engine();
    try {
      Verification found =
          Shipment.ship(draft, Target.of(url), RowsChoice.NONE, Progress.NONE).verification();
      var problems = new ArrayList<String>();
      found.differences().forEach(difference -> problems.add(engine + ": " + difference));
      LiveDesign live = LiveDesign.of(draft, Target.of(url));
      Comparison.between(draft, live.draft())
          .forEach(effect -> problems.add(engine + ", compared: " + effect.message()));
      live.notices().forEach(notice -> problems.add(engine + ", compared: " + notice));
      return problems;
    } catch (TargetRefusedException e) {
      return List.of(engine + ": " + e.getMessage() + "\n" + e.statement());
    }
  }
}
