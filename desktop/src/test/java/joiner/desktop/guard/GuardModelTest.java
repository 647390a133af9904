package joiner.desktop.guard;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.ddl.Keeping;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.edit.ChangeRows;
import joiner.edit.ChangeTable;
import joiner.engine.Dialects;
import joiner.expression.Formula;
import joiner.meaning.RuleForm;
import joiner.model.Demand;
import joiner.model.FieldId;
import joiner.model.Rule;
import joiner.model.RuleId;
import joiner.model.Table;
import joiner.reasoning.Understood;
import joiner.rows.Rows;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Guard without a window: rules judged as they are typed, tried on rows, kept or not. */
class GuardModelTest {
  @TempDir private Path folder;
  private TestBench test;
  private GuardModel model;

  @BeforeEach
  void open() {
    test = new TestBench(Pottery.demo(), folder);
    model = new GuardModel(test.bench, Texts.beside(GuardView.class));
    model.look(true);
    test.choose("firing");
  }

  @AfterEach
  void everythingIsDone() {
    test.finish();
  }

  private RuleModel rule(String id) {
    return model.rules().stream()
        .filter(rule -> rule.rule().id().equals(new RuleId(id)))
        .findFirst()
        .orElseThrow();
  }

  private RuleTrial trial(RuleModel rule) {
    test.window.until(() -> rule.trialProperty().get().current().isPresent());
    return rule.trialProperty().get().current().orElseThrow();
  }

  @Test
  void whatARuleMeansIsSaidWithRowsThatShowIt() {
    test.bench.apply(
        ChangeTable.addRule(
            test.table("firing"), new Rule("cold", "Cold", "peak_c < 600 AND peak_c > 700", "")));
    model.understand(test.table("firing"));
    test.window.until(() -> model.understoodProperty().get().current().isPresent());
    Rule ends = test.table("firing").rules().getFirst();
    // With no peak that passes a firing has none, and then it has not ended.
    Understood implied = model.understood(ends).orElseThrow();
    assertThat(implied.verdict()).isEqualTo(Understood.Verdict.IMPLIED);
    assertThat(implied.by())
        .extracting(Rule::label)
        .containsExactly("Peak is noted at the end", "Cold");
    assertThat(model.words(test.table("firing"), implied.fails().getFirst()))
        .matches("Ended \\S+ \\S+ · Started \\S+ \\S+");
    Rule cold = test.table("firing").rules().getLast();
    assertThat(model.understood(cold).orElseThrow().notes().getFirst().words())
        .startsWith("It is true of no row");
    Rule other = new Rule("x", "X", "TRUE", "");
    assertThat(model.understood(other)).as("nothing is known of what is not there").isEmpty();
  }

  @Test
  void aRuleThatStaysIsTheVerySameModel() {
    List<RuleModel> before = model.rules();
    before.getFirst().message("Something else.");
    assertThat(model.rules()).containsExactlyElementsOf(before);
    assertThat(before.getFirst().rule().message()).isEqualTo("Something else.");
    before.getFirst().remove();
    assertThat(model.rules()).containsExactlyElementsOf(before.subList(1, before.size()));
    test.choose("kiln");
    assertThat(model.rules()).doesNotContainAnyElementsOf(before);
  }

  @Test
  void withoutATableThereAreNoRules() {
    test.bench.selectionProperty().set(joiner.desktop.work.Selection.NONE);
    assertThat(model.rules()).isEmpty();
    assertThat(model.table()).isEmpty();
  }

  @Test
  void whatIsTypedIsJudgedWithItsPlace() {
    RuleModel rule = rule("peak_when_ended");
    assertThat(rule.judge("  ")).isInstanceOf(RuleModel.Judgement.Blank.class);
    var faulty = (RuleModel.Judgement.Faulty) rule.judge("peak_c > 3 AND nonsense = 1");
    assertThat(faulty.faults())
        .singleElement()
        .satisfies(
            fault -> {
              assertThat(fault.at()).isEqualTo(16);
              assertThat(fault.piece()).isEqualTo("nonsense");
              assertThat(fault.message()).contains("no field nonsense in Firing");
            });
    var broken = (RuleModel.Judgement.Faulty) rule.judge("peak_c >");
    assertThat(broken.faults().getFirst().piece()).isBlank();
  }

