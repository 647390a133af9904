package joiner.distributed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.trino.plugin.memory.MemoryPlugin;
import io.trino.testing.DistributedQueryRunner;
import io.trino.testing.TestingSession;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import joiner.Pottery;
import joiner.SpoiltRows;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.catalog.SqlType;
import joiner.database.LiveAudit;
import joiner.database.Progress;
import joiner.database.Shipment;
import joiner.database.Target;
import joiner.database.TargetRefusedException;
import joiner.ddl.RowsChoice;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;
import joiner.rows.ValueReader;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Three nodes of Trino count what the audit of the same rows finds. */
class DistributedAuditTest {
  private static final Dialect TRINO = Dialects.TRINO;
  private static DistributedQueryRunner nodes;
  private static String server;

  @BeforeAll
  static void start() throws Exception {
    var session =
        TestingSession.testSessionBuilder().setCatalog("memory").setSchema("default").build();
    nodes = DistributedQueryRunner.builder(session).setWorkerCount(2).build();
    nodes.installPlugin(new MemoryPlugin());
    nodes.createCatalog("memory", "memory", Map.of("memory.max-data-per-node", "512MB"));
    server = "jdbc:trino://" + nodes.getCoordinator().getAddress() + "/memory/default";
  }

  @AfterAll
  static void end() {
    nodes.close();
  }

  private static Target target() {
    return new Target(server, Optional.of("joiner"), Optional.empty());
  }

  private static void make(Design design, Draft rows) throws SQLException {
    try (Connection connection = DriverManager.getConnection(server + "?user=joiner");
        Statement statement = connection.createStatement()) {
      for (Table table : design.tables()) {
        statement.execute("DROP TABLE IF EXISTS " + TRINO.name(table.name()));
        var columns = new ArrayList<String>();
        for (Field field : table.fields()) {
          columns.add(TRINO.name(field.name()) + " " + spelled(field));
        }
        statement.execute(
            "CREATE TABLE " + TRINO.name(table.name()) + " (" + String.join(", ", columns) + ")");
        insert(table, rows.rows().of(table.id()), statement);
      }
    }
  }

  private static String spelled(Field field) {
    return TRINO.spell(TRINO.keptAs(SqlType.of(field.type())));
  }

  private static void insert(Table table, Rows rows, Statement statement) throws SQLException {
    var lines = new ArrayList<String>();
    for (int row = 0; row < rows.count(); row++) {
      var cells = new ArrayList<String>();
      for (Field field : table.fields()) {
        String value =
            TRINO.literal(ValueReader.valueOrNull(rows.cell(row, field.id()), field.type()));
        cells.add("CAST(" + value + " AS " + spelled(field) + ")");
      }
      lines.add("(" + String.join(", ", cells) + ")");
    }
    if (!lines.isEmpty()) {
      statement.execute(
          "INSERT INTO " + TRINO.name(table.name()) + " VALUES " + String.join(", ", lines));
    }
  }

  @Test
  void threeNodesCountWhatTheAuditFinds() throws Exception {
    for (long seed : List.of(20260314L, 7L)) {
      Draft draft = SpoiltRows.in(Pottery.broken(), new Random(seed));
      AuditReport expected = Audit.of(draft, Pottery.CLOCK);
      assertThat(expected.total()).isPositive();
      make(SpoiltRows.open(draft.design()), draft);
      LiveAudit audit = LiveAudit.of(draft, target(), Progress.NONE);
      assertThat(audit.notices()).isEmpty();
      assertThat(SpoiltRows.counts(audit.report())).isEqualTo(SpoiltRows.counts(expected));
      assertThat(audit.report().rows()).isEqualTo(expected.rows());
    }
  }

  @Test
  void nothingIsShippedThere() {
    assertThatThrownBy(
            () -> Shipment.ship(Pottery.demo(), target(), RowsChoice.NONE, Progress.NONE))
        .isInstanceOf(TargetRefusedException.class)
        .hasMessageContaining("keeps no keys");
  }
}
