package joiner.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import joiner.FiledRowsOf;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.RandomEdits;
import joiner.SpoiltRows;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.audit.KnownAudit;
import joiner.change.Changes;
import joiner.edit.ChangeRows;
import joiner.edit.Counters;
import joiner.edit.EditRefusedException;
import joiner.edit.HoldRows;
import joiner.edit.LinkTable;
import joiner.edit.RemoveField;
import joiner.edit.RenameChoice;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.rows.ValueForm;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Rows that stay in their file are the rows one would have had from it. */
class LinkedFileTest {
  private static final Audit.Watch ON = (table, rows) -> true;

  @TempDir private Path folder;

  private static Draft empty() {
    return new Draft(Design.empty("studio", "Studio"), SampleRows.NONE);
  }

  private static SourceImport linked(Path file) throws IOException {
    return SourceImport.of(
        SourceFile.readHead(file, ReadingOptions.DETECT), empty().design(), ImportOptions.ALL);
  }

  private static SourceImport held(Path file) throws IOException {
    return SourceImport.of(
        ProfiledSource.of(SourceFile.read(file, ReadingOptions.DETECT)),
        empty().design(),
        ImportOptions.ALL);
  }

  private Path firings(String... lines) throws IOException {
    return Files.writeString(folder.resolve("firing.csv"), String.join("\n", lines) + "\n");
  }

  private static LinkedFile file(SourceImport.Imported imported) {
    return LinkedFile.of(imported.table(), imported.link().orElseThrow(), () -> false);
  }

  private static List<List<Optional<String>>> texts(Rows rows, Table table) {
    var all = new ArrayList<List<Optional<String>>>();
    for (int row = 0; row < rows.count(); row++) {
      all.add(rows.row(row, table.fieldIds()));
    }
    return all;
  }

  @Test
  void aLinkReadsWhatAnImportTakes() throws IOException {
    var read = new AtomicInteger();
    for (long seed : Tries.of(400).toArray()) {
      var random = new Random(seed);
      Charset charset =
          random.nextInt(4) == 0 ? Charset.forName("windows-1252") : StandardCharsets.UTF_8;
      Path file = folder.resolve("firing.csv");
      Files.write(file, RandomText.of(random).getBytes(charset));
      SourceImport.Imported rows = held(file).tables().getFirst();
      SourceImport.Imported link = linked(file).tables().getFirst();
      assertThat(link.table()).as("seed %d", seed).isEqualTo(rows.table());
      assertThat(texts(file(link).held(), link.table()))
          .as("seed %d", seed)
          .isEqualTo(texts(rows.rows(), rows.table()));
      assertThat(link.rowCount()).isEqualTo(rows.rowCount());
      read.addAndGet(link.rowCount());
    }
    assertThat(read.get()).isPositive();
  }

  @Test
  void anAuditFindsTheSameWhereverTheRowsAre() throws IOException {
    for (long seed : Tries.of(60).toArray()) {
      var random = new Random(seed);
      Draft draft = SpoiltRows.in(RandomDesigns.draft(seed), random);
      Draft filed = FiledRowsOf.some(draft, folder, random);
      assertThat(LinkedFile.held(filed, table -> true)).isEqualTo(draft);
      AuditReport report =
          Audit.of(filed, LinkedFile.of(filed, () -> false), Pottery.CLOCK, new KnownAudit(), ON);
      assertThat(report).as("seed %d", seed).isEqualTo(Audit.of(draft, Pottery.CLOCK));
    }
  }

  /**
   * What is known of before is taken over where nothing changed, in the design and in the files.
   */
  @Test
  void anAuditAfterAChangeFindsWhatAFreshOneFinds() throws IOException {
    var changed = new AtomicInteger();
    for (long seed : Tries.of(40).toArray()) {
      var random = new Random(seed);
      Draft draft = SpoiltRows.in(RandomDesigns.draft(seed), random);
      Draft filed = FiledRowsOf.some(draft, folder, random);
      var known = new KnownAudit();
      Audit.of(filed, LinkedFile.of(filed, () -> false), Pottery.CLOCK, known, ON);
      for (TableId id : filed.rows().linked().keySet()) {
        Rows rows = draft.rows().of(id);
        if (rows.count() > 0 && random.nextBoolean()) {
          Rows fewer = rows.slice(0, random.nextInt(rows.count()));
          Path file = Path.of(filed.rows().link(id).orElseThrow().file());
          Path other = Path.of(FiledRowsOf.link(draft.design().table(id), fewer, folder).file());
          Files.move(other, file, StandardCopyOption.REPLACE_EXISTING);
          changed.incrementAndGet();
        }
      }
      Draft edited = RandomEdits.of(filed, seed).draft();
      AuditReport after =
          Audit.of(edited, LinkedFile.of(edited, () -> false), Pottery.CLOCK, known, ON);
      AuditReport fresh =
          Audit.of(edited, LinkedFile.of(edited, () -> false), Pottery.CLOCK, new KnownAudit(), ON);
      assertThat(after).as("seed %d", seed).isEqualTo(fresh);
    }
    assertThat(changed.get()).isPositive();
  }

