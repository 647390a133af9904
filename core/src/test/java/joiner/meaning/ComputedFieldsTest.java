package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import joiner.Pottery;
import joiner.RandomComputed;
import joiner.RandomRules;
import joiner.Tries;
import joiner.edit.SetOrigin;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Formula;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.OwnField;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.ValueReader;
import org.junit.jupiter.api.Test;

/** Fields that are worked out, in each other and over relationships. */
class ComputedFieldsTest {
  private static final TableId FIRING = new TableId("firing");
  private static final TableId KILN = new TableId("kiln");

  private static Draft with(Draft draft, TableId table, String name, String formula) {
    Field field = Field.of(name, name, new FieldType.LongText());
    Table added = draft.design().table(table).withFieldAdded(field);
    return SetOrigin.by(added, field, new Formula(formula))
        .apply(draft.withDesign(draft.design().withTable(table, t -> added)));
  }

  private static Optional<String> cell(Draft draft, TableId table, int row, String field) {
    return WorkedOut.of(draft, draft.design().table(table), Pottery.CLOCK)
        .cell(draft.rows().of(table), row, new FieldId(field));
  }

  private static String problem(Draft draft, TableId table, String field) {
    Checked checked = draft.meaning().of(table).computed(new FieldId(field)).orElseThrow();
    return ((Checked.Faulty) checked).problems().getFirst().message();
  }

  @Test
  void aFieldIsWorkedOutFromOthersThatAreWorkedOut() {
    Draft draft = with(Pottery.demo(), KILN, "cubic", "litres * 2");
    draft = with(draft, KILN, "large", "cubic > 300");
    draft = with(draft, KILN, "told", "name || CASE WHEN large THEN ' (large)' ELSE '' END");
    String name = draft.rows().of(KILN).cell(0, new FieldId("name")).orElseThrow();
    int litres =
        Integer.parseInt(draft.rows().of(KILN).cell(0, new FieldId("litres")).orElseThrow());
    assertThat(cell(draft, KILN, 0, "cubic")).contains(String.valueOf(2 * litres));
    assertThat(cell(draft, KILN, 0, "told")).contains(name + (2 * litres > 300 ? " (large)" : ""));
  }

  @Test
  void overARelationshipAParentsFieldIsWorkedOutInTheParentsRow() {
    Draft draft = with(Pottery.demo(), KILN, "told", "COALESCE(name, 'nobody') || '!'");
    draft = with(draft, FIRING, "where_at", "kiln_id.told");
    String kiln = draft.rows().of(FIRING).cell(0, new FieldId("kiln_id")).orElseThrow();
    Rows kilns = draft.rows().of(KILN);
    int at =
        java.util.stream.IntStream.range(0, kilns.count())
            .filter(row -> kilns.cell(row, new FieldId("kiln_id")).equals(Optional.of(kiln)))
            .findFirst()
            .orElseThrow();
    assertThat(cell(draft, FIRING, 0, "where_at"))
        .isEqualTo(kilns.cell(at, new FieldId("name")).map(name -> name + "!"));
    Draft without =
        draft.withRows(
            draft
                .rows()
                .with(FIRING, r -> r.withCell(0, new FieldId("kiln_id"), Optional.empty())));
    assertThat(cell(without, FIRING, 0, "where_at")).isEmpty();
  }

  @Test
  void aCircleIsShown() {
    Draft draft = with(Pottery.demo(), KILN, "a", "litres");
    draft = with(draft, KILN, "b", "a + 1");
    Table kiln = draft.design().table(KILN);
    Field a = kiln.field(new FieldId("a"));
    draft = SetOrigin.by(kiln, a, new Formula("b + 1")).apply(draft);
    assertThat(problem(draft, KILN, "a")).isEqualTo("This hangs on itself: a → b → a.");
    Draft self = with(Pottery.demo(), KILN, "hottest", "fallback_id.hottest");
    assertThat(problem(self, KILN, "hottest"))
        .startsWith("This hangs on itself: hottest → hottest");
    assertThat(cell(self, KILN, 0, "hottest")).isEmpty();
  }

  @Test
  void whatReadsAFaultyFieldIsToldWhich() {
    Draft draft = with(Pottery.demo(), KILN, "a", "litres + nothing");
    draft = with(draft, KILN, "b", "a || 'x'");
    assertThat(problem(draft, KILN, "b")).startsWith("a cannot be worked out: There is no field");
  }

