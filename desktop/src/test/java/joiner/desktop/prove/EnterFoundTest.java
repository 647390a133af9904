package joiner.desktop.prove;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.prove.EnterFound.Deed;
import joiner.desktop.prove.EnterFound.Row;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.edit.ChangeTable;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Listing;
import joiner.model.Listing.By;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The list of rows: by words, values and conditions, with what the design keeps of it. */
class EnterFoundTest {
  private static final FieldId STARTED = new FieldId("started_at");
  private static final FieldId KILN = new FieldId("kiln_id");

  @TempDir private Path folder;
  private TestBench test;
  private EnterModel model;
  private EnterFound found;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder);
    model = new EnterModel(test.bench, Texts.beside(ProveView.class));
    found = model.found();
    model.look(true);
    choose("firing");
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private void choose(String table) {
    test.choose(table);
    model.refresh();
    listed();
  }

  private List<Row> listed() {
    test.window.until(() -> found.isCurrent() && !found.rows().isEmpty());
    return found.rows();
  }

  private Field field(String name) {
    return model.table().orElseThrow().fieldNamed(name).orElseThrow();
  }

  @Test
  void rowsStandInTheOrderTheDesignKeepsWithItsColumns() {
    List<String> begun = listed().stream().map(row -> found.text(row, STARTED)).toList();
    assertThat(begun).isSortedAccordingTo(Comparator.reverseOrder()).hasSize(48);
    assertThat(begun.getFirst()).matches("\\d{4}-\\d\\d-\\d\\d \\d\\d:\\d\\d");
    assertThat(listed()).extracting(row -> found.text(row, KILN)).contains("Big Tom");
  }

  @Test
  void anotherOrderStaysHereUntilItIsKept() {
    found.make(new Deed.Sort(field("peak_c"), false));
    found.make(new Deed.Sort(field("kiln_id"), false));
    List<Row> rows = listed();
    assertThat(rows.stream().map(row -> found.text(row, KILN)).toList())
        .as("references by what people read")
        .isSorted();
    assertThat(found.listing().order()).containsExactly(new By(STARTED, true));
    assertThat(found.deeds()).contains(new Deed.KeepOrder());
    found.make(new Deed.KeepOrder());
    assertThat(found.listing().order())
        .containsExactly(
            new By(KILN, false), new By(field("peak_c").id(), false), new By(STARTED, true));
    assertThat(found.deeds()).doesNotContain(new Deed.KeepOrder());
    test.bench.undo();
    model.refresh();
    assertThat(found.listing().order()).containsExactly(new By(STARTED, true));
    found.make(new Deed.Unsort());
    assertThat(listed()).extracting(Row::place).isSorted();
  }

  @Test
  void theFirstRowFoundIsEnoughIfSomebodyWants() {
    found.words("slow cooling");
    List<Row> all = listed();
    assertThat(all).hasSizeGreaterThan(1);
    assertThat(found.deeds()).contains(new Deed.First(true));
    found.make(new Deed.First(true));
    assertThat(found.isFirstOnly()).isTrue();
    assertThat(found.rows()).containsExactly(all.getFirst());
    assertThat(found.deeds()).contains(new Deed.First(false));
    found.make(new Deed.First(false));
    assertThat(found.rows()).isEqualTo(all);
  }

  @Test
  void oneGoesFromRowToRowAmongThoseFound() {
    found.words("slow cooling");
    List<Row> all = listed();
    assertThat(found.place(all.get(1).id())).isEqualTo(1);
    assertThat(found.beside(all.get(1).id(), 1)).hasValue(all.get(2));
    assertThat(found.beside(all.get(1).id(), -1)).hasValue(all.getFirst());
    assertThat(found.beside(all.getFirst().id(), -1)).isEmpty();
    assertThat(found.beside(all.getLast().id(), 1)).isEmpty();
    found.words("");
    Row other = found.rows().stream().filter(row -> !all.contains(row)).findFirst().orElseThrow();
    found.words("slow cooling");
    assertThat(found.beside(other.id(), 1)).as("it is none of them").isEmpty();
  }

  @Test
  void whatRowsAreRecognisedByIsWhatTheirLabelReads() {
    choose("member");
    assertThat(found.recognisedBy())
        .extracting(FieldId::value)
        .containsExactly("given_name", "family_name", "card_no");
    found.order(found.recognisedBy().stream().map(f -> new By(f, false)).toList());
    test.window.until(found::isCurrent);
    assertThat(found.rows()).extracting(Row::label).isSorted();
  }

  @Test
  void whatFieldsHoldIsOfferedWithHowManyRows() {
    assertThat(found.held(KILN))
        .hasSize(4)
        .isSortedAccordingTo(Comparator.comparing(EnterFound.Held::rows).reversed());
    EnterFound.Held most = found.held(KILN).getFirst();
    found.choose(KILN, Optional.of(most.text()));
    assertThat(found.rows()).hasSize(most.rows());
    assertThat(found.rows()).extracting(row -> found.text(row, KILN)).containsOnly(most.label());
    found.words("slow COOLING");
    assertThat(found.rows()).isNotEmpty().hasSizeLessThan(most.rows());
    choose("kiln");
    assertThat(found.rows()).as("each table by itself").hasSize(4);
    choose("firing");
    assertThat(found.chosen(KILN)).hasValue(most.text());
    found.all();
    assertThat(listed()).hasSize(48);
  }

  @Test
  void aConditionIsMetOrSaidToBeWrong() {
    found.condition("peak_c > 1200 AND kiln_id.name = 'Big Tom'");
    test.window.until(() -> found.isCurrent() && found.rows().size() < 48);
    assertThat(found.rows())
        .isNotEmpty()
        .allSatisfy(row -> assertThat(found.text(row, KILN)).isEqualTo("Big Tom"));
    found.condition("peak > 1200");
    test.window.until(() -> found.listed().orElseThrow().fault().isPresent());
    assertThat(found.listed().orElseThrow().fault().orElseThrow()).contains("peak_c");
    assertThat(found.rows()).as("nothing is hidden by what is not understood").hasSize(48);
  }

  @Test
  void enterMeansTheRowWithThatKeyAndElseTheFirst() {
    found.words("4");
    assertThat(found.meant("4").map(Row::label)).hasValue("Firing 4 · cone 8");
    assertThat(found.rows().getFirst().label()).isNotEqualTo("Firing 4 · cone 8");
    found.words("cone 06");
    assertThat(found.meant("cone 06")).hasValue(found.rows().getFirst());
    found.words("nothing like this");
    assertThat(found.meant("nothing like this")).isEmpty();
  }

  @Test
  void whatIsWorkedOutCanBeAColumnAndSortedBy() {
    Field pieces = field("piece_count");
    found.make(new Deed.Column(pieces, true));
    found.make(new Deed.Sort(pieces, true));
    List<Integer> counts =
        listed().stream().map(row -> Integer.parseInt(found.text(row, pieces.id()))).toList();
    assertThat(counts).isSortedAccordingTo(Comparator.reverseOrder());
    assertThat(counts.getFirst()).isPositive();
  }

  @Test
  void aFieldThatGoesFallsOutOfTheList() {
    test.bench.apply(
        ChangeTable.list(
            model.table().orElseThrow(),
            "list",
            new Listing(List.of(STARTED, new FieldId("remark")), List.of(), List.of())));
    test.bench.apply(
        new joiner.edit.RemoveField(
            model.table().orElseThrow().id(), new FieldId("remark"), "remark"));
    assertThat(found.listing().columns()).containsExactly(STARTED);
    test.bench.undo();
    assertThat(found.listing().columns()).containsExactly(STARTED, new FieldId("remark"));
  }
}
