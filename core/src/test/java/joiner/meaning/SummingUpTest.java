package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.edit.ChangeField;
import joiner.edit.RemoveRelationship;
import joiner.edit.SetOrigin;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.finding.DesignChecks;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Summing;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** Fields that are made of the rows that refer to a row. */
class SummingUpTest {
  private static final TableId GLAZE = new TableId("glaze");
  private static final TableId LINE = new TableId("recipe_line");
  private static final TableId MATERIAL = new TableId("material");
  private static final TableId SUPPLIER = new TableId("supplier");
  private static final Draft DEMO = Pottery.demo();

  private static RelationshipId between(TableId child, TableId parent) {
    return DEMO.design().relationships().stream()
        .filter(r -> r.child().equals(child) && r.parent().equals(parent))
        .map(Relationship::id)
        .findFirst()
        .orElseThrow();
  }

  private static Origin.SummedUp up(Summing how, TableId child, TableId parent, String of) {
    return new Origin.SummedUp(how, between(child, parent), Formula.unlessBlank(of));
  }

  private static Draft with(Draft draft, TableId table, String name, Origin by) {
    Field field = Field.of(name, name, new FieldType.LongText());
    Table added = draft.design().table(table).withFieldAdded(field);
    return SetOrigin.by(added, field, by)
        .apply(draft.withDesign(draft.design().withTable(table, t -> added)));
  }

  private static Draft with(Draft draft, TableId table, String name, String formula) {
    return with(draft, table, name, new Origin.Computed(new Formula(formula)));
  }

  private static List<String> column(Draft draft, TableId table, String field) {
    Rows rows =
        WorkedOut.of(draft, draft.design().table(table), Pottery.CLOCK).in(draft.rows().of(table));
    return IntStream.range(0, rows.count())
        .mapToObj(row -> rows.cell(row, new FieldId(field)).orElse("–"))
        .toList();
  }

  /** For each glaze what its recipe lines hold in a field, found by going through all of them. */
  private static List<List<String>> linesOf(String field) {
    List<String> owners = column(DEMO, LINE, "glaze_id");
    List<String> values = column(DEMO, LINE, field);
    return column(DEMO, GLAZE, "glaze_id").stream()
        .map(
            glaze ->
                IntStream.range(0, owners.size())
                    .filter(row -> owners.get(row).equals(glaze))
                    .mapToObj(values::get)
                    .toList())
        .toList();
  }

  private static String problem(Draft draft, TableId table, String field) {
    Checked checked = draft.meaning().of(table).computed(new FieldId(field)).orElseThrow();
    return ((Checked.Faulty) checked).problems().getFirst().message();
  }

  @Test
  void aCountIsHowManyRowsReferAndNoneIsZero() {
    Draft draft = with(DEMO, GLAZE, "lines", up(Summing.COUNT, LINE, GLAZE, ""));
    List<String> expected =
        linesOf("percentage").stream().map(lines -> String.valueOf(lines.size())).toList();
    assertThat(column(draft, GLAZE, "lines")).isEqualTo(expected);
    Draft alone = draft.withRows(draft.rows().without(LINE));
    assertThat(column(alone, GLAZE, "lines")).containsOnly("0");
  }

  @Test
  void aSumAMeanAndExtremesAreThoseOfTheValues() {
    Draft draft = DEMO;
    for (Summing how : List.of(Summing.SUM, Summing.AVERAGE, Summing.LEAST, Summing.GREATEST)) {
      draft = with(draft, GLAZE, how.name().toLowerCase(), up(how, LINE, GLAZE, "percentage"));
    }
    List<List<BigDecimal>> lines =
        linesOf("percentage").stream()
            .map(values -> values.stream().map(BigDecimal::new).toList())
            .toList();
    List<BigDecimal> sums =
        lines.stream().map(values -> values.stream().reduce(BigDecimal::add).orElse(null)).toList();
    assertThat(numbers(draft, "sum")).isEqualTo(texts(sums));
    List<BigDecimal> means =
        IntStream.range(0, sums.size())
            .mapToObj(
                i ->
                    sums.get(i) == null
                        ? null
                        : sums.get(i)
                            .divide(
                                BigDecimal.valueOf(lines.get(i).size()), 2, RoundingMode.HALF_UP))
            .toList();
    assertThat(numbers(draft, "average")).isEqualTo(texts(means));
    assertThat(numbers(draft, "least"))
        .isEqualTo(
            texts(
                lines.stream()
                    .map(v -> v.stream().min(BigDecimal::compareTo).orElse(null))
                    .toList()));
    assertThat(numbers(draft, "greatest"))
        .isEqualTo(
            texts(
                lines.stream()
                    .map(v -> v.stream().max(BigDecimal::compareTo).orElse(null))
                    .toList()));
  }

