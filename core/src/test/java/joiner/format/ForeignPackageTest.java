package joiner.format;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.random.RandomGenerator;
import java.util.stream.Collectors;
import joiner.Tries;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Packages as other programs write them, in every dialect the standard allows: a plain writer of
 * this test writes them from values it knows, so that reading is held against what was meant.
 */
class ForeignPackageTest {
  private static final TableId LOG = new TableId("log");

  @TempDir private Path folder;

  /** A dialect and the spelling of values, and the files they make of some rows. */
  private static final class Foreign {
    private final RandomGenerator random;
    private final String delimiter;
    private final char quote;
    private final Optional<Character> escape;
    private final boolean header;
    private final String line;
    private final String encoding;
    private final boolean mark;
    private final List<String> missing;
    private final List<String> truth;
    private final String decimal;
    private final String dateFormat;
    private final int files;
    private final List<List<String>> values = new ArrayList<>();

    Foreign(long seed) {
      random = new Random(seed);
      delimiter = pick(List.of(",", ";", "\t", "|"));
      quote = pick(List.of('"', '\''));
      escape = pick(List.of(Optional.empty(), Optional.empty(), Optional.of('\\')));
      header = random.nextInt(3) > 0;
      line = pick(List.of("\n", "\r\n"));
      encoding = pick(List.of("utf-8", "utf-16", "iso-8859-1", "windows-1252", "utf-8"));
      mark = encoding.equals("utf-8") && random.nextInt(4) == 0;
      missing = pick(List.of(List.of(""), List.of("", "-"), List.of("-"), List.of("n/a", "")));
      truth = pick(List.of(List.of("true", "false"), List.of("ja", "nein"), List.of("1", "0")));
      decimal = pick(List.of(".", ","));
      dateFormat = pick(List.of("default", "%d/%m/%Y", "%m-%d-%y", "%d.%m.%Y"));
      files = 1 + random.nextInt(2);
      for (int row = 0; row < 6; row++) {
        values.add(row(row));
      }
    }

    private List<String> row(int number) {
      String date = "20%02d-0%d-1%d".formatted(random.nextInt(30), 1 + random.nextInt(9), number);
      String note =
          pick(
              List.of(
                  "plain", "it's; \"odd\"", "a,b|c\td", "two\nlines", "ü é", "back\\slash", ""));
      return List.of(
          String.valueOf(number + 1),
          note,
          random.nextInt(4) == 0 ? "" : pick(List.of("12.5", "-0.25", "3")),
          pick(List.of("true", "false", "")),
          random.nextInt(5) == 0 ? "" : date);
    }

    private String spelled(int column, String value) {
      if (value.isEmpty()) {
        return missing.getFirst();
      }
      return switch (column) {
        case 2 -> value.replace(".", decimal);
        case 3 -> value.equals("true") ? truth.getFirst() : truth.getLast();
        case 4 -> date(value);
        default -> value;
      };
    }

    private String date(String iso) {
      String year = iso.substring(0, 4);
      return dateFormat
          .replace("default", iso)
          .replace("%d", iso.substring(8))
          .replace("%m", iso.substring(5, 7))
          .replace("%Y", year)
          .replace("%y", year.substring(2));
    }

    private String quoted(String cell) {
      String doubled = escape.map(e -> "" + e + quote).orElse("" + quote + quote);
      String inner =
          escape
              .map(e -> cell.replace("" + e, "" + e + e))
              .orElse(cell)
              .replace("" + quote, doubled);
      return quote + inner + quote;
    }

    private String text(List<List<String>> rows) {
      var lines = new ArrayList<String>();
      if (header) {
        lines.add(String.join(delimiter, List.of("no", "note", "price", "fired", "on")));
      }
      for (List<String> row : rows) {
        var cells = new ArrayList<String>();
        for (int i = 0; i < row.size(); i++) {
          cells.add(quoted(spelled(i, row.get(i))));
        }
        lines.add(String.join(delimiter, cells));
      }
      return (mark ? "\uFEFF" : "") + String.join(line, lines) + line;
    }

