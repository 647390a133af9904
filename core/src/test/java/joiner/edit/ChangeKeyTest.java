package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.expression.Formula;
import joiner.expression.Value;
import joiner.expression.Width;
import joiner.finding.DesignChecks;
import joiner.finding.Severity;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.RowValues;
import org.junit.jupiter.api.Test;

class ChangeKeyTest {
  private static final Draft DEMO = Pottery.demo();
  private static final TableId MEMBER = new TableId("member");

  private static Draft keyed(Draft draft, String table, String... key) {
    Table before = draft.design().table(new TableId(table));
    return ChangeKey.of(before, List.of(key).stream().map(FieldId::new).toList()).apply(draft);
  }

  /** For each relationship how many rows lead to a parent. */
  private static Map<RelationshipId, Long> links(Draft draft) {
    Map<RelationshipId, Long> links = new HashMap<>();
    for (Relationship r : draft.design().relationships()) {
      Set<List<Value>> parents = new HashSet<>();
      tuples(draft, r.parent(), r.parentFields()).forEach(key -> key.ifPresent(parents::add));
      links.put(
          r.id(),
          tuples(draft, r.child(), r.childFields()).stream()
              .filter(key -> key.filter(parents::contains).isPresent())
              .count());
    }
    return links;
  }

  private static List<Optional<List<Value>>> tuples(
      Draft draft, TableId table, List<FieldId> fields) {
    return new RowValues(draft.design().table(table), draft.rows().of(table)).tuples(fields);
  }

  @Test
  void allThatReferToATableFollowItsKey() {
    Draft changed = keyed(DEMO, "member", "card_no");
    Table member = changed.design().table(MEMBER);
    assertThat(member.primaryKey()).containsExactly(new FieldId("card_no"));
    assertThat(member.isUnique(List.of(new FieldId("member_id")))).isTrue();
    assertThat(changed.design().childrenOf(MEMBER))
        .hasSize(8)
        .allSatisfy(
            r -> {
              assertThat(r.parentFields()).containsExactly(new FieldId("card_no"));
              Table child = changed.design().table(r.child());
              assertThat(child.field(r.childFields().getFirst()).type())
                  .isEqualTo(new FieldType.Text(6));
            });
    assertThat(member.rules())
        .flatExtracting(rule -> rule.condition().stream().map(Formula::text).toList())
        .contains("referred_by <> card_no");
    assertThat(DesignChecks.run(changed))
        .noneMatch(finding -> finding.severity() == Severity.ERROR);
    assertThat(links(changed)).isEqualTo(links(DEMO));
    assertThat(Audit.of(changed, Pottery.CLOCK).violations()).isEmpty();
    assertThat(changed.rows().of(new TableId("piece")).cell(0, new FieldId("maker_id")).orElse(""))
        .startsWith("M-");
  }

  @Test
  void namesThatCameFromTheOldKeyComeFromTheNewOneInFormulasToo() {
    Draft changed = keyed(DEMO, "cone", "end_c");
    Table firing = changed.design().table(new TableId("firing"));
    assertThat(firing.field(new FieldId("cone_no")).name()).isEqualTo("cone_end_c");
    assertThat(firing.rowLabel().orElseThrow().text()).contains("cone_end_c");
    Table locker = keyed(DEMO, "member", "card_no").design().table(new TableId("locker"));
    assertThat(locker.field(new FieldId("member_id")).name()).isEqualTo("member_card_no");
  }

  @Test
  void aKeyThatIsPartOfAnotherKeyIsFollowedThere() {
    Draft counted = Counters.identify(DEMO.design().table(new TableId("course"))).apply(DEMO);
    assertThat(counted.design().table(new TableId("course")).primaryKey())
        .containsExactly(new FieldId("course_id"));
    for (String table : List.of("session", "enrolment")) {
      assertThat(
              counted.design().table(new TableId(table)).field(new FieldId("course_code")).type())
          .isEqualTo(new FieldType.WholeNumber(Width.BITS_32));
    }
    assertThat(links(counted)).isEqualTo(links(DEMO));
    assertThat(Audit.of(counted, Pottery.CLOCK).violations()).isEmpty();
  }