  private static List<String> numbers(Draft draft, String field) {
    return column(draft, GLAZE, field).stream()
        .map(
            text ->
                text.equals("–") ? text : new BigDecimal(text).stripTrailingZeros().toPlainString())
        .toList();
  }

  private static List<String> texts(List<BigDecimal> numbers) {
    return numbers.stream()
        .map(number -> number == null ? "–" : number.stripTrailingZeros().toPlainString())
        .toList();
  }

  @Test
  void textsAreJoinedInTheOrderSaidFromRowsTheChildrenLeadTo() {
    Origin.SummedUp by =
        up(Summing.JOINED, LINE, GLAZE, "material_id.name")
            .withBy(Optional.of(new Formula("0 - percentage")))
            .withBetween(" + ");
    Draft draft = with(DEMO, GLAZE, "recipe", by);
    Draft named = with(DEMO, LINE, "named", "material_id.name");
    List<String> names = column(named, LINE, "named");
    List<String> owners = column(DEMO, LINE, "glaze_id");
    List<String> shares = column(DEMO, LINE, "percentage");
    List<String> expected =
        column(DEMO, GLAZE, "glaze_id").stream()
            .map(
                glaze ->
                    IntStream.range(0, owners.size())
                        .filter(row -> owners.get(row).equals(glaze))
                        .boxed()
                        .sorted(
                            Comparator.comparing((Integer row) -> new BigDecimal(shares.get(row)))
                                .reversed()
                                .thenComparing(names::get))
                        .map(names::get)
                        .reduce((a, b) -> a + " + " + b)
                        .orElse("–"))
            .toList();
    assertThat(column(draft, GLAZE, "recipe")).isEqualTo(expected);
  }

  @Test
  void anyAndAllAnswerForRowsThatSayNothingToo() {
    Draft draft = with(DEMO, GLAZE, "any", up(Summing.ANY, LINE, GLAZE, "percentage > 40"));
    draft = with(draft, GLAZE, "all", up(Summing.ALL, LINE, GLAZE, "percentage > 5"));
    List<List<String>> lines = linesOf("percentage");
    assertThat(column(draft, GLAZE, "any"))
        .isEqualTo(
            lines.stream()
                .map(v -> String.valueOf(v.stream().anyMatch(p -> isAbove(p, 40))))
                .toList());
    assertThat(column(draft, GLAZE, "all"))
        .isEqualTo(
            lines.stream()
                .map(v -> String.valueOf(v.stream().allMatch(p -> isAbove(p, 5))))
                .toList());
    Draft alone = draft.withRows(draft.rows().without(LINE));
    assertThat(column(alone, GLAZE, "any")).containsOnly("false");
    assertThat(column(alone, GLAZE, "all")).containsOnly("true");
  }

  private static boolean isAbove(String number, int bound) {
    return new BigDecimal(number).compareTo(BigDecimal.valueOf(bound)) > 0;
  }

  @Test
  void whatIsSummedUpIsSummedUpAgainAndCarried() {
    Draft draft = with(DEMO, MATERIAL, "uses", up(Summing.COUNT, LINE, MATERIAL, ""));
    draft = with(draft, SUPPLIER, "uses", up(Summing.SUM, MATERIAL, SUPPLIER, "uses"));
    draft = with(draft, LINE, "used", "material_id.uses");
    int all = column(DEMO, LINE, "percentage").size();
    int summed =
        column(draft, SUPPLIER, "uses").stream()
            .filter(text -> !text.equals("–"))
            .mapToInt(Integer::parseInt)
            .sum();
    assertThat(summed).isEqualTo(all);
    assertThat(column(draft, LINE, "used")).doesNotContain("–", "0").hasSize(all);
  }

