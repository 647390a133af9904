package joiner.reasoning;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.RandomRules;
import joiner.Tries;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Demand;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.reasoning.Understood.Verdict;
import joiner.rows.RowValues;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the solver says of rules is what the evaluator sees on rows. */
class ReasonerTest {
  /** Rows that each claim is tried on. */
  private static final int ROWS = Integer.getInteger("joiner.rows", 400);

  private static Reasoner reasoner;

  @BeforeAll
  static void load() {
    reasoner = new Reasoner(Pottery.CLOCK, Duration.ofSeconds(10));
  }

  @AfterAll
  static void end() {
    reasoner.close();
  }

  private static List<Understood> rules(String table, String... conditions) {
    Draft demo = Pottery.demo();
    var rules = new ArrayList<Rule>();
    for (String condition : conditions) {
      rules.add(new Rule("r" + rules.size(), "R" + rules.size(), condition, ""));
    }
    Draft draft =
        demo.withDesign(demo.design().withTable(new TableId(table), t -> t.withRules(rules)));
    TableMeaning meaning = draft.meaning().of(draft.design().table(new TableId(table)));
    return reasoner.rules(meaning);
  }

  /** By hand: a firing's peak lies between 580 and 1400 °C, a kiln has at least one litre. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "firing | peak_c > 1400 | FINE",
        "firing | peak_c > 1400 AND peak_c IS NOT NULL | NEVER",
        "firing | peak_c >= 580 | ALWAYS",
        "firing | kiln_id.hottest_c >= 900 | ALWAYS",
        "firing | peak_c > 600 AND kiln_id.hottest_c < 900 | FINE",
        "firing | peak_c >= 600 | FINE",
        "kiln | litres > 0 | ALWAYS",
        "kiln | litres < 1 | NEVER",
        "kiln | fuel IN ('electric', 'gas', 'raku') | ALWAYS",
        "kiln | fuel = 'wood' | NEVER",
        "kiln | CHAR_LENGTH(name) <= 24 | ALWAYS",
        "kiln | CHAR_LENGTH(name) > 20 | FINE",
        "kiln | name LIKE 'B%' AND name NOT LIKE '_%' | NEVER",
        "kiln | SUBSTRING(name FROM 1 FOR 2) = 'Big' | NEVER",
        "kiln | UPPER(name) = 'KILN' | FINE",
        "kiln | UPPER(name) = UPPER(name) | ALWAYS",
        "piece | mark LIKE 'P-%' | ALWAYS",
        "piece | mark LIKE 'Q%' | NEVER",
        "piece | CHAR_LENGTH(mark) = 6 | ALWAYS",
        "piece | mark < 'P-5000' | FINE",
        "piece | EXTRACT(MONTH FROM made_on) <= 12 | ALWAYS",
        "piece | EXTRACT(YEAR FROM made_on) = 10000 | NEVER",
        "piece | made_on <= CURRENT_DATE | FINE",
        "piece | grams / 0 = 1 | FINE",
        "session | minutes / 30 >= 1 | ALWAYS",
        "session | MOD(minutes, 30) < 30 | ALWAYS",
        "session | minutes / (minutes - minutes) = 1 | NEVER",
        "firing | ended_at > started_at AND started_at > ended_at | FINE",
        "firing | (ended_at > started_at AND started_at > ended_at) IS TRUE | NEVER",
      })
  void aRuleByItself(String table, String condition, Verdict verdict) {
    assertThat(rules(table, condition)).extracting(Understood::verdict).containsExactly(verdict);
  }

  @Test
  void rulesTogether() {
    List<Understood> implied = rules("kiln", "litres > 100", "litres > 50", "hottest_c >= 1000");
    assertThat(implied)
        .extracting(Understood::verdict)
        .containsExactly(Verdict.FINE, Verdict.IMPLIED, Verdict.FINE);
    assertThat(implied.get(1).by()).extracting(Rule::label).containsExactly("R0");
    List<Understood> clash =
        rules("kiln", "litres > 100", "hottest_c < 1000 OR litres < 50", "hottest_c >= 1200");
    assertThat(clash).extracting(Understood::verdict).containsOnly(Verdict.CONTRADICTS);
    assertThat(clash.getFirst().by()).extracting(Rule::label).containsExactly("R1", "R2");
  }

  /** At the borders of the rule; each of them is tried by the evaluator before it is shown. */
  @Test
  void theRowsThatAreShownStandAtTheBorder() {
    Understood heat = rules("kiln", "hottest_c > 1200 OR litres < 60").getFirst();
    assertThat(heat.fails().getFirst().texts())
        .isEqualTo(Map.of("hottest_c", "1200", "litres", "60"));
    assertThat(heat.passes())
        .extracting(Witness::texts)
        .containsAnyOf(
            Map.of("hottest_c", "1200", "litres", "59"),
            Map.of("hottest_c", "1201", "litres", "60"));
    Understood empty = rules("firing", "peak_c > 1000").getFirst();
    assertThat(empty.passes()).extracting(w -> w.texts().get("peak_c")).contains("1001", "");
  }

