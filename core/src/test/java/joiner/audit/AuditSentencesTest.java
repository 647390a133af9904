package joiner.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import joiner.Pottery;
import joiner.expression.Value;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What an audit says, word for word, and just where each bound lies. */
class AuditSentencesTest {
  private static final FieldId A = new FieldId("a");
  private static final FieldType NUMBER = new FieldType.WholeNumber(Width.BITS_32);

  private static Table kiln(Field... fields) {
    return Table.of("kiln", "Kiln", new Noun("kiln", "kilns")).withFields(List.of(fields));
  }

  private static Field field(FieldType type) {
    return Field.of("a", "Litres", type);
  }

  private static AuditReport report(Table table, String... values) {
    var rows =
        Pottery.rows(table, Arrays.stream(values).map(v -> List.of(v.split("\\|", -1))).toList());
    Design design = Design.empty("d", "D").withTableAdded(table);
    return Audit.of(new Draft(design, new SampleRows(Map.of(table.id(), rows))), Pottery.CLOCK);
  }

  private static List<String> says(Table table, String... values) {
    return report(table, values).violations().map(Violation::message).toList();
  }

  private static Limits limits(String kind, String bound) {
    var bounds = new ArrayList<Optional<String>>();
    for (String each : List.of("minimum", "maximum", "above", "below", "pattern")) {
      bounds.add(each.equals(kind) ? Optional.of(bound) : Optional.empty());
    }
    return new Limits(
        bounds.get(0),
        bounds.get(1),
        bounds.get(2),
        bounds.get(3),
        bounds.get(4),
        kind.equals("minLength") ? OptionalInt.of(Integer.parseInt(bound)) : OptionalInt.empty(),
        List.of());
  }

  @ParameterizedTest
  @CsvSource({
    "minimum,5,4|5|6,1,must be at least 5",
    "minimum,0,-1|0|1,1,must be at least 0",
    "maximum,5,6|5|4,1,must be at most 5",
    "above,5,4|5|6,1 2,must be greater than 5",
    "below,5,6|5|4,1 2,must be less than 5",
    "minLength,2,7|12|123,1,must be at least 2 long",
    "pattern,[0-9],12|1|2,1,must match the pattern [0-9]"
  })
  void aBoundLiesExactlyThere(String kind, String bound, String cells, String bad, String says) {
    Table table = kiln(field(NUMBER).withLimits(limits(kind, bound)));
    String[] values = cells.split("\\|");
    List<Violation> found = report(table, values).violations().toList();
    assertThat(found).hasSize(1);
    Violation one = found.getFirst();
    assertThat(one.kind()).isEqualTo(Violation.Kind.RULE);
    assertThat(one.constraint()).isEqualTo(kind + " of a");
    assertThat(one.rows().stream().map(String::valueOf).collect(Collectors.joining(" ")))
        .isEqualTo(bad);
    assertThat(one.message()).endsWith(": Litres " + says + "; found “" + values[0] + "”.");
  }

  /** Zero has no digit before its point, and a bound may have more digits than the values. */
  @Test
  void aBoundNeedNotBeAValueOfTheField() {
    Field share = field(new FieldType.Decimal(2, 2));
    assertThat(says(kiln(share.withLimits(limits("minimum", "0"))), "0", "-0.25", "0.5"))
        .containsExactly("Row 2: Litres must be at least 0; found “-0.25”.");
    assertThat(says(kiln(share.withLimits(limits("above", "-7.125"))), "0", "-0.25")).isEmpty();
    Field small = field(new FieldType.WholeNumber(Width.BITS_16));
    assertThat(says(kiln(small.withLimits(limits("minimum", "100000"))), "7"))
        .containsExactly("Row 1: Litres must be at least 100000; found “7”.");
  }

  @Test
  void anEmptyCellBreaksNoBound() {
    for (String kind : List.of("minimum", "maximum", "above", "below", "pattern", "minLength")) {
      assertThat(says(kiln(field(NUMBER).withLimits(limits(kind, "5"))), "")).isEmpty();
    }
  }

