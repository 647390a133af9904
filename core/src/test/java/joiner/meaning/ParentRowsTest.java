package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import joiner.Pottery;
import joiner.edit.ChangeField;
import joiner.edit.ChangeRelationship;
import joiner.edit.RemoveField;
import joiner.expression.Formula;
import joiner.finding.DesignChecks;
import joiner.finding.Finding;
import joiner.model.FieldId;
import joiner.model.Picking;
import joiner.model.Relationship;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

class ParentRowsTest {
  private static final Draft DEMO = Pottery.demo();

  private static ParentRows of(Draft draft, String table, String field) {
    return ParentRows.of(
        draft,
        ParentRows.reference(draft, new TableId(table), new FieldId(field)).orElseThrow(),
        Pottery.CLOCK);
  }

  @Test
  void aCellIsReadAsTheRowItRefersTo() {
    ParentRows kilns = of(DEMO, "firing", "kiln_id");
    assertThat(kilns.find("2").map(ParentRows.Parent::label)).isNotEmpty();
    assertThat(kilns.find("+2")).isEqualTo(kilns.find("2"));
    assertThat(kilns.find("4711")).isEmpty();
    assertThat(kilns.find("no number")).isEmpty();
  }

  @Test
  void theVeryKeyComesBeforeLabelsThatHoldIt() {
    ParentRows cones = of(DEMO, "firing", "cone_no");
    assertThat(cones.meantBy("6", 20)).first().extracting(ParentRows.Parent::key).isEqualTo("6");
    assertThat(cones.meantBy("", 3)).hasSize(3);
  }

  @Test
  void labelsThatBeginWithWhatIsTypedComeFirst() {
    ParentRows members = of(DEMO, "firing", "loaded_by");
    String someLabel = members.meantBy("", 1).getFirst().label();
    assertThat(members.meantBy(someLabel.substring(0, 3).toUpperCase(), 5))
        .first()
        .extracting(p -> p.label().substring(0, 3))
        .isEqualTo(someLabel.substring(0, 3));
  }

  @Test
  void retiredRowsAreOfferedOnlyToThoseWhoTypeThem() {
    TableId plan = new TableId("membership_plan");
    FieldId retired = new FieldId("retired");
    int count = DEMO.rows().of(plan).count();
    Draft allRetired =
        DEMO.with(
            DEMO.design(),
            DEMO.rows()
                .with(
                    plan,
                    rows ->
                        rows.withColumn(
                            retired, java.util.Collections.nCopies(count, Optional.of("true")))));
    ParentRows plans = of(allRetired, "member", "plan_code");
    assertThat(plans.meantBy("", 10)).isEmpty();
    String label = of(DEMO, "member", "plan_code").meantBy("", 1).getFirst().label();
    assertThat(plans.meantBy(label, 10)).extracting(ParentRows.Parent::label).contains(label);
    assertThat(plans.count()).isEqualTo(count);
  }

  @Test
  void onlyAFieldThatRefersAloneHasRowsToPickFrom() {
    assertThat(ParentRows.reference(DEMO, new TableId("enrolment"), new FieldId("session_no")))
        .isEmpty();
    assertThat(List.of("member_id"))
        .allSatisfy(
            field ->
                assertThat(ParentRows.reference(DEMO, new TableId("enrolment"), new FieldId(field)))
                    .isPresent());
  }

  private static Draft picking(String table, String field, UnaryOperator<Picking> change) {
    Relationship r =
        ParentRows.reference(DEMO, new TableId(table), new FieldId(field)).orElseThrow();
    return ChangeRelationship.picking(r, change.apply(r.picking())).apply(DEMO);
  }

  private static List<String> labels(List<ParentRows.Parent> parents) {
    return parents.stream().map(ParentRows.Parent::label).toList();
  }

