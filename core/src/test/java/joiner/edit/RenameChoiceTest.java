package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.compare.Comparison;
import joiner.compare.Effect;
import joiner.compare.Risk;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.ChoiceId;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.FieldType.Choice;
import joiner.model.Noun;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;

/** A choice is the same one whatever it is called. */
class RenameChoiceTest {
  private static final Field SURFACE =
      Field.of("surface", "Surface", Choice.of(List.of("gloss", "satin", "matt")))
          .withDefault(Optional.of(new Formula("'gloss'")));
  private static final Field NOTE = Field.of("note", "Note", new FieldType.Text(20));
  private static final Table GLAZE =
      Table.of("glaze", "Glaze", new Noun("glaze", "glazes"))
          .withFields(List.of(SURFACE, NOTE))
          .withRowLabel(Optional.of(new Formula("CASE surface WHEN 'gloss' THEN 'G' ELSE 'M' END")))
          .withRules(
              List.of(
                  new Rule("r1", "One", "surface <> 'gloss' OR note = 'gloss'", ""),
                  new Rule(
                      "r2", "Two", "'gloss'  =  Surface or SURFACE IN ('matt', 'gloss')", "")));
  private static final Draft DRAFT =
      new Draft(
          Design.empty("d", "D").withTableAdded(GLAZE),
          new SampleRows(
              Map.of(
                  GLAZE.id(),
                  Pottery.rows(GLAZE, List.of(List.of("gloss", "gloss"), List.of("matt", ""))))));

  private static Draft renamed(String before, String after) {
    return new RenameChoice(GLAZE.id(), SURFACE.id(), new ChoiceId(before), before, after)
        .apply(DRAFT);
  }

  private static Table glaze(Draft draft) {
    return draft.design().table(GLAZE.id());
  }

  private static Choice choices(Draft draft) {
    return (Choice) glaze(draft).field(SURFACE.id()).type();
  }

  @Test
  void rowsDefaultRulesAndLabelGoAlongAndNothingElse() {
    Draft after = renamed("gloss", "it's shiny");
    assertThat(choices(after).values()).containsExactly("it's shiny", "satin", "matt");
    assertThat(choices(after).entries().getFirst().id()).isEqualTo(new ChoiceId("gloss"));
    assertThat(after.rows().of(GLAZE.id()).row(0, GLAZE.fieldIds()))
        .containsExactly(Optional.of("it's shiny"), Optional.of("gloss"));
    assertThat(glaze(after).field(SURFACE.id()).defaultValue())
        .contains(new Formula("'it''s shiny'"));
    assertThat(glaze(after).rules())
        .extracting(rule -> rule.condition().orElseThrow().text())
        .containsExactly(
            "surface <> 'it''s shiny' OR note = 'gloss'",
            "'it''s shiny'  =  Surface or SURFACE IN ('matt', 'it''s shiny')");
    assertThat(glaze(after).rowLabel().map(Formula::text))
        .contains("CASE surface WHEN 'it''s shiny' THEN 'G' ELSE 'M' END");
    assertThat(Audit.of(after, Pottery.CLOCK).violations()).isEmpty();
  }

  @Test
  void whatIsThereAlreadyOrNoTextIsRefused() {
    assertThatThrownBy(() -> renamed("gloss", "matt")).hasMessageContaining("already");
    assertThatThrownBy(() -> renamed("gloss", " ")).hasMessageContaining("one line");
    assertThatThrownBy(
            () ->
                new RenameChoice(GLAZE.id(), NOTE.id(), new ChoiceId("gloss"), "gloss", "x")
                    .apply(DRAFT))
        .hasMessage("Note has no fixed choices.");
    assertThat(renamed("gloss", "gloss").design()).isEqualTo(DRAFT.design());
  }

  @Test
  void itIsToldAsTheSameChoiceUnderAnotherName() {
    assertThat(Comparison.between(DRAFT, renamed("gloss", "shiny")))
        .extracting(Effect::message)
        .contains("Glaze · Surface calls gloss now shiny.");
  }

  @Test
  void anotherListKeepsThoseThatStay() {
    Draft one = renamed("gloss", "shiny");
    Draft other =
        ChangeField.type(
                glaze(one),
                glaze(one).field(SURFACE.id()),
                Choice.of(List.of("gloss", "matt", "shiny")))
            .apply(one);
    assertThat(choices(other).entries())
        .extracting(entry -> entry.id().value(), Choice.Entry::text)
        .containsExactly(tuple("gloss_2", "gloss"), tuple("matt", "matt"), tuple("gloss", "shiny"));
    assertThat(Comparison.between(one, other))
        .extracting(Effect::risk, Effect::message)
        .containsExactly(
            tuple(Risk.ADDS, "Glaze · Surface may be gloss."),
            tuple(Risk.REFUSES, "Glaze · Surface may not be satin."),
            tuple(Risk.NONE, "Glaze · Surface lists its choices in another order."));
  }

  @Test
  void ofAStrangersDesignThoseOfOneTextAreTheSame() {
    Draft one = renamed("gloss", "shiny");
    Table strange =
        glaze(one).withField(SURFACE.id(), f -> f.withType(Choice.of(choices(one).values())));
    Draft other = one.withDesign(one.design().withTable(GLAZE.id(), t -> strange));
    assertThat(Comparison.between(one, other)).isEmpty();
  }

  @Test
  void aChoiceOfNoTextIsNotTakenForOneThatIsKnownByItsId() {
    var known = new Choice(List.of(entry("blank", ""), entry("a", "a")));
    var found = new Choice(List.of(entry("a", "b"), entry("n", "")));
    assertThat(found.known(known).entries()).containsExactly(entry("a", "b"), entry("blank", ""));
  }

  private static Choice.Entry entry(String id, String text) {
    return new Choice.Entry(new ChoiceId(id), text);
  }
}
