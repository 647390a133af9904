package joiner.audit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.edit.EditRefusedException;
import joiner.entry.Settling;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.KnownFact;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;

/** What is called an anomaly is one on the rows, and what was planted is found. */
class AnomaliesTest {
  private static final TableId LOAD = new TableId("load");

  /** Loads that say the kiln's fuel and maker again each time; shelf and weight are by chance. */
  private static Draft loads(Random random, int rows) {
    List<String> names = List.of("load_no", "kiln", "shelf", "fuel", "maker", "weight");
    Table load =
        Table.of("load", "Load", Noun.ofLabel("Load"))
            .withFields(names.stream().map(n -> Field.of(n, n, new FieldType.Text(40))).toList())
            .withPrimaryKey(List.of(new FieldId("load_no")));
    var kilns = new HashMap<String, List<String>>();
    var all = new ArrayList<List<Optional<String>>>();
    for (int i = 0; i < rows; i++) {
      String kiln = "Kiln " + (char) ('A' + random.nextInt(6));
      List<String> of =
          kilns.computeIfAbsent(
              kiln,
              k ->
                  List.of(
                      List.of("gas", "wood", "electric").get(random.nextInt(3)),
                      List.of("Osier", "Holm", "Rook", "Birch").get(random.nextInt(4))));
      all.add(
          java.util.stream.Stream.of(
                  "" + i,
                  kiln,
                  "" + random.nextInt(9),
                  of.getFirst(),
                  of.getLast(),
                  "" + random.nextInt(100))
              .map(Optional::of)
              .toList());
    }
    Design design = Design.of("p", "Pottery", "", List.of(), List.of(load), List.of(), Extras.NONE);
    return new Draft(design, new SampleRows(Map.of(LOAD, Rows.of(load.fieldIds(), all))));
  }

  @Test
  void whatEveryRowSaysAgainIsFound() {
    int found = 0;
    long[] seeds = Tries.of(60).toArray();
    for (long seed : seeds) {
      Draft draft = loads(new Random(seed), 40);
      List<Anomaly> anomalies = Anomalies.of(draft, () -> false);
      anomalies.forEach(anomaly -> check(draft, anomaly));
      boolean planted =
          anomalies.stream()
              .anyMatch(
                  a ->
                      a.determinant().equals(List.of(new FieldId("kiln")))
                          && (a.dependents().contains(new FieldId("fuel"))
                              || a.dependents().contains(new FieldId("maker"))));
      found += planted ? 1 : 0;
    }
    assertThat(found).isGreaterThan(seeds.length * 8 / 10);
  }

  @Test
  void ofGeneratedDesignsOnlyWhatTheRowsShowIsSaid() {
    for (long seed : Tries.of(20).toArray()) {
      Draft draft = RandomLinks.draft(seed, 12);
      Anomalies.of(draft, () -> false).forEach(anomaly -> check(draft, anomaly));
    }
    for (Draft demo : List.of(Pottery.demo(), Pottery.broken())) {
      Anomalies.of(demo, () -> false).forEach(anomaly -> check(demo, anomaly));
    }
  }

  private static void check(Draft draft, Anomaly anomaly) {
    Table table = draft.design().table(anomaly.table());
    Rows rows = draft.rows().of(table.id());
    assertThat(table.isUnique(anomaly.determinant())).as("%s", anomaly).isFalse();
    List<Integer> twice = anomaly.update();
    assertThat(twice).hasSizeGreaterThan(1);
    List<Optional<String>> key = rows.row(twice.getFirst(), anomaly.determinant());
    assertThat(with(rows, anomaly, key)).as("%s", anomaly).isEqualTo(twice);
    anomaly
        .delete()
        .ifPresent(
            row ->
                assertThat(with(rows, anomaly, rows.row(row, anomaly.determinant())))
                    .containsExactly(row));
    for (int row = 0; row < rows.count(); row++) {
      int one = row;
      assertThat(with(rows, anomaly, rows.row(row, anomaly.determinant())))
          .allSatisfy(
              other ->
                  assertThat(rows.row(other, anomaly.dependents()))
                      .isEqualTo(rows.row(one, anomaly.dependents())));
    }
    Draft split = anomaly.split(draft).apply(draft);
    assertThat(anomaly.dependents()).noneMatch(split.design().table(table.id())::hasField);
  }

  private static List<Integer> with(
      Rows rows, Anomaly anomaly, List<Optional<String>> determinant) {
    return IntStream.range(0, rows.count())
        .filter(row -> rows.row(row, anomaly.determinant()).equals(determinant))
        .boxed()
        .toList();
  }

  private static final FieldId KILN = new FieldId("kiln");
  private static final FieldId FUEL = new FieldId("fuel");

  private static Draft knowing(Draft draft, KnownFact... facts) {
    Design design = draft.design();
    for (KnownFact fact : facts) {
      design = design.withTable(LOAD, t -> t.withFact(fact));
    }
    return draft.withDesign(design);
  }

  /** Loads of which some say something else of their kiln than the others. */
  private static Draft spoilt(Random random, int rows, int wrong) {
    Draft draft = loads(random, rows);
    Rows all = draft.rows().of(LOAD);
    for (int i = 0; i < wrong; i++) {
      Optional<String> other =
          Optional.of("other " + random.nextInt(2)).filter(o -> random.nextInt(4) > 0);
      all = all.withCell(random.nextInt(rows), FUEL, other);
    }
    Rows changed = all;
    return draft.with(draft.design(), draft.rows().with(LOAD, before -> changed));
  }

