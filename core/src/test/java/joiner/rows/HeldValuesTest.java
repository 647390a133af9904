package joiner.rows;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

class HeldValuesTest {
  private static final Draft DEMO = Pottery.demo();

  private static HeldValues of(FieldType type, String... cells) {
    Field field = Field.of("held", "Held", type);
    Rows rows =
        Rows.of(
            List.of(field.id()),
            List.of(cells).stream().map(c -> List.of(Optional.of(c))).toList());
    return HeldValues.of(rows, field, () -> true);
  }

  @Test
  void numbersAndDatesHaveARange() {
    assertThat(of(new FieldType.AnyNumber(), "1180", "993", "1.5e1", "1285").range())
        .contains(new HeldValues.Range("1.5e1", "1285"));
    assertThat(of(new FieldType.Date(), "2026-03-01", "", "2025-01-07").range())
        .contains(new HeldValues.Range("2025-01-07", "2026-03-01"));
    assertThat(of(new FieldType.Text(9), "b", "a").range()).isEmpty();
  }

  @Test
  void whatIsNoValueIsCountedAndIsInNoRange() {
    HeldValues seen = of(new FieldType.Date(), "2026-03-01", "tomorrow", "tomorrow");
    assertThat(seen.unfit()).isEqualTo(2);
    assertThat(seen.range()).contains(new HeldValues.Range("2026-03-01", "2026-03-01"));
  }

  @Test
  void theMostFrequentComeFirst() {
    assertThat(of(new FieldType.Text(20), "Ember", "Big Tom", "Ash", "Big Tom", "Bo").frequent())
        .extracting(HeldValues.Frequent::text)
        .containsExactly("Big Tom", "Ash", "Bo");
  }

  @Test
  void lengthsAreCountedInCodePoints() {
    assertThat(of(new FieldType.Text(20), "🏺🏺", "a").longest()).isEqualTo(2);
  }

  @Test
  void whoStopsItGetsWhatWasSeen() {
    Table piece = DEMO.design().table(new TableId("piece"));
    var asked = new AtomicInteger();
    Field mark = piece.field(new FieldId("mark"));
    HeldValues none =
        HeldValues.of(DEMO.rows().of(piece.id()), mark, () -> asked.getAndIncrement() > 0);
    assertThat(none.rows()).isZero();
  }

  /** Law: what is said of a column is what a plain count of its cells gives. */
  @Test
  void itIsWhatAPlainCountGives() {
    Tries.of(200).forEach(HeldValuesTest::countsPlainly);
  }

  private static void countsPlainly(long seed) {
    Draft draft = RandomDesigns.draft(seed);
    for (Table table : draft.design().tables()) {
      Rows rows = draft.rows().of(table.id());
      for (Field field : table.fields()) {
        List<String> cells =
            IntStream.range(0, rows.count())
                .mapToObj(row -> rows.cell(row, field.id()))
                .flatMap(Optional::stream)
                .toList();
        HeldValues held = HeldValues.of(rows, field, () -> true);
        assertThat(held.rows()).isEqualTo(rows.count());
        assertThat(held.blank()).isEqualTo(rows.count() - cells.size());
        assertThat(held.different()).isEqualTo((int) cells.stream().distinct().count());
        assertThat(held.unfit())
            .isEqualTo(
                (int)
                    cells.stream()
                        .filter(c -> ValueReader.read(c, field.type()) instanceof ReadValue.Unfit)
                        .count());
        assertThat(held.frequent())
            .allSatisfy(
                one ->
                    assertThat(one.count())
                        .isEqualTo((int) cells.stream().filter(one.text()::equals).count()));
      }
    }
  }
}