    void write(Path folder) throws IOException {
      Files.createDirectories(folder.resolve("parts"));
      var charset = Charset.forName(encoding);
      for (int i = 0; i < files; i++) {
        int from = i * values.size() / files;
        int to = (i + 1) * values.size() / files;
        Files.writeString(
            folder.resolve("parts/log" + i + ".csv"), text(values.subList(from, to)), charset);
      }
      Files.writeString(folder.resolve("other.csv"), "x\r\n\"1\"\r\n");
      Files.writeString(folder.resolve("datapackage.json"), descriptor());
    }

    private String descriptor() {
      String paths = files == 1 ? "\"parts/log0.csv\"" : "[\"parts/log0.csv\", \"parts/log1.csv\"]";
      String escaping =
          escape.map(e -> ", \"escapeChar\": \"\\\\\", \"doubleQuote\": false").orElse("");
      return """
          {"name": "kilns", "resources": [
            {"name": "log", "path": %s, "encoding": "%s",
             "dialect": {"delimiter": "%s", "quoteChar": "%s", "header": %s, "lineTerminator": "%s"%s},
             "schema": {"missingValues": [%s], "fields": [
               {"name": "no", "type": "integer"}, {"name": "note", "type": "string"},
               {"name": "price", "type": "number", "decimalChar": "%s"},
               {"name": "fired", "type": "boolean", "trueValues": ["%s"], "falseValues": ["%s"]},
               {"name": "on", "type": "date", "format": "%s"}]}},
            {"name": "other", "path": "other.csv", "schema": {"fields": [{"name": "x", "type": "string"}]}}]}
          """
          .formatted(
              paths,
              encoding,
              delimiter.replace("\t", "\\t"),
              quote == '"' ? "\\\"" : "'",
              header,
              line.replace("\r", "\\r").replace("\n", "\\n"),
              escaping,
              missing.stream().map(m -> "\"" + m + "\"").collect(Collectors.joining(", ")),
              decimal,
              truth.getFirst(),
              truth.getLast(),
              dateFormat);
    }

    private <T> T pick(List<T> list) {
      return list.get(random.nextInt(list.size()));
    }
  }

  private static void assertHolds(Draft draft, List<List<String>> values) {
    Rows rows = draft.rows().of(LOG);
    List<FieldId> fields = draft.design().table(LOG).fieldIds();
    assertThat(rows.count()).isEqualTo(values.size());
    for (int row = 0; row < values.size(); row++) {
      assertThat(rows.row(row, fields).stream().map(cell -> cell.orElse("")).toList())
          .as("row " + (row + 1))
          .isEqualTo(values.get(row));
    }
  }

  private interface Check {
    void of(Foreign foreign, Path at) throws Exception;
  }

  private void onEach(int cases, Check check) {
    Tries.of(cases)
        .forEach(
            seed -> {
              var foreign = new Foreign(seed);
              Path at = folder.resolve(Long.toHexString(seed));
              try {
                foreign.write(at);
                check.of(foreign, at);
              } catch (Exception | AssertionError e) {
                throw new AssertionError(foreign.descriptor() + "\n" + e.getMessage(), e);
              }
            });
  }

  @Test
  void everyDialectIsReadAsItWasMeant() {
    onEach(300, (foreign, at) -> assertHolds(DesignFolder.open(at).draft(), foreign.values));
  }

  @Test
  void whatIsSavedUnchangedTouchesNoFileOfRows() {
    onEach(
        100,
        (foreign, at) -> {
          byte[] before = Files.readAllBytes(at.resolve("parts/log0.csv"));
          byte[] other = Files.readAllBytes(at.resolve("other.csv"));
          DesignFolder.save(DesignFolder.open(at).draft(), at);
          assertThat(Files.readAllBytes(at.resolve("parts/log0.csv"))).isEqualTo(before);
          assertThat(Files.readAllBytes(at.resolve("other.csv"))).isEqualTo(other);
          assertHolds(DesignFolder.open(at).draft(), foreign.values);
        });
  }