  @Test
  void whatFollowsIsSaid() {
    assertThat(rules("firing", "remark IS NOT NULL").getFirst().notes())
        .extracting(Note::words)
        .containsExactly("It makes Remark required.");
    assertThat(rules("firing", "remark IS NULL").getFirst().notes())
        .extracting(Note::words)
        .containsExactly("It lets Remark have no value.");
    assertThat(rules("session", "minutes > 200").getFirst().notes())
        .extracting(Note::words)
        .containsExactly("It refuses the default of Minutes.");
    assertThat(rules("firing", "peak_c < 500").getFirst().notes())
        .extracting(Note::words)
        .contains("It is true of no row; rows pass only where it is unknown.");
  }

  @Test
  void theDemosRulesAreFine() {
    Draft demo = Pottery.demo();
    for (Table table : demo.design().tables()) {
      for (Understood understood : reasoner.rules(demo.meaning().of(table))) {
        assertThat(understood.verdict()).as("%s", understood).isEqualTo(Verdict.FINE);
        boolean ofRow =
            understood.rule().demand() instanceof Demand.OfRow
                || understood.rule().demand() instanceof Demand.OfChildren;
        assertThat(understood.passes().isEmpty()).as("%s", understood).isEqualTo(!ofRow);
        assertThat(understood.fails().isEmpty()).as("%s", understood).isEqualTo(!ofRow);
      }
    }
  }

  /** No row of many breaks what is said to be so of all; what cannot be found out is left out. */
  @Test
  void whatIsSaidOfAllRowsHolds() {
    Map<Verdict, Integer> said = new EnumMap<>(Verdict.class);
    var hasty = new Reasoner(Pottery.CLOCK, Duration.ofMillis(150));
    for (long seed : Tries.of(8).toArray()) {
      var random = new RandomRules(seed);
      Draft draft = random.draft(ROWS);
      var conditions = new ArrayList<>(random.conditions(2));
      conditions.add(conditions.getFirst() + " OR " + random.condition());
      var rules = new ArrayList<Rule>();
      conditions.forEach(c -> rules.add(new Rule("r" + rules.size(), "R", c, "")));
      Table table = draft.design().tables().iterator().next().withRules(rules);
      Draft ruled = draft.withDesign(draft.design().withTable(table.id(), t -> table));
      TableMeaning meaning = ruled.meaning().of(table);
      for (Understood understood : hasty.rules(meaning)) {
        said.merge(understood.verdict(), 1, Integer::sum);
        check(ruled, meaning, understood, "seed " + seed + ": " + understood);
      }
    }
    hasty.close();
    System.out.println("rules understood: " + said);
    assertThat(said.keySet()).as("not all are undecided").hasSizeGreaterThan(Tries.least(2));
  }

  private static void check(Draft draft, TableMeaning meaning, Understood said, String as) {
    var values = new RowValues(meaning.table(), draft.rows().of(meaning.table().id()));
    boolean claims = said.verdict() != Verdict.FINE && said.verdict() != Verdict.UNDECIDED;
    assertThat(
            IntStream.range(0, claims ? values.count() : 0)
                .filter(row -> !isAsSaid(meaning, said, values.row(row)))
                .boxed())
        .as(as + ": rows that break what is said")
        .isEmpty();
    said.passes().forEach(w -> assertThat(passes(meaning, said.rule(), w)).as(as).isTrue());
    said.fails().forEach(w -> assertThat(passes(meaning, said.rule(), w)).as(as).isFalse());
  }

  private static boolean isAsSaid(
      TableMeaning meaning, Understood said, Function<Reference, Value> row) {
    boolean passes = passes(meaning, said.rule(), row);
    BooleanSupplier others = () -> said.by().stream().allMatch(rule -> passes(meaning, rule, row));
    return switch (said.verdict()) {
      case NEVER -> !passes;
      case ALWAYS -> passes;
      case IMPLIED -> passes || !others.getAsBoolean();
      case CONTRADICTS -> !passes || !others.getAsBoolean();
      case FINE, UNDECIDED -> true;
    };
  }

  private static boolean passes(TableMeaning meaning, Rule rule, Witness witness) {
    return passes(meaning, rule, reference -> witness.values().get(reference));
  }

  private static boolean passes(TableMeaning meaning, Rule rule, Function<Reference, Value> row) {
    Constraint.Holds holds =
        meaning.rules().stream().filter(h -> h.rule().equals(rule)).findFirst().orElseThrow();
    try {
      return !new Evaluator(Pottery.CLOCK)
          .evaluate(((Checked.Sound) holds.condition()).tree(), row)
          .equals(Value.FALSE);
    } catch (EvaluationException refused) {
      return false;
    }
  }
}
