package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.Tries;
import joiner.audit.Audit;
import joiner.audit.KnownAudit;
import joiner.ddl.Keeping;
import joiner.ddl.Lowered;
import joiner.ddl.RowsChoice;
import joiner.edit.ChangeField;
import joiner.edit.ChangeRows;
import joiner.edit.RemoveRelationship;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.finding.DesignChecks;
import joiner.finding.KnownFindings;
import joiner.model.FarField;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** Formulas that read other rows: those that a row leads to, from child to parent. */
class ReachingOutTest {
  private static final TableId FIRING = new TableId("firing");
  private static final TableId KILN = new TableId("kiln");
  private static final FieldId PEAK = new FieldId("peak_c");
  private static final FieldId HOTTEST = new FieldId("hottest_c");
  private static final Rule COOL =
      new Rule("cool", "Not hotter than the kiln", "peak_c <= kiln_id.hottest_c", "Too hot.");

  private static Draft with(UnaryOperator<Table> firing) {
    Draft demo = Pottery.demo();
    return demo.withDesign(demo.design().withTable(FIRING, firing));
  }

  private static Checked read(String formula) {
    Draft demo = Pottery.demo();
    return new Formula(formula).value(demo.meaning().of(FIRING).scope());
  }

  private static List<String> problems(String formula) {
    return ((Checked.Faulty) read(formula)).problems().stream().map(p -> p.message()).toList();
  }

  @Test
  void namesLeadOverTheFieldThatRefers() {
    var sound = (Checked.Sound) read("kiln_id.fallback_id.name");
    assertThat(sound.kind()).isEqualTo(Kind.TEXT);
    var far = (FarField) sound.reads().iterator().next();
    assertThat(far.over()).hasSize(2);
    assertThat(far.from()).containsExactly(new FieldId("kiln_id"));
    assertThat(TableMeaning.fieldsOf(sound)).containsExactly(new FieldId("kiln_id"));
    assertThat(read("\"Kiln_ID\".HOTTEST_C + 1")).isInstanceOf(Checked.Sound.class);
  }

  @Test
  void whatLeadsNowhereIsToldWithWhatThereIs() {
    assertThat(problems("kiln_id.hotest_c"))
        .containsExactly("There is no field hotest_c in Kiln; did you mean hottest_c?");
    assertThat(problems("kiln_i.name"))
        .containsExactly("kiln_i leads to no other row from Firing; did you mean kiln_id?");
    assertThat(problems("kiln_id.litres.name"))
        .containsExactly("litres leads to no other row from Kiln; these do: fallback_id.");
    assertThat(problems("kiln_id.")).hasSize(1).allMatch(p -> p.contains("fter the point"));
    Table alone = Pottery.demo().design().table(KILN);
    var formula = new Formula("fallback_id.name").value(TableMeaning.of(alone).scope());
    assertThat(((Checked.Faulty) formula).problems().getFirst().message())
        .isEqualTo("fallback_id leads to no other row from Kiln; nothing does.");
  }

  /** The value is the one found by going from row to row by hand. */
  @Test
  void theValueIsThatOfTheRowItLeadsTo() {
    Draft demo = Pottery.demo();
    var values = new FormulaRows(demo, Pottery.CLOCK);
    var evaluator = new Evaluator(Pottery.CLOCK);
    Rows firings = demo.rows().of(FIRING);
    Rows kilns = demo.rows().of(KILN);
    var sound = (Checked.Sound) read("kiln_id.fallback_id.name");
    for (int row = 0; row < firings.count(); row++) {
      Optional<String> expected =
          firings
              .cell(row, new FieldId("kiln_id"))
              .flatMap(id -> kilnOf(kilns, id))
              .flatMap(kiln -> kilns.cell(kiln, new FieldId("fallback_id")))
              .flatMap(id -> kilnOf(kilns, id))
              .flatMap(kiln -> kilns.cell(kiln, new FieldId("name")));
      Value value = evaluator.evaluate(sound.tree(), values.row(FIRING, row));
      assertThat(value).isEqualTo(expected.<Value>map(Value.Text::new).orElse(Value.NULL));
    }
  }

