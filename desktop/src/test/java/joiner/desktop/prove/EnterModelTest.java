package joiner.desktop.prove;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.prove.EnterPicks.Pick;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.entry.Refusal;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.TableId;
import joiner.rows.RowId;
import joiner.rows.Rows;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Enter without a window: nothing typed is lost, all refusals are told, one save is one change. */
class EnterModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private EnterModel model;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder);
    model = new EnterModel(test.bench, Texts.beside(ProveView.class));
    model.look(true);
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private void choose(String table) {
    test.choose(table);
    model.refresh();
    test.window.until(() -> !found("").isEmpty());
  }

  private List<EnterFound.Row> found(String words) {
    model.found().words(words);
    return model.found().rows();
  }

  private Rows rows(String table) {
    return test.bench.draft().rows().of(new TableId(table));
  }

  private void type(String field, String text) {
    model.type(Map.of(new FieldId(field), text));
  }

  private List<String> refused() {
    test.window.until(() -> model.tried().isPresent());
    return model.refusals().stream().map(Refusal::message).toList();
  }

  private void refer(String over, String label) {
    Relationship by = test.bench.design().relationship(new RelationshipId(over));
    Pick to = model.picks().offers(by, true).of(label).getFirst().thing();
    assertThat(to).as(label).isInstanceOf(Pick.There.class);
    model.trips().pick(by, to, model::type);
  }

  private void firing() {
    choose("firing");
    model.open(Optional.empty());
    refer("fk_firing_kiln_id", "Big Tom");
    refer("fk_firing_loaded_by", "Mara");
    refer("fk_firing_cone_no", "6");
    type("started_at", "2026-03-13 18:05");
    type("ended_at", "2026-03-14 06:00");
    type("peak_c", "1222");
  }

  @Test
  void aRowIsTypedTriedAndSavedAsOneChange() {
    firing();
    assertThat(refused()).isEmpty();
    int before = rows("firing").count();
    model.save();
    assertThat(rows("firing").count()).isEqualTo(before + 1);
    assertThat(model.opened()).contains(rows("firing").id(before));
    assertThat(model.isUnsaved(model.opened())).isFalse();
    assertThat(rows("firing").cell(before, new FieldId("started_at")))
        .contains("2026-03-13T18:05:00");
    assertThat(rows("firing").cell(before, new FieldId("firing_id"))).contains("49");
    test.bench.undo();
    assertThat(rows("firing").count()).isEqualTo(before);
    model.refresh();
    assertThat(model.opened()).isEmpty();
  }

  @Test
  void refusalsStandAtTheirFields() {
    firing();
    type("ended_at", "2026-03-13 09:15");
    assertThat(refused()).containsExactly("A firing cannot end before it has started.");
    assertThat(model.refusals(List.of(new FieldId("ended_at")))).hasSize(1);
    assertThat(model.refusals(List.of(new FieldId("peak_c")))).isEmpty();
    type("ended_at", "2026-03-14 09:15");
    assertThat(refused()).isEmpty();
  }

  @Test
  void whatWasTypedStaysWhereverOneGoes() {
    firing();
    List<EnterFound.Row> rows = found("");
    Optional<RowId> third = Optional.of(rows.get(2).id());
    model.open(third);
    type("remark", "opened too early");
    choose("kiln");
    choose("firing");
    assertThat(model.opened()).isEqualTo(third);
    assertThat(model.text(new FieldId("remark"))).isEqualTo("opened too early");
    assertThat(model.isUnsaved(third)).isTrue();
    model.open(Optional.empty());
    assertThat(model.text(new FieldId("peak_c"))).isEqualTo("1222");
    model.forget();
    assertThat(model.isUnsaved(Optional.empty())).isFalse();
    model.open(third);
    type("remark", rows("firing").cell(rows.get(2).place(), new FieldId("remark")).orElse(""));
    assertThat(model.isUnsaved(third)).as("as it was").isFalse();
  }

  @Test
  void rowsBelowAreSavedWithTheirParentAndNeverMixed() {
    firing();
    Relationship pieces =
        test.bench.design().relationship(new RelationshipId("fk_incident_firing_id"));
    model.below().add(pieces);
    assertThat(refused()).isNotEmpty();
    assertThat(model.below().refusals(pieces)).allMatch(words -> words.startsWith("Row 1: "));
    model.below().type(pieces, 0, Map.of(new FieldId("severity"), "low"));
    model.below().type(pieces, 0, Map.of(new FieldId("noticed_on"), "14.3.2026"));
    assertThat(refused()).isEmpty();
    int incidents = rows("incident").count();
    int firings = rows("firing").count();
    model.save();
    assertThat(rows("incident").count()).isEqualTo(incidents + 1);
    assertThat(rows("incident").cell(incidents, new FieldId("firing_id"))).contains("49");
    assertThat(model.below().rows(pieces)).hasSize(1);
    model.open(Optional.of(rows("firing").id(0)));
    assertThat(model.below().rows(pieces))
        .noneMatch(row -> row.row().equals(Optional.of(rows("incident").id(incidents))));
    test.bench.undo();
    assertThat(rows("firing").count()).isEqualTo(firings);
    assertThat(rows("incident").count()).isEqualTo(incidents);
  }

  @Test
  void aRowThatIsThereCanBeOpenedOrPutOver() {
    choose("kiln");
    model.open(Optional.empty());
    type("kiln_id", "77");
    type("name", "Big Tom");
    type("litres", "99");
    type("fuel", "gas");
    type("hottest_c", "1300");
    refer("fk_kiln_fallback_id", "Little Ann");
    assertThat(refused()).anyMatch(words -> words.contains("“Big Tom” is taken"));
    RowId tom = rows("kiln").id(0);
    assertThat(model.same().existing()).contains(tom);
    model.overwrite(tom);
    assertThat(model.opened()).contains(tom);
    assertThat(model.text(new FieldId("litres"))).isEqualTo("99");
    assertThat(model.text(new FieldId("name"))).isEqualTo("Big Tom");
  }

  @Test
  void aRowIsKeptUnfinishedAndTheAuditSaysSo() {
    choose("kiln");
    model.open(Optional.empty());
    type("name", "Half a kiln");
    assertThat(refused()).isNotEmpty();
    model.save();
    assertThat(rows("kiln").cell(rows("kiln").count() - 1, new FieldId("name")))
        .contains("Half a kiln");
    test.untilChecked();
    assertThat(test.bench.verdict().audit().violations()).isNotEmpty();
  }

  @Test
  void aNewRowCanBeginLikeAnother() {
    choose("firing");
    model.open(Optional.of(rows("firing").id(0)));
    model.copy();
    assertThat(model.opened()).isEmpty();
    assertThat(model.text(new FieldId("peak_c")))
        .isEqualTo(rows("firing").cell(0, new FieldId("peak_c")).orElseThrow());
  }

  @Test
  void aRowToReferToIsEnteredOnTheWayAndOneComesBackWithIt() {
    firing();
    Relationship by = test.bench.design().relationship(new RelationshipId("fk_firing_kiln_id"));
    Pick fresh = model.picks().offers(by, true).of("Tall Bob").getLast().thing();
    assertThat(fresh).isEqualTo(new Pick.Fresh("Tall Bob"));
    model.trips().pick(by, fresh, model::type);
    assertThat(model.table().orElseThrow().name()).isEqualTo("kiln");
    assertThat(model.text(new FieldId("name"))).isEqualTo("Tall Bob");
    assertThat(model.trips().waitingFor().orElseThrow().name()).isEqualTo("firing");
    test.window.until(() -> !found("").isEmpty());
    type("kiln_id", "77");
    type("litres", "99");
    type("fuel", "gas");
    type("hottest_c", "1300");
    refer("fk_kiln_fallback_id", "Little Ann");
    assertThat(refused()).isEmpty();
    model.save();
    assertThat(model.table().orElseThrow().name()).isEqualTo("firing");
    assertThat(model.opened()).isEmpty();
    assertThat(model.text(new FieldId("kiln_id"))).isEqualTo("77");
    assertThat(model.text(new FieldId("peak_c"))).isEqualTo("1222");
    assertThat(model.trips().waitingFor()).isEmpty();
  }

  @Test
  void oneFieldOfAllRowsFoundIsChangedAfterItWasSeen() {
    choose("firing");
    List<EnterFound.Row> found = found("cone 06");
    assertThat(found).hasSizeBetween(2, model.count() - 1);
    model.changeAll(found, test.table("firing").field(new FieldId("remark")), "slow");
    test.untilProposed();
    assertThat(rows("firing").cell(0, new FieldId("remark"))).isNotEqualTo(Optional.of("slow"));
    test.bench.accept();
    long slow =
        java.util.stream.IntStream.range(0, rows("firing").count())
            .filter(
                row -> rows("firing").cell(row, new FieldId("remark")).equals(Optional.of("slow")))
            .count();
    assertThat(slow).isEqualTo(found.size());
    test.bench.undo();
    assertThat(rows("firing")).isEqualTo(Pottery.demo().rows().of(new TableId("firing")));
  }

  @Test
  void aReferenceOfSeveralFieldsIsOnePart() {
    choose("enrolment");
    assertThat(model.parts(test.table("enrolment")))
        .filteredOn(EnterPart.To.class::isInstance)
        .extracting(part -> ((EnterPart.To) part).parent().name())
        .containsExactly("member", "session");
    assertThat(found("throw")).hasSizeLessThan(model.count()).isNotEmpty();
    choose("kiln");
    assertThat(found("ELECTRIC")).as("by any text of a row").isNotEmpty();
  }

  @Test
  void aRowThatPeopleWouldCallTheSameIsToldThoughNoKeyForbidsIt() {
    choose("member");
    EnterFound.Row mara = found("Mara Osier").getFirst();
    type("given_name", " mara");
    assertThat(model.same().alike()).isEmpty();
    type("family_name", "OSIER");
    type("email", "other@saltmarsh.example");
    assertThat(model.same().alike()).hasValue(mara.id());
    assertThat(model.same().label(mara.id())).startsWith("Mara Osier");
    assertThat(model.same().differences(mara.id()))
        .extracting(difference -> difference.field().name())
        .contains("email");
    model.overwrite(mara.id());
    assertThat(model.opened()).hasValue(mara.id());
    assertThat(model.text(new FieldId("email"))).isEqualTo("other@saltmarsh.example");
    assertThat(model.same().alike()).as("it is the row itself").isEmpty();
  }

  @Test
  void whatWasTypedIsThereAgainWhenTheDesignIsOpenedTheNextTime() {
    firing();
    Relationship incidents =
        test.bench.design().relationship(new RelationshipId("fk_incident_firing_id"));
    model.below().add(incidents);
    model.open(Optional.of(found("").get(3).id()));
    type("remark", "half a thought");
    String label = found("").get(3).label();
    test.finish();

    var again = new EnterModel(test.bench, Texts.beside(ProveView.class));
    again.look(true);
    again.refresh();
    test.window.until(() -> again.isUnsaved(Optional.empty()));
    assertThat(again.entered().details()).containsKey(incidents.id());
    Optional<RowId> row = Optional.of(found("").get(3).id());
    assertThat(again.isUnsaved(row)).as(label).isTrue();
    again.open(row);
    assertThat(again.text(new FieldId("remark"))).isEqualTo("half a thought");
    again.forget();
    again.open(Optional.empty());
    again.forget();
    test.finish();

    var third = new EnterModel(test.bench, Texts.beside(ProveView.class));
    third.refresh();
    test.finish();
    assertThat(third.isUnsaved(row)).isFalse();
    assertThat(third.isUnsaved(Optional.empty())).isFalse();
  }

  @Test
  void aRowBelowIsOpenedAndOneComesBackUp() {
    choose("course");
    EnterFound.Row course = found("Raku").getFirst();
    model.open(Optional.of(course.id()));
    Relationship sessions =
        model.below().all().stream()
            .filter(r -> r.child().equals(new TableId("session")))
            .findFirst()
            .orElseThrow();
    RowId session = model.below().rows(sessions).getFirst().row().orElseThrow();
    assertThat(model.trips().above()).isEmpty();
    model.trips().openBelow(sessions.child(), session);
    model.refresh();
    assertThat(model.table().orElseThrow().name()).isEqualTo("session");
    assertThat(model.opened()).hasValue(session);
    assertThat(model.trips().above()).hasValue(course.label());
    Relationship enrolments = model.below().all().getFirst();
    RowId enrolment = model.below().rows(enrolments).getFirst().row().orElseThrow();
    model.trips().openBelow(enrolments.child(), enrolment);
    model.refresh();
    assertThat(model.opened()).hasValue(enrolment);
    model.trips().up();
    assertThat(model.opened()).hasValue(session);
    model.trips().up();
    assertThat(model.table().orElseThrow().name()).isEqualTo("course");
    assertThat(model.opened()).hasValue(course.id());
    assertThat(model.trips().above()).isEmpty();
    model.trips().up();
    assertThat(model.opened()).as("there is nothing above").hasValue(course.id());
  }
}