  @Test
  void fromNaturalToCounterAndBackIsTheSameRows() {
    Draft counted = Counters.identify(DEMO.design().table(new TableId("cone"))).apply(DEMO);
    Draft back = keyed(counted, "cone", "cone_no");
    for (String table : List.of("firing", "glaze")) {
      TableId id = new TableId(table);
      assertThat(tuples(back, id, List.of(new FieldId("cone_no"))))
          .isEqualTo(tuples(DEMO, id, List.of(new FieldId("cone_no"))));
      assertThat(back.design().table(id).field(new FieldId("cone_no")))
          .isEqualTo(DEMO.design().table(id).field(new FieldId("cone_no")));
    }
  }

  @Test
  void whatStandsInTheWayIsTold() {
    assertThatThrownBy(() -> keyed(DEMO, "firing", "kiln_id"))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("of another row");
    assertThatThrownBy(() -> keyed(DEMO, "firing", "unloaded_by"))
        .isInstanceOf(EditRefusedException.class);
    assertThatThrownBy(() -> keyed(DEMO, "member"))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("identified by nothing");
    assertThatThrownBy(() -> keyed(DEMO, "member", "referred_by"))
        .isInstanceOf(EditRefusedException.class);
  }

  @Test
  void whatLeadsNowhereIsMendedFirst() {
    TableId locker = new TableId("locker");
    Table table = DEMO.design().table(locker);
    for (String orphan : List.of("4711", "M-0002")) {
      Draft orphaned =
          ChangeRows.cell(
                  table,
                  DEMO.rows().of(locker),
                  0,
                  table.field(new FieldId("member_id")),
                  Optional.of(orphan))
              .apply(DEMO);
      assertThatThrownBy(() -> keyed(orphaned, "member", "card_no"))
          .as(orphan)
          .isInstanceOf(EditRefusedException.class)
          .hasMessageContaining("Locker row 1 has the Member " + orphan)
          .hasMessageContaining("leads nowhere");
    }
  }

  @Test
  void aKeyNobodyRefersToIsWhateverOneLikes() {
    Draft changed = keyed(DEMO, "piece_glaze", "piece_id", "coat_order");
    Table table = changed.design().table(new TableId("piece_glaze"));
    assertThat(table.primaryKey())
        .containsExactly(new FieldId("piece_id"), new FieldId("coat_order"));
    assertThat(table.isUnique(List.of(new FieldId("piece_id"), new FieldId("glaze_id")))).isTrue();
    assertThat(keyed(DEMO, "member", "member_id")).isSameAs(DEMO);
  }

  @Test
  void typesOfKeysAreCarriedToAllThatReferToThem() {
    Table course = DEMO.design().table(new TableId("course"));
    Draft longer =
        Edit.all(
                "longer",
                CarriedType.sized(
                    DEMO.design(),
                    course,
                    course.field(new FieldId("course_code")),
                    new FieldType.Text(12)))
            .apply(DEMO);
    Table enrolment = longer.design().table(new TableId("enrolment"));
    assertThat(enrolment.field(new FieldId("course_code")).type())
        .isEqualTo(new FieldType.Text(12));
    Draft fromBelow =
        Edit.all(
                "longer",
                CarriedType.sized(
                    DEMO.design(),
                    DEMO.design().table(new TableId("enrolment")),
                    enrolment.field(new FieldId("course_code")),
                    new FieldType.Text(12)))
            .apply(DEMO);
    assertThat(fromBelow.design()).isEqualTo(longer.design());
    assertThat(DesignChecks.run(longer)).noneMatch(finding -> finding.severity() == Severity.ERROR);
  }

  @Test
  void aReferenceThatGetsATypeOfItsOwnIsNoLongerOne() {
    Table firing = DEMO.design().table(new TableId("firing"));
    Draft freed =
        Edit.all(
                "free",
                CarriedType.of(
                    DEMO.design(),
                    firing,
                    firing.field(new FieldId("cone_no")),
                    new FieldType.Text(9)))
            .apply(DEMO);
    assertThat(freed.design().parentsOf(firing.id())).hasSize(3);
  }