  /** Nothing is read again that cannot have changed. */
  @Test
  void aFileThatIsKnownIsNotReadAgain() throws IOException {
    SourceImport imported = linked(firings("no,cone", "1,6", "2,10", "2,8"));
    Draft draft = imported.edit().apply(empty());
    var known = new KnownAudit();
    var read = new AtomicInteger();
    Audit.Watch counting =
        (table, rows) -> {
          read.incrementAndGet();
          return true;
        };
    AuditReport first =
        Audit.of(draft, LinkedFile.of(draft, () -> false), Pottery.CLOCK, known, counting);
    int once = read.get();
    AuditReport second =
        Audit.of(draft, LinkedFile.of(draft, () -> false), Pottery.CLOCK, known, counting);
    assertThat(second).isEqualTo(first);
    assertThat(second.rows()).isEqualTo(3);
    assertThat(read.get()).isEqualTo(once).isPositive();
    Path file = folder.resolve("firing.csv");
    Files.writeString(file, "no,cone\n1,6\n");
    AuditReport changed =
        Audit.of(draft, LinkedFile.of(draft, () -> false), Pottery.CLOCK, known, counting);
    assertThat(changed.rows()).isEqualTo(1);
  }

  @Test
  void editsUndosAndSavesKeepLinks() throws IOException {
    for (long seed : Tries.of(60).toArray()) {
      var random = new Random(seed);
      Draft draft = FiledRowsOf.some(RandomDesigns.draft(seed), folder, random);
      Draft edited = RandomEdits.of(draft, seed).draft();
      Changes changes = Changes.between(draft, edited);
      assertThat(changes.applyTo(draft)).as("seed %d", seed).isEqualTo(edited);
      assertThat(changes.inverse().applyTo(edited)).as("seed %d", seed).isEqualTo(draft);
      Path saved = Files.createTempDirectory(folder, "design");
      DesignFolder.save(edited, saved);
      assertThat(DesignFolder.open(saved).draft().rows())
          .as("seed %d", seed)
          .isEqualTo(edited.rows());
    }
  }

  @Test
  void everythingALinkSaysIsSaved() throws IOException {
    Path design = folder.resolve("studio");
    SourceImport imported =
        linked(
            firings(
                "Fired on;Kiln;Cone;Kind",
                "14.03.2026;north;6;raku",
                "15.03.2026;north;6;raku",
                "16.03.2026;south;6;bisque"));
    Draft draft = imported.edit().apply(empty());
    Table firing = draft.design().tables().iterator().next();
    Field kind = firing.fields().getLast();
    LinkedRows link = draft.rows().link(firing.id()).orElseThrow();
    assertThat(link.numbered()).isPresent();
    assertThat(link.column(firing.fields().get(1).id()))
        .map(LinkedRows.Column::form)
        .contains(ValueForm.DATE_DAY_FIRST);
    draft =
        draft.withRows(
            draft.rows().withLink(firing.id(), link.replaced(kind.id(), "raku", "quick")));
    DesignFolder.save(draft, design);
    assertThat(DesignFolder.open(design).draft()).isEqualTo(draft);
    assertThat(Files.readString(design.resolve("datapackage.json"))).contains("\"../firing.csv\"");

    // Both are moved together.
    Path elsewhere = Files.createDirectory(folder.resolve("elsewhere"));
    Files.move(design, elsewhere.resolve("studio"));
    Files.move(folder.resolve("firing.csv"), elsewhere.resolve("firing.csv"));
    Draft moved = DesignFolder.open(elsewhere.resolve("studio")).draft();
    Rows rows = LinkedFile.held(moved, table -> true).rows().of(firing.id());
    assertThat(texts(rows, firing).getFirst())
        .isEqualTo(
            List.of("1", "2026-03-14", "north", "6", "quick").stream().map(Optional::of).toList());
  }

