package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.audit.Violation;
import joiner.expression.Checked;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Multiplicity;
import joiner.model.Quantity;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** Fields that get a table of their own, and the way back. */
class OwnTableTest {
  private static final Draft DEMO = Pottery.demo();

  private static Draft moved(Draft draft, String table, String label, String... fields) {
    return new ToOwnTable(new TableId(table), Stream.of(fields).map(FieldId::new).toList(), label)
        .apply(draft);
  }

  private static Draft folded(Draft draft, Table own) {
    Relationship tie =
        draft.design().parentsOf(own.id()).stream()
            .filter(r -> r.childFields().equals(own.primaryKey()))
            .findFirst()
            .orElseThrow();
    return FoldBack.of(draft.design(), tie).apply(draft);
  }

  @Test
  void fieldsMoveWithTheirRowsAndTheTableIsOneToOne() {
    Draft changed = moved(DEMO, "supplier", "Supplier contact", "email", "website");
    Table contact = changed.design().tableNamed("supplier_contact").orElseThrow();
    assertThat(contact.fieldIds())
        .containsExactly(new FieldId("supplier_id"), new FieldId("email"), new FieldId("website"));
    Relationship tie = changed.design().parentsOf(contact.id()).getFirst();
    assertThat(Multiplicity.of(changed.design(), tie).children()).isEqualTo(Quantity.AT_MOST_ONE);
    Rows before = DEMO.rows().of(new TableId("supplier"));
    long holding =
        IntStream.range(0, before.count())
            .filter(
                row ->
                    before.cell(row, new FieldId("email")).isPresent()
                        || before.cell(row, new FieldId("website")).isPresent())
            .count();
    assertThat(changed.rows().of(contact.id()).count()).isEqualTo((int) holding);
    assertThat(changed.design().table(new TableId("supplier")).hasField(new FieldId("email")))
        .isFalse();
    assertThat(Audit.of(changed, Pottery.CLOCK).violations()).isEmpty();
  }

  @Test
  void referencesAndRulesAboutThoseFieldsGoAlong() {
    Draft ruled =
        DEMO.withDesign(
            DEMO.design()
                .withTable(
                    new TableId("incident"),
                    t ->
                        t.withRules(
                            List.of(
                                new Rule(
                                    "long_enough",
                                    "Long enough",
                                    "CHAR_LENGTH(details) > 3",
                                    "Say more.")))));
    Draft changed = moved(ruled, "incident", "Incident report", "details", "reported_by");
    Table report = changed.design().tableNamed("incident_report").orElseThrow();
    assertThat(report.rules()).extracting(Rule::name).containsExactly("long_enough");
    assertThat(changed.design().table(new TableId("incident")).rules()).isEmpty();
    assertThat(changed.design().childrenOf(new TableId("member")))
        .anyMatch(r -> r.child().equals(report.id()));
    assertThat(Audit.of(changed, Pottery.CLOCK).violations()).isEmpty();
  }

  @Test
  void aRuleThatReachesOutOverAFieldThatGoesGoesAlong() {
    Rule active =
        new Rule("by_active", "By somebody active", "reported_by.active", "Ask a member.");
    Draft ruled =
        DEMO.withDesign(
            DEMO.design().withTable(new TableId("incident"), t -> t.withRules(List.of(active))));
    Draft changed = moved(ruled, "incident", "Incident report", "reported_by");
    Table report = changed.design().tableNamed("incident_report").orElseThrow();
    assertThat(changed.meaning().of(report).rules())
        .singleElement()
        .satisfies(held -> assertThat(held.condition()).isInstanceOf(Checked.Sound.class));
    assertThat(changed.design().table(new TableId("incident")).rules()).isEmpty();
  }

  @Test
  void whatIsAboutFieldsThatGoAndOthersStandsInTheWay() {
    assertRefused("firing", "A firing's end", "“", "ended_at");
    assertRefused("piece_glaze", "Coat", "unique together", "coat_order");
    assertRefused("kiln", "Kiln name", "recognise", "name");
    assertRefused("member", "Key", "has to stay", "member_id");
    assertRefused("membership_plan", "Gone", "offered", "retired");
    assertThatThrownBy(
            () ->
                moved(
                    DEMO.withDesign(
                        DEMO.design()
                            .withTable(new TableId("locker"), t -> t.withPrimaryKey(List.of()))),
                    "locker",
                    "Inside",
                    "inside"))
        .hasMessageContaining("Nothing identifies");
  }

  private static void assertRefused(String table, String label, String why, String... fields) {
    assertThatThrownBy(() -> moved(DEMO, table, label, fields))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining(why);
  }

  @Test
  void lockersFoldIntoTheMembersWhoUseThemWhereEachHasOne() {
    Relationship uses = DEMO.design().parentsOf(new TableId("locker")).getFirst();
    Rows lockers = DEMO.rows().of(new TableId("locker"));
    boolean free =
        IntStream.range(0, lockers.count())
            .anyMatch(row -> lockers.cell(row, new FieldId("member_id")).isEmpty());
    assertThat(free).as("some locker is used by nobody").isTrue();
    assertThatThrownBy(() -> FoldBack.of(DEMO.design(), uses).apply(DEMO))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("belongs to no member");
    assertThatThrownBy(
            () ->
                FoldBack.of(
                        DEMO.design(), DEMO.design().parentsOf(new TableId("firing")).getFirst())
                    .apply(DEMO))
        .hasMessageContaining("Only what is one-to-one");
  }

