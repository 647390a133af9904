package joiner.entry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import joiner.Pottery;
import joiner.entry.TakingIn.Missing;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** Rows from elsewhere: by names or keys, all or those that can be taken, with their lines told. */
class IntakeTest {
  private final Draft demo = Pottery.demo();

  private Table table(String name) {
    return demo.design().tableNamed(name).orElseThrow();
  }

  private static Map<FieldId, String> row(String... cells) {
    return java.util.stream.IntStream.range(0, cells.length / 2)
        .boxed()
        .collect(Collectors.toMap(i -> new FieldId(cells[2 * i]), i -> cells[2 * i + 1]));
  }

  private Intake intake(
      String table, boolean partly, List<String> match, List<Map<FieldId, String>> rows) {
    List<FieldId> by = match.stream().map(FieldId::new).toList();
    return Intake.of(
        demo,
        table(table),
        rows,
        new Intake.How(by, Missing.LEAVE, partly),
        new KnownTrials(),
        Pottery.CLOCK,
        new Random(1));
  }

  private static Map<FieldId, String> firing(String kiln, String by, String started, String ended) {
    return row(
        "kiln_id",
        kiln,
        "loaded_by",
        by,
        "cone_no",
        "6",
        "started_at",
        started,
        "ended_at",
        ended,
        "peak_c",
        ended.isEmpty() ? "" : "1222");
  }

  @Test
  void rowsAreReferredToByWhatPeopleCallThemOrByAnyOfTheirKeys() {
    Intake taken =
        intake(
            "firing",
            false,
            List.of(),
            List.of(
                firing("big  TOM", "Mara Osier · M-0001", "2026-04-01 08:00", "2026-04-01 20:00"),
                firing("1", "M-0004", "2026-04-02 08:00", "2026-04-02 20:00")));
    assertThat(taken.refused()).isEmpty();
    assertThat(taken.named()).isEqualTo(3);
    Rows rows = taken.trial().after().rows().of(table("firing").id());
    int first = rows.count() - 2;
    assertThat(rows.cell(first, new FieldId("loaded_by"))).isEqualTo(Optional.of("1"));
    assertThat(rows.cell(first + 1, new FieldId("loaded_by"))).isEqualTo(Optional.of("4"));
    assertThat(rows.cell(first + 1, new FieldId("kiln_id"))).isEqualTo(Optional.of("1"));
    assertThat(rows.cell(first, new FieldId("kiln_id"))).isEqualTo(kiln("Big Tom"));
  }

  private Optional<String> kiln(String name) {
    Rows kilns = demo.rows().of(table("kiln").id());
    for (int row = 0; row < kilns.count(); row++) {
      if (kilns.cell(row, new FieldId("name")).equals(Optional.of(name))) {
        return kilns.cell(row, new FieldId("kiln_id"));
      }
    }
    return Optional.empty();
  }

  @Test
  void whatIsRefusedIsToldByItsLineAndTheOthersCanBeTaken() {
    var rows =
        new ArrayList<>(
            List.of(
                firing("Nobody's", "1", "2026-04-01 08:00", "2026-04-01 20:00"),
                firing("1", "1", "2026-04-02 08:00", "2026-04-02 20:00"),
                firing("2", "1", "2026-04-03 08:00", "2026-04-02 09:00"),
                firing("1", "1", "2026-04-04 08:00", "")));
    Intake none = intake("firing", false, List.of(), rows);
    assertThat(none.trial().isRefused()).isTrue();
    assertThat(none.refused()).extracting(Intake.Refused::line).contains(1, 3).doesNotContain(2, 4);
    Intake some = intake("firing", true, List.of(), rows);
    assertThat(some.trial().isRefused()).isFalse();
    assertThat(some.planned().added()).isEqualTo(2);
    assertThat(some.refused())
        .extracting(Intake.Refused::line, r -> r.refusal().fields().getFirst().value())
        .contains(tuple(1, "kiln_id"), tuple(3, "ended_at"));
  }

  /** What stood on a row that is left out is refused in its turn, under the line it came in. */
  @Test
  void rowsThatStandOnRowsLeftOutAreToldByTheirOwnLine() {
    Intake some =
        intake(
            "kiln",
            true,
            List.of(),
            List.of(
                row(
                    "kiln_id",
                    "90",
                    "name",
                    "Smoker",
                    "fuel",
                    "peat",
                    "hottest_c",
                    "1000",
                    "litres",
                    "90"),
                row(
                    "kiln_id",
                    "91",
                    "name",
                    "Gosling",
                    "fuel",
                    "gas",
                    "hottest_c",
                    "1000",
                    "litres",
                    "90",
                    "fallback_id",
                    "90"),
                row(
                    "kiln_id",
                    "92",
                    "name",
                    "Heron",
                    "fuel",
                    "gas",
                    "hottest_c",
                    "1000",
                    "litres",
                    "90",
                    "fallback_id",
                    "Big Tom")));
    assertThat(some.refused()).extracting(Intake.Refused::line).contains(1, 2).doesNotContain(3);
    assertThat(some.planned().added()).isEqualTo(1);
    assertThat(some.trial().isRefused()).isFalse();
  }

  @Test
  void rowsThatAreTheSameByAKeyChange() {
    Intake changed =
        intake(
            "kiln",
            false,
            List.of("name"),
            List.of(
                row("name", "Big Tom", "hottest_c", "1310"), row("name", "Ember", "fuel", "gas")));
    assertThat(changed.planned().updated() + changed.planned().unchanged()).isEqualTo(2);
    assertThat(changed.planned().missing()).isEqualTo(2);
    assertThat(changed.refused()).isEmpty();
  }
}
