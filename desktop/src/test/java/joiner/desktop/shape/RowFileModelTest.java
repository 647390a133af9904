package joiner.desktop.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import joiner.Pottery;
import joiner.audit.Violation;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.edit.SetUnique;
import joiner.model.FieldId;
import joiner.model.Table;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Rows that stay in a file, without a window: linked, shown in part, taken in, let go. */
class RowFileModelTest {
  private static final FieldId NAME = new FieldId("name");

  @TempDir private Path folder;
  private TestBench test;
  private RowFileModel files;
  private SampleModel rows;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder.resolve("kept"));
    Texts texts = Texts.beside(ShapeView.class);
    files = new RowFileModel(test.bench, texts);
    rows = new SampleModel(test.bench, texts);
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private Table kiln() {
    return test.table("kiln");
  }

  private Path kilns(int count, String more) throws Exception {
    var text = new StringBuilder("Kiln ID,Name,Colour\n");
    for (int i = 1; i <= count; i++) {
      text.append(i).append(",Kiln ").append(i).append(",red\n");
    }
    return Files.writeString(folder.resolve("kilns.csv"), text + more);
  }

  private void link(Path file) {
    files.link(kiln(), file);
    test.window.until(() -> files.link(kiln().id()).isPresent());
    test.untilChecked();
  }

  private long repeated() {
    return test.bench
        .verdict()
        .audit()
        .violations()
        .filter(violation -> violation.kind() == Violation.Kind.DUPLICATE_KEY)
        .mapToLong(Violation::count)
        .sum();
  }

  /** Until what is shown was read. */
  private void show() {
    rows.turnTo(kiln());
    test.window.until(
        () -> {
          rows.turnTo(kiln());
          return rows.count() > 0;
        });
  }

  @Test
  void columnsAreFoundByNameAndWhatHasNoneIsTold() throws Exception {
    link(kilns(5, ""));
    assertThat(test.bench.notices().all())
        .anySatisfy(n -> assertThat(n.text()).contains("not read: Colour"))
        .anySatisfy(n -> assertThat(n.text()).contains("5 rows of Kiln stay in kilns.csv"))
        .anySatisfy(n -> assertThat(n.text()).contains("they have no values"));
    show();
    assertThat(rows.count()).isEqualTo(5);
    assertThat(rows.cell(4, NAME)).isEqualTo("Kiln 5");
  }

  @Test
  void aFileThatHasNothingOfTheTableIsRefused() throws Exception {
    Path file = Files.writeString(folder.resolve("other.csv"), "a,b\n1,2\n");
    files.link(kiln(), file);
    test.window.until(() -> test.newest().contains("No column of other.csv"));
    assertThat(test.newest()).contains("Its columns are a, b.");
    assertThat(files.link(kiln().id())).isEmpty();
  }

  @Test
  void theFirstRowsAreShownAndThoseThatBreakTheDesign() throws Exception {
    link(kilns(3_000, "3001,Kiln 7,red\n"));
    test.bench.apply(SetUnique.of(kiln(), List.of(NAME), true));
    test.untilChecked();
    assertThat(rows.turnTo(kiln())).isNotNull();
    test.window.until(
        () -> {
          rows.turnTo(kiln());
          return rows.count() == 1_001;
        });
    assertThat(rows.number(0)).isEqualTo(1);
    assertThat(rows.number(1_000)).isEqualTo(3_001);
    assertThat(rows.isBad(1_000, NAME)).isTrue();
    assertThat(rows.isBad(6, NAME)).as("the first of its kind is right").isFalse();
    assertThat(repeated()).isEqualTo(1);
    assertThat(rows.countInFile()).isEqualTo(3_001);
    // Another one is read when it is to be shown.
    assertThat(rows.placeOf(1_999)).isEmpty();
    test.window.until(
        () -> {
          rows.turnTo(kiln());
          return rows.placeOf(1_999).isPresent();
        });
    assertThat(rows.cell(rows.placeOf(1_999).getAsInt(), NAME)).isEqualTo("Kiln 2000");
    assertThat(rows.placeOf(3_000)).isEqualTo(OptionalInt.of(1_001));
  }

  @Test
  void rowsInAFileAreTakenInAndGivenBack() throws Exception {
    link(kilns(5, ""));
    show();
    rows.edits().remove(Set.of(0));
    assertThat(test.newest()).contains("stay in kilns.csv, which Joiner does not change");
    rows.edits().type(0, kiln().field(NAME), "Other");
    assertThat(test.bench.draft().rows().of(kiln().id()).count()).isZero();
    files.hold(kiln());
    test.window.until(() -> files.link(kiln().id()).isEmpty());
    rows.turnTo(kiln());
    rows.edits().type(0, kiln().field(NAME), "Other");
    rows.turnTo(kiln());
    assertThat(rows.cell(0, NAME)).isEqualTo("Other");
    assertThat(Files.readString(folder.resolve("kilns.csv"))).doesNotContain("Other");
    test.bench.undo();
    test.bench.undo();
    assertThat(files.link(kiln().id())).isPresent();
    files.unlink(kiln());
    rows.turnTo(kiln());
    assertThat(rows.count()).isZero();
    assertThat(rows.link()).isEmpty();
  }

  /** Somebody changes the file while the design is open. */
  @Test
  void aFileThatChangedIsAuditedAgain() throws Exception {
    Path file = kilns(5, "");
    link(file);
    test.bench.apply(SetUnique.of(kiln(), List.of(NAME), true));
    test.untilChecked();
    assertThat(repeated()).isZero();
    show();
    kilns(5, "6,Kiln 1,red\n7,Kiln 1,red\n");
    test.bench.lookForChanges();
    test.window.until(() -> repeated() == 2);
    assertThat(rows.offending()).as("with all that is not there").isEqualTo(29);
    Files.delete(file);
    test.bench.lookForChanges();
    test.window.until(() -> !test.bench.verdict().audit().unread().isEmpty());
    test.untilChecked();
    assertThat(test.bench.verdict().toFix()).isPositive();
    test.window.until(
        () -> {
          rows.turnTo(kiln());
          return rows.unread().isPresent();
        });
    assertThat(rows.unread().orElseThrow()).contains("there is no such file");
    assertThat(rows.count()).as("what was read before is not shown as if it were there").isZero();
  }
}