  @Test
  void rulesOfWhatIsFoldedSpareRowsThatHaveNothingOfIt() {
    Draft ruled =
        DEMO.withDesign(
            DEMO.design()
                .withTable(
                    new TableId("supplier"),
                    t ->
                        t.withRuleAdded(
                            new Rule(
                                "reachable",
                                "Reachable",
                                "email IS NOT NULL OR website IS NOT NULL",
                                "Say how."))));
    Draft changed = moved(ruled, "supplier", "Contact", "email", "website");
    Table contact = changed.design().tableNamed("contact").orElseThrow();
    assertThat(contact.rules()).hasSize(1);
    Draft back = folded(changed, contact);
    Rule rule = back.design().table(new TableId("supplier")).rules().getLast();
    assertThat(rule.condition().orElseThrow().text())
        .isEqualTo(
            "email IS NULL AND website IS NULL OR (email IS NOT NULL OR website IS NOT NULL)");
    assertThat(back.meaning().of(new TableId("supplier")).rules().getLast().condition())
        .isInstanceOf(Checked.Sound.class);
  }

  @Test
  void aCounterThatIsFoldedIsAPlainNumberAndStaysUnique() {
    TableId locker = new TableId("locker");
    Draft used =
        DEMO.withRows(
            DEMO.rows()
                .with(
                    locker,
                    rows ->
                        Rows.of(
                            DEMO.design().table(locker).fieldIds(),
                            IntStream.range(0, rows.count())
                                .filter(r -> rows.cell(r, new FieldId("member_id")).isPresent())
                                .mapToObj(r -> rows.row(r, DEMO.design().table(locker).fieldIds()))
                                .toList())));
    Draft back = FoldBack.of(used.design(), used.design().parentsOf(locker).getFirst()).apply(used);
    Table member = back.design().table(new TableId("member"));
    FieldId number = new FieldId("locker_id");
    assertThat(member.field(number).type()).isInstanceOf(FieldType.WholeNumber.class);
    assertThat(member.isUnique(List.of(number))).isTrue();
    assertThat(back.design().find(locker)).isEmpty();
    assertThat(Audit.of(back, Pottery.CLOCK).violations()).isEmpty();
    assertThat(member.field(new FieldId("door")).required()).isFalse();
  }

  /** Law: there and back again every cell stands where it stood, and as much breaks the design. */
  @Test
  void thereAndBackAgain() {
    var moves = new AtomicInteger();
    Tries.of(1_500).forEach(seed -> thereAndBack(seed, moves));
    assertThat(moves.get()).as("moves that were not refused").isGreaterThan(Tries.least(100));
  }

  private static void thereAndBack(long seed, AtomicInteger moves) {
    var random = new Random(seed);
    Draft draft = random.nextInt(4) == 0 ? DEMO : RandomDesigns.draft(seed);
    List<Table> tables = List.copyOf(draft.design().tables());
    Table table = tables.get(random.nextInt(tables.size()));
    var some = new ArrayList<FieldId>();
    table.fieldIds().stream()
        .filter(id -> !table.primaryKey().contains(id) && random.nextInt(4) == 0)
        .forEach(some::add);
    if (some.isEmpty()) {
      return;
    }
    Draft apart;
    try {
      apart = new ToOwnTable(table.id(), some, "Own part").apply(draft);
    } catch (EditRefusedException refused) {
      return;
    }
    Table own =
        apart.design().tables().stream()
            .filter(t -> t.label().equals("Own part") && draft.design().find(t.id()).isEmpty())
            .findFirst()
            .orElseThrow();
    Draft back;
    try {
      back = folded(apart, own);
    } catch (EditRefusedException refused) { // Keys that are no values lead nowhere.
      assertThat(refused).hasMessageContaining("nowhere to go");
      return;
    }
    moves.incrementAndGet();
    Table again = back.design().table(table.id());
    assertThat(again.fields()).as("seed %d", seed).hasSameSizeAs(table.fields());
    Rows before = draft.rows().of(table.id());
    Rows after = back.rows().of(table.id());
    assertThat(after.count()).isEqualTo(before.count());
    for (Field field : table.fields()) {
      for (int row = 0; row < before.count(); row++) {
        assertThat(after.cell(row, again.fieldNamed(field.name()).orElseThrow().id()))
            .as("seed %d, %s", seed, field.name())
            .isEqualTo(before.cell(row, field.id()));
      }
    }
    assertThat(broken(back)).as("seed %d", seed).isLessThanOrEqualTo(broken(draft));
    assertThat(back.design().relationships()).hasSameSizeAs(draft.design().relationships());
    assertThat(Optional.of(again.rules().size())).contains(table.rules().size());
  }

  private static long broken(Draft draft) {
    return Audit.of(draft, Pottery.CLOCK).violations().mapToLong(Violation::count).sum();
  }
}
