package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.model.FieldId;
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
}