  @Test
  void aFileThatIsNotThereIsToldAndNothingElseIsKeptFromBeingLookedAt() throws IOException {
    Draft demo = Pottery.demo();
    Table parent = demo.design().table(demo.design().relationships().iterator().next().parent());
    Draft filed =
        demo.withRows(
            demo.rows()
                .withLink(
                    parent.id(), FiledRowsOf.link(parent, demo.rows().of(parent.id()), folder)));
    Files.delete(Path.of(filed.rows().link(parent.id()).orElseThrow().file()));
    var known = new KnownAudit();
    AuditReport report =
        Audit.of(filed, LinkedFile.of(filed, () -> false), Pottery.CLOCK, known, ON);
    assertThat(report.unread())
        .singleElement()
        .satisfies(
            unread -> {
              assertThat(unread.table()).isEqualTo(parent.id());
              assertThat(unread.message()).contains("there is no such file; put it back");
            });
    Set<TableId> hanging =
        demo.design().childrenOf(parent.id()).stream()
            .map(r -> r.child())
            .collect(Collectors.toSet());
    hanging.add(parent.id());
    Set<TableId> told = report.tables().stream().map(t -> t.table()).collect(Collectors.toSet());
    assertThat(told).doesNotContainAnyElementsOf(hanging).isNotEmpty();
    // Once the file is back, all is known again.
    FiledRowsOf.link(parent, demo.rows().of(parent.id()), folder);
    Files.write(
        Path.of(filed.rows().link(parent.id()).orElseThrow().file()),
        Files.readAllBytes(Files.list(folder).findFirst().orElseThrow()));
    assertThat(Audit.of(filed, LinkedFile.of(filed, () -> false), Pottery.CLOCK, known, ON))
        .isEqualTo(Audit.of(demo, Pottery.CLOCK));
  }

  @Test
  void aColumnThatIsGoneIsTold() throws IOException {
    SourceImport.Imported imported = linked(firings("no,cone", "1,6")).tables().getFirst();
    firings("no,temperature", "1,1222");
    assertThatThrownBy(() -> file(imported).held())
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining(
            "the column “cone”, which cone is read from, is not there any more; the columns are no, temperature.");
    firings("cone,no", "6,1");
    assertThat(texts(file(imported).held(), imported.table()))
        .isEqualTo(List.of(List.of(Optional.of("1"), Optional.of("6"))));
  }

  @Test
  void readingEndsWhenToldTo() throws IOException {
    var lines = new ArrayList<String>(List.of("no,cone"));
    for (int i = 0; i < 5_000; i++) {
      lines.add(i + ",6");
    }
    SourceImport.Imported imported =
        linked(firings(lines.toArray(String[]::new))).tables().getFirst();
    assertThatThrownBy(
            () -> LinkedFile.of(imported.table(), imported.link().orElseThrow(), () -> true).held())
        .isInstanceOf(CancellationException.class);
  }

  @Test
  void rowsInAFileAreNotChangedButTakenIn() throws IOException {
    Draft draft = linked(firings("no,cone", "1,6", "2,10")).edit().apply(empty());
    Table firing = draft.design().tables().iterator().next();
    assertThatThrownBy(() -> ChangeRows.added(firing).apply(draft))
        .isInstanceOf(EditRefusedException.class)
        .hasMessage(
            "The rows of Firing stay in firing.csv, which Joiner does not change; take them into"
                + " the design first.");
    LinkedRows link = draft.rows().link(firing.id()).orElseThrow();
    Rows rows = LinkedFile.of(firing, link, () -> false).held();
    var hold = new HoldRows(firing.id(), firing.label(), link, rows);
    Draft held = hold.apply(draft);
    assertThat(held.rows().of(firing.id()).count()).isEqualTo(2);
    assertThat(held.rows().linked()).isEmpty();
    assertThat(ChangeRows.added(firing).apply(held).rows().count()).isEqualTo(3);
    Draft without = new RemoveField(firing.id(), firing.fields().getLast().id(), "").apply(draft);
    assertThatThrownBy(() -> hold.apply(without)).isInstanceOf(EditRefusedException.class);
    assertThatThrownBy(() -> new LinkTable(firing.id(), "Firing", Optional.of(link)).apply(without))
        .isInstanceOf(EditRefusedException.class);
    assertThat(new LinkTable(firing.id(), "Firing", Optional.of(link)).apply(held))
        .isEqualTo(draft);
    // Numbering them costs no change of the file.
    Draft counted = Counters.identify(firing).apply(draft);
    Table now = counted.design().table(firing.id());
    assertThat(
            LinkedFile.held(counted, table -> true).rows().of(firing.id()).row(1, now.primaryKey()))
        .isEqualTo(List.of(Optional.of("2")));
  }

