package joiner.desktop.guard;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.TestBench;
import joiner.edit.ChangeRows;
import joiner.edit.ChangeTable;
import joiner.engine.Dialects;
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
        .matches("Ended \\S+ · Started \\S+");
    Rule cold = test.table("firing").rules().getLast();
    assertThat(model.understood(cold).orElseThrow().notes().getFirst())
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
    assertThat(rule.rule().condition().orElseThrow().text()).as("nothing was taken").contains("ended_at");
  }

  @Test
  void rulesThatReadOtherRowsAreTriedAnewWhenThoseChange() {
    RuleModel rule = rule("peak_when_ended");
    String condition = "peak_c <= kiln_id.hottest_c";
    var judged = (RuleModel.Judgement.Sound) rule.judge(condition);
    assertThat(judged.nowhere()).isTrue();
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
    var sound = (RuleModel.Judgement.Sound) rule.judge(rule.rule().condition().orElseThrow().text());
    assertThat(sound.everywhere()).isFalse();
    assertThat(sound.keeping() + sound.losses().size()).isEqualTo(Dialects.ALL.size());
    assertThat(sound.losses()).allMatch(loss -> loss.why().contains("clock"));
    assertThat(model.keeping(test.table("firing")))
        .hasSize(Dialects.ALL.size())
        .anyMatch(GuardModel.Keeping::isAll)
        .anyMatch(keeping -> keeping.kept() == keeping.all() - 1);
  }

  @Test
  void aNewRuleHasANameThatIsFreeInTheWholeDesign() {
    RuleId first = model.add(test.table("firing"));
    RuleId second = model.add(test.table("firing"));
    List<Rule> rules = test.table("firing").rules();
    assertThat(rules).extracting(Rule::id).contains(first, second);
    assertThat(rules).extracting(Rule::name).doesNotHaveDuplicates();
    assertThat(rules.getLast().condition().orElseThrow().isBlank()).isTrue();
  }

  @Test
  void whatFieldsDemandIsSaidWithoutWhatTheirTypesSay() {
    assertThat(model.demands(test.table("firing")))
        .contains(new GuardModel.Demand("Cone", "have a value"))
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
}