  @Test
  void aWrongTypeSaysWhatWasExpected() {
    assertThat(says(kiln(field(NUMBER)), "12", "many", "few"))
        .containsExactly("Rows 2 and 3: Litres holds “many” where a whole number was expected.");
  }

  @Test
  void aLongTextSaysHowLongTheLongestIs() {
    assertThat(says(kiln(field(new FieldType.Text(3))), "abc", "abcde", "abcd", ""))
        .containsExactly("Rows 2 and 3: Litres allows 3 characters; the longest here has 5.");
  }

  @Test
  void whatIsMissingIsSaidOfOneAndOfSeveral() {
    Table table = kiln(field(NUMBER).withRequired(true));
    assertThat(says(table, "1", "")).containsExactly("Row 2 lacks Litres, which is required.");
    assertThat(says(table, "", "", "1"))
        .containsExactly("Rows 1 and 2 lack Litres, which is required.");
    assertThat(says(table, "1")).isEmpty();
  }

  @Test
  void aChoiceThatIsNoneSaysWhichThereAreAndHintsAtSlips() {
    AuditReport report =
        report(
            kiln(field(FieldType.Choice.of(List.of("gas", "Wood")))),
            "gas",
            "coal",
            " GAS",
            "wood");
    assertThat(report.violations().map(Violation::message))
        .containsExactly(
            "Rows 2, 3 and 4: “coal” is not one of the choices of Litres (gas, Wood).");
    assertThat(report.hints().map(Hint::message))
        .containsExactly(
            "“ GAS” differs from the choice “gas” only in blanks or case.",
            "“wood” differs from the choice “Wood” only in blanks or case.");
    assertThat(report.hints().map(Hint::rows)).containsExactly(List.of(3), List.of(4));
  }

  @Test
  void aRepeatedKeySaysWhereTheFirstIs() {
    Table table = kiln(field(new FieldType.Text(9))).withPrimaryKey(List.of(A));
    AuditReport report = report(table, "Ash", "Bo", "Ash", "Bo", "bo ");
    assertThat(report.violations().map(Violation::message))
        .containsExactly(
            "Rows 3 and 4 repeat a value of Litres that must occur once; the first is “Ash”, also"
                + " in row 1.");
    assertThat(report.hints().map(Hint::message))
        .containsExactly("“Bo” and “bo ” differ only in blanks or case; they may be one.");
    assertThat(report.hints().map(Hint::rows)).containsExactly(List.of(2, 5));
    assertThat(says(table, "Ash", "Bo", "Bo"))
        .containsExactly(
            "Row 3 repeats a value of Litres that must occur once; the first is “Bo”, also in row"
                + " 2.");
  }

  @Test
  void onlyAKeyOfOneFieldHintsAtSlips() {
    Table table =
        kiln(field(new FieldType.Text(9)), Field.of("b", "B", new FieldType.Text(9)))
            .withPrimaryKey(List.of(A, new FieldId("b")));
    assertThat(report(table, "Ash|x", "ash|x").hints()).isEmpty();
  }

  private static List<String> orphans(String... kilns) {
    Table parent = kiln(field(new FieldType.Text(9))).withPrimaryKey(List.of(A));
    Table child =
        Table.of("load", "Load", new Noun("load", "loads"))
            .withFields(List.of(Field.of("a", "Kiln", new FieldType.Text(9))));
    Design design =
        Design.empty("d", "D")
            .withTableAdded(parent)
            .withTableAdded(child)
            .withRelationshipAdded(
                Relationship.of("fk", child.id(), List.of(A), parent.id(), List.of(A)));
    var rows =
        new SampleRows(
            Map.of(
                parent.id(), Pottery.rows(parent, List.of(List.of("Ember"), List.of("Ash"))),
                child.id(), Pottery.rows(child, Arrays.stream(kilns).map(List::of).toList())));
    return Audit.of(new Draft(design, rows), Pottery.CLOCK)
        .violations()
        .map(Violation::message)
        .toList();
  }