  /** A renamed choice is the same whether its rows are held or not. */
  @Test
  void renamedChoicesAreReadUnderTheirNewNames() throws IOException {
    var type = FieldType.Choice.of(List.of("raku", "bisque", "glaze"));
    Field kind = Field.of("kind", "Kind", type);
    Table firing =
        Table.of("firing", "Firing", new Noun("firing", "firings")).withFields(List.of(kind));
    for (long seed : Tries.of(60).toArray()) {
      var random = new Random(seed);
      List<List<Optional<String>>> cells = new ArrayList<>();
      for (int i = 0; i < 12; i++) {
        cells.add(
            List.of(
                Optional.of(
                    List.of("raku", "bisque", "glaze", "salt", "wood").get(random.nextInt(5)))));
      }
      Rows rows = Rows.of(List.of(kind.id()), cells);
      Design design = Design.empty("studio", "Studio").withTableAdded(firing);
      Draft held = new Draft(design, new SampleRows(Map.of(firing.id(), rows)));
      Draft filed =
          held.withRows(held.rows().withLink(firing.id(), FiledRowsOf.link(firing, rows, folder)));
      for (int i = 0; i < 6; i++) {
        var now = (FieldType.Choice) held.design().table(firing.id()).field(kind.id()).type();
        var entry = now.entries().get(random.nextInt(3));
        String after = List.of("raku", "bisque", "glaze", "salt", "wood").get(random.nextInt(5));
        if (!now.values().contains(after)) {
          var rename = new RenameChoice(firing.id(), kind.id(), entry.id(), entry.text(), after);
          held = rename.apply(held);
          filed = rename.apply(filed);
        }
      }
      assertThat(LinkedFile.held(filed, table -> true)).as("seed %d", seed).isEqualTo(held);
    }
  }

  @Test
  void examplesAreTheFirstRowsAndThoseAskedFor() throws IOException {
    var lines = new ArrayList<String>(List.of("no,cone"));
    for (int i = 1; i <= 5_000; i++) {
      lines.add(i + "," + i % 10);
    }
    SourceImport.Imported imported =
        linked(firings(lines.toArray(String[]::new))).tables().getFirst();
    LinkedFile.Examples some = file(imported).examples(2, Set.of(2, 4_321, 9_999));
    assertThat(some.numbers()).containsExactly(1, 2, 4_321);
    assertThat(texts(some.rows(), imported.table()))
        .isEqualTo(
            List.of(
                List.of(Optional.of("1"), Optional.of("1")),
                List.of(Optional.of("2"), Optional.of("2")),
                List.of(Optional.of("4321"), Optional.of("1"))));
    assertThat(file(imported).examples(0, Set.of()).numbers()).isEmpty();
  }

  @Test
  void aTableThatIsThereIsFilledByTheColumnsOfItsFieldsNames() throws IOException {
    Field no = Field.of("firing_no", "Number", new FieldType.Text(10));
    Field cone = Field.of("cone", "Cone", new FieldType.Text(4));
    Field note = Field.of("note", "Remarks", new FieldType.Text(40));
    Field by = Field.of("fired_by", "Fired by", new FieldType.Text(40));
    Table firing =
        Table.of("firing", "Firing", new Noun("firing", "firings"))
            .withFields(List.of(no, cone, note, by));
    Path file = firings("Firing No;REMARKS;Kiln;cone", "1;cold;north;6");
    LinkMatch match =
        LinkMatch.of(firing, SourceFile.readHead(file, ReadingOptions.DETECT), Optional.empty());
    assertThat(match.withoutField()).containsExactly("Kiln");
    assertThat(match.withoutColumn()).containsExactly("Fired by");
    assertThat(texts(LinkedFile.of(firing, match.link(), () -> false).held(), firing))
        .isEqualTo(
            List.of(
                List.of(
                    Optional.of("1"), Optional.of("6"), Optional.of("cold"), Optional.empty())));
    // Another file is read as the one before was, whatever the fields are called by now.
    Table renamed = firing.withField(cone.id(), f -> f.withName("heat").withLabel("Heat"));
    LinkedRows before = match.link().replaced(cone.id(), "6", "cone 6");
    LinkMatch again =
        LinkMatch.of(
            renamed, SourceFile.readHead(file, ReadingOptions.DETECT), Optional.of(before));
    assertThat(again.link()).isEqualTo(before);
  }

  /** Whoever does not read the files is told so, and not that references lead nowhere. */
  @Test
  void anAuditThatReadsNoFilesSaysSo() throws IOException {
    Draft demo = Pottery.demo();
    for (Table table : demo.design().tables()) {
      Draft filed =
          demo.withRows(
              demo.rows()
                  .withLink(
                      table.id(), FiledRowsOf.link(table, demo.rows().of(table.id()), folder)));
      AuditReport report = Audit.of(filed, Pottery.CLOCK);
      assertThat(report.unread()).hasSize(1);
      assertThat(report.total()).isZero();
    }
  }
}
