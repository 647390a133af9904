package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.audit.Violation;
import joiner.expression.Formula;
import joiner.finding.DesignChecks;
import joiner.finding.Finding;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

/** Fields that cease to be entered, and come to be entered again. */
class WorkOutTest {
  private static final TableId KILN = new TableId("kiln");
  private static final FieldId NAME = new FieldId("name");

  private static Draft worked(String field, String formula) {
    Table kiln = Pottery.demo().design().table(KILN);
    return SetOrigin.by(kiln, kiln.field(new FieldId(field)), new Formula(formula))
        .apply(Pottery.demo());
  }

  private static List<String> found(Draft draft, String id) {
    return DesignChecks.run(draft).stream()
        .filter(finding -> finding.id().equals(id))
        .map(Finding::message)
        .toList();
  }

  @Test
  void whatWasEnteredGivesWayAndTheTypeFits() {
    Draft draft = worked("name", "'Kiln of ' || CAST(litres AS VARCHAR)");
    Field name = draft.design().table(KILN).field(NAME);
    assertThat(draft.rows().of(KILN).has(NAME)).isFalse();
    assertThat(name.type()).isEqualTo(new FieldType.Text(24)); // In which all that comes has room.
    assertThat(Audit.of(draft, Pottery.CLOCK).violations()).isEmpty();
  }

  @Test
  void whatWasWorkedOutStaysWhereItIsEnteredAgain() {
    Draft draft = worked("name", "'K' || CAST(litres AS VARCHAR)");
    Table kiln = draft.design().table(KILN);
    Draft again = SetOrigin.entered(kiln, kiln.field(NAME)).apply(draft);
    assertThat(again.design().table(KILN).field(NAME).origin()).isEqualTo(Origin.TYPED);
    Optional<String> litres = again.rows().of(KILN).cell(0, new FieldId("litres"));
    assertThat(again.rows().of(KILN).cell(0, NAME)).isEqualTo(litres.map(text -> "K" + text));
  }

  @Test
  void aValueThatComesAlongAndDiffersIsNamed() {
    Draft draft = worked("name", "'K' || CAST(litres AS VARCHAR)");
    Draft given =
        draft.withRows(draft.rows().with(KILN, r -> r.withCell(1, NAME, Optional.of("Big Tom"))));
    assertThat(Audit.of(given, Pottery.CLOCK).violations())
        .extracting(Violation::kind, Violation::rows)
        .containsExactly(org.assertj.core.groups.Tuple.tuple(Violation.Kind.COMPUTED, List.of(2)));
    assertThat(Audit.of(given, Pottery.CLOCK).violations().toList().getFirst().message())
        .contains("Big Tom", "worked out as “K");
  }

  @Test
  void aRowThatCannotBeWorkedOutIsNamed() {
    Draft divided = worked("hottest_c", "100 / (litres - litres)");
    assertThat(Audit.of(divided, Pottery.CLOCK).violations().map(Violation::message))
        .anyMatch(text -> text.contains("cannot be worked out: it divides by zero"));
  }

  @Test
  void keysAndReferencesAreNotWorkedOut() {
    Draft draft = worked("kiln_id", "litres");
    assertThat(found(draft, "computed-key")).hasSize(1);
    Table firing = draft.design().table(new TableId("firing"));
    Field kiln = firing.field(new FieldId("kiln_id"));
    assertThat(
            found(
                SetOrigin.by(firing, kiln, new Formula("1")).apply(Pottery.demo()),
                "computed-reference"))
        .hasSize(1);
  }

  @Test
  void aTypeThatCutsIsFoundAndMended() {
    Draft draft = worked("name", "'K' || CAST(litres AS VARCHAR)");
    Draft narrow =
        draft.withDesign(
            draft
                .design()
                .withTable(KILN, t -> t.withField(NAME, f -> f.withType(new FieldType.Text(3)))));
    Finding finding =
        DesignChecks.run(narrow).stream()
            .filter(f -> f.id().equals("computed-does-not-fit"))
            .findFirst()
            .orElseThrow();
    assertThat(finding.message()).contains("text of 3", "needs text of");
    Draft mended = finding.remedies().getFirst().edit().apply(narrow);
    assertThat(found(mended, "computed-does-not-fit")).isEmpty();
  }
}