  @Test
  void rowsAreOfferedInTheOrderAskedForWithWhatIsToBeShown() {
    Draft draft =
        picking(
            "firing",
            "kiln_id",
            p ->
                p.withOrder(List.of(new FieldId("litres")))
                    .withShown(List.of(new FieldId("litres"))));
    ParentRows kilns = of(draft, "firing", "kiln_id");
    List<Integer> litres =
        kilns.all().stream()
            .map(kiln -> Integer.valueOf(kiln.shown().getFirst().replaceAll("\\D", "")))
            .toList();
    assertThat(litres).isSorted().doesNotHaveDuplicates().hasSize(4);
    assertThat(litres).isNotEqualTo(litres.reversed());
    assertThat(labels(kilns.meantBy(String.valueOf(litres.getLast()), 9)))
        .containsExactly(kilns.all().getLast().label());
  }

  @Test
  void onlyRowsThatMeetTheConditionAreOfferedAndTheOthersFoundByTyping() {
    Draft draft =
        picking("firing", "kiln_id", p -> p.withOnly(Optional.of(new Formula("litres > 100"))));
    ParentRows kilns = of(draft, "firing", "kiln_id");
    assertThat(labels(kilns.meantBy("", 9))).hasSize(2).doesNotContain("The Bin");
    assertThat(labels(kilns.meantBy("the b", 9))).containsExactly("The Bin");
    assertThat(kilns.count()).isEqualTo(4);
    Draft faulty =
        picking("firing", "kiln_id", p -> p.withOnly(Optional.of(new Formula("litres >"))));
    assertThat(of(faulty, "firing", "kiln_id").meantBy("", 9)).hasSize(4);
  }

  @Test
  void aConditionIsCarriedWhenWhatItReadsIsCalledOtherwise() {
    Draft draft =
        picking(
            "firing",
            "kiln_id",
            p ->
                p.withOnly(Optional.of(new Formula("litres > 100")))
                    .withShown(List.of(new FieldId("litres"), new FieldId("name"))));
    var kiln = draft.design().table(new TableId("kiln"));
    Draft renamed =
        ChangeField.rename(kiln, kiln.field(new FieldId("litres")), "Room", "room").apply(draft);
    assertThat(picking(renamed).only()).contains(new Formula("room > 100"));
    Draft without = new RemoveField(kiln.id(), new FieldId("litres"), "Room").apply(renamed);
    assertThat(picking(without).shown()).containsExactly(new FieldId("name"));
    assertThat(DesignChecks.run(without)).extracting(Finding::id).contains("lookup-condition");
  }

  private static Picking picking(Draft draft) {
    return ParentRows.reference(draft, new TableId("firing"), new FieldId("kiln_id"))
        .orElseThrow()
        .picking();
  }

  @Test
  void aRowThatIsReferredToBySeveralFieldsIsReadInTheLastOfThem() {
    TableId enrolment = new TableId("enrolment");
    Relationship session =
        ParentRows.readIn(DEMO, enrolment, new FieldId("session_no")).orElseThrow();
    assertThat(session.childFields()).hasSize(2);
    assertThat(ParentRows.readIn(DEMO, enrolment, new FieldId("paid_amount"))).isEmpty();
    ParentRows sessions = ParentRows.of(DEMO, session, Pottery.CLOCK);
    assertThat(sessions.isOfOneField()).isFalse();
    ParentRows.Parent first = sessions.find(DEMO.rows().of(enrolment), 0).orElseThrow();
    assertThat(first.cells())
        .isEqualTo(
            DEMO.rows().of(enrolment).row(0, session.childFields()).stream()
                .map(Optional::orElseThrow)
                .toList());
    assertThat(first.label()).isEqualTo(String.join(" ", first.cells()));
    assertThat(sessions.find("1")).isEmpty();
    Draft empty =
        DEMO.withRows(
            DEMO.rows()
                .with(enrolment, r -> r.withCell(0, new FieldId("session_no"), Optional.empty())));
    assertThat(sessions.find(empty.rows().of(enrolment), 0)).isEmpty();
  }
}
