package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.meaning.Draft;
import joiner.model.ChoiceId;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Small things a package may say, each told or kept as it is meant. */
class PackageDetailsTest {
  private static final TableId LOG = new TableId("log");
  private static final FieldId CONE = new FieldId("cone");
  private static final FieldId NOTE = new FieldId("note");

  @TempDir private Path folder;

  private DesignFolder.Opened open(String resource, String... rows) throws Exception {
    write(resource, "");
    Files.writeString(folder.resolve("log.csv"), String.join("\n", rows));
    return DesignFolder.open(folder);
  }

  private void write(String resource, String schema) throws Exception {
    Files.writeString(
        folder.resolve("datapackage.json"),
        ("{'name': 'p', 'resources': [{'name': 'log', "
                + resource
                + ", 'schema': {"
                + schema
                + "'fields': ["
                + "{'name': 'cone', 'type': 'integer'}, {'name': 'note', 'type': 'string'}]}}]}")
            .replace('\'', '"'));
  }

  private Rows rows(String resource, String... rows) throws Exception {
    return open(resource, rows).draft().rows().of(LOG);
  }

  private void assertRefused(String resource, String says, String... rows) {
    assertThatThrownBy(() -> open(resource, rows))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining(says);
  }

  @Test
  void inlineRowsMayBeListsUnderAHeaderInAnyOrder() throws Exception {
    Rows rows =
        rows("'data': [['note', 'cone'], ['low', 6], ['only'], [true, null], [[1], {'a': 2}]]");
    assertThat(rows.row(0, List.of(CONE, NOTE)))
        .containsExactly(Optional.of("6"), Optional.of("low"));
    assertThat(rows.row(1, List.of(CONE, NOTE)))
        .containsExactly(Optional.empty(), Optional.of("only"));
    assertThat(rows.row(2, List.of(CONE, NOTE)))
        .containsExactly(Optional.empty(), Optional.of("true"));
    assertThat(rows.cell(3, NOTE)).contains("[1]");
    assertThat(rows.count()).isEqualTo(4);
  }

