package joiner.discovery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import joiner.dependency.AttributeSet;
import joiner.rows.EncodedTable;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DependencySearchTest {
  private static final DependencySearch FULL = DependencySearch.full();

  private static EncodedTable table(String... rows) {
    List<String> headers = new ArrayList<>();
    for (int i = 0; i < rows[0].split(",", -1).length; i++) {
      headers.add(String.valueOf((char) ('A' + i)));
    }
    return EncodedTable.of(
        "t", headers, java.util.Arrays.stream(rows).map(r -> List.of(r.split(",", -1))).toList());
  }

  /** Random rows over few values, so that dependencies come and go by accident. */
  private static EncodedTable random(long seed, int columns, int rows, int values) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    var headers = new ArrayList<String>();
    for (int column = 0; column < columns; column++) {
      headers.add("c" + column);
    }
    var cells = new ArrayList<List<String>>();
    for (int row = 0; row < rows; row++) {
      var record = new ArrayList<String>();
      for (int column = 0; column < columns; column++) {
        int value = random.nextInt(values + column);
        record.add(value == 0 ? "" : "v" + value);
      }
      cells.add(record);
    }
    return EncodedTable.of("random", headers, cells);
  }

  @Property(tries = 1500)
  void everyMinimalDependencyAndKeyIsFoundAndNothingElse(
      @ForAll long seed,
      @ForAll @IntRange(min = 1, max = 6) int columns,
      @ForAll @IntRange(min = 0, max = 24) int rows,
      @ForAll @IntRange(min = 1, max = 4) int values,
      @ForAll boolean emptyEqual) {
    EncodedTable table = random(seed, columns, rows, values);
    FoundDependencies found =
        new DependencySearch(emptyEqual, Integer.MAX_VALUE, () -> false).exact(table);
    assertThat(found).isEqualTo(BruteForce.search(table, emptyEqual, 0));
  }

  @Property(tries = 700)
  void everyMinimalDependencyWithExceptionsIsFoundAndNothingElse(
      @ForAll long seed,
      @ForAll @IntRange(min = 1, max = 5) int columns,
      @ForAll @IntRange(min = 0, max = 24) int rows,
      @ForAll @IntRange(min = 1, max = 4) int values,
      @ForAll @DoubleRange(min = 0, max = 0.4) double error,
      @ForAll boolean emptyEqual) {
    EncodedTable table = random(seed, columns, rows, values);
    FoundDependencies found =
        new DependencySearch(emptyEqual, Integer.MAX_VALUE, () -> false).approximate(table, error);
    assertThat(found).isEqualTo(BruteForce.search(table, emptyEqual, error));
  }

  @Property(tries = 200)
  void theTwoSearchesAgreeWhereNothingMayDiffer(
      @ForAll long seed, @ForAll @IntRange(min = 10, max = 200) int rows) {
    EncodedTable table = random(seed, 9, rows, 2);
    assertThat(FULL.exact(table)).isEqualTo(FULL.approximate(table, 0));
  }

  /**
   * Counts of minimal dependencies published for these datasets (Thorsten Papenbrock and others,
   * "Functional dependency discovery: an experimental evaluation of seven algorithms", 2015; from
   * memory) and the brute force beside it.
   */
  @Tag("long")
  @ParameterizedTest
  @CsvSource({"iris.csv, 4", "breast-cancer.csv, 46"})
  void countsOfOpenDatasetsAreThePublishedOnes(String name, int dependencies) {
    EncodedTable table = OpenData.read(name);
    FoundDependencies found = FULL.exact(table);
    assertThat(found.dependencies()).hasSize(dependencies);
    assertThat(found).isEqualTo(BruteForce.search(table, true, 0));
  }

  /** Every cell of this table is the balance of a scale, so one dependency holds by its making. */
  @Test
  void aScaleIsDecidedByItsFourWeightsAndDistances() {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 625; i++) {
      int a = i / 125 + 1;
      int b = i / 25 % 5 + 1;
      int c = i / 5 % 5 + 1;
      int d = i % 5 + 1;
      rows.add(List.of("" + Integer.signum(a * b - c * d), "" + a, "" + b, "" + c, "" + d));
    }
    FoundDependencies found =
        FULL.exact(EncodedTable.of("scale", List.of("tip", "a", "b", "c", "d"), rows));
    assertThat(found.dependencies())
        .containsExactly(new FoundDependency(AttributeSet.of(1, 2, 3, 4), 0, 0));
    assertThat(found.keys()).containsExactly(AttributeSet.of(1, 2, 3, 4));
  }

  @Test
  void aConstantColumnIsDecidedByNothing() {
    FoundDependencies found = FULL.exact(table("1,x", "2,x"));
    assertThat(found.dependencies()).containsExactly(new FoundDependency(AttributeSet.EMPTY, 1, 0));
    assertThat(found.keys()).containsExactly(AttributeSet.of(0));
  }

  @Test
  void emptyCellsAreEqualUnlessToldOtherwise() {
    EncodedTable table = table(",x", ",x", "1,y");
    assertThat(FULL.exact(table).dependencies())
        .contains(new FoundDependency(AttributeSet.of(0), 1, 0));
    FoundDependencies apart =
        new DependencySearch(false, Integer.MAX_VALUE, () -> false).exact(table);
    assertThat(apart.keys()).contains(AttributeSet.of(0));
  }

  @Test
  void aRowThatIsThereTwiceLeavesNoKey() {
    assertThat(FULL.exact(table("1,x", "1,x")).keys()).isEmpty();
  }

  @Test
  void aLimitGivesTrueDependenciesAndSaysThatMoreMayBeThere() {
    EncodedTable table = OpenData.read("breast-cancer.csv");
    FoundDependencies all = FULL.exact(table);
    FoundDependencies small = new DependencySearch(true, 2, () -> false).exact(table);
    assertThat(small.complete()).isFalse();
    assertThat(small.dependencies())
        .isEqualTo(all.dependencies().stream().filter(d -> d.determinant().size() <= 2).toList());
    var asked = new AtomicInteger();
    FoundDependencies stopped =
        new DependencySearch(true, 99, () -> asked.incrementAndGet() > 100).exact(table);
    assertThat(stopped.complete()).isFalse();
    assertThat(all.dependencies()).containsAll(stopped.dependencies());
  }

  @Test
  void contradictingRowsAreNamedWithTheRarerValueLast() {
    EncodedTable table = table("Odo,odo@x", "Odo,od@x", "Mara,m@x", "Odo,odo@x");
    List<Contradiction> found = Contradiction.of(table, AttributeSet.of(0), 1);
    assertThat(found)
        .containsExactly(
            new Contradiction(
                List.of("Odo"),
                List.of(
                    new Contradiction.Value("odo@x", List.of(0, 3)),
                    new Contradiction.Value("od@x", List.of(1)))));
    assertThat(found.getFirst().minority()).containsExactly(1);
    assertThat(FULL.approximate(table, 0.25).dependencies())
        .contains(new FoundDependency(AttributeSet.of(0), 1, 1));
  }

  @Test
  void anErrorThatIsNoShareIsRefused() {
    assertThatThrownBy(() -> FULL.approximate(table("1"), 1.5)).hasMessageContaining("1.5");
  }

  @Test
  void twoHundredColumnsThatFollowFromOneAreFound() {
    var headers = new ArrayList<String>();
    var rows = new ArrayList<List<String>>();
    for (int column = 0; column < 200; column++) {
      headers.add("c" + column);
    }
    for (int row = 0; row < 50; row++) {
      var cells = new ArrayList<String>();
      for (int column = 0; column < 200; column++) {
        cells.add("v" + row % 7);
      }
      rows.add(cells);
    }
    assertThat(FULL.exact(EncodedTable.of("wide", headers, rows)).dependencies())
        .hasSize(200 * 199);
  }
}