  @Test
  void whatIsKnownIsToldWithTheRowsThatContradictIt() {
    var known = new KnownFact(List.of(KILN), List.of(FUEL), true);
    int contradicted = 0;
    for (long seed : Tries.of(200).toArray()) {
      var random = new Random(seed);
      Draft draft = knowing(spoilt(random, random.nextInt(1, 30), random.nextInt(6)), known);
      Rows rows = draft.rows().of(LOAD);
      Anomaly told = told(draft);
      assertThat(told.fact()).isEqualTo(known);
      Set<Integer> disagreeing =
          IntStream.range(0, rows.count())
              .filter(
                  row ->
                      IntStream.range(0, rows.count())
                          .anyMatch(
                              other ->
                                  rows.cell(row, KILN).equals(rows.cell(other, KILN))
                                      && !rows.cell(row, FUEL).equals(rows.cell(other, FUEL))))
              .boxed()
              .collect(Collectors.toSet());
      assertThat(told.disagreements().stream().flatMap(d -> d.rows().stream()))
          .as("seed %d", seed)
          .containsExactlyInAnyOrderElementsOf(disagreeing);
      if (!disagreeing.isEmpty()) {
        contradicted++;
        assertThat(told.rows()).containsExactlyElementsOf(new TreeSet<>(disagreeing));
        assertThatThrownBy(() -> told.split(draft).apply(draft))
            .isInstanceOf(EditRefusedException.class);
      }
    }
    assertThat(contradicted).isGreaterThan(Tries.least(50));
  }

  private static Anomaly told(Draft draft) {
    List<Anomaly> known =
        Anomalies.of(draft, () -> false).stream().filter(Anomaly::isKnown).toList();
    assertThat(known).hasSize(1);
    return known.getFirst();
  }

  @Test
  void rowsThatAreSettledSayTheSameAndTheTableCanBeSplit() {
    var known = new KnownFact(List.of(KILN), List.of(FUEL), true);
    for (long seed : Tries.of(200).toArray()) {
      var random = new Random(seed);
      Draft draft = knowing(spoilt(random, random.nextInt(2, 30), random.nextInt(1, 6)), known);
      Anomaly told = told(draft);
      Rows before = draft.rows().of(LOAD);
      Optional<Settling.Settled> most = Settling.byMost(draft, told);
      assertThat(most.isPresent())
          .isEqualTo(told.disagreements().stream().anyMatch(d -> d.most().isPresent()));
      Draft now = most.map(settled -> settled.edit().apply(draft)).orElse(draft);
      Rows after = now.rows().of(LOAD);
      long changed =
          IntStream.range(0, before.count())
              .filter(row -> !before.cell(row, FUEL).equals(after.cell(row, FUEL)))
              .count();
      assertThat(most.map(Settling.Settled::rows).orElse(0)).isEqualTo((int) changed);
      for (Anomaly.Disagreement of : told.disagreements()) {
        Map<Optional<String>, Long> counts =
            of.rows().stream()
                .collect(
                    Collectors.groupingBy(row -> before.cell(row, FUEL), Collectors.counting()));
        long best = counts.values().stream().mapToLong(n -> n).max().orElseThrow();
        boolean clear = counts.values().stream().filter(n -> n == best).count() == 1;
        long different = of.rows().stream().map(row -> after.cell(row, FUEL)).distinct().count();
        assertThat(different).as("seed %d", seed).isEqualTo(clear ? 1 : counts.size());
      }
      while (!told(now).disagreements().isEmpty()) {
        Anomaly left = told(now);
        Anomaly.Disagreement of = left.disagreements().getFirst();
        Settling.Settled settled = Settling.with(now, left, of, of.said().getLast());
        assertThat(settled.rows()).isEqualTo(of.others(of.said().getLast()));
        now = settled.edit().apply(now);
        assertThat(told(now).disagreements()).hasSize(left.disagreements().size() - 1);
      }
      assertThat(told(now).split(now).apply(now).design().table(LOAD).hasField(FUEL)).isFalse();
    }
  }

  @Test
  void whatSomebodyKnowsNotToBeSoIsNotSaid() {
    for (long seed : Tries.of(30).toArray()) {
      Draft draft = loads(new Random(seed), 40);
      for (Anomaly shown : Anomalies.of(draft, () -> false)) {
        Draft denied =
            knowing(draft, new KnownFact(shown.determinant(), shown.dependents(), false));
        assertThat(Anomalies.of(denied, () -> false))
            .noneMatch(other -> other.determinant().equals(shown.determinant()));
        Draft known = knowing(draft, shown.fact());
        assertThat(Anomalies.of(known, () -> false))
            .filteredOn(other -> other.determinant().equals(shown.determinant()))
            .as("said once, as known")
            .singleElement()
            .satisfies(
                other -> {
                  assertThat(other.isKnown()).isTrue();
                  assertThat(other.update()).isEqualTo(shown.update());
                  assertThat(other.delete()).isEqualTo(shown.delete());
                });
      }
    }
  }

  @Test
  void aSearchThatIsStoppedEnds() {
    assertThat(Anomalies.of(Pottery.demo(), () -> true)).isEmpty();
  }
}