  @Test
  void aConditionChoosesRowsAndANameGoesAlong() {
    Origin.SummedUp by =
        up(Summing.COUNT, LINE, GLAZE, "")
            .withWhere(Optional.of(new Formula("percentage >= 20 AND material_id.name <> ''")));
    Draft draft = with(DEMO, GLAZE, "main", by);
    Table line = draft.design().table(LINE);
    Table material = draft.design().table(MATERIAL);
    Draft renamed =
        ChangeField.rename(line, line.field(new FieldId("percentage")), "Share", "share")
            .apply(draft);
    renamed =
        ChangeField.rename(material, material.field(new FieldId("name")), "Called", "called")
            .apply(renamed);
    Origin now = renamed.design().table(GLAZE).field(new FieldId("main")).origin();
    assertThat(((Origin.SummedUp) now).where().orElseThrow().text())
        .isEqualTo("share >= 20 AND material_id.called <> ''");
    assertThat(column(renamed, GLAZE, "main")).isEqualTo(column(draft, GLAZE, "main"));
  }

  @Test
  void itsTypeIsThatOfWhatComes() {
    Draft draft = with(DEMO, GLAZE, "lines", up(Summing.COUNT, LINE, GLAZE, ""));
    draft = with(draft, GLAZE, "sum", up(Summing.SUM, LINE, GLAZE, "percentage"));
    draft = with(draft, GLAZE, "any", up(Summing.ANY, LINE, GLAZE, "percentage > 40"));
    Table glaze = draft.design().table(GLAZE);
    assertThat(glaze.field(new FieldId("lines")).type()).isInstanceOf(FieldType.WholeNumber.class);
    assertThat(glaze.field(new FieldId("sum")).type()).isInstanceOf(FieldType.Decimal.class);
    assertThat(glaze.field(new FieldId("any")).type()).isEqualTo(new FieldType.TrueFalse());
    assertThat(DesignChecks.run(draft)).noneMatch(finding -> finding.id().startsWith("computed"));
  }

  @Test
  void whatCannotBeSummedUpIsSaid() {
    assertThat(problem(with(DEMO, GLAZE, "s", up(Summing.SUM, LINE, GLAZE, "")), GLAZE, "s"))
        .isEqualTo("Say what of each recipe line is meant.");
    assertThat(
            problem(
                with(DEMO, GLAZE, "s", up(Summing.SUM, LINE, GLAZE, "material_id.name")),
                GLAZE,
                "s"))
        .startsWith("Only numbers are added up");
    assertThat(
            problem(
                with(DEMO, GLAZE, "s", up(Summing.JOINED, LINE, GLAZE, "percentage")), GLAZE, "s"))
        .startsWith("Only texts are joined");
    assertThat(problem(with(DEMO, GLAZE, "s", up(Summing.SUM, LINE, GLAZE, "colour")), GLAZE, "s"))
        .contains("colour");
  }

  @Test
  void aCircleOverChildrenIsShown() {
    Draft draft = with(DEMO, GLAZE, "a", up(Summing.COUNT, LINE, GLAZE, ""));
    draft = with(draft, LINE, "b", "glaze_id.a");
    Table glaze = draft.design().table(GLAZE);
    draft =
        SetOrigin.by(glaze, glaze.field(new FieldId("a")), up(Summing.SUM, LINE, GLAZE, "b"))
            .apply(draft);
    assertThat(problem(draft, GLAZE, "a")).contains("hangs on itself").contains("→");
  }

  @Test
  void aRelationshipThatIsGoneIsSaidAndComesBack() {
    Draft draft = with(DEMO, GLAZE, "lines", up(Summing.COUNT, LINE, GLAZE, ""));
    Draft without = new RemoveRelationship(between(LINE, GLAZE), "it").apply(draft);
    assertThat(problem(without, GLAZE, "lines")).contains("do not belong to this table any more");
    assertThat(DesignChecks.run(without))
        .anyMatch(finding -> finding.id().equals("computed-does-not-fit"));
    assertThat(Audit.of(without, Pottery.CLOCK).tables()).isNotEmpty();
    assertThat(column(draft, GLAZE, "lines")).doesNotContain("–");
  }

  @Test
  void theTableIsToldInWords() {
    Origin.SummedUp by =
        up(Summing.COUNT, LINE, GLAZE, "").withWhere(Optional.of(new Formula("percentage > 40")));
    Draft draft = with(DEMO, GLAZE, "main", by);
    assertThat(TableInWords.of(draft, GLAZE).text())
        .contains("number of its recipe lines where percentage > 40");
  }
}
