package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.FiledRowsOf;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.change.Change;
import joiner.change.Changes;
import joiner.edit.ChangeRows;
import joiner.edit.History;
import joiner.edit.LinkTable;
import joiner.edit.MoveToArea;
import joiner.edit.RemoveField;
import joiner.edit.RemoveTable;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.Stretch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class HistoryLogTest {
  private static final Draft DEMO = Pottery.demo();
  private static final Table KILN = DEMO.design().table(new TableId("kiln"));

  @TempDir private Path folder;
  private String before = "";

  @BeforeEach
  void keepFilesHere() {
    before = System.getProperty("joiner.files", "");
    System.setProperty("joiner.files", folder.resolve("files").toString());
  }

  @AfterEach
  void keepFilesThere() {
    System.setProperty("joiner.files", before);
  }

  private HistoryLog log() {
    return HistoryLog.of(folder.resolve("studio"));
  }

  private Path file() throws IOException {
    try (Stream<Path> files = Files.list(folder.resolve("files/history"))) {
      return files.findFirst().orElseThrow();
    }
  }

  private History read(History of, String mark) throws IOException {
    return log().read(of.present(), mark);
  }

  private static void assertSame(History one, History other) {
    assertThat(one.steps()).isEqualTo(other.steps());
    assertThat(one.done()).isEqualTo(other.done());
    assertThat(one.present()).isEqualTo(other.present());
  }

  /** Rows that stay in a file are let go, taken in and called otherwise like everything else. */
  @Test
  void linksOfRowsComeBackToo() throws IOException {
    Path rows = Files.createDirectories(folder.resolve("rows"));
    LinkedRows link =
        FiledRowsOf.link(KILN, DEMO.rows().of(KILN.id()), rows)
            .replaced(new FieldId("fuel"), "raku", "quick")
            .numberedIn(new FieldId("kiln_id"));
    History history =
        History.startingWith(DEMO)
            .after(new LinkTable(KILN.id(), "Kiln", Optional.of(link)))
            .after(new RemoveField(KILN.id(), new FieldId("litres"), "Litres"))
            .after(new LinkTable(KILN.id(), "Kiln", Optional.empty()));
    log().keep(history, "one");
    History known = read(history, "one");
    assertSame(known, history);
    assertThat(known.undone().undone().present().rows().link(KILN.id())).contains(link);
    assertThat(known.undone().undone().undone().present()).isEqualTo(DEMO);
  }

  @Test
  void everyChangeComesBackFromItsJson() {
    Path file = folder.resolve("x");
    Tries.of(100)
        .forEach(
            seed -> {
              Changes changes =
                  Changes.between(RandomDesigns.draft(seed), RandomDesigns.draft(seed + 1));
              for (Change change : changes.list()) {
                String line = JsonText.line(RecordJson.write(change));
                assertThat(line).doesNotContain("\n");
                try {
                  assertThat(RecordJson.read(JsonFile.parse(line, file), Change.class, file))
                      .isEqualTo(change);
                } catch (UnreadableFileException e) {
                  throw new AssertionError(line, e);
                }
              }
            });
  }

  @Test
  void whatWasDoneCanBeTakenBackAfterOpeningAgain() throws IOException {
    HistoryLog log = log();
    History history = History.startingWith(DEMO).after(new RemoveTable(KILN.id(), "Kiln"));
    log.keep(history, "one");
    History again = read(history, "one");
    assertSame(again, history);
    assertThat(again.undone().present()).isEqualTo(DEMO);
    history = history.after(new RemoveTable(new TableId("glaze"), "Glaze"));
    log.keep(history, "two");
    assertSame(read(history, "two"), history);
    history = history.undone();
    log.keep(history, "three");
    assertSame(read(history, "three"), history);
    history = history.undone().after(MoveToArea.of(KILN, "Ovens"));
    log.keep(history, "four");
    assertSame(read(history, "four"), history);
    assertThat(history.steps()).hasSize(1);
  }

  @Test
  void aHistoryOfAnotherStateOfTheFilesIsNotUsed() throws IOException {
    History history = History.startingWith(DEMO).after(new RemoveTable(KILN.id(), "Kiln"));
    log().keep(history, "one");
    assertThat(read(history, "two").undoName()).isEmpty();
    assertThat(HistoryLog.of(folder.resolve("other")).read(history.present(), "one").undoName())
        .isEmpty();
  }

  @Test
  void aLineBrokenOffOrStrangeCountsForNothing() throws IOException {
    History history = History.startingWith(DEMO).after(new RemoveTable(KILN.id(), "Kiln"));
    log().keep(history, "one");
    String whole = Files.readString(file());
    for (String tail :
        List.of("{\"step\": \"x", "[1]", "{\"step\":\"x\",\"changes\":[{\"is\":1}]}")) {
      Files.writeString(file(), whole + tail);
      assertThat(read(history, "one").undoName()).as(tail).isEmpty();
    }
    Files.writeString(file(), whole.replace("TableRemoved", "TableEaten"));
    assertThat(read(history, "one").undoName()).isEmpty();
    Files.writeString(file(), whole);
    assertThat(read(history, "one").undoName()).isPresent();
  }

  @Test
  void aStepIsAppendedAndWhatStoodBeforeStaysAsItWas() throws IOException {
    HistoryLog log = log();
    History history = History.startingWith(DEMO);
    String known = "";
    for (int i = 0; i < 5; i++) {
      history =
          history.after(
              ChangeRows.cell(
                  KILN,
                  DEMO.rows().of(KILN.id()),
                  0,
                  KILN.field(new FieldId("name")),
                  Optional.of("Ann " + i)));
      log.keep(history, "mark " + i);
      String now = Files.readString(file());
      assertThat(now).startsWith(known);
      known = now;
    }
    assertSame(read(history, "mark 4"), history);
  }

  @Test
  void whatFindsNoRoomIsLeftOutFromTheOldestOn() throws IOException {
    String large = "clay".repeat((int) HistoryLog.LONGEST / 16);
    HistoryLog log = log();
    History history = History.startingWith(DEMO);
    FieldId name = new FieldId("name");
    for (int i = 0; i < 6; i++) {
      history =
          history.after(
              ChangeRows.cell(
                  KILN, DEMO.rows().of(KILN.id()), 0, KILN.field(name), Optional.of(i + large)));
      log.keep(history, "mark");
      assertThat(Files.size(file())).isLessThanOrEqualTo(HistoryLog.LONGEST);
    }
    History again = read(history, "mark");
    assertThat(again.done()).isBetween(1, 5);
    assertThat(again.steps()).isEqualTo(history.steps().subList(6 - again.done(), 6));
    for (int i = 0; i < 6; i++) {
      history = history.undone();
    }
    log.keep(history, "back");
    assertThat(read(history, "back").present()).isEqualTo(DEMO);
    assertThat(read(history, "back").undoName()).isEmpty();
  }

  @Test
  void nobodyElseMayReadIt() throws IOException {
    log().keep(History.startingWith(DEMO).after(new RemoveTable(KILN.id(), "")), "one");
    if (Files.getFileStore(file()).supportsFileAttributeView("posix")) {
      assertThat(Files.getPosixFilePermissions(file())).hasSize(2);
    }
    Files.writeString(file(), "", StandardOpenOption.APPEND);
    log().discard();
    assertThat(Files.exists(folder.resolve("files/history"))).isTrue();
    assertThat(read(History.startingWith(DEMO), "one").undoName()).isEmpty();
  }

  @Test
  void aTextWhereRowsShouldBeIsRefusedWithItsPlace() throws IOException {
    var change =
        new Change.RowsAdded(KILN.id(), List.of(new Stretch(0, 1)), Rows.NONE.withRow(Map.of()));
    String line =
        JsonText.line(RecordJson.write(change))
            .replaceFirst("\"count\": 1(?=, \"columns)", "\"count\": \"x\"");
    assertThat(line).contains("\"x\"");
    Path file = folder.resolve("x");
    assertThatThrownBy(() -> RecordJson.read(JsonFile.parse(line, file), Change.class, file))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("Rows");
  }
}
