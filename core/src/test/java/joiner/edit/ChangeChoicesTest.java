package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.ddl.RowsChoice;
import joiner.ddl.SchemaScript;
import joiner.engine.Dialects;
import joiner.meaning.Draft;
import joiner.meaning.TableInWords;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType.Choice;
import joiner.model.Hue;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

class ChangeChoicesTest {
  private static final Draft DEMO = Pottery.demo();
  private static final TableId GLAZE = new TableId("glaze");
  private static final FieldId SURFACE = new FieldId("surface");

  private static Field surface(Draft draft) {
    return draft.design().table(GLAZE).field(SURFACE);
  }

  private static Choice choices(Draft draft) {
    return (Choice) surface(draft).type();
  }

  private static Choice.Entry entry(Draft draft, String text) {
    return choices(draft).find(text).orElseThrow();
  }

  private static Draft retired(String text) {
    return ChangeChoices.retired(DEMO.design().table(GLAZE), surface(DEMO), entry(DEMO, text), true)
        .apply(DEMO);
  }

  @Test
  void aRetiredChoiceStaysValidInRowsAndEnginesAndIsOfferedNoMore() {
    Draft draft = retired("matt");
    assertThat(choices(draft).offered()).containsExactly("gloss", "satin");
    assertThat(choices(draft).values()).containsExactly("gloss", "satin", "matt");
    assertThat(Audit.of(draft, Pottery.CLOCK).violations()).isEmpty();
    var postgresql = Dialects.named("postgresql").orElseThrow();
    assertThat(SchemaScript.of(draft, postgresql, RowsChoice.ALL).text("t"))
        .isEqualTo(SchemaScript.of(DEMO, postgresql, RowsChoice.ALL).text("t"));
    assertThat(TableInWords.of(draft, GLAZE).text())
        .contains("Surface must be gloss or satin, or in old rows matt.");
    Table glaze = draft.design().table(GLAZE);
    Draft restored =
        ChangeChoices.retired(glaze, surface(draft), entry(draft, "matt"), false).apply(draft);
    assertThat(restored.design()).isEqualTo(DEMO.design());
  }

  @Test
  void whatIsSaidOfChoicesStaysWhenTheyAreListedAnew() {
    Table glaze = DEMO.design().table(GLAZE);
    Draft said =
        new Several(
                "say",
                List.of(
                    ChangeChoices.described(glaze, surface(DEMO), entry(DEMO, "satin"), "a sheen"),
                    ChangeChoices.marked(
                        glaze, surface(DEMO), entry(DEMO, "matt"), Optional.of(Hue.CLAY)),
                    ChangeChoices.growing(glaze, surface(DEMO), true)))
            .apply(DEMO);
    Draft listed =
        ChangeField.type(
                said.design().table(GLAZE),
                surface(said),
                Choice.of(List.of("matt", "satin", "raw", "gloss")))
            .apply(said);
    assertThat(choices(listed).values()).containsExactly("matt", "satin", "raw", "gloss");
    assertThat(entry(listed, "satin").description()).isEqualTo("a sheen");
    assertThat(entry(listed, "matt").hue()).contains(Hue.CLAY);
    assertThat(choices(listed).grows()).isTrue();
  }

  @Test
  void aNewChoiceIsALineOfItsOwn() {
    Table glaze = DEMO.design().table(GLAZE);
    assertThat(choices(ChangeChoices.added(glaze, surface(DEMO), "raw").apply(DEMO)).values())
        .endsWith("raw");
    for (String bad : List.of("gloss", " ", "a\nb")) {
      assertThatThrownBy(() -> ChangeChoices.added(glaze, surface(DEMO), bad).apply(DEMO))
          .isInstanceOf(EditRefusedException.class);
    }
    Field name = glaze.field(new FieldId("name"));
    assertThatThrownBy(() -> ChangeChoices.added(glaze, name, "raw").apply(DEMO))
        .hasMessageContaining("has no fixed choices");
  }

  @Test
  void retirementOrderAndMeaningsGoIntoTheTableOfChoices() {
    Draft draft = retired("gloss");
    Draft described =
        ChangeChoices.described(
                draft.design().table(GLAZE), surface(draft), entry(draft, "satin"), "a sheen")
            .apply(draft);
    Draft apart = new ChoicesToLookup(GLAZE, SURFACE, "Surface").apply(described);
    Table list = apart.design().table(new TableId("surface"));
    assertThat(list.labelsOf(list.fieldIds()))
        .containsExactly("Name", "Description", "Place", "Retired");
    assertThat(list.kind())
        .isEqualTo(
            new TableKind.Lookup(
                Optional.of(new FieldId("place")), Optional.of(new FieldId("retired"))));
    assertThat(apart.rows().of(list.id()).row(1, list.fieldIds()))
        .containsExactly(
            Optional.of("satin"), Optional.of("a sheen"), Optional.of("2"), Optional.of("false"));
    assertThat(apart.rows().of(list.id()).row(0, list.fieldIds()))
        .containsExactly(
            Optional.of("gloss"), Optional.of("shines"), Optional.of("1"), Optional.of("true"));
  }

  @Test
  void aRowHasSeveralChoicesInATableOfTheirOwn() {
    TableId glaze = GLAZE;
    Rows rows = DEMO.rows().of(glaze);
    Draft listed =
        DEMO.withRows(
            DEMO.rows()
                .with(
                    glaze,
                    r ->
                        r.withCell(0, SURFACE, Optional.of("gloss; satin ;gloss"))
                            .withCell(1, SURFACE, Optional.of("gloss, else"))));
    Draft apart = new SeveralValues(glaze, SURFACE, "Glaze surface").apply(listed);
    Table own = apart.design().table(new TableId("glaze_surface"));
    assertThat(own.namesOf(own.primaryKey())).containsExactly("glaze_id", "surface");
    Rows each = apart.rows().of(own.id());
    List<List<Optional<String>>> first =
        IntStream.range(0, 3).mapToObj(row -> each.row(row, own.fieldIds())).toList();
    String one = rows.cell(0, new FieldId("glaze_id")).orElseThrow();
    String two = rows.cell(1, new FieldId("glaze_id")).orElseThrow();
    assertThat(first)
        .containsExactly(
            List.of(Optional.of(one), Optional.of("gloss")),
            List.of(Optional.of(one), Optional.of("satin")),
            List.of(Optional.of(two), Optional.of("gloss, else")));
    assertThat(each.count()).isEqualTo(rows.count() + 1);
    Relationship tie = apart.design().parentsOf(own.id()).getFirst();
    assertThat(tie.parent()).isEqualTo(glaze);
    assertThat(Audit.of(apart, Pottery.CLOCK).violations()).hasSize(1); // "gloss, else" as before
  }
}
