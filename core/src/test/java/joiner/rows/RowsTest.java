package joiner.rows;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class RowsTest {
  private static final FieldId NAME = new FieldId("name");
  private static final FieldId LITRES = new FieldId("litres");

  private static Rows kilns(String... cells) {
    var builder = new Rows.Builder(List.of(NAME, LITRES));
    for (int i = 0; i < cells.length; i += 2) {
      builder.cell(0, cells[i]);
      builder.cell(1, cells[i + 1]);
      builder.endRow();
    }
    return builder.build();
  }

  @Test
  void rowsAreEqualOnlyIfEveryCellIs() {
    Rows rows = kilns("Ember", "120", "Big Tom", "300");
    assertThat(rows).isEqualTo(kilns("Ember", "120", "Big Tom", "300"));
    assertThat(rows).isNotEqualTo(kilns("Ember", "120", "Big Tom", "301"));
    assertThat(rows).isNotEqualTo(kilns("Ember", "120"));
    assertThat(rows).isNotEqualTo(kilns("120", "Ember", "300", "Big Tom"));
    assertThat(rows.hashCode()).isEqualTo(kilns("Ember", "120", "Big Tom", "300").hashCode());
  }

  @Test
  void aFieldWithoutAColumnIsEmptyInEveryRow() {
    Rows rows = kilns("Ember", "", "Big Tom", "");
    assertThat(rows.withoutColumn(LITRES)).isEqualTo(rows);
    assertThat(rows.withoutColumn(LITRES).cell(1, LITRES)).isEmpty();
    assertThat(rows.withoutColumn(NAME)).isNotEqualTo(rows);
  }

  @Test
  void aChangedCellChangesNothingElseAndNotTheRowsBefore() {
    Rows rows = kilns("Ember", "120", "Big Tom", "300");
    Rows changed = rows.withCell(1, LITRES, Optional.of("310"));
    assertThat(changed).isEqualTo(kilns("Ember", "120", "Big Tom", "310"));
    assertThat(rows).isEqualTo(kilns("Ember", "120", "Big Tom", "300"));
    assertThat(changed.identity(NAME)).isEqualTo(rows.identity(NAME));
    assertThat(changed.identity(LITRES)).isNotEqualTo(rows.identity(LITRES));
    assertThat(rows.withCell(0, LITRES, Optional.of("")))
        .isEqualTo(kilns("Ember", "", "Big Tom", "300"));
  }

  @Test
  void manyCellsChangeAtOnceAndRowsAreFoundByTheirIds() {
    var kiln = new FieldId("kiln");
    Rows rows =
        Rows.of(
            List.of(kiln),
            List.of(
                List.of(Optional.of("a")), List.of(Optional.of("b")), List.of(Optional.of("c"))));
    Rows changed = rows.withCells(kiln, Map.of(0, Optional.of("x"), 2, Optional.empty()));
    assertThat(changed.cell(0, kiln)).contains("x");
    assertThat(changed.cell(1, kiln)).contains("b");
    assertThat(changed.cell(2, kiln)).isEmpty();
    assertThat(rows.withCells(kiln, Map.of())).isSameAs(rows);
    assertThat(changed.places(Set.of(rows.id(1), rows.id(2))))
        .isEqualTo(Map.of(rows.id(1), 1, rows.id(2), 2));
    assertThat(changed.without(Set.of(rows.id(0), rows.id(2))).id(0)).isEqualTo(rows.id(1));
  }

  @Test
  void aRowIsAddedAtTheEndWithItsCells() {
    Rows rows = kilns("Ember", "120").withRow(Map.of(NAME, "Ash"));
    assertThat(rows).isEqualTo(kilns("Ember", "120", "Ash", ""));
    assertThat(Rows.NONE.withRow(Map.of(NAME, "Ash")).count()).isEqualTo(1);
  }

  @Test
  void partsAndWholesFitTogether() {
    Rows rows = kilns("Ember", "120", "Big Tom", "300", "Ash", "80");
    assertThat(rows.slice(1, 3)).isEqualTo(kilns("Big Tom", "300", "Ash", "80"));
    assertThat(rows.slice(0, 3)).isSameAs(rows);
    assertThat(rows.slice(0, 1).followedBy(rows.slice(1, 3), List.of(NAME, LITRES)))
        .isEqualTo(rows);
  }

  @Test
  void halfASurrogatePairIsNoText() {
    assertThat(kilns("a\uD83Db", "1").cell(0, NAME)).contains("a\uFFFDb");
    assertThat(kilns("a😀b", "1").cell(0, NAME)).contains("a😀b");
  }

  @Test
  void rowsOfWrongLengthAreRefused() {
    assertThatThrownBy(() -> Rows.of(List.of(NAME), List.of(List.of())))
        .hasMessageContaining("0 cells for 1 fields");
    assertThatThrownBy(() -> kilns("Ember", "1").withColumn(NAME, List.of()))
        .hasMessageContaining("0 values for 1 rows");
  }

  @Test
  void onlyTablesOfTheDesignWithFieldsHaveRows() {
    Table bare = Table.of("bare", "Bare", new Noun("bare", "bares"));
    Design design = Design.empty("d", "D").withTableAdded(bare);
    var rows = Map.of(new TableId("kiln"), kilns("Ember", "1"));
    assertThatThrownBy(() -> new Draft(design, new SampleRows(rows)))
        .hasMessageContaining("unknown table kiln");
    var bareRows = Map.of(bare.id(), kilns("Ember", "1"));
    assertThatThrownBy(() -> new Draft(design, new SampleRows(bareRows)))
        .hasMessageContaining("no fields");
  }

  @Test
  void rowsAreReadWholeAndColumnsSet() {
    Rows rows = kilns("Ember", "120", "Big Tom", "");
    assertThat(rows.row(1, List.of(LITRES, NAME)))
        .containsExactly(Optional.empty(), Optional.of("Big Tom"));
    assertThat(rows.withColumn(LITRES, List.of(Optional.of("90"), Optional.of("x"))))
        .isEqualTo(kilns("Ember", "90", "Big Tom", "x"));
    assertThat(
            Rows.of(List.of(NAME, LITRES), List.of(List.of(Optional.of("Ash"), Optional.of("5")))))
        .isEqualTo(kilns("Ash", "5"));
    assertThat(kilns("Ember", "1").hashCode()).isNotEqualTo(kilns().hashCode());
    assertThat(rows.identity(NAME)).isEqualTo(rows.identity(NAME));
    assertThat(rows.identity(NAME).hashCode()).isEqualTo(rows.identity(NAME).hashCode());
    assertThat(rows.identity(new FieldId("none"))).isEqualTo(2);
    assertThat(rows.cell(0, new FieldId("none"))).isEmpty();
    assertThat(rows.withRow(Map.of()).cell(2, NAME)).isEmpty();
  }

  @Test
  void aDraftOfNoRowsMayHaveTablesWithoutFields() {
    Table bare = Table.of("bare", "Bare", new Noun("bare", "bares"));
    Design design = Design.empty("d", "D").withTableAdded(bare);
    assertThat(new Draft(design, new SampleRows(Map.of(bare.id(), Rows.NONE))).rows().count())
        .isZero();
    var samples = new SampleRows(Map.of(bare.id(), kilns("a", "1", "b", "2")));
    assertThat(samples.count()).isEqualTo(2);
    assertThat(samples.without(bare.id()).count()).isZero();
  }

  /** Whatever is taken out: put back in its places it gives the same rows with the same ids. */
  @Property(tries = 300)
  void rowsTakenOutAndPutBackAreTheSameOnes(@ForAll List<@IntRange(max = 2) Integer> marks) {
    String[] cells =
        IntStream.range(0, 2 * marks.size()).mapToObj(i -> "c" + i).toArray(String[]::new);
    Rows rows = kilns(cells);
    List<Stretch> places =
        Stretch.of(IntStream.range(0, marks.size()).filter(row -> marks.get(row) == 0));
    Rows out = rows.at(places);
    Rows rest = rows.without(places);
    assertThat(out.count() + rest.count()).isEqualTo(rows.count());
    Rows again = rest.with(places, out);
    assertThat(again).isEqualTo(rows);
    for (int row = 0; row < rows.count(); row++) {
      RowId id = rows.id(row);
      assertThat(again.id(row)).isEqualTo(id);
      assertThat(again.place(id)).hasValue(row);
      boolean gone = marks.get(row) == 0;
      assertThat(rest.place(id).isPresent()).isEqualTo(!gone);
      assertThat(out.place(id).isPresent()).isEqualTo(gone);
    }
  }

  @Test
  void placesAreFewStretches() {
    assertThat(Stretch.of(IntStream.of(0, 1, 2, 5, 7, 8)))
        .containsExactly(new Stretch(0, 3), new Stretch(5, 1), new Stretch(7, 2));
    assertThat(Stretch.of(IntStream.empty())).isEmpty();
    List<Stretch> two = List.of(new Stretch(1, 2), new Stretch(4, 1));
    assertThat(Stretch.count(two)).isEqualTo(3);
    assertThat(Stretch.fit(two, 5)).isTrue();
    assertThat(Stretch.fit(two, 4)).isFalse();
    assertThat(Stretch.fit(List.of(new Stretch(1, 2), new Stretch(2, 1)), 9)).isFalse();
    assertThatThrownBy(() -> new Stretch(0, 0)).hasMessageContaining("0 rows from 0");
    assertThatThrownBy(() -> new Stretch(-1, 1)).hasMessageContaining("1 rows from -1");
  }
}
