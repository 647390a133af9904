package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Optional;
import joiner.Pottery;
import joiner.edit.ChangeTable;
import joiner.edit.RemoveTable;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DesignStoreTest {
  private static final TableId KILN = new TableId("kiln");

  @TempDir private Path folder;
  private DesignStore store;
  private Draft demo;

  @BeforeEach
  void openTheDemo() throws Exception {
    DesignFolder.save(Pottery.demo(), folder);
    store = DesignStore.at(folder);
    demo = store.open().draft();
  }

  private Draft renamedKiln() {
    Table kiln = demo.design().table(KILN);
    return ChangeTable.rename(kiln, "oven", "Oven", new Noun("oven", "ovens")).apply(demo);
  }

  @Test
  void theRowsOfARenamedTableAreInOneFileOnly() throws Exception {
    store.save(renamedKiln());
    assertThat(folder.resolve("data/oven.csv")).exists();
    assertThat(folder.resolve("data/kiln.csv")).doesNotExist();
    store.save(demo);
    assertThat(folder.resolve("data/kiln.csv")).exists();
    assertThat(folder.resolve("data/oven.csv")).doesNotExist();
    assertThat(DesignFolder.open(folder).draft()).isEqualTo(demo);
  }

  @Test
  void theFileOfARemovedTableGoesAndFilesOfOthersStay() throws Exception {
    Files.writeString(folder.resolve("data/notes.csv"), "mine\n");
    store.save(new RemoveTable(KILN, "Kiln").apply(demo));
    assertThat(folder.resolve("data/kiln.csv")).doesNotExist();
    assertThat(folder.resolve("data/notes.csv")).exists();
  }

  @Test
  void aFileThatIsNoTableIsNeverDeletedForAnEqualPath() throws Exception {
    String json =
        Files.readString(folder.resolve("datapackage.json"))
            .replaceFirst(
                "\"resources\": \\[",
                "\"resources\": [{\"name\": \"raw\", \"path\": \"data/kiln.csv\"},");
    Files.writeString(folder.resolve("datapackage.json"), json);
    Draft both = store.open().draft();
    store.save(new RemoveTable(KILN, "Kiln").apply(both));
    assertThat(folder.resolve("data/kiln.csv")).exists();
  }

  @Test
  void whatSomebodyElseChangedIsNotOverwritten() throws Exception {
    Path members = folder.resolve("data/member.csv");
    Files.writeString(members, Files.readString(members).replace("Mara", "Maria"));
    assertThat(store.changedOutside()).containsExactly("data/member.csv");
    assertThatThrownBy(() -> store.save(renamedKiln()))
        .isInstanceOf(ChangedOutsideException.class)
        .hasMessageContaining("data/member.csv");
    assertThat(folder.resolve("data/kiln.csv")).exists();
    assertThat(Files.readString(members)).contains("Maria");
    store.overwrite(renamedKiln());
    assertThat(store.changedOutside()).isEmpty();
    assertThat(DesignFolder.open(folder).draft()).isEqualTo(renamedKiln());
  }

  @Test
  void theSecondOfTwoThatSaveIsTold() throws Exception {
    try (var second = DesignStore.at(folder)) {
      second.open();
      second.save(renamedKiln());
      assertThatThrownBy(() -> store.save(new RemoveTable(KILN, "Kiln").apply(demo)))
          .isInstanceOf(ChangedOutsideException.class);
      store.open();
      store.save(demo);
    }
  }

  @Test
  void aFileThatWasOnlyTouchedCountsAsUnchanged() throws Exception {
    Files.setLastModifiedTime(
        folder.resolve("data/member.csv"), FileTime.from(Instant.parse("2026-03-14T10:00:00Z")));
    assertThat(store.changedOutside()).isEmpty();
    Files.delete(folder.resolve("data/member.csv"));
    assertThat(store.changedOutside()).containsExactly("data/member.csv");
  }

  @Test
  void anEditOfOneTableWritesOnlyItsFile() throws Exception {
    var old = FileTime.from(Instant.parse("2020-01-01T00:00:00Z"));
    Path members = folder.resolve("data/member.csv");
    Files.setLastModifiedTime(members, old);
    Draft changed =
        demo.withRows(
            demo.rows().with(KILN, r -> r.withCell(0, new FieldId("name"), Optional.of("Big Bo"))));
    store.save(changed);
    assertThat(Files.getLastModifiedTime(members)).isEqualTo(old);
    assertThat(DesignFolder.open(folder).draft()).isEqualTo(changed);
  }

  @Test
  void aMissingFileOfRowsIsToldWithItsRemedy() throws Exception {
    Files.delete(folder.resolve("data/kiln.csv"));
    DesignFolder.Opened opened = DesignFolder.open(folder);
    assertThat(opened.draft().rows().of(KILN).count()).isZero();
    assertThat(opened.notices())
        .anyMatch(n -> n.contains("kiln.csv is missing") && n.contains("restore the file"));
  }

  @Test
  void aTableWithoutFieldsComesBack() throws Exception {
    Table bare = Table.of("bare", "Bare", new Noun("bare", "bares"));
    Draft draft = new Draft(Design.empty("d", "D").withTableAdded(bare), SampleRows.NONE);
    Path at = folder.resolve("bare");
    DesignFolder.save(draft, at);
    DesignFolder.Opened opened = DesignFolder.open(at);
    assertThat(opened.draft()).isEqualTo(draft);
    assertThat(opened.notices()).isEmpty();
  }

  @Test
  void aSecondWindowIsToldWhoHasTheFolder() throws Exception {
    assertThat(store.lock()).isEmpty();
    try (var second = DesignStore.at(folder)) {
      assertThat(second.lock())
          .hasValueSatisfying(who -> assertThat(who).contains("another window of this Joiner"));
      store.close();
      assertThat(folder.resolve(".joiner-lock")).doesNotExist();
      assertThat(second.lock()).isEmpty();
    }
  }

  @Test
  void noPathOfAPackageLeadsOutOfItsFolder() throws Exception {
    Path inner = folder.resolve("inner");
    Path outside = folder.resolve("outside.csv");
    for (String path : new String[] {outside.toString(), "../outside.csv", "a/../../outside.csv"}) {
      Files.createDirectories(inner);
      Files.writeString(
          inner.resolve("datapackage.json"),
          "{\"resources\": [{\"name\": \"../../x\", \"path\": \""
              + path
              + "\", \"data\": [{\"x\": 1}], \"schema\": {\"fields\": [{\"name\": \"x\", \"type\": \"integer\"}]}}]}");
      Draft draft = DesignFolder.open(inner).draft();
      DesignFolder.save(draft, inner);
      assertThat(outside).doesNotExist();
      assertThat(DesignFolder.open(inner).draft().rows()).isEqualTo(draft.rows());
    }
  }

  @Test
  void aLinkDoesNotLeadOutOfTheFolderEither() throws Exception {
    Path inner = folder.resolve("linked");
    Path elsewhere = Files.createDirectories(folder.resolve("elsewhere"));
    Files.createDirectories(inner);
    Files.createSymbolicLink(inner.resolve("data"), elsewhere);
    assertThat(RowPaths.inside(inner, "data/x.csv")).isEmpty();
    assertThat(RowPaths.inside(inner, "other/x.csv")).isPresent();
  }

  /** A file under four bytes has no room for a byte-order mark. */
  @Test
  void fieldsOfOneOrTwoLettersWithoutRowsComeBack() throws Exception {
    for (String name : java.util.List.of("a", "ab", "id")) {
      Table table =
          Table.of("t", "T", new Noun("t", "ts"))
              .withFields(
                  java.util.List.of(
                      joiner.model.Field.of(name, name, new joiner.model.FieldType.Text(9))));
      Draft draft = new Draft(Design.empty("d", "D").withTableAdded(table), SampleRows.NONE);
      DesignFolder.save(draft, folder.resolve("short-" + name));
      assertThat(DesignFolder.open(folder.resolve("short-" + name)).draft()).isEqualTo(draft);
    }
  }
}