  @Test
  void namesAreCarriedIntoFormulas() {
    Draft draft = with(Pottery.demo(), KILN, "cubic", "litres * 2");
    Table kiln = draft.design().table(KILN);
    Design renamed =
        Renaming.carry(
            draft.design(),
            draft
                .design()
                .withTable(
                    KILN, t -> t.withField(new FieldId("litres"), f -> f.withName("volume"))));
    assertThat(renamed.table(KILN).field(new FieldId("cubic")).origin().workedOutBy())
        .contains(new Formula("volume * 2"));
    assertThat(kiln.field(new FieldId("cubic")).isComputed()).isTrue();
  }

  /** Law: written out, a formula gives what it gives when each field it reads is worked out. */
  @Test
  void writtenOutTheyGiveTheSame() {
    var compared = new AtomicInteger();
    Tries.of(300)
        .forEach(
            seed -> {
              Draft draft = RandomComputed.draft(seed, 6, 6);
              Table table = draft.design().table(RandomRules.table().id());
              Rows rows = draft.rows().of(table.id());
              for (Field field : table.fields()) {
                for (int row = 0; field.isComputed() && row < rows.count(); row++) {
                  Optional<String> plain = plain(draft, table, rows, row, field);
                  compared.addAndGet(plain.isPresent() ? 1 : 0);
                  assertThat(cell(draft, table.id(), row, field.name()))
                      .as("seed %d, %s", seed, field)
                      .isEqualTo(plain);
                }
              }
            });
    assertThat(compared.get()).isGreaterThan(500);
  }

  /** Each field by itself, one after the other; an error is no value. */
  private static Optional<String> plain(Draft draft, Table table, Rows rows, int row, Field field) {
    try {
      return Optional.of(Evaluator.show(value(draft, table, rows, row, field)))
          .filter(text -> !text.isEmpty());
    } catch (EvaluationException e) {
      return Optional.empty();
    }
  }

  private static Value value(Draft draft, Table table, Rows rows, int row, Field field) {
    if (!field.isComputed()) {
      return ValueReader.valueOrNull(rows.cell(row, field.id()), field.type());
    }
    var scope = draft.meaning().of(table).scope();
    var sound = (Checked.Sound) field.origin().workedOutBy().orElseThrow().value(scope);
    Function<Reference, Value> read =
        to -> value(draft, table, rows, row, table.field(((OwnField) to).field()));
    return new Evaluator(Pottery.CLOCK).evaluate(sound.tree(), read);
  }

  /** Law: the type that is proposed holds whatever comes. */
  @Test
  void theTypeProposedHoldsAllThatComes() {
    Tries.of(300)
        .forEach(
            seed -> {
              Draft draft = RandomComputed.draft(seed, 6, 6);
              Table table = draft.design().table(RandomRules.table().id());
              Rows worked =
                  WorkedOut.of(draft, table, Clock.systemUTC()).in(draft.rows().of(table.id()));
              for (Field field : table.fields()) {
                for (int row = 0; field.isComputed() && row < worked.count(); row++) {
                  Optional<String> text = worked.cell(row, field.id());
                  assertThat(text.stream())
                      .as("seed %d, %s", seed, field)
                      .allSatisfy(
                          value ->
                              assertThat(ValueReader.read(value, field.type()))
                                  .isInstanceOf(ReadValue.Fits.class));
                  int most = field.type().length().orElse(Integer.MAX_VALUE);
                  assertThat(text.map(value -> value.codePointCount(0, value.length())).orElse(0))
                      .as("seed %d, %s", seed, field)
                      .isLessThanOrEqualTo(most);
                }
              }
            });
  }

  @Test
  void textsAndNumbersAreMeasured() {
    assertThat(proposed("name || ' of ' || litres_text")).isEmpty();
    assertThat(proposed("name || '!'").orElseThrow())
        .isEqualTo(new FieldType.Text(length("name") + 1));
    assertThat(proposed("SUBSTRING(name FROM 1 FOR 3)")).contains(new FieldType.Text(3));
    assertThat(proposed("litres > 5")).contains(new FieldType.TrueFalse());
    assertThat(proposed("ROUND(litres / 3.0, 2)").map(FieldType::valueType))
        .map(type -> type.scale())
        .contains(2);
    assertThat(proposed("litres / 3.0")).isEmpty();
  }

  private static int length(String field) {
    return Pottery.demo()
        .design()
        .table(KILN)
        .field(new FieldId(field))
        .type()
        .length()
        .orElseThrow();
  }

  private static Optional<FieldType> proposed(String formula) {
    Draft draft = with(Pottery.demo(), KILN, "x", formula);
    TableMeaning meaning = draft.meaning().of(KILN);
    return meaning.computed(new FieldId("x")).orElseThrow() instanceof Checked.Sound sound
            && meaning.resultOf(sound) instanceof ResultType.Found.Type(FieldType type)
        ? Optional.of(type)
        : Optional.empty();
  }
}