  private static Optional<Integer> kilnOf(Rows kilns, String id) {
    return IntStream.range(0, kilns.count())
        .boxed()
        .filter(row -> kilns.cell(row, new FieldId("kiln_id")).equals(Optional.of(id)))
        .findFirst();
  }

  @Test
  void theAuditAsksTheOtherRowAndAsksAgainWhenThatChanges() {
    Draft ruled = with(t -> t.withRuleAdded(COOL));
    var known = new KnownAudit();
    Supplier<List<Integer>> none = List::of;
    List<Integer> before = broken(ruled, known);
    Rows kilns = ruled.rows().of(KILN);
    Table kiln = ruled.design().table(KILN);
    Draft colder =
        ChangeRows.cell(kiln, kilns, 0, kiln.field(HOTTEST), Optional.of("600")).apply(ruled);
    List<Integer> now = broken(colder, known);
    assertThat(now.size()).isGreaterThan(before.size());
    Rows firings = ruled.rows().of(FIRING);
    for (int number : now) {
      assertThat(firings.cell(number - 1, PEAK)).isPresent();
    }
    assertThat(broken(ruled, known)).isEqualTo(before.isEmpty() ? none.get() : before);
  }

  private static List<Integer> broken(Draft draft, KnownAudit known) {
    return Audit.of(draft, Pottery.CLOCK, known, () -> false)
        .violations()
        .filter(violation -> violation.constraint().equals("cool"))
        .flatMap(violation -> violation.rows().stream())
        .toList();
  }

  /** Whatever changes anywhere: what is known of before and what is worked out anew agree. */
  @Test
  void whatIsKnownIsNeverStale() {
    Draft draft =
        with(
            t ->
                t.withRuleAdded(COOL)
                    .withRowLabel(Optional.of(new Formula("kiln_id.name || ' ' || cone_no"))));
    var audit = new KnownAudit();
    var findings = new KnownFindings();
    for (long seed : Tries.of(60).toArray()) {
      draft = changed(draft, new Random(seed));
      Draft anew = new Draft(draft.design(), draft.rows());
      assertThat(Audit.of(draft, Pottery.CLOCK, audit, () -> false))
          .isEqualTo(Audit.of(anew, Pottery.CLOCK));
      assertThat(DesignChecks.run(draft, findings)).isEqualTo(DesignChecks.run(anew));
    }
  }

  private static Draft changed(Draft draft, Random random) {
    Table kiln = draft.design().table(KILN);
    Rows kilns = draft.rows().of(KILN);
    int row = random.nextInt(kilns.count());
    return switch (random.nextInt(5)) {
      case 0 ->
          ChangeRows.cell(
                  kiln,
                  kilns,
                  row,
                  kiln.field(HOTTEST),
                  Optional.of(String.valueOf(600 + random.nextInt(900))))
              .apply(draft);
      case 1 ->
          ChangeField.rename(kiln, kiln.field(HOTTEST), "Hottest", "h" + random.nextInt(9))
              .apply(draft);
      case 2 ->
          ChangeRows.cell(
                  kiln,
                  kilns,
                  row,
                  kiln.field(new FieldId("kiln_id")),
                  Optional.of(String.valueOf(random.nextInt(5))))
              .apply(draft);
      case 3 -> ChangeField.required(kiln, kiln.field(HOTTEST), random.nextBoolean()).apply(draft);
      default ->
          draft.withDesign(
              draft.design().withTable(KILN, t -> t.withDescription("note " + random.nextInt())));
    };
  }

