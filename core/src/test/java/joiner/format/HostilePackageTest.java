package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.edit.AddTable;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A package somebody gives away reads and writes nothing but itself, and hides nothing. */
class HostilePackageTest {
  @TempDir private Path outside;

  private Path folder() throws IOException {
    return Files.createDirectories(outside.resolve("received"));
  }

  private Map<String, String> everythingOutside() throws IOException {
    Map<String, String> files = new TreeMap<>();
    try (Stream<Path> walk = Files.walk(outside)) {
      for (Path file : walk.filter(Files::isRegularFile).toList()) {
        if (!file.startsWith(outside.resolve("received"))) {
          files.put(outside.relativize(file).toString(), Files.readString(file));
        }
      }
    }
    return files;
  }

  private static String json(String text) {
    return "\""
        + text.replace("\\", "\\\\").replace("\"", "\\\"").replace("\u0000", "\\u0000")
        + "\"";
  }

  private static String resource(String name, String more) {
    return "{\"resources\":[{\"name\":"
        + json(name)
        + more
        + ",\"schema\":{\"fields\":[{\"name\":\"a\",\"type\":\"string\"}]}}]}";
  }

  /** Opens, changes and saves; whatever the package says, nothing outside is touched. */
  private void openAndSave(String descriptor) throws Exception {
    Path folder = folder();
    Files.writeString(folder.resolve("datapackage.json"), descriptor);
    Files.writeString(outside.resolve("secret.csv"), "a\nsecret\n");
    Map<String, String> before = everythingOutside();
    try (DesignStore store = DesignStore.at(folder)) {
      Draft draft = store.open().draft();
      for (Table table : draft.design().tables()) {
        assertThat(draft.rows().of(table.id()).toString()).doesNotContain("secret");
        if (table.hasField(new FieldId("a"))) {
          draft =
              draft.withRows(
                  draft
                      .rows()
                      .with(table.id(), rows -> rows.withRow(Map.of(new FieldId("a"), "new"))));
        }
      }
      store.save(draft);
      assertThat(DesignFolder.open(folder).draft().rows().count()).isEqualTo(draft.rows().count());
    } catch (UnreadableFileException refused) {
      assertThat(refused.getMessage()).contains("datapackage.json");
    }
    assertThat(everythingOutside()).isEqualTo(before);
  }

  private static final String INLINE = ",\"data\":[{\"a\":\"1\"}]";

