package joiner.ddl;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.finding.DesignChecks;
import joiner.meaning.Draft;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

class ShipGateTest {
  private static List<ShipGate.Obstacle> obstacles(Draft draft, RowsChoice rows) {
    return ShipGate.obstacles(
        draft.design(), DesignChecks.run(draft), Audit.of(draft, Pottery.CLOCK), rows);
  }

  @Test
  void nothingStandsInTheWayOfTheDemo() {
    for (RowsChoice rows : RowsChoice.values()) {
      assertThat(obstacles(Pottery.demo(), rows)).isEmpty();
    }
  }

  @Test
  void errorsOfTheDesignComeFirstAndAlwaysCount() {
    Draft draft = Pottery.broken();
    var all = obstacles(draft, RowsChoice.ALL);
    assertThat(all).anyMatch(ShipGate.Obstacle::inRows);
    assertThat(all).anyMatch(obstacle -> !obstacle.inRows());
    assertThat(all.getFirst().inRows()).isFalse();
    assertThat(all.getFirst().message()).isNotBlank();
    assertThat(obstacles(draft, RowsChoice.NONE)).isNotEmpty().noneMatch(ShipGate.Obstacle::inRows);
  }

  @Test
  void onlyRowsThatGoAlongAreLookedAt() {
    Draft demo = Pottery.demo();
    TableId piece = new TableId("piece");
    Draft draft = demo.withRows(demo.rows().with(piece, rows -> Pottery.broken().rows().of(piece)));
    assertThat(obstacles(draft, RowsChoice.ALL))
        .isNotEmpty()
        .allMatch(ShipGate.Obstacle::inRows)
        .allMatch(obstacle -> obstacle.table().equals(piece));
    assertThat(obstacles(draft, RowsChoice.LOOKUPS)).isEmpty();
    assertThat(obstacles(draft, RowsChoice.NONE)).isEmpty();
  }
}
