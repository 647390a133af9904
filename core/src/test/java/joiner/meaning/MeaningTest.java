package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Reference;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;

/** Formulas are bound once for each table that stays the same, and follow new names. */
class MeaningTest {
  private static final Field HEAT = Field.of("heat", "Heat", new FieldType.Decimal(6, 2));
  private static final Field PEAK = Field.of("peak", "Peak", new FieldType.Decimal(6, 2));

  private static Table table(String name) {
    return Table.of(name, "Kiln", new Noun("kiln", "kilns"))
        .withFields(List.of(HEAT, PEAK))
        .withRules(List.of(new Rule("r", "R", "peak >= heat", "")))
        .withRowLabel(Optional.of(new Formula("CAST(Heat AS VARCHAR)")));
  }

  private static final Draft DRAFT =
      new Draft(
          Design.empty("d", "D").withTableAdded(table("kiln")).withTableAdded(table("wheel")),
          SampleRows.NONE);

  private static Table named(Draft draft, String name) {
    return draft.design().tableNamed(name).orElseThrow();
  }

  @Test
  void anotherDraftTakesOverWhatIsKnownOfTheSameTables() {
    Meaning before = DRAFT.meaning();
    TableMeaning kiln = before.of(named(DRAFT, "kiln"));
    TableMeaning wheel = before.of(named(DRAFT, "wheel"));
    assertThat(before.of(named(DRAFT, "kiln"))).isSameAs(kiln);
    Draft after =
        DRAFT.withDesign(
            DRAFT.design().withTable(wheel.table().id(), t -> t.withDescription("Changed")));
    assertThat(after.meaning().of(named(after, "kiln"))).isSameAs(kiln);
    assertThat(after.meaning().of(named(after, "wheel"))).isNotSameAs(wheel);
    assertThat(after.meaning().of(named(after, "wheel")).table().description())
        .isEqualTo("Changed");
    Draft unasked = DRAFT.withDesign(DRAFT.design().withTitle("T")).withRows(SampleRows.NONE);
    assertThat(unasked.meaning().of(named(unasked, "kiln")))
        .as("also over a draft that nobody asked")
        .isSameAs(kiln);
    assertThatThrownBy(() -> before.of(new joiner.model.TableId("nowhere")))
        .hasMessageContaining("nowhere");
  }

  @Test
  void formulasAreBoundToFieldsWhateverTheirCase() {
    TableMeaning meaning = TableMeaning.of(table("kiln"));
    assertThat(meaning.rowLabel().orElseThrow())
        .isInstanceOfSatisfying(
            Checked.Sound.class,
            sound -> {
              assertThat(TableMeaning.fieldsOf(sound)).containsExactly(HEAT.id());
              assertThat(sound.reads()).extracting(Reference::name).containsExactly("heat");
            });
    assertThat(meaning.scope().find("HEAT")).isEqualTo(meaning.scope().find("heat"));
    assertThat(meaning.scope().find("nowhere")).isEmpty();
    assertThat(meaning.scope().names()).containsExactly("heat", "peak");
    assertThat(meaning.scope().label()).isEqualTo("Kiln");
  }

  @Test
  void ofTwoNamesThatDifferByCaseTheOneWrittenSoIsMeant() {
    Field upper = Field.of("HEAT", "Loud", new FieldType.Date());
    TableMeaning meaning = TableMeaning.of(table("kiln").withFields(List.of(HEAT, PEAK, upper)));
    assertThat(meaning.scope().find("HEAT").orElseThrow().type().kind())
        .isEqualTo(joiner.expression.Kind.DATE);
    assertThat(meaning.scope().find("Heat").orElseThrow().name()).isEqualTo("heat");
  }

  @Test
  void namesThatChangePlacesAreCarriedIntoEveryFormula() {
    Table before = table("kiln");
    Table after =
        before
            .withField(HEAT.id(), f -> f.withName("x"))
            .withField(PEAK.id(), f -> f.withName("heat"))
            .withField(HEAT.id(), f -> f.withName("peak"));
    Table carried = carried(before, after);
    assertThat(carried.rules().getFirst().condition().orElseThrow().text())
        .isEqualTo("heat >= peak");
    assertThat(carried.rowLabel().orElseThrow().text()).isEqualTo("CAST(peak AS VARCHAR)");
    Table without = carried(before, before.withoutField(HEAT.id()));
    assertThat(without.rules().getFirst().condition().orElseThrow().text())
        .as("what reads a field that is gone stays as typed")
        .isEqualTo("peak >= heat");
  }

  private static Table carried(Table before, Table after) {
    Design design = Design.empty("d", "D").withTableAdded(before);
    return Renaming.carry(design, design.withTable(before.id(), t -> after)).table(before.id());
  }

  @Test
  void defaultsNameNoFieldAndOneThatCannotBeReadIsKept() {
    Table table =
        table("kiln")
            .withField(HEAT.id(), f -> f.withDefault(Optional.of(new Formula("peak + 1"))))
            .withField(PEAK.id(), f -> f.withDefault(Optional.of(new Formula("1 + 1"))));
    TableMeaning meaning = TableMeaning.of(table);
    assertThat(meaning.defaultOf(HEAT.id()).orElseThrow()).isInstanceOf(Checked.Faulty.class);
    assertThat(meaning.defaultOf(PEAK.id()).orElseThrow()).isInstanceOf(Checked.Sound.class);
    assertThat(TableMeaning.of(table("kiln")).defaultOf(HEAT.id())).isEmpty();
  }

  @Test
  void aFormulaIsItsText() {
    assertThat(new Formula("a > 1")).isEqualTo(new Formula("a > 1")).hasToString("a > 1");
    assertThat(new Formula("a > 1")).isNotEqualTo(new Formula("a  > 1"));
    assertThat(Formula.unlessBlank("  ")).isEmpty();
    assertThat(Formula.unlessBlank(" a ")).contains(new Formula("a"));
    assertThat(new Formula(" ").isBlank()).isTrue();
    assertThat(Formula.naming("two words").text()).isEqualTo("\"two words\"");
  }
}
