package joiner.desktop.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.Tries;
import joiner.expression.Width;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Listing.By;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

class RowOrderTest {
  private static final Field NAME = Field.of("name", "Name", new FieldType.Text(20));
  private static final Field LITRES =
      Field.of("litres", "Litres", new FieldType.WholeNumber(Width.BITS_32));
  private static final Field FUEL =
      Field.of("fuel", "Fuel", FieldType.Choice.of(List.of("wood", "gas", "electric")));
  private static final Table KILN =
      Table.of("kiln", "Kiln", new Noun("kiln", "kilns")).withFields(List.of(NAME, LITRES, FUEL));

  private static Rows rows(List<List<String>> cells) {
    return Pottery.rows(KILN, cells);
  }

  private static final Rows ROWS =
      rows(
          List.of(
              List.of("Big Bertha", "240", "gas"),
              List.of("little one", "30", "electric"),
              List.of("Anagama", "large", "wood"),
              List.of("", "9", "steam"),
              List.of("Bertha II", "", "gas")));

  private static List<Integer> order(RowOrder order) {
    return order.of(ROWS, KILN.fields(), Map.of(), () -> true);
  }

  private static RowOrder by(Field field, boolean descending) {
    return RowOrder.AS_ENTERED.withSorts(List.of(new By(field.id(), descending)));
  }

  @Test
  void rowsThatHoldAllWordsAreShownInWhateverCase() {
    assertThat(order(RowOrder.AS_ENTERED)).containsExactly(0, 1, 2, 3, 4);
    assertThat(order(RowOrder.AS_ENTERED.withFilter("bertha"))).containsExactly(0, 4);
    assertThat(order(RowOrder.AS_ENTERED.withFilter("  GAS 240 "))).containsExactly(0);
    assertThat(order(RowOrder.AS_ENTERED.withFilter("gas wood"))).isEmpty();
    assertThat(RowOrder.AS_ENTERED.withFilter("  ")).isEqualTo(RowOrder.AS_ENTERED);
  }

  @Test
  void valuesComeByWhatTheyAreThenWhatIsNoneThenNothing() {
    assertThat(order(by(LITRES, false))).as("9 before 30").containsExactly(3, 1, 0, 2, 4);
    assertThat(order(by(LITRES, true))).containsExactly(0, 1, 3, 2, 4);
    assertThat(order(by(NAME, false))).containsExactly(2, 4, 0, 1, 3);
    assertThat(order(by(FUEL, false))).as("as listed").containsExactly(2, 0, 4, 1, 3);
  }

  @Test
  void whatIsAlikeStandsByTheNextHeadingAndThenAsItWasEntered() {
    RowOrder two =
        RowOrder.AS_ENTERED.withSorts(List.of(new By(FUEL.id(), false), new By(NAME.id(), false)));
    assertThat(order(two)).containsExactly(2, 4, 0, 1, 3);
    assertThat(order(two.withFilter("gas"))).containsExactly(4, 0);
    assertThat(order(two.withSorts(List.of(new By(new FieldId("gone"), true)))))
        .containsExactly(0, 1, 2, 3, 4);
  }

  @Test
  void itEndsWhereItIsNoLongerWanted() {
    assertThat(by(NAME, false).of(ROWS, KILN.fields(), Map.of(), () -> false)).isEmpty();
  }

  /** A law: the same as a plain filter and a plain stable sort. */
  @Test
  void anyRowsAreOrderedAsAPlainSortWouldDo() {
    Tries.of(200)
        .forEach(
            seed -> {
              var random = new Random(seed);
              var cells = new ArrayList<List<String>>();
              for (int i = random.nextInt(40); i > 0; i--) {
                cells.add(
                    List.of(
                        List.of("", "a", "B", "ab", "Ba").get(random.nextInt(5)),
                        random.nextInt(3) == 0 ? "" : "" + (random.nextInt(30) - 15),
                        "gas"));
              }
              Rows rows = rows(cells);
              boolean descending = random.nextBoolean();
              Function<Integer, Optional<BigDecimal>> litres =
                  row -> rows.cell(row, LITRES.id()).map(BigDecimal::new);
              Comparator<BigDecimal> values =
                  descending ? Collections.reverseOrder() : Comparator.naturalOrder();
              List<Integer> plain =
                  IntStream.range(0, rows.count())
                      .boxed()
                      .filter(
                          row ->
                              cells.get(row).stream()
                                  .anyMatch(c -> c.toLowerCase(Locale.ROOT).contains("a")))
                      .sorted(
                          Comparator.<Integer, Boolean>comparing(row -> litres.apply(row).isEmpty())
                              .thenComparing(
                                  row -> litres.apply(row).orElse(BigDecimal.ZERO), values))
                      .toList();
              RowOrder order =
                  RowOrder.AS_ENTERED
                      .withFilter("A")
                      .withSorts(List.of(new By(LITRES.id(), descending)));
              assertThat(order.of(rows, KILN.fields(), Map.of(), () -> true)).isEqualTo(plain);
            });
  }
}
