package joiner.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.audit.Anomalies.Anomaly;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
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

  @Test
  void aSearchThatIsStoppedEnds() {
    assertThat(Anomalies.of(Pottery.demo(), () -> true)).isEmpty();
  }
}
