package joiner.entry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.audit.AuditReport;
import joiner.audit.Violation;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** What breaks the design is put right by ways that change only what is broken. */
class MendsTest {
  private final Draft demo = Pottery.demo();

  private Draft broken(String table, int row, String field, String text) {
    return demo.withRows(
        demo.rows()
            .with(
                new TableId(table),
                rows ->
                    rows.withCell(
                        row, new FieldId(field), Optional.of(text).filter(t -> !t.isEmpty()))));
  }

  private static List<Violation> violations(Draft draft) {
    AuditReport report = Audit.of(draft, Pottery.CLOCK);
    return report.violations().toList();
  }

  private static Violation only(Draft draft, Violation.Kind kind) {
    return violations(draft).stream().filter(v -> v.kind() == kind).findFirst().orElseThrow();
  }

  private static List<Mends.Mend> mends(Draft draft, Violation violation) {
    return Mends.of(draft, violation, violation.rows(), Pottery.CLOCK);
  }

  private static List<String> words(List<Mends.Mend> mends) {
    return mends.stream().map(Mends.Mend::words).toList();
  }

  private static Draft first(Draft draft, List<Mends.Mend> mends, String beginning) {
    return mends.stream()
        .filter(mend -> mend.words().startsWith(beginning))
        .findFirst()
        .orElseThrow(() -> new AssertionError(words(mends).toString()))
        .edit()
        .apply(draft);
  }

  @Test
  void aReferenceThatIsSpelledOtherwiseIsTaken() {
    Draft broken = broken("session", 0, "course_code", "throw ");
    Violation orphan = only(broken, Violation.Kind.ORPHAN);
    List<Mends.Mend> mends = mends(broken, orphan);
    assertThat(words(mends)).anyMatch(w -> w.startsWith("Take “"));
    Draft mended = first(broken, mends, "Take");
    assertThat(
            violations(mended).stream()
                .filter(
                    v -> v.kind() == Violation.Kind.ORPHAN && v.table().value().equals("session")))
        .isEmpty();
  }

  @Test
  void aMissingParentIsAddedOrTheRowRemoved() {
    Draft broken = broken("firing", 3, "loaded_by", "999");
    Violation orphan = only(broken, Violation.Kind.ORPHAN);
    List<Mends.Mend> mends = mends(broken, orphan);
    assertThat(words(mends)).contains("Add the missing member 999");
    Draft added = first(broken, mends, "Add the missing");
    assertThat(violations(added)).noneMatch(v -> v.kind() == Violation.Kind.ORPHAN);
    Rows members = added.rows().of(new TableId("member"));
    assertThat(members.cell(members.count() - 1, new FieldId("member_id"))).contains("999");
    assertThat(Mends.elsewhere(broken, orphan, orphan.rows(), Pottery.CLOCK))
        .hasValueSatisfying(e -> assertThat(e.rows()).hasSize(1));
    Draft one = first(broken, mends, "Remove");
    assertThat(violations(one)).noneMatch(v -> v.kind() == Violation.Kind.ORPHAN);
  }

  @Test
  void datesAndNumbersOfAnotherFormAreRead() {
    Draft broken = broken("firing", 0, "started_at", "7.1.2025 17:30");
    Violation wrong = only(broken, Violation.Kind.WRONG_TYPE);
    Draft mended = first(broken, mends(broken, wrong), "Read “2025-01-07T17:30:00”");
    assertThat(mended).isEqualTo(demo);
    Draft comma = broken("recipe_line", 0, "percentage", "41,5");
    Violation number = only(comma, Violation.Kind.WRONG_TYPE);
    assertThat(words(mends(comma, number))).anyMatch(w -> w.startsWith("Read “41.5”"));
  }

  @Test
  void choicesAreTakenAsTheyAreSpelled() {
    Draft broken = broken("piece", 0, "stage", "Bisqe ");
    Violation listed = only(broken, Violation.Kind.NOT_IN_LIST);
    assertThat(words(mends(broken, listed))).anyMatch(w -> w.startsWith("Take “bisque”"));
    assertThat(words(mends(broken("piece", 0, "stage", "FIRED"), listed)))
        .anyMatch(w -> w.startsWith("Take “fired”"));
  }

  @Test
  void longTextsAreCutAtAWord() {
    String longName =
        "Big Tom of the back room behind the long shed by the salt marsh gate ".repeat(3);
    Draft broken = broken("kiln", 0, "name", longName.strip());
    Violation tooLong = only(broken, Violation.Kind.TOO_LONG);
    Draft mended = first(broken, mends(broken, tooLong), "Shorten to");
    String name = mended.rows().of(new TableId("kiln")).cell(0, new FieldId("name")).orElseThrow();
    assertThat(longName).startsWith(name + " ");
    assertThat(violations(mended)).noneMatch(v -> v.kind() == Violation.Kind.TOO_LONG);
  }

  @Test
  void whatIsOptionalMayBeLeftEmptyAndNothingElseChanges() {
    Draft broken = broken("firing", 0, "unloaded_by", "999");
    Violation orphan = only(broken, Violation.Kind.ORPHAN);
    Draft mended = first(broken, mends(broken, orphan), "Leave Unloaded by empty");
    assertThat(mended.rows().of(new TableId("firing")).cell(0, new FieldId("unloaded_by")))
        .isEmpty();
    assertThat(mended.rows().of(new TableId("member")))
        .isEqualTo(demo.rows().of(new TableId("member")));
  }

  /** Whatever is offered makes fewer rows break the constraint it is offered for. */
  @Test
  void eachWayOfThePlantedCopyMendsSomething() {
    Draft planted = Pottery.broken();
    int tried = 0;
    for (Violation violation : violations(planted)) {
      for (Mends.Mend mend : mends(planted, violation)) {
        long before = violation.count();
        long after =
            violations(mend.edit().apply(planted)).stream()
                .filter(
                    v ->
                        v.table().equals(violation.table())
                            && v.constraint().equals(violation.constraint())
                            && v.kind() == violation.kind())
                .mapToLong(Violation::count)
                .sum();
        assertThat(after).as(violation.message() + " " + mend.words()).isLessThan(before);
        tried++;
      }
    }
    assertThat(tried).isGreaterThan(10);
  }
}
