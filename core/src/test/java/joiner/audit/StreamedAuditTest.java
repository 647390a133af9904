package joiner.audit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.edit.RemoveField;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.RowSource;
import joiner.rows.SampleRows;
import joiner.rows.TableRows;
import joiner.rows.TableSink;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Audits of rows that go by: from files, broken off, ended in the middle. */
class StreamedAuditTest {
  private static final TableId FIRING = new TableId("firing");

  @TempDir private Path folder;

  private static AuditReport streamed(Draft draft, Map<TableId, RowSource> rows)
      throws IOException {
    return Audit.of(
        draft.withRows(SampleRows.NONE), rows, Pottery.CLOCK, 1 << 24, (table, row) -> true);
  }

  private static Map<TableId, RowSource> sources(Draft draft) {
    Map<TableId, RowSource> sources = new HashMap<>();
    for (Table table : draft.design().tables()) {
      sources.put(table.id(), TableRows.of(table, draft.rows().of(table.id())));
    }
    return sources;
  }

  @Test
  void filesBesideGiveWhatTheRowsInMemoryGive() throws Exception {
    Draft broken = Pottery.broken();
    DesignFolder.save(broken, folder.resolve("design"));
    DesignFolder.Beside beside =
        DesignFolder.beside(folder.resolve("design"), folder.resolve("design/data"));
    assertThat(beside.draft().rows().count()).as("no rows are held").isZero();
    assertThat(streamed(beside.draft(), beside.rows())).isEqualTo(Audit.of(broken, Pottery.CLOCK));
  }

  @Test
  void rulesThatReadOtherRowsHoldForRowsThatGoBy() throws Exception {
    var cool = new Rule("cool", "Cool", "peak_c <= kiln_id.hottest_c - 100", "");
    Draft demo = Pottery.demo();
    Draft ruled = demo.withDesign(demo.design().withTable(FIRING, t -> t.withRuleAdded(cool)));
    AuditReport expected = PlainAudit.of(ruled, Pottery.CLOCK);
    assertThat(expected.total()).isPositive();
    assertThat(streamed(ruled, sources(ruled))).isEqualTo(expected);
  }

  /** Generated designs, circles among them: each table is told once, and as in the report. */
  @Test
  void whatIsFoundInATableIsToldOnceAndAsSoonAsItIsKnown() throws Exception {
    for (long seed : Tries.of(60).toArray()) {
      Draft draft = RandomDesigns.draft(seed);
      var told = new ArrayList<TableAudit>();
      AuditReport report = Audit.of(draft, sources(draft), Pottery.CLOCK, 1 << 24, into(told));
      assertThat(told)
          .as("seed " + seed)
          .containsExactlyInAnyOrderElementsOf(report.tables())
          .doesNotHaveDuplicates();
    }
    Draft broken = Pottery.broken();
    var told = new ArrayList<TableAudit>();
    var atTheEnd = new ArrayList<List<TableAudit>>();
    Map<TableId, RowSource> rows = sources(broken);
    RowSource last = rows.get(new TableId("piece_glaze"));
    rows.put(
        new TableId("piece_glaze"),
        new RowSource() {
          @Override
          public List<String> headers() {
            return last.headers();
          }

          @Override
          public OptionalLong count() {
            return last.count();
          }

          @Override
          public void scan(TableSink sink) throws IOException {
            atTheEnd.add(List.copyOf(told));
            last.scan(sink);
          }
        });
    Audit.of(broken, rows, Pottery.CLOCK, 1 << 24, into(told));
    assertThat(atTheEnd.getFirst())
        .as("before the rows of the last table go by")
        .extracting(TableAudit::table)
        .contains(FIRING, new TableId("member"));
  }

  private static Audit.Watch into(List<TableAudit> told) {
    return new Audit.Watch() {
      @Override
      public boolean goesOn(TableId table, long rows) {
        return true;
      }

      @Override
      public void found(TableAudit table) {
        told.add(table);
      }
    };
  }

