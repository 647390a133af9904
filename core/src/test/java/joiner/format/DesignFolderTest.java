package joiner.format;

import static java.nio.file.StandardCopyOption.REPLACE_EXISTING;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.audit.Violation;
import joiner.edit.ChangeField;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DesignFolderTest {
  @TempDir private Path folder;

  private DesignFolder.Opened opened(String json) throws Exception {
    Files.writeString(folder.resolve("datapackage.json"), json);
    return DesignFolder.open(folder);
  }

  @Test
  void savingAndOpeningGivesTheSameDesignAndRows() throws Exception {
    for (Draft draft : List.of(Pottery.demo(), Pottery.broken())) {
      DesignFolder.save(draft, folder);
      assertThat(DesignFolder.open(folder).draft()).isEqualTo(draft);
    }
  }

  @Test
  void theDemoStandsAsJoinerWouldSaveIt() throws Exception {
    for (String name : List.of("saltmarsh-pottery", "saltmarsh-pottery-broken")) {
      Path demo = Pottery.folder(name);
      for (Map.Entry<String, String> file :
          DesignFolder.files(DesignFolder.open(demo).draft()).entrySet()) {
        assertThat(Files.readString(demo.resolve(file.getKey())))
            .as(file.getKey())
            .isEqualTo(file.getValue());
      }
    }
  }

  @Test
  void aOneFieldChangeIsAOneLineDiff() throws IOException {
    Draft demo = Pottery.demo();
    Table member = demo.design().table(new TableId("member"));
    Draft changed =
        ChangeField.type(member, member.field(new FieldId("email")), new FieldType.Email(70))
            .apply(demo);
    List<String> before = DesignFolder.files(demo).get("datapackage.json").lines().toList();
    List<String> after = DesignFolder.files(changed).get("datapackage.json").lines().toList();
    assertThat(after).hasSameSizeAs(before);
    assertThat(
            java.util.stream.IntStream.range(0, before.size())
                .filter(i -> !before.get(i).equals(after.get(i))))
        .hasSize(1);
  }

  /**
   * The published profile of the standard's version 1, as carried by the npm package datapackage
   * 1.1.10.
   */
  @Test
  void whatIsWrittenMeetsTheStandardsPublishedProfile() throws IOException {
    String profile;
    try (var in = DesignFolderTest.class.getResourceAsStream("/standard/data-package.json")) {
      profile = new String(in.readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
    }
    var schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V4).getSchema(profile);
    for (Draft draft : List.of(Pottery.demo(), Pottery.broken())) {
      assertThat(
              schema.validate(DesignFolder.files(draft).get("datapackage.json"), InputFormat.JSON))
          .isEmpty();
    }
    assertThat(schema.validate("{\"resources\": \"none\"}", InputFormat.JSON)).isNotEmpty();
  }

  /** Shaped after the examples of the standard's Table Schema page, version 2 (from memory). */
  @Test
  void aPackageThatKnowsNothingOfJoinerIsReadWhole() throws Exception {
    Files.createDirectories(folder.resolve("data"));
    Files.writeString(
        folder.resolve("data/cities.csv"), "id,name,population,parent\n1,London,8,\n2,Paris,2,1\n");
    Files.writeString(folder.resolve("data/facts.csv"), "city;year;kind\n1;2017;low\n3;2018;odd\n");
    DesignFolder.Opened opened =
        opened(
            """
            {"name": "cities", "homepage": "https://example.org", "resources": [
              {"name": "cities", "path": "data/cities.csv", "schema": {
                "fields": [{"name": "id", "type": "integer"}, {"name": "name", "type": "string", "constraints": {"required": true, "maxLength": 20}, "rdfType": "x"},
                           {"name": "population", "type": "number", "constraints": {"minimum": 3}}, {"name": "parent", "type": "integer"}],
                "primaryKey": "id",
                "foreignKeys": [{"fields": "parent", "reference": {"resource": "", "fields": "id"}}]}},
              {"name": "facts", "path": "data/facts.csv", "dialect": {"delimiter": ";"}, "schema": {
                "fields": [{"name": "city", "type": "integer"}, {"name": "year", "type": "year"}, {"name": "kind", "type": "string", "constraints": {"enum": ["low", "high"]}}],
                "uniqueKeys": [["city", "year"]], "missingValues": ["", "-"],
                "foreignKeys": [{"fields": ["city"], "reference": {"resource": "cities", "fields": ["id"]}}]}},
              {"name": "report", "path": "report.pdf"}
            ]}
            """);
    assertThat(opened.draft().design().relationships())
        .extracting(Relationship::name)
        .containsExactly("fk_cities_parent", "fk_facts_city");
    assertThat(Audit.of(opened.draft(), Pottery.CLOCK).violations().map(Violation::message))
        .hasSize(3)
        .anyMatch(m -> m.contains("at least 3"))
        .anyMatch(m -> m.contains("not one of"))
        .anyMatch(m -> m.contains("does not exist"));
    assertThat(opened.notices())
        .anyMatch(n -> n.contains("report"))
        .noneMatch(n -> n.contains("missingValues"));
    DesignFolder.save(opened.draft(), folder);
    String saved = Files.readString(folder.resolve("datapackage.json"));
    assertThat(saved)
        .contains("\"homepage\"", "\"rdfType\"", "\"missingValues\"", "\"report.pdf\"", "\"year\"");
  }

  @Test
  void whatIsNotUnderstoodIsWrittenBackAndNamed() throws Exception {
    String field =
        "{\"name\": \"x\", \"type\": \"string\", \"format\": \"hexadecimal\"}, {\"name\": \"y\", \"type\": \"any\", \"constraints\": {\"maxLength\": 3}}";
    DesignFolder.Opened opened =
        opened(
            "{\"studio:colour\": \"green\", \"resources\": [{\"name\": \"a\", \"profile\": \"tabular-data-resource\", \"schema\": {\"fields\": ["
                + field
                + "]}}]}");
    assertThat(opened.notices())
        .anyMatch(n -> n.contains("studio:colour"))
        .anyMatch(n -> n.contains("a.x: format"))
        .anyMatch(n -> n.contains("constraints/maxLength"));
    DesignFolder.save(opened.draft(), folder);
    assertThat(Files.readString(folder.resolve("datapackage.json")))
        .contains("hexadecimal", "\"maxLength\": 3", "tabular-data-resource", "studio:colour");
    assertThat(DesignFolder.open(folder).draft()).isEqualTo(opened.draft());
  }

  @Test
  void inlineRowsAreRead() throws Exception {
    Draft draft =
        opened(
                "{\"resources\": [{\"name\": \"a\", \"data\": [{\"x\": 1}, {\"x\": null}], \"schema\": {\"fields\": [{\"name\": \"x\", \"type\": \"integer\"}]}}]}")
            .draft();
    assertThat(draft.rows().of(new TableId("a")).cell(0, new FieldId("x"))).contains("1");
    assertThat(draft.rows().of(new TableId("a")).cell(1, new FieldId("x"))).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      value = {
        "{\"resources\": [~ 1 ~ not JSON",
        "{\"name\": \"a\"} ~ 1 ~ “resources” is missing",
        "[] ~ 1 ~ must be an object",
        "{\"resources\": 7} ~ 1 ~ must be a list",
        "{\"resources\": [{\"schema\": {}}]} ~ 1 ~ needs a “name”",
        "{\"resources\": [{\"name\": \"a\", \"schema\": {\"fields\": [{\"name\": \"x\"}], \"primaryKey\": \"y\"}}]} ~ 1 ~ which is not there; the fields are x",
        "{\"resources\": [{\"name\": \"a\", \"path\": \"../a.csv\", \"schema\": {\"fields\": [{\"name\": \"x\"}]}}]} ~ 0 ~ leaves the package folder",
        "{\"joiner:more\": {\"version\": 9}, \"resources\": []} ~ 1 ~ newer Joiner",
        "{\"name\": \"a\", \"name\": \"b\"} ~ 1 ~ twice"
      })
  void aDamagedFileIsNamedWithLineAndRemedyAndStaysUntouched(String json, int line, String says)
      throws Exception {
    Files.writeString(folder.resolve("datapackage.json"), json);
    assertThatThrownBy(() -> DesignFolder.open(folder))
        .isInstanceOfSatisfying(
            UnreadableFileException.class, e -> assertThat(e.line()).isEqualTo(line))
        .hasMessageContaining("datapackage.json")
        .hasMessageContaining(says);
    assertThat(Files.readString(folder.resolve("datapackage.json"))).isEqualTo(json);
  }

  @Test
  void aDamagedRowIsNamedWithItsLine() throws Exception {
    DesignFolder.save(Pottery.demo(), folder);
    Path kilns = folder.resolve("data/kiln.csv");
    Files.writeString(kilns, Files.readString(kilns) + "9,Broken\n");
    assertThatThrownBy(() -> DesignFolder.open(folder))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("kiln.csv, line 6")
        .hasMessageContaining("2 fields");
  }

  @Test
  void aKillAtAnyMomentLeavesTheOldOrTheNewDesign() throws Exception {
    Draft old = Pottery.demo();
    Draft fresh = Pottery.broken();
    Path reference = folder.resolve("reference");
    DesignFolder.save(fresh, reference);
    List<Path> files;
    try (Stream<Path> walk = Files.walk(reference)) {
      files = walk.filter(Files::isRegularFile).sorted().toList();
    }
    // Every state a kill can leave: n files written aside, undeclared; then declared with n files
    // moved.
    for (int written = 0; written <= files.size(); written++) {
      assertThat(
              DesignFolder.open(state(old, ".joiner-save", files, 0, written, reference)).draft())
          .isEqualTo(old);
      assertThat(
              DesignFolder.open(
                      state(old, ".joiner-saved", files, written, files.size(), reference))
                  .draft())
          .isEqualTo(fresh);
    }
  }

  private Path state(
      Draft old, String aside, List<Path> files, int moved, int present, Path reference)
      throws IOException {
    Path state = Files.createTempDirectory(folder, "state");
    DesignFolder.save(old, state);
    Path hidden = state.resolve(aside);
    for (Path file : files.subList(0, present)) {
      Path target = hidden.resolve(reference.relativize(file));
      Files.createDirectories(target.getParent());
      Files.copy(file, target);
    }
    if (aside.equals(".joiner-saved")) {
      SafeSave.sign(hidden);
    }
    for (Path file : files.subList(0, moved)) {
      Path relative = reference.relativize(file);
      Files.createDirectories(state.resolve(relative).getParent());
      Files.move(hidden.resolve(relative), state.resolve(relative), REPLACE_EXISTING);
    }
    return state;
  }

  @Test
  void savingAfterAKillFinishesTheSaveFirstAndLeavesNothingAside() throws Exception {
    var files = new ArrayList<Path>();
    Path reference = folder.resolve("reference");
    DesignFolder.save(Pottery.broken(), reference);
    try (Stream<Path> walk = Files.walk(reference)) {
      walk.filter(Files::isRegularFile).sorted().forEach(files::add);
    }
    Path state = state(Pottery.demo(), ".joiner-saved", files, 3, files.size(), reference);
    DesignFolder.save(Pottery.demo(), state);
    assertThat(DesignFolder.open(state).draft()).isEqualTo(Pottery.demo());
    assertThat(state.resolve(".joiner-saved")).doesNotExist();
  }

  @Test
  void aSingleEmptyCellIsStillARow() throws Exception {
    Table table =
        Table.of("n", "N", new joiner.model.Noun("n", "ns"))
            .withFields(List.of(joiner.model.Field.of("x", "X", new FieldType.Text(5))));
    var rows =
        joiner.rows.Rows.of(
            List.of(new FieldId("x")),
            List.of(
                List.of(Optional.of("a")),
                List.of(Optional.empty()),
                List.of(Optional.of("a,\"b\"\nc"))));
    Draft draft =
        new Draft(
            joiner.model.Design.empty("d", "D").withTableAdded(table),
            new joiner.rows.SampleRows(Map.of(table.id(), rows)));
    DesignFolder.save(draft, folder);
    assertThat(DesignFolder.open(folder).draft().rows()).isEqualTo(draft.rows());
  }
}
