package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import java.util.stream.IntStream;
import joiner.KeptValues;
import joiner.Tries;
import joiner.edit.ChangeRows;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.ValueReader;
import org.junit.jupiter.api.Test;

/** What rows hold of themselves. */
class NewRowTest {
  private static final Instant NOON = Instant.parse("2026-03-14T12:00:00Z");
  private static final Draft DRAFT = KeptValues.draft(KeptValues.CODE);
  private static final Table LOG = DRAFT.design().tables().iterator().next();

  private static NewRow row(Instant at, long seed) {
    return new NewRow(LOG, Clock.fixed(at, ZoneId.of("UTC")), new Random(seed));
  }

  @Test
  void aNewRowHoldsWhatIsGeneratedAndStampedAndNothingElse() {
    Map<FieldId, String> cells = row(NOON, 1).made(Rows.NONE);
    assertThat(cells.keySet().stream().map(FieldId::value))
        .containsExactlyInAnyOrder(
            "entry_id",
            "code",
            "tag",
            "drawn",
            "timed",
            "made_at",
            "made_by",
            "changed_at",
            "changed_by");
    for (Field field : LOG.fields()) {
      String cell = cells.get(field.id());
      if (cell != null) {
        assertThat(ValueReader.read(cell, field.type()))
            .as("%s: %s", field.name(), cell)
            .isInstanceOf(ReadValue.Fits.class);
      }
    }
    assertThat(cells.get(new FieldId("code"))).startsWith("F-2026-001");
  }

  @Test
  void rowsAreNumberedOneAfterTheOther() {
    Draft draft = DRAFT;
    for (int i = 0; i < 3; i++) {
      draft = ChangeRows.added(LOG, row(NOON, i)).apply(draft);
    }
    Rows rows = draft.rows().of(LOG.id());
    List<String> codes =
        IntStream.range(0, 3)
            .mapToObj(r -> rows.cell(r, new FieldId("code")).orElseThrow())
            .toList();
    assertThat(codes.stream().map(c -> c.substring(0, 10)))
        .containsExactly("F-2026-001", "F-2026-002", "F-2026-003");
    assertThat(codes).allMatch(KeptValues.CODE::is);
  }

  @Test
  void aRowIsMadeFromTheLastAsFromAll() {
    Draft draft = DRAFT;
    for (int i = 0; i < 5; i++) {
      Rows rows = draft.rows().of(LOG.id());
      Rows last = row(NOON, i).last(rows);
      assertThat(last.count()).isEqualTo(1);
      Map<FieldId, String> all = row(NOON, i).made(rows);
      assertThat(row(NOON, i).made(last)).isEqualTo(all);
      Map<FieldId, String> typed = new java.util.HashMap<>(all);
      typed.put(new FieldId("entry_id"), String.valueOf(i == 2 ? 40 : 3));
      draft = draft.withRows(draft.rows().with(LOG.id(), r -> r.withRow(typed)));
    }
    assertThat(row(NOON, 9).made(draft.rows().of(LOG.id())).get(new FieldId("entry_id")))
        .isEqualTo("41");
  }

  @Test
  void aChangeIsStampedAndTheMakingStays() {
    Draft made = ChangeRows.added(LOG, row(NOON, 1)).apply(DRAFT);
    Instant later = NOON.plus(Duration.ofDays(1));
    Rows before = made.rows().of(LOG.id());
    Field what = LOG.field(new FieldId("what"));
    Draft changed =
        ChangeRows.cell(LOG, before, 0, what, Optional.of("Raku"))
            .stamped(row(later, 2))
            .apply(made);
    Rows after = changed.rows().of(LOG.id());
    assertThat(after.cell(0, new FieldId("what"))).contains("Raku");
    assertThat(after.cell(0, new FieldId("changed_at")).orElseThrow()).startsWith("2026-03-15");
    for (String same : List.of("made_at", "made_by", "code", "drawn")) {
      assertThat(after.cell(0, new FieldId(same))).isEqualTo(before.cell(0, new FieldId(same)));
    }
  }

  /** RFC 9562, section 5.4: version 4, variant 10. */
  @Test
  void uuidsByChanceAreOfVersion4() {
    Tries.of(200)
        .forEach(
            seed -> {
              UUID uuid = NewRow.byChance(new Random(seed));
              assertThat(uuid.version()).isEqualTo(4);
              assertThat(uuid.variant()).isEqualTo(2);
            });
  }

  /**
   * RFC 9562, section 5.7 and appendix A.6: 48 bits of milliseconds, version 7, 12 bits by chance,
   * variant 10, 62 bits by chance; the appendix's moment is 2022-02-22 14:22:22 at UTC-5.
   */
  @Test
  void uuidsInOrderOfTimeAreOfVersion7() {
    long millis = Instant.parse("2022-02-22T19:22:22Z").toEpochMilli();
    Tries.of(200)
        .forEach(
            seed -> {
              UUID uuid = NewRow.timed(millis, new Random(seed));
              assertThat(uuid.toString()).startsWith("017f22e2-79b0-7");
              assertThat(uuid.variant()).isEqualTo(2);
              UUID later = NewRow.timed(millis + 1, new Random(seed + 7));
              assertThat(later.toString()).isGreaterThan(uuid.toString());
            });
  }
}