  @Test
  void aSoundConditionIsTriedBeforeItIsTaken() {
    RuleModel rule = rule("peak_when_ended");
    int firings = test.bench.draft().rows().of(test.table("firing").id()).count();
    assertThat(rule.judge("peak_c IS NULL")).isInstanceOf(RuleModel.Judgement.Sound.class);
    RuleTrial strict = trial(rule);
    assertThat(strict.passing() + strict.refused()).isEqualTo(firings);
    assertThat(strict.refused()).isPositive();
    rule.judge("peak_c IS NULL OR peak_c > 0");
    test.window.until(() -> trial(rule).refused() == 0);
    assertThat(rule.rule().condition().orElseThrow().text())
        .as("nothing was taken")
        .contains("ended_at");
  }

  @Test
  void rulesThatReadOtherRowsAreTriedAnewWhenThoseChange() {
    RuleModel rule = rule("peak_when_ended");
    String condition = "peak_c <= kiln_id.hottest_c";
    var judged = (RuleModel.Judgement.Sound) rule.judge(condition);
    assertThat(judged.by()).containsOnlyKeys(Keeping.Means.TRIGGER);
    int refused = trial(rule).refused();
    Table kiln = test.table("kiln");
    Rows kilns = test.bench.draft().rows().of(kiln.id());
    for (int row = 0; row < kilns.count(); row++) {
      test.bench.apply(
          ChangeRows.cell(
              kiln, kilns, row, kiln.field(new FieldId("hottest_c")), Optional.of("600")));
    }
    rule.judge(condition);
    test.window.until(() -> rule.trialProperty().get().current().isPresent());
    assertThat(trial(rule).refused()).isGreaterThan(refused);
  }

  @Test
  void whoDoesNotKeepARuleIsNamedWithTheReason() {
    RuleModel rule = rule("not_planned_too_far");
    var sound =
        (RuleModel.Judgement.Sound) rule.judge(rule.rule().condition().orElseThrow().text());
    assertThat(sound.everywhere()).isFalse();
    assertThat(sound.keeping() + sound.losses().size()).isEqualTo(Dialects.ALL.size());
    assertThat(sound.losses()).allMatch(loss -> loss.why().contains("clock"));
    assertThat(model.keeping(test.table("firing")))
        .hasSize(Dialects.ALL.size())
        .anyMatch(GuardModel.Keeping::isAll)
        .anyMatch(keeping -> keeping.kept() < keeping.all());
  }

  @Test
  void aNewRuleHasANameThatIsFreeInTheWholeDesign() {
    RuleId first = model.add(test.table("firing"), new GuardModel.Sort.Own());
    RuleId second = model.add(test.table("firing"), new GuardModel.Sort.Own());
    List<Rule> rules = test.table("firing").rules();
    assertThat(rules).extracting(Rule::id).contains(first, second);
    assertThat(rules).extracting(Rule::name).doesNotHaveDuplicates();
    assertThat(rules.getLast().condition().orElseThrow().isBlank()).isTrue();
  }

  @Test
  void whatFieldsDemandIsSaidWithoutWhatTheirTypesSay() {
    assertThat(model.demands(test.table("firing")))
        .contains(new GuardModel.OfField("Cone", "have a value"))
        .anyMatch(demand -> demand.field().equals("Peak"))
        .noneMatch(demand -> demand.field().equals("Remark"));
  }

  @Test
  void theWordsOfARuleAreChangedOneByOne() {
    RuleModel rule = rule("peak_when_ended");
    rule.label(" Peak noted ");
    rule.condition(" peak_c > 1 ");
    assertThat(rule.rule().label()).isEqualTo("Peak noted");
    assertThat(rule.rule().condition().orElseThrow().text()).isEqualTo("peak_c > 1");
    assertThat(rule.rule().name()).isEqualTo("peak_when_ended");
    rule.remove();
    assertThat(test.newest()).contains("Peak noted");
    test.bench.undo();
    assertThat(test.table("firing").rules()).contains(rule.rule());
  }