  @Test
  void inlineRowsMayBeObjects() throws Exception {
    Rows rows = rows("'data': [{'cone': 6}, {'note': 'low', 'cone': '7'}]");
    assertThat(rows.row(0, List.of(CONE, NOTE)))
        .containsExactly(Optional.of("6"), Optional.empty());
    assertThat(rows.row(1, List.of(CONE, NOTE)))
        .containsExactly(Optional.of("7"), Optional.of("low"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "'data': {'a': 1} | is a list of rows",
        "'data': [1] | not the number 1",
        "'data': ['x'] | not the text “x”",
        "'data': [true] | not true",
        "'data': [null] | not null",
        "'path': 'log.csv', 'dialect': {'headerRows': [0]} | a list of line numbers",
        "'path': 'log.csv', 'dialect': {'headerRows': ['one']} | a list of line numbers",
        "'path': 'log.csv', 'dialect': {'quoteChar': 'ab'} | is one character"
      })
  void whatCannotBeMeantIsRefused(String resource, String says) {
    assertRefused(resource, says, "cone,note", "6,low");
  }

  @Test
  void aHeaderIsHeldAgainstTheFields() {
    String path = "'path': 'log.csv'";
    assertRefused(path, "“cone” is there twice", "cone,note,cone", "6,low,7");
    assertRefused(path, "“glaze” is no field of log", "cone,glaze", "6,low");
    assertRefused(path, "the header lacks note of log", "cone", "6");
    assertRefused(path, "the row has 1 fields, the header 2", "cone,note", "6");
  }

  @Test
  void headersOfSeveralLinesAreJoined() throws Exception {
    Rows rows =
        rows(
            "'path': 'log.csv', 'dialect': {'headerRows': [1, 3], 'headerJoin': ''}",
            "co,no",
            "skipped,too",
            "ne,te",
            "6,low");
    assertThat(rows.row(0, List.of(CONE, NOTE)))
        .containsExactly(Optional.of("6"), Optional.of("low"));
    assertThat(rows("'path': 'log.csv', 'dialect': {'header': false}", "6,low", "7,high").count())
        .isEqualTo(2);
  }

  @Test
  void aFileInAnotherEncodingIsTold() throws Exception {
    open("'path': 'log.csv'", "cone,note", "6,low");
    Files.write(
        folder.resolve("log.csv"), "cone,note\n6,gl\u00fch".getBytes(StandardCharsets.ISO_8859_1));
    assertThatThrownBy(() -> DesignFolder.open(folder))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("not in the encoding it should be in");
  }

  @Test
  void cellsWithoutTheStatedFormAndEmptyTextsAreCounted() throws Exception {
    write("'path': 'log.csv'", "'missingValues': ['-'], ");
    Files.writeString(folder.resolve("log.csv"), "cone,note\n6,\n-,-\n7,low\n");
    DesignFolder.Opened opened = DesignFolder.open(folder);
    assertThat(opened.notices())
        .singleElement()
        .asString()
        .contains("note: 1 empty texts are taken as no value");
    assertThat(opened.draft().rows().of(LOG).cell(1, NOTE)).isEmpty();
  }

  @Test
  void rowsMayComeFromAnotherFolderByTheNameOfTheirFile() throws Exception {
    Draft draft = open("'path': 'log.csv'", "cone,note", "6,low").draft();
    assertThat(draft.rows().of(LOG).count()).isEqualTo(1);
    Path other = Files.createDirectories(folder.resolve("other"));
    assertThat(DesignFolder.beside(folder, other).notices())
        .anyMatch(notice -> notice.startsWith("There is no ") && notice.contains("log.csv"));
    Files.writeString(other.resolve("log.csv"), "cone,note\n7,high\n8,low\n");
    assertThat(rowsBeside(folder, other).count()).isEqualTo(2);
    assertThatThrownBy(() -> DesignFolder.beside(folder, folder.resolve("none")))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining("there is no such folder");
  }

  @Test
  void momentsWithAndWithoutAZoneAreSpelledInAFormatOfTheirOwn() throws Exception {
    var zoned = new FieldType.DateTime(true);
    var format = new TimeFormat("%Y/%m/%d %H:%M:%S%z", zoned);
    assertThat(format.read("2026/03/14 09:30:00+0100")).contains("2026-03-14T09:30:00+01:00");
    assertThat(format.write("2026-03-14T09:30:00+01:00")).contains("2026/03/14 09:30:00+0100");
    assertThat(format.write("no moment")).isEmpty();
  }

  @Test
  void aListOfAllowedValuesIsWrittenAsOne() throws Exception {
    DesignFolder.Opened opened = open("'path': 'log.csv', 'x': 1", "cone,note", "6,low");
    Draft draft = opened.draft();
    Draft limited =
        draft.withDesign(
            draft
                .design()
                .withTable(
                    LOG,
                    t ->
                        t.withField(
                            CONE, f -> f.withLimits(f.limits().withAllowed(List.of("6", "7"))))));
    DesignFolder.save(limited, folder);
    assertThat(Files.readString(folder.resolve("datapackage.json")))
        .containsPattern("\"enum\": \\[\\s*6,\\s*7\\s*\\]");
    assertThat(DesignFolder.open(folder).draft()).isEqualTo(limited);
  }

  @Test
  void whatIsNotUnderstoodIsWrittenBackAtEveryLevel() throws Exception {
    Files.writeString(
        folder.resolve("datapackage.json"),
        """
        {"name": "p", "ofPackage": 1, "joiner:more": {"ofMore": 2},
         "resources": [
          {"name": "kiln", "path": "kiln.csv", "ofResource": 3, "joiner:more": {"ofTable": 4},
           "schema": {"ofSchema": 5, "primaryKey": "id",
            "fields": [{"name": "id", "type": "integer", "ofField": 6,
                        "constraints": {"ofConstraints": 7}, "joiner:more": {"ofOwn": 8}}]}},
          {"name": "firing", "path": "firing.csv",
           "schema": {"fields": [{"name": "kiln", "type": "integer"}],
            "foreignKeys": [{"fields": "kiln", "ofKey": 9, "joiner:more": {"ofRelationship": 10},
                             "reference": {"resource": "kiln", "fields": "id", "ofReference": 11}}]}},
          {"name": "photo", "path": "photo.png", "mediatype": "image/png", "ofOther": 12}]}
        """);
    Files.writeString(folder.resolve("kiln.csv"), "id\n1\n");
    Files.writeString(folder.resolve("firing.csv"), "kiln\n1\n");
    Files.writeString(folder.resolve("photo.png"), "no picture");
    DesignFolder.Opened opened = DesignFolder.open(folder);
    Draft renamed = opened.draft().withDesign(opened.draft().design().withTitle("Studio"));
    DesignFolder.save(renamed, folder);
    String saved = Files.readString(folder.resolve("datapackage.json"));
    List<String> kept =
        List.of(
            "ofPackage",
            "ofMore",
            "ofResource",
            "ofTable",
            "ofSchema",
            "ofField",
            "ofConstraints",
            "ofOwn",
            "ofKey",
            "ofRelationship",
            "ofReference",
            "ofOther");
    for (int i = 0; i < kept.size(); i++) {
      assertThat(saved).contains("\"" + kept.get(i) + "\": " + (i + 1));
    }
    assertThat(folder.resolve("photo.png")).hasContent("no picture");
    assertThat(DesignFolder.open(folder).draft()).isEqualTo(renamed);
    String notices = String.join("\n", opened.notices());
    for (String name : List.of("ofResource", "ofField", "ofKey", "ofPackage")) {
      assertThat(notices).contains(name);
    }
  }

  private static Rows rowsBeside(Path folder, Path other) throws Exception {
    DesignFolder.Beside beside = DesignFolder.beside(folder, other);
    return Rows.of(beside.draft().design().table(LOG).fieldIds(), beside.rows().get(LOG));
  }

  private FieldType type(String field) throws Exception {
    Files.writeString(
        folder.resolve("datapackage.json"),
        ("{'name': 'p', 'resources': [{'name': 'log', 'schema': {'fields': [" + field + "]}}]}")
            .replace('\'', '"'));
    return DesignFolder.open(folder).draft().design().table(LOG).fields().getFirst().type();
  }

  /** Table Schema, version 2, property {@code categories}; from memory. */
  @Test
  void categoriesOfTheStandardAreChoicesAndTheirLabelsWhatTheyMean() throws Exception {
    FieldType type =
        type(
            "{'name': 'fire', 'type': 'string', 'categories':"
                + " [{'value': 'ox', 'label': 'oxidation'}, 'raku']}");
    assertThat(type)
        .isEqualTo(
            FieldType.Choice.of(List.of("ox", "raku"))
                .withEntry(new ChoiceId("ox"), entry -> entry.withDescription("oxidation")));
    assertThat(type("{'name': 'n', 'type': 'integer', 'categories': [1, 2]}"))
        .isInstanceOf(FieldType.WholeNumber.class);
    assertThat(type("{'name': 'n', 'type': 'string', 'categories': [1, 2]}"))
        .isInstanceOf(FieldType.LongText.class);
  }

  /** As files have it that were written before anything was said of choices. */
  @Test
  void choicesKnownByTheirIdsAloneAreReadAsBefore() throws Exception {
    assertThat(
            type(
                "{'name': 'fire', 'type': 'string', 'constraints': {'enum': ['ox', 'red']},"
                    + " 'joiner:more': {'choices': ['ox', 'reduction']}}"))
        .isEqualTo(
            FieldType.Choice.of(List.of("ox", "reduction"))
                .withEntry(new ChoiceId("reduction"), entry -> entry.withText("red")));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{'hue': 'pink'} | no hue “pink”",
        "{'colour': 'clay'} | not colour",
        "7 | object",
        "{'retired': true}, 'b' | says something of 2 choices where “enum” lists 1"
      })
  void whatIsSaidOfChoicesAndNotUnderstoodIsRefused(String detail, String says) {
    assertThatThrownBy(
            () ->
                type(
                    "{'name': 'fire', 'type': 'string', 'constraints': {'enum': ['ox']},"
                        + " 'joiner:more': {'choices': ["
                        + detail
                        + "]}}"))
        .isInstanceOf(UnreadableFileException.class)
        .hasMessageContaining(says);
  }
}