  /** Law: whatever identifies the rows of a table, as many rows lead to as many as before. */
  @Test
  void everyLinkAndEveryRowIsKept() {
    var changes = new AtomicInteger();
    Tries.of(400)
        .forEach(
            seed -> {
              Draft draft = RandomDesigns.draft(seed);
              for (Table table : draft.design().tables()) {
                try {
                  Draft counted = Counters.identify(table).apply(draft);
                  assertThat(links(counted))
                      .as("seed %d, %s", seed, table.name())
                      .isEqualTo(links(draft));
                  assertThat(counted.rows().count()).isEqualTo(draft.rows().count());
                  assertThat(
                          table.primaryKey().isEmpty()
                              || counted.design().table(table.id()).isUnique(table.primaryKey()))
                      .isTrue();
                  changes.addAndGet(draft.design().childrenOf(table.id()).size());
                } catch (EditRefusedException refused) {
                  assertThat(refused).hasMessageMatching("(?s).+\\.");
                }
              }
            });
    assertThat(changes.get()).as("relationships that followed").isGreaterThan(Tries.least(50));
  }

  @Test
  void aKeyOfSeveralFieldsBecomesACounterAndWhatRefersToItGetsOneField() {
    Draft counted = Counters.identify(DEMO.design().table(new TableId("session"))).apply(DEMO);
    Table session = counted.design().table(new TableId("session"));
    assertThat(session.namesOf(session.primaryKey())).containsExactly("session_id");
    assertThat(session.isUnique(List.of(new FieldId("course_code"), new FieldId("session_no"))))
        .isTrue();
    Table enrolment = counted.design().table(new TableId("enrolment"));
    assertThat(enrolment.namesOf(enrolment.fieldIds()))
        .contains("session_id")
        .doesNotContain("session_no");
    assertThat(enrolment.labelsOf(enrolment.primaryKey())).contains("Session").hasSize(2);
    assertThat(links(counted)).isEqualTo(links(DEMO));
    assertThat(Audit.of(counted, Pottery.CLOCK).violations()).isEmpty();
    assertThat(DesignChecks.run(counted)).noneMatch(f -> f.severity() == Severity.ERROR);
  }

  @Test
  void andOneFieldBecomesSeveral() {
    Draft changed = keyed(DEMO, "kiln", "kiln_id", "name");
    Table firing = changed.design().table(new TableId("firing"));
    assertThat(firing.namesOf(firing.fieldIds())).contains("kiln_id_2", "kiln_name");
    assertThat(links(changed)).isEqualTo(links(DEMO));
    assertThat(Audit.of(changed, Pottery.CLOCK).violations()).isEmpty();
  }

  /** Law: whatever the number of fields that identify rows, as many rows lead to as many. */
  @Test
  void everyLinkIsKeptWhateverTheNumberOfFields() {
    var followed = new AtomicInteger();
    Tries.of(1_500)
        .forEach(
            seed -> {
              Draft draft = RandomDesigns.draft(seed);
              for (Table table : draft.design().tables()) {
                for (FieldId more : table.fieldIds()) {
                  var key = new ArrayList<>(table.primaryKey());
                  if (key.remove(more) ? key.isEmpty() : !key.add(more)) {
                    continue;
                  }
                  try {
                    Draft changed = ChangeKey.of(table, key).apply(draft);
                    assertThat(links(changed)).as("seed %d, %s", seed, key).isEqualTo(links(draft));
                    assertThat(changed.rows().of(table.id()).count())
                        .isEqualTo(draft.rows().of(table.id()).count());
                    followed.addAndGet(
                        (int)
                            draft.design().childrenOf(table.id()).stream()
                                .filter(r -> r.parentFields().equals(table.primaryKey()))
                                .count());
                  } catch (EditRefusedException refused) {
                    assertThat(refused).hasMessageMatching("(?s).+\\.");
                  }
                }
              }
            });
    assertThat(followed.get()).as("relationships that followed").isGreaterThan(Tries.least(30));
  }
}