  @Test
  void aChangedCellIsSavedInTheDialectOfThePackage() {
    onEach(
        300,
        (foreign, at) -> {
          try (var store = DesignStore.at(at)) {
            Draft draft = store.open().draft();
            FieldId date = new FieldId("on");
            Draft changed =
                draft.withRows(
                    draft.rows().with(LOG, r -> r.withCell(3, date, Optional.of("2019-11-30"))));
            store.save(changed);
          }
          var wanted = new ArrayList<>(foreign.values);
          wanted.set(3, new ArrayList<>(foreign.values.get(3)));
          wanted.get(3).set(4, "2019-11-30");
          assertHolds(DesignFolder.open(at).draft(), wanted);
          String saved = Files.readString(at.resolve("datapackage.json"));
          assertThat(saved).contains("\"dialect\"", "parts/log0.csv", foreign.encoding);
          assertThat(at.resolve("data")).doesNotExist();
        });
  }

  @Test
  void whatTheDialectCannotSayChangesDescriptorAndRowsTogether() {
    onEach(
        100,
        (foreign, at) -> {
          Draft draft = DesignFolder.open(at).draft();
          String beyond = foreign.encoding.startsWith("utf") ? "-" : "釉";
          boolean sayable = beyond.equals("-") && !foreign.missing.contains("-");
          Draft changed =
              draft.withRows(
                  draft
                      .rows()
                      .with(LOG, r -> r.withCell(0, new FieldId("note"), Optional.of(beyond))));
          DesignFolder.save(changed, at);
          Rows rows = DesignFolder.open(at).draft().rows().of(LOG);
          assertThat(rows.cell(0, new FieldId("note"))).contains(beyond);
          assertThat(rows).isEqualTo(changed.rows().of(LOG));
          assertThat(Files.exists(at.resolve("parts/log0.csv"))).isEqualTo(sayable);
        });
  }

  /** Twelve true lines of a file that says something else of itself, told in words. */
  @Test
  void cellsWithoutTheStatedFormStayAndAreTold() throws Exception {
    Files.writeString(folder.resolve("log.csv"), "on\n31/12/2025\n2026-01-05\nsoon\n");
    Files.writeString(
        folder.resolve("datapackage.json"),
        """
        {"resources": [{"name": "log", "path": "log.csv", "schema": {"fields": [
          {"name": "on", "type": "date", "format": "%d/%m/%Y"}]}}]}
        """);
    DesignFolder.Opened opened = DesignFolder.open(folder);
    Rows rows = opened.draft().rows().of(LOG);
    assertThat(rows.cell(0, new FieldId("on"))).contains("2025-12-31");
    assertThat(rows.cell(2, new FieldId("on"))).contains("soon");
    assertThat(opened.notices()).anyMatch(n -> n.contains("2 cells"));
  }

  @Test
  void rowsElsewhereAreNeitherReadNorOverwritten() throws Exception {
    byte[] sheet = "not really a sheet".getBytes(StandardCharsets.UTF_8);
    Files.write(folder.resolve("log.xlsx"), sheet);
    Files.writeString(
        folder.resolve("datapackage.json"),
        """
        {"resources": [{"name": "log", "path": "log.xlsx", "schema": {"fields": [{"name": "on"}]}},
          {"name": "far", "path": "https://example.org/far.csv", "schema": {"fields": [{"name": "x"}]}}]}
        """);
    DesignFolder.Opened opened = DesignFolder.open(folder);
    assertThat(opened.notices())
        .anyMatch(n -> n.contains("log.xlsx"))
        .anyMatch(n -> n.contains("far.csv"));
    DesignFolder.save(opened.draft(), folder);
    assertThat(Files.readAllBytes(folder.resolve("log.xlsx"))).isEqualTo(sheet);
    assertThat(Files.readString(folder.resolve("datapackage.json")))
        .contains("log.xlsx", "https://example.org/far.csv");
    Draft typed =
        opened
            .draft()
            .withRows(
                opened
                    .draft()
                    .rows()
                    .with(
                        new TableId("far"),
                        r -> r.withRow(java.util.Map.of(new FieldId("x"), "1"))));
    DesignFolder.save(typed, folder);
    assertThat(DesignFolder.open(folder).draft().rows()).isEqualTo(typed.rows());
  }
}