  @Test
  void aRowWithoutItsParentSaysWhatItPointsTo() {
    assertThat(orphans("Ember", "Tom"))
        .containsExactly("Row 2 points to a kiln that does not exist, for example “Tom”.");
    assertThat(orphans("Tom", "ember ", "Ash"))
        .containsExactly(
            "Rows 1 and 2 point to a kiln that does not exist, for example “Tom”. “ember ” differs"
                + " from “Ember” only in blanks or case.");
    assertThat(orphans("Ember", "")).isEmpty();
  }

  @Test
  void aBrokenRuleIsSaidWithItsMessageOrItsName() {
    Table named = kiln(field(NUMBER)).withRules(List.of(new Rule("r", "Big enough", "a > 9", " ")));
    assertThat(says(named, "5", "10")).containsExactly("Row 1 breaks the rule Big enough");
    assertThat(says(named, "5", "6")).containsExactly("Rows 1 and 2 break the rule Big enough");
    Table told =
        kiln(field(NUMBER)).withRules(List.of(new Rule("r", "Big", "a > 9", "Too small.")));
    assertThat(says(told, "5", "10")).containsExactly("Row 1 is refused: Too small.");
    assertThat(says(told, "5", "6")).containsExactly("Rows 1 and 2 are refused: Too small.");
    assertThat(report(told, "5").violations().map(Violation::fields)).containsExactly(List.of(A));
  }

  @Test
  void rowsAreNamedUpToThreeThenCounted() {
    assertThat(Sentences.rows(List.of(3), 1)).isEqualTo("Row 3");
    assertThat(Sentences.rows(List.of(3, 1007), 2)).isEqualTo("Rows 3 and 1,007");
    assertThat(Sentences.rows(List.of(3, 7, 12), 3)).isEqualTo("Rows 3, 7 and 12");
    assertThat(Sentences.rows(List.of(3, 7, 12, 14), 4)).isEqualTo("4 rows (3, 7, 12, …)");
    assertThat(Sentences.folded(List.of(new Value.Text(" Ash "), new Value.Text("BO"))))
        .isEqualTo(List.of(new Value.Text("ash"), new Value.Text("bo")));
    var day = new Value.Date(LocalDate.of(2026, 3, 14));
    assertThat(Sentences.folded(List.of(day)))
        .as("a date written like a text is no slip of it")
        .isNotEqualTo(Sentences.folded(List.of(new Value.Text("2026-03-14"))));
  }

  @Test
  void aLongRuleIsStoppedInTheMiddleOfItsTable() {
    Table table = kiln(field(NUMBER)).withRules(List.of(new Rule("r", "r", "a > 0", "")));
    String[] cells = new String[5000];
    Arrays.fill(cells, "1");
    var rows = Pottery.rows(table, Arrays.stream(cells).map(List::of).toList());
    Design design = Design.empty("d", "D").withTableAdded(table);
    Draft draft = new Draft(design, new SampleRows(Map.of(table.id(), rows)));
    var asked = new java.util.concurrent.atomic.AtomicInteger();
    AuditReport stopped = Audit.of(draft, Pottery.CLOCK, () -> asked.incrementAndGet() > 1);
    assertThat(stopped.tables()).as("asked %s times", asked).isEmpty();
    assertThat(Audit.of(draft, Pottery.CLOCK).tables()).hasSize(1);
    asked.set(0);
    Audit.of(draft, Pottery.CLOCK, () -> asked.incrementAndGet() < 0);
    int batches = (5000 + CellBatch.ROWS - 1) / CellBatch.ROWS;
    assertThat(asked.get()).as("every %s rows", CellBatch.ROWS).isEqualTo(batches);
  }

  @Test
  void everyTableAsksWhetherToStop() {
    var asked = new java.util.concurrent.atomic.AtomicInteger();
    Draft demo = Pottery.demo();
    Audit.of(demo, Pottery.CLOCK, () -> asked.incrementAndGet() < 0);
    assertThat(asked.get()).isEqualTo(demo.rows().byTable().size());
  }
}