  @ParameterizedTest
  @ValueSource(
      strings = {
        "../secret.csv",
        "../../secret.csv",
        "data/../../secret.csv",
        "./../secret.csv",
        "/tmp/joiner-hostile.csv",
        "C:\\secret.csv",
        "\\\\server\\share\\x.csv",
        "..\\secret.csv",
        "data/",
        ".",
        "",
        " ",
        "a\u0000b.csv",
        ".joiner-saved/data/a.csv",
        "datapackage.json",
        "https://example.org/a.csv",
        "file:///etc/passwd"
      })
  void aPathNeverLeadsOut(String path) throws Exception {
    Path absolute = Path.of("/tmp/joiner-hostile.csv");
    Files.deleteIfExists(absolute);
    for (String data : List.of("", INLINE)) {
      openAndSave(resource("kiln", data + ",\"path\":" + json(path)));
      openAndSave(resource("kiln", data + ",\"path\":[" + json(path) + ",\"data/kiln.csv\"]"));
    }
    assertThat(absolute).doesNotExist();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "../../../x",
        "/abs",
        "a/b",
        "a\\b",
        "con",
        "NUL.txt",
        "COM1",
        "..",
        ".hidden",
        "a\u0000b",
        "x ",
        "*?<>|\":"
      })
  void aNameBecomesASafeFileName(String name) throws Exception {
    openAndSave(resource(name, INLINE));
    openAndSave(resource(name, ""));
    openAndSave(resource(name.repeat(200), INLINE));
  }

  @Test
  void namesThatDifferOnlyByCaseGetFilesOfTheirOwn() {
    assertThat(
            RowPaths.usual(List.of("Kiln", "kiln", "KILN", "kiln-2"), (name, path) -> false)
                .values())
        .containsExactly(
            "data/Kiln.csv", "data/kiln-2.csv", "data/KILN-3.csv", "data/kiln-2-2.csv");
    String long1 = "é".repeat(300);
    assertThat(RowPaths.usual(List.of(long1 + "a", long1 + "b"), (name, path) -> false).values())
        .doesNotHaveDuplicates()
        .allMatch(path -> path.getBytes(java.nio.charset.StandardCharsets.UTF_8).length < 251);
    assertThat(RowPaths.usual(List.of("aux", "lpt9.x", "..", ""), (name, path) -> false).values())
        .containsExactly(
            "data/table-aux.csv", "data/table-lpt9.x.csv", "data/table-.csv", "data/table--2.csv");
  }

  @Test
  void aLinkInsideThatLeadsOutIsNotFollowed() throws Exception {
    Path folder = folder();
    Files.createDirectories(outside.resolve("elsewhere"));
    Files.writeString(outside.resolve("elsewhere/kiln.csv"), "a\nsecret\n");
    Files.createSymbolicLink(folder.resolve("data"), outside.resolve("elsewhere"));
    Map<String, String> before = everythingOutside();
    Files.writeString(
        folder.resolve("datapackage.json"), resource("kiln", ",\"path\":\"data/kiln.csv\""));
    assertThatThrownBy(() -> DesignFolder.open(folder)).hasMessageContaining("leaves the package");
    assertThatThrownBy(() -> DesignFolder.save(Pottery.demo(), folder))
        .hasMessageContaining("leaves");
    assertThat(everythingOutside()).isEqualTo(before);
  }

  @Test
  void aHiddenSaveOfSomebodyElseIsNotUsedAndPutAside() throws Exception {
    Path folder = folder();
    DesignFolder.save(Pottery.demo(), folder);
    Path hidden = Files.createDirectories(folder.resolve(".joiner-saved"));
    Files.writeString(
        hidden.resolve("datapackage.json"),
        Files.readString(folder.resolve("datapackage.json")).replace("Saltmarsh", "Hidden"));
    Files.writeString(hidden.resolve(".going"), "data/kiln.csv");
    for (String signature : List.of("", "0".repeat(64) + "\n")) {
      Files.writeString(hidden.resolve(".signed"), signature);
      DesignFolder.Opened opened = DesignFolder.open(folder);
      assertThat(opened.draft()).isEqualTo(Pottery.demo());
      assertThat(opened.notices()).anyMatch(notice -> notice.contains(".joiner-saved"));
    }
    DesignFolder.save(Pottery.broken(), folder);
    assertThat(DesignFolder.open(folder).draft()).isEqualTo(Pottery.broken());
    assertThat(folder.resolve("data/kiln.csv")).exists();
    assertThat(folder.resolve(".joiner-saved-elsewhere/datapackage.json")).exists();
    assertThat(folder.resolve(".joiner-saved")).doesNotExist();
  }

  @Test
  void aSaveThatWasChangedAfterItWasSignedIsNotUsed() throws Exception {
    Path folder = folder();
    DesignFolder.save(Pottery.demo(), folder);
    Path hidden = Files.createDirectories(folder.resolve(".joiner-saved"));
    Files.writeString(
        hidden.resolve("datapackage.json"),
        Files.readString(folder.resolve("datapackage.json")).replace("Saltmarsh", "Signed"));
    SafeSave.sign(hidden);
    assertThat(DesignFolder.open(folder).draft().design().title()).contains("Signed");
    Files.writeString(
        hidden.resolve("datapackage.json"),
        Files.readString(hidden.resolve("datapackage.json")).replace("Signed", "Forged"));
    assertThat(DesignFolder.open(folder).draft().design().title()).contains("Saltmarsh");
  }

  /** A resource that is no table, and a file nobody speaks of, keep theirs. */
  @Test
  void aFileOfSomebodyElseIsNeverOverwritten() throws Exception {
    Path folder = folder();
    Files.createDirectories(folder.resolve("data"));
    Files.writeString(folder.resolve("data/kiln.csv"), "other,columns\n1,2\n");
    Files.writeString(folder.resolve("data/shelf.csv"), "mine\n");
    Files.writeString(
        folder.resolve("datapackage.json"),
        "{\"resources\":[{\"name\":\"old\",\"path\":\"data/kiln.csv\"}]}");
    Draft draft = DesignFolder.open(folder).draft();
    for (String name : List.of("kiln", "shelf")) {
      Table table =
          Table.of(name, name, new Noun(name, name + "s"))
              .withFields(List.of(Field.of("a", "A", new FieldType.Text(9))));
      draft = new AddTable(table, Rows.NONE.withRow(Map.of(new FieldId("a"), name))).apply(draft);
    }
    try (DesignStore store = DesignStore.at(folder)) {
      store.open();
      store.save(draft);
    }
    assertThat(folder.resolve("data/kiln.csv")).content().isEqualTo("other,columns\n1,2\n");
    assertThat(folder.resolve("data/shelf.csv")).content().isEqualTo("mine\n");
    assertThat(DesignFolder.open(folder).draft()).isEqualTo(draft);
  }

  @Test
  void twoTablesNeverShareAFile() throws Exception {
    Path folder = folder();
    Files.createDirectories(folder.resolve("data"));
    Files.writeString(folder.resolve("data/kiln.csv"), "a\n1\n");
    String schema = ",\"path\":\"data/kiln.csv\",\"schema\":{\"fields\":[{\"name\":\"a\"}]}}";
    Files.writeString(
        folder.resolve("datapackage.json"),
        "{\"resources\":[{\"name\":\"pot\"" + schema + ",{\"name\":\"kiln\"" + schema + "]}");
    try (DesignStore store = DesignStore.at(folder)) {
      Draft draft = store.open().draft();
      assertThat(draft.rows().count()).isEqualTo(2);
      Table pot = draft.design().tableNamed("pot").orElseThrow();
      Draft changed =
          draft.withRows(
              draft.rows().with(pot.id(), r -> r.withRow(Map.of(new FieldId("a"), "2"))));
      store.save(changed);
      Draft again = DesignFolder.open(folder).draft();
      assertThat(again.rows().of(pot.id()).count()).isEqualTo(2);
      assertThat(again.rows().count()).isEqualTo(3);
      DesignFolder.save(again, folder);
      assertThat(DesignFolder.open(folder).draft()).isEqualTo(again);
    }
  }
}