  @Test
  void aTableWithoutRowsIsTakenForEmpty() throws Exception {
    Draft demo = Pottery.demo();
    Map<TableId, RowSource> fewer = sources(demo);
    fewer.remove(new TableId("kiln"));
    AuditReport report = streamed(demo, fewer);
    assertThat(report.violations().filter(v -> v.kind() == Violation.Kind.ORPHAN))
        .singleElement()
        .satisfies(v -> assertThat(v.count()).isEqualTo(48));
  }

  @Test
  void aFileThatIsNoneOfTheTableIsToldWithItsLine() throws Exception {
    DesignFolder.save(Pottery.demo(), folder.resolve("design"));
    Path data = Files.createDirectories(folder.resolve("data"));
    for (Table table : Pottery.demo().design().tables()) {
      Path csv = folder.resolve("design/data").resolve(table.name() + ".csv");
      Files.copy(csv, data.resolve(table.name() + ".csv"));
    }
    List<String> lines = new ArrayList<>(Files.readAllLines(data.resolve("firing.csv")));
    lines.set(20, lines.get(20) + ",one too many");
    Files.write(data.resolve("firing.csv"), lines);
    DesignFolder.Beside beside = DesignFolder.beside(folder.resolve("design"), data);
    assertThatThrownBy(() -> streamed(beside.draft(), beside.rows()))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("firing.csv, line 21");
  }

  /** Rows without an end, unless somebody says so. */
  private record Endless(Table table) implements RowSource {
    @Override
    public List<String> headers() {
      return table.fields().stream().map(Field::name).toList();
    }

    @Override
    public OptionalLong count() {
      return OptionalLong.empty();
    }

    @Override
    public void scan(TableSink sink) {
      int[] places = headers().stream().mapToInt(sink::column).toArray();
      for (long row = 0; row >= 0; row++) {
        for (int place : places) {
          sink.cell(place, "1");
        }
        sink.endRow();
      }
    }
  }

  @Test
  void anAuditThatIsEndedTellsOfTheTablesThatWentBy() throws Exception {
    var carried = new RemoveField(new TableId("piece"), new FieldId("fired_to"), "Fired to");
    Draft demo = carried.apply(Pottery.demo()); // Nothing reads firings before they go by.
    Map<TableId, RowSource> rows = sources(demo);
    rows.put(FIRING, new Endless(demo.design().table(FIRING)));
    AuditReport report =
        Audit.of(
            demo,
            rows,
            Pottery.CLOCK,
            1 << 24,
            (table, row) -> !table.equals(FIRING) || row < 100_000);
    List<TableId> told = report.tables().stream().map(TableAudit::table).toList();
    assertThat(told)
        .contains(new TableId("member"), new TableId("kiln"), new TableId("cone"))
        .doesNotContain(FIRING, new TableId("piece"), new TableId("incident"));
    assertThat(report.total()).isZero();
  }

  @Test
  void whileRowsThatOthersReadAreHeldItCanBeEndedToo() throws Exception {
    Draft demo = Pottery.demo();
    assertThat(Audit.readByOthers(demo)).contains(FIRING);
    Map<TableId, RowSource> rows = sources(demo);
    rows.put(FIRING, new Endless(demo.design().table(FIRING)));
    AuditReport report =
        Audit.of(demo, rows, Pottery.CLOCK, 1 << 24, (table, row) -> row < 100_000);
    assertThat(report.tables()).isEmpty();
  }

  @Test
  void whatFailsWhileRowsAreLookedAtIsThrownAndNotLost() {
    Draft demo = Pottery.demo();
    assertThatThrownBy(
            () ->
                Audit.of(
                    demo,
                    sources(demo),
                    Pottery.CLOCK,
                    1 << 24,
                    (table, row) -> {
                      throw new IllegalStateException("the watch stopped");
                    }))
        .isInstanceOf(IllegalStateException.class)
        .hasMessage("the watch stopped");
  }
}
