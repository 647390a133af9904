package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import joiner.Pottery;
import joiner.Tries;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.meaning.RuleForm.Slot;
import joiner.meaning.RuleForm.Sort;
import joiner.model.Field;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Forms write conditions in SQL and are read back from them. */
class RuleFormTest {
  private static final Draft DEMO = Pottery.demo();

  private static TableMeaning meaning(String table) {
    return DEMO.meaning().of(new TableId(table));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "RANGE ! peak_c BETWEEN 580 AND 1400 ! peak_c|580|1400",
        "RANGE ! peak_c >= 580 ! peak_c|580|",
        "RANGE ! peak_c <= 1400 ! peak_c||1400",
        "RANGE ! started_at >= TIMESTAMP '2026-03-14 18:05' ! started_at|2026-03-14T18:05:00|",
        "LIST ! remark IN ('slow', 'fast') ! remark|slow, fast",
        "LIKE ! remark LIKE 'door%' ! remark|door%",
        "TODAY ! started_at <= CURRENT_DATE + INTERVAL '14' DAY ! started_at|<=|14|DAY",
        "TODAY ! started_at > CURRENT_DATE - INTERVAL '2' MONTH ! started_at|>|-2|MONTH",
        "TODAY ! started_at < CURRENT_DATE ! started_at|<|0|DAY",
        "COMPARED ! ended_at > started_at ! ended_at|>|started_at",
        "REQUIRED_WHEN ! (ended_at IS NOT NULL) IS NOT TRUE OR peak_c IS NOT NULL ! peak_c|ended_at IS NOT NULL",
        "TOGETHER ! ended_at IS NULL AND peak_c IS NULL OR ended_at IS NOT NULL AND peak_c IS NOT NULL ! ended_at|peak_c",
        "AS_ITS_PARENT ! peak_c <= kiln_id.hottest_c ! peak_c|<=|kiln_id.hottest_c",
      })
  void aFormIsReadFromWhatItWrites(Sort sort, String sql, String values) {
    RuleForm form = new RuleForm(sort, List.of(values.split("\\|", -1)));
    assertThat(RuleForm.of(meaning("firing"), new Formula(sql))).contains(form);
    assertThat(RuleForm.of(meaning("firing"), form.written(meaning("firing").table())))
        .contains(form);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      value = {
        "peak_c NOT BETWEEN 580 AND 1400",
        "peak_c > 580 AND peak_c < 900",
        "remark LIKE 'a!%' ESCAPE '!'",
        "ended_at IS NULL OR ended_at > started_at",
        "580 <= peak_c",
        "peak_c >",
      })
  void whatAFormWouldWriteOtherwiseHasNone(String sql) {
    assertThat(RuleForm.of(meaning("firing"), new Formula(sql))).isEqualTo(Optional.empty());
  }

  /** Law: whatever is filled in, a condition that can be used reads back as the same form. */
  @Test
  void everyFormThatWritesASoundConditionIsReadBack() {
    var seen = EnumSet.noneOf(Sort.class);
    Tries.of(400)
        .forEach(
            seed -> {
              var random = new Random(seed);
              List<Table> tables = List.copyOf(DEMO.design().tables());
              Table table = tables.get(random.nextInt(tables.size()));
              Sort sort = Sort.values()[random.nextInt(Sort.values().length)];
              RuleForm form = filled(sort, table, random);
              TableMeaning meaning = DEMO.meaning().of(table);
              Formula written = form.written(table);
              if (form.isWhole() && written.condition(meaning.scope()) instanceof Checked.Sound) {
                Optional<RuleForm> read = RuleForm.of(meaning, written);
                if (read.isPresent()) { // What is written out in full may be another form's.
                  seen.add(read.get().sort());
                  assertThat(read.get().written(table).condition(meaning.scope()))
                      .as("seed %d: %s", seed, written)
                      .isInstanceOf(Checked.Sound.class);
                }
                assertThat(read).as("seed %d: %s", seed, written).isPresent();
              }
            });
    assertThat(seen).hasSizeGreaterThanOrEqualTo(Tries.least(Sort.values().length));
  }

  private static RuleForm filled(Sort sort, Table table, Random random) {
    var values = new ArrayList<String>();
    List<Field> fields = table.fields().stream().filter(field -> !field.isComputed()).toList();
    for (Slot slot : sort.slots()) {
      Field field = fields.get(random.nextInt(fields.size()));
      values.add(
          switch (slot) {
            case FIELD -> field.name();
            case VALUE -> List.of("5", "12", "a", "2026-03-14", "").get(random.nextInt(5));
            case VALUES -> List.of("5, 12", "a, b", "electric").get(random.nextInt(3));
            case COMPARISON -> List.of("<=", "<", "=", "<>", ">", ">=").get(random.nextInt(6));
            case WHOLE_NUMBER -> List.of("0", "14", "-3").get(random.nextInt(3));
            case UNIT -> List.of("DAY", "MONTH", "YEAR").get(random.nextInt(3));
            case CONDITION -> fields.getFirst().name() + " IS NOT NULL";
            case PATH -> path(table, random);
          });
    }
    return new RuleForm(sort, values);
  }

  private static String path(Table table, Random random) {
    var scope = DEMO.meaning().of(table).scope();
    List<String> ways = List.copyOf(scope.ways());
    if (ways.isEmpty()) {
      return "nowhere.name";
    }
    String way = ways.get(random.nextInt(ways.size()));
    List<String> names = List.copyOf(scope.over(way).orElseThrow().names());
    return way + "." + names.get(random.nextInt(names.size()));
  }

  @Test
  void aFormThatIsNotFilledInWritesNothingThatCouldBeUsed() {
    for (Sort sort : Sort.values()) {
      RuleForm empty = sort.empty();
      assertThat(empty.isWhole()).as(sort.name()).isFalse();
      assertThat(empty.written(meaning("firing").table()).condition(meaning("firing").scope()))
          .as(sort.name())
          .isInstanceOf(Checked.Faulty.class);
    }
  }
}
