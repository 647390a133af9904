package joiner.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.Pottery;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.model.Demand;
import joiner.model.FieldId;
import joiner.model.Rule;
import joiner.model.TableId;
import joiner.reasoning.Reasoner;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/** What the rules of a table say that makes no sense, worked out by hand. */
class RuleSenseTest {
  private static final TableId SESSION = new TableId("session");
  private static final Reasoner SOLVER = new Reasoner(Pottery.CLOCK, Duration.ofSeconds(5));

  @AfterAll
  static void done() {
    SOLVER.close();
  }

  private static Rule rule(String name, Demand demand) {
    return new Rule(name, name, demand, "");
  }

  private static Demand row(String condition) {
    return new Demand.OfRow(new Formula(condition));
  }

  private static Draft with(Rule... rules) {
    Draft demo = Pottery.demo();
    return demo.withDesign(
        demo.design().withTable(SESSION, table -> table.withRules(List.of(rules))));
  }

  private static List<Finding> found(Draft draft) {
    return RuleSense.of(draft.meaning().of(SESSION), SOLVER);
  }

  @Test
  void theDemosRulesMakeSense() {
    Draft demo = Pottery.demo();
    assertThat(demo.design().tables())
        .flatExtracting(table -> RuleSense.of(demo.meaning().of(table), SOLVER))
        .isEmpty();
  }

  @Test
  void eachSortIsFoundWithItsRemedy() {
    List<FieldId> key = Pottery.demo().design().table(SESSION).primaryKey();
    Map<String, List<Rule>> cases =
        Map.of(
            "rule-never", List.of(rule("None", row("minutes > 5 AND minutes < 3"))),
            "rules-contradict",
                List.of(rule("Short", row("minutes < 50")), rule("Long", row("minutes > 60"))),
            "rule-always", List.of(rule("Any", row("minutes > 3 OR minutes <= 3"))),
            "rule-implied",
                List.of(rule("Long", row("minutes > 60")), rule("Some", row("minutes > 50"))),
            "rule-refuses-default", List.of(rule("Longest", row("minutes > 200"))));
    assertThat(RuleSense.ids()).containsAll(cases.keySet()).contains("rule-only-unknown");
    cases.forEach(
        (id, rules) -> {
          Draft draft = with(rules.toArray(Rule[]::new));
          List<Finding> of = found(draft).stream().filter(f -> f.id().equals(id)).toList();
          assertThat(of).as(id).isNotEmpty();
          assertThat(of)
              .allSatisfy(
                  f -> assertThat(f.message() + f.why()).endsWith(".").doesNotContain("null"));
          for (Remedy remedy : of.getFirst().remedies()) {
            Draft mended = remedy.edit().apply(draft);
            assertThat(found(mended).stream().filter(f -> f.id().equals(id)).count())
                .isLessThan(of.size());
          }
        });
    assertThat(found(with(rule("One", new Demand.Alone(key, new Formula("minutes > 3"))))))
        .extracting(Finding::why)
        .containsExactly(
            "No two rows have the same Course and Number anyway, so that it says nothing.");
  }

  /** A peak lies between 580 and 1400, and need not be noted. */
  @Test
  void aRuleThatIsTrueOfNoRowOnlyPassesBecauseItIsUnknown() {
    Draft demo = Pottery.demo();
    TableId firing = new TableId("firing");
    Draft draft =
        demo.withDesign(
            demo.design()
                .withTable(firing, t -> t.withRules(List.of(rule("Cold", row("peak_c < 500"))))));
    assertThat(RuleSense.of(draft.meaning().of(firing), SOLVER))
        .extracting(Finding::id)
        .containsExactly("rule-only-unknown");
  }

  @Test
  void rulesOfWhichEachSaysTheOtherAreSaidToBeEqual() {
    Draft draft = with(rule("One", row("minutes >= 60")), rule("Other", row("NOT (minutes < 60)")));
    assertThat(found(draft))
        .extracting(Finding::why)
        .containsOnly("Both say the same; one of them is enough.");
  }

  @Test
  void rulesThatReadNothingInCommonDoNotTakePartInEachOthersTrouble() {
    Draft draft =
        with(
            rule("Short", row("minutes < 50")),
            rule("Long", row("minutes > 60")),
            rule("Late", row("session_no > 0 OR session_no <= 1")));
    assertThat(found(draft))
        .extracting(Finding::message)
        .containsExactlyInAnyOrder(
            "The rule Short of Session cannot be met together with Long.",
            "The rule Long of Session cannot be met together with Short.",
            "The rule Short of Session refuses the default of Minutes.",
            "The rule Late of Session is always met.");
  }

  @Test
  void oneRowKeepsAllRulesOrTheFewestThatClashAreNamed() {
    Draft keepable = with(rule("Short", row("minutes < 50")), rule("Odd", row("session_no > 3")));
    Map<String, String> row =
        SOLVER.together(keepable.meaning().of(SESSION)).row().orElseThrow().texts();
    assertThat(Integer.parseInt(row.get("minutes"))).isLessThan(50);
    assertThat(Integer.parseInt(row.get("session_no"))).isGreaterThan(3);
    Draft clashing =
        with(
            rule("Short", row("minutes < 50")),
            rule("Odd", row("session_no > 3")),
            rule("Long", row("minutes > 60")));
    assertThat(SOLVER.together(clashing.meaning().of(SESSION)).clashing())
        .extracting(Rule::name)
        .containsExactly("Short", "Long");
    assertThat(SOLVER.together(clashing.meaning().of(SESSION)).row()).isEqualTo(Optional.empty());
  }
}