  @Test
  void newNamesAreCarriedIntoFormulasOfOtherTables() {
    Draft draft = with(t -> t.withRuleAdded(COOL));
    Table kiln = draft.design().table(KILN);
    Draft renamed =
        ChangeField.rename(kiln, kiln.field(HOTTEST), "At most", "at most").apply(draft);
    assertThat(condition(renamed)).isEqualTo("peak_c <= kiln_id.\"at most\"");
    Table firing = renamed.design().table(FIRING);
    Draft both =
        ChangeField.rename(firing, firing.field(new FieldId("kiln_id")), "Oven", "oven")
            .apply(renamed);
    assertThat(condition(both)).isEqualTo("peak_c <= oven.\"at most\"");
    assertThat(both.design().table(new TableId("piece")))
        .isSameAs(draft.design().table(new TableId("piece")));
  }

  private static String condition(Draft draft) {
    return draft.design().table(FIRING).rules().getLast().condition().orElseThrow().text();
  }

  @Test
  void withoutTheRelationshipTheRuleIsAFinding() {
    Draft draft = with(t -> t.withRuleAdded(COOL));
    Relationship toKiln =
        draft.design().parentsOf(FIRING).stream()
            .filter(r -> r.parent().equals(KILN))
            .findFirst()
            .orElseThrow();
    Draft without = new RemoveRelationship(toKiln.id(), toKiln.name()).apply(draft);
    assertThat(DesignChecks.run(without))
        .anyMatch(
            finding -> finding.message().contains("kiln_id leads to no other row from Firing"));
  }

  @Test
  void aConditionOnAnotherRowIsKeptByTriggersOrTold() {
    Draft draft = with(t -> t.withRuleAdded(COOL));
    Constraint.Ruled rule = draft.meaning().of(FIRING).ruled().getLast();
    List<Dialect> looking = List.of(Dialects.POSTGRESQL, Dialects.MARIADB, Dialects.SQLITE);
    for (Dialect dialect : Dialects.ALL) {
      Keeping keeping = Lowered.keeping(draft, FIRING, rule, dialect);
      boolean told =
          Lowered.of(draft, dialect, RowsChoice.NONE).shortfalls().stream()
              .anyMatch(lost -> lost.subject().contains("Not hotter than the kiln"));
      assertThat(keeping.by())
          .as(dialect.engine())
          .isEqualTo(looking.contains(dialect) ? Keeping.Means.TRIGGER : Keeping.Means.AUDIT);
      assertThat(told).as(dialect.engine()).isEqualTo(!keeping.isKept());
      if (told) {
        assertThat(keeping.loss()).contains("kiln_id.hottest_c");
      }
    }
  }

  @Test
  void rowsAreRecognisedByTheirParents() {
    Draft draft =
        with(t -> t.withRowLabel(Optional.of(new Formula("kiln_id.name || ' ' || cone_no"))));
    var labels =
        new RowLabels(
            draft.meaning().of(FIRING), new FormulaRows(draft, Pottery.CLOCK), Pottery.CLOCK);
    assertThat(labels.of(0)).isEqualTo("The Bin 06");
  }

  /** Two relationships from one field, or one from two fields, are called by their own names. */
  @Test
  void relationshipsThatShareAFieldAreCalledByTheirNames() {
    Draft demo = Pottery.demo();
    Relationship toKiln =
        demo.design().parentsOf(FIRING).stream()
            .filter(r -> r.parent().equals(KILN))
            .findFirst()
            .orElseThrow();
    Relationship second =
        Relationship.of(
            "also", FIRING, toKiln.childFields(), toKiln.parent(), toKiln.parentFields());
    Draft twice = demo.withDesign(demo.design().withRelationshipAdded(second));
    var scope = twice.meaning().of(FIRING).scope();
    assertThat(scope.ways()).contains("also", toKiln.name()).doesNotContain("kiln_id");
    assertThat(new Formula("also.name").value(scope)).isInstanceOf(Checked.Sound.class);
  }
}
