package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.edit.AddField;
import joiner.edit.ChangeField;
import joiner.edit.ChangeRows;
import joiner.engine.Dialects;
import joiner.format.DesignFolder;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Secrets stand nowhere: the tests look for the one they put in. */
class SecretsTest {
  private static final TableId KILN = new TableId("kiln");
  private static final FieldId CODE = new FieldId("door_code");
  private static final String TOLD = "brandofen-4711";

  @TempDir private Path folder;

  private static Draft withCode(FieldType type) {
    Field code = Field.of("door_code", "Door code", type);
    return new AddField(KILN, code).apply(Pottery.demo());
  }

  private static Draft typed(Draft draft) {
    Table kiln = draft.design().table(KILN);
    return ChangeRows.cell(kiln, draft.rows().of(KILN), 1, kiln.field(CODE), Optional.of(TOLD))
        .apply(draft);
  }

  private static boolean holds(Rows rows) {
    return IntStream.range(0, rows.count()).anyMatch(row -> rows.cell(row, CODE).isPresent());
  }

  @Test
  void noRowEverHoldsOne() {
    assertThat(holds(typed(withCode(new FieldType.Secret(100))).rows().of(KILN))).isFalse();
    Draft text = typed(withCode(new FieldType.Text(30)));
    assertThat(holds(text.rows().of(KILN))).isTrue();
    Table kiln = text.design().table(KILN);
    Draft secret = ChangeField.type(kiln, kiln.field(CODE), new FieldType.Secret(100)).apply(text);
    assertThat(holds(secret.rows().of(KILN))).isFalse();
    assertThat(secret.rows().of(KILN).count()).isEqualTo(Pottery.demo().rows().of(KILN).count());
  }

  @Test
  void aFileThatHoldsOneIsToldAndTheNextSaveLeavesItOut() throws Exception {
    Draft text = typed(withCode(new FieldType.Text(30)));
    DesignFolder.save(text, folder);
    Path descriptor = folder.resolve("datapackage.json");
    String before = Files.readString(descriptor);
    String secret =
        before.replaceFirst(
            "(\"door_code\".*?\"maxLength\": 30\\})",
            "$1, \"joiner:more\": {\"type\": \"secret\"}");
    assertThat(secret).isNotEqualTo(before);
    Files.writeString(descriptor, secret);
    DesignFolder.Opened opened = DesignFolder.open(folder);
    assertThat(opened.notices()).anyMatch(notice -> notice.contains("Door code of Kiln is secret"));
    assertThat(opened.draft().design().table(KILN).field(CODE).type())
        .isEqualTo(new FieldType.Secret(30));
    assertThat(holds(opened.draft().rows().of(KILN))).isFalse();
    DesignFolder.save(opened.draft(), folder);
    try (Stream<Path> files = Files.walk(folder)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        assertThat(Files.readString(file)).as("%s", file).doesNotContain(TOLD);
      }
    }
  }

  @Test
  void aRequiredOneIsNoFaultOfSampleRowsAndIsLockedWhereTheyAreShipped() {
    Draft draft = typed(withCode(new FieldType.Secret(100)));
    Table kiln = draft.design().table(KILN);
    Draft required = ChangeField.required(kiln, kiln.field(CODE), true).apply(draft);
    assertThat(Audit.of(required, Pottery.CLOCK).violations()).isEmpty();
    for (String engine : List.of("postgresql", "mariadb", "sqlite", "h2", "oracle")) {
      var dialect = Dialects.named(engine).orElseThrow();
      SchemaScript script = SchemaScript.of(required, dialect, RowsChoice.ALL);
      assertThat(script.text("t")).as(engine).doesNotContain(TOLD).contains("'!'");
      assertThat(script.shortfalls())
          .as(engine)
          .anyMatch(s -> s.subject().equals("the secrets in Door code of Kiln"));
      assertThat(SchemaScript.of(draft, dialect, RowsChoice.ALL).text("t"))
          .as(engine)
          .doesNotContain("'!'");
    }
  }
}