  @Test
  void aFormWritesTheConditionAndNamesTheRuleUntilSomebodyElseDoes() {
    RuleId added = model.add(test.table("firing"), new GuardModel.Sort.Form(RuleForm.Sort.RANGE));
    RuleModel rule = rule(added.value());
    RuleForm form = rule.form().orElseThrow();
    rule.form(form.with(0, "peak_c"));
    assertThat(rule.rule().condition()).as("nothing whole is typed yet").contains(new Formula(""));
    rule.form(rule.form().orElseThrow().with(1, "600"));
    assertThat(rule.rule().condition()).contains(new Formula("peak_c >= 600"));
    assertThat(rule.rule().label()).isEqualTo("Peak is at least 600");
    rule.form(rule.form().orElseThrow().with(2, "1300"));
    assertThat(rule.rule().condition()).contains(new Formula("peak_c BETWEEN 600 AND 1300"));
    assertThat(rule.rule().message()).isEqualTo("Peak lies between 600 and 1300.");
    rule.message("Too hot, or too cold.");
    rule.form(rule.form().orElseThrow().with(2, "1200"));
    assertThat(rule.rule().label()).isEqualTo("Peak lies between 600 and 1200");
    assertThat(rule.rule().message()).isEqualTo("Too hot, or too cold.");
    rule.forget();
    rule.condition("peak_c > 600 OR ended_at IS NULL");
    assertThat(rule.form()).as("nobody's form").isEmpty();
    test.bench.undo();
    rule.forget();
    assertThat(rule.form()).map(RuleForm::sort).contains(RuleForm.Sort.RANGE);
  }

  @Test
  void everySortOfRuleCanBeAddedAndSaysWhatIsMissing() {
    for (GuardModel.Sort sort : model.sorts(test.table("firing"))) {
      RuleId added = model.add(test.table("firing"), sort);
      RuleModel rule = rule(added.value());
      RuleModel.Judgement judgement =
          rule.rule().condition().isPresent() ? rule.judge("") : rule.judge();
      boolean whole = sort instanceof GuardModel.Sort.Over over && over.key().equals("apart");
      assertThat(judgement)
          .as("%s", sort)
          .isInstanceOf(whole ? RuleModel.Judgement.Sound.class : RuleModel.Judgement.Blank.class);
      rule.remove();
    }
    assertThat(model.sorts(test.table("member")))
        .anyMatch(sort -> sort instanceof GuardModel.Sort.Over over && over.key().equals("tree"));
    assertThat(model.sorts(test.table("cone")))
        .noneMatch(sort -> sort instanceof GuardModel.Sort.Over over && over.key().equals("apart"));
  }

  @Test
  void aRuleOnSeveralRowsIsNamedByWhatItSaysOnceItIsWhole() {
    test.choose("kiln");
    GuardModel.Sort many =
        model.sorts(test.table("kiln")).stream()
            .filter(s -> s instanceof GuardModel.Sort.Over over && over.key().equals("children"))
            .findFirst()
            .orElseThrow();
    RuleId added = model.add(test.table("kiln"), many);
    RuleModel rule = rule(added.value());
    var demand = (Demand.OfChildren) rule.rule().demand();
    rule.demand(
        new Demand.OfChildren(
            demand.over(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.of("3")));
    assertThat(rule.rule().label()).startsWith("Each kiln has at most 3 ");
    assertThat(rule.rule().message()).isEqualTo(rule.rule().label() + ".");
    assertThat(rule.judge()).isInstanceOf(RuleModel.Judgement.Sound.class);
    test.window.until(() -> test.bench.verdict().isCurrent());
    assertThat(rule.ofMessage("{hottest_c} is wrong")).isEmpty();
    assertThat(rule.ofMessage("{heat} is wrong")).isPresent();
    assertThat(rule.ofMessage(" ")).isPresent();
  }

  @Test
  void oneRowThatKeepsAllRulesIsShown() {
    model.understand(test.table("firing"));
    test.window.until(() -> model.together(test.table("firing")).isPresent());
    assertThat(model.together(test.table("firing")).orElseThrow().row()).isPresent();
  }

  @Test
  void aMessageNamesTheValuesOfTheRowThatIsRefused() {
    RuleModel rule = rule("peak_when_ended");
    rule.message("{peak_c} °C are no peak of {cone_no}.");
    rule.judge("peak_c IS NULL");
    test.window.until(() -> trial(rule).says().isPresent());
    assertThat(trial(rule).says().orElseThrow()).matches("\\d+ °C are no peak of \\w+\\.");
    rule.message("No peak.");
    rule.judge("peak_c IS NULL");
    test.window.until(() -> trial(rule).says().isEmpty());
  }
}
