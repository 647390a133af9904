package joiner.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.edit.ChangeField;
import joiner.edit.ChangeRows;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

/** What is known from before never makes a difference to what an audit says. */
class KnownAuditTest {
  private static Draft changed(Draft draft, Random random) {
    List<Table> tables =
        draft.design().tables().stream().filter(t -> !t.fields().isEmpty()).toList();
    if (tables.isEmpty()) {
      return draft;
    }
    Table table = tables.get(random.nextInt(tables.size()));
    Field field = table.fields().get(random.nextInt(table.fields().size()));
    int rows = draft.rows().of(table.id()).count();
    return switch (random.nextInt(rows == 0 ? 4 : 6)) {
      case 0 -> ChangeField.required(table, field, !field.required()).apply(draft);
      case 1 -> ChangeField.type(table, field, new FieldType.Text(2)).apply(draft);
      case 2 ->
          draft.withDesign(
              draft
                  .design()
                  .withTable(table.id(), t -> t.withNames(t.name(), "L", new Noun("l", "ls"))));
      case 3 ->
          draft.withRows(
              draft.rows().with(table.id(), r -> r.withRow(java.util.Map.of(field.id(), "7"))));
      default ->
          ChangeRows.cell(
                  table,
                  draft.rows().of(table.id()),
                  random.nextInt(rows),
                  field,
                  Optional.of(random.nextBoolean() ? "7" : "é"))
              .apply(draft);
    };
  }

  @Test
  void anAuditWithWhatIsKnownSaysTheSameAsOneWithout() {
    Tries.of(150)
        .forEach(
            seed -> {
              var random = new Random(seed);
              Draft draft = random.nextInt(3) == 0 ? Pottery.broken() : RandomDesigns.draft(seed);
              var known = new KnownAudit();
              for (int step = 0; step < 8; step++) {
                AuditReport fresh = Audit.of(draft, Pottery.CLOCK);
                assertThat(Audit.of(draft, Pottery.CLOCK, known, () -> false))
                    .as("seed " + seed + " step " + step)
                    .isEqualTo(fresh);
                draft = changed(draft, random);
              }
            });
  }

  @Test
  void whatIsStoppedGivesTheTablesDoneAndIsTakenUpAgain() {
    var known = new KnownAudit();
    var asked = new AtomicInteger();
    AuditReport part =
        Audit.of(Pottery.broken(), Pottery.CLOCK, known, () -> asked.incrementAndGet() > 8);
    AuditReport whole = Audit.of(Pottery.broken(), Pottery.CLOCK);
    assertThat(part.tables()).isNotEmpty().hasSizeLessThan(whole.tables().size());
    assertThat(whole.tables()).containsSubsequence(part.tables());
    assertThat(Audit.of(Pottery.broken(), Pottery.CLOCK, known, () -> false)).isEqualTo(whole);
  }

  @Test
  void aRuleThatReadsTheClockIsLookedAtAgainOnAnotherDay() {
    var known = new KnownAudit();
    Draft draft = Pottery.demo();
    Clock later = Clock.offset(Pottery.CLOCK, Duration.ofDays(-4000));
    assertThat(Audit.of(draft, Pottery.CLOCK, known, () -> false).total()).isZero();
    assertThat(Audit.of(draft, later, known, () -> false).total())
        .isEqualTo(Audit.of(draft, later).total())
        .isPositive();
  }

  @Test
  void oneCellChangedLooksOnlyAtTheConstraintsOfItsColumn() {
    Draft draft = Pottery.demo();
    Table kiln = draft.design().table(new TableId("kiln"));
    Draft changed =
        ChangeRows.cell(
                kiln,
                draft.rows().of(kiln.id()),
                0,
                kiln.field(new FieldId("name")),
                Optional.of("Bo"))
            .apply(draft);
    for (Field field : kiln.fields()) {
      Object before = draft.rows().of(kiln.id()).identity(field.id());
      Object after = changed.rows().of(kiln.id()).identity(field.id());
      assertThat(before.equals(after)).isEqualTo(!field.id().value().equals("name"));
    }
    var known = new KnownAudit();
    var worked = new AtomicInteger();
    ask(known, "key", List.of("a"), worked);
    known.end(true);
    ask(known, "key", List.of("a"), worked);
    known.end(true);
    assertThat(worked).hasValue(1);
    ask(known, "key", List.of("b"), worked);
    assertThat(worked).hasValue(2);
  }

  /** Works out what is not known, and counts that. */
  private static void ask(KnownAudit known, Object key, List<Object> inputs, AtomicInteger worked) {
    if (known.find(key, inputs).isEmpty()) {
      worked.incrementAndGet();
      known.keep(key, inputs, new KnownAudit.Found(List.of(), List.of()));
    }
  }

  @Test
  void whatAWholeAuditDidNotMeetIsForgottenAndWhatAPartDidNotMeetIsKept() {
    var known = new KnownAudit();
    var worked = new AtomicInteger();
    ask(known, "a", List.of(1), worked);
    known.end(true);
    ask(known, "b", List.of(1), worked);
    known.end(false);
    ask(known, "a", List.of(1), worked);
    ask(known, "b", List.of(1), worked);
    assertThat(worked).as("a was kept over a part").hasValue(2);
    known.end(true);
    ask(known, "b", List.of(1), worked);
    known.end(true);
    ask(known, "a", List.of(1), worked);
    assertThat(worked).as("a was not met by a whole one").hasValue(3);
  }
}
