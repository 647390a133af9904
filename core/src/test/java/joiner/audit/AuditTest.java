package joiner.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.Pottery;
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

class AuditTest {
  private static final FieldId A = new FieldId("a");
  private static final FieldId B = new FieldId("b");

  private static Table table(String name, Field... fields) {
    return Table.of(name, name, new Noun(name, name + "s")).withFields(List.of(fields));
  }

  private static List<Violation> audit(Table table, String... values) {
    var rows =
        Pottery.rows(
            table, java.util.Arrays.stream(values).map(v -> List.of(v.split("\\|", -1))).toList());
    Design design = Design.empty("d", "D").withTableAdded(table);
    return Audit.of(new Draft(design, new SampleRows(Map.of(table.id(), rows))), Pottery.CLOCK)
        .violations()
        .toList();
  }

  private static List<Violation> audit(FieldType type, String... values) {
    return audit(table("t", Field.of("a", "A", type)), values);
  }

  @Test
  void theDemoIsClean() {
    AuditReport report = Audit.of(Pottery.demo(), Pottery.CLOCK);
    assertThat(report.violations()).isEmpty();
    assertThat(report.rows()).isEqualTo(678);
  }

  @Test
  void everyPlantedDefectIsFoundOnceAndNothingElse() {
    assertThat(
            Audit.of(Pottery.broken(), Pottery.CLOCK)
                .violations()
                .map(v -> v.table() + " " + v.kind().id() + " " + v.rows()))
        .containsExactly(
            "member missing-required [22]",
            "member missing-required [12, 19, 26]",
            "member duplicate-key [15]",
            "member rule [5, 15, 25]",
            "locker duplicate-key [6]",
            "session duplicate-key [5]",
            "enrolment rule [4]",
            "enrolment orphan [4]",
            "firing too-long [7]",
            "firing rule [3]",
            "firing rule [20]",
            "incident rule [4]",
            "material wrong-type [1, 2, 3, 4, 6, 8, 9, 10, 11, 12, 13, 14]",
            "material rule [6]",
            "glaze wrong-type [3]",
            "glaze rule [4]",
            "piece not-in-list [8]",
            "piece wrong-type [14]",
            "piece orphan [20]",
            "piece_glaze duplicate-key [121]",
            "piece_glaze orphan [5, 9]");
    assertThat(Audit.of(Pottery.broken(), Pottery.CLOCK).hints().map(Hint::message))
        .anyMatch(text -> text.contains("“Clay Barn” and “Clay barn ”"));
  }

  /** Lexical forms of Table Schema (version 2) and ISO 8601. */
  @ParameterizedTest
  @CsvSource({
    "date,2026-03-14,true",
    "date,2026-3-14,false",
    "date,14.03.2026,false",
    "date,2026-02-29,false",
    "date,2024-02-29,true",
    "date,' 2026-03-14',false",
    "whole,32767,true",
    "whole,32768,false",
    "whole,1.0,false",
    "whole,+7,true",
    "whole,1e3,false",
    "decimal,123.45,true",
    "decimal,123.456,false",
    "decimal,1e2,true",
    "decimal,'1,5',false",
    "boolean,true,true",
    "boolean,1,true",
    "boolean,yes,false",
    "time,18:05,true",
    "time,25:00,false",
    "datetime,2026-03-14T18:05:00,true",
    "datetime,2026-03-14 18:05:00,false",
    "zoned,2026-03-14T18:05:00+01:00,true",
    "zoned,2026-03-14T18:05:00,false",
    "email,a@b,true",
    "email,ab,false",
    "uuid,6f9619ff-8b86-d011-b42d-00cf4fc964ff,true",
    "uuid,6f9619ff,false",
    "web,https://example.org/a,true",
    "web,example,false"
  })
  void aValueFitsItsTypeOrDoesNot(String type, String value, boolean fits) {
    Map<String, FieldType> types =
        Map.of(
            "date",
            new FieldType.Date(),
            "whole",
            new FieldType.WholeNumber(Width.BITS_16),
            "decimal",
            new FieldType.Decimal(6, 2),
            "boolean",
            new FieldType.TrueFalse(),
            "time",
            new FieldType.Time(),
            "datetime",
            new FieldType.DateTime(false),
            "zoned",
            new FieldType.DateTime(true),
            "email",
            new FieldType.Email(80),
            "uuid",
            new FieldType.Uuid(),
            "web",
            new FieldType.WebAddress(80));
    assertThat(audit(types.get(type), value).isEmpty()).isEqualTo(fits);
  }

  @Test
  void lengthCountsCodePoints() {
    assertThat(audit(new FieldType.Text(3), "🏺🏺🏺")).isEmpty();
    assertThat(audit(new FieldType.Text(3), "🏺🏺🏺🏺", "abc "))
        .extracting(Violation::count)
        .containsExactly(2L);
  }

  @Test
  void aWrongValueCountsOnceAndIsNullForKeysAndRules() {
    Table table =
        table("t", Field.of("a", "A", new FieldType.WholeNumber(Width.BITS_32)).withRequired(true))
            .withPrimaryKey(List.of(A))
            .withRules(List.of(new Rule("positive", "positive", "a > 0", "")));
    assertThat(audit(table, "x", "x"))
        .extracting(v -> v.kind().id(), Violation::count)
        .containsExactly(org.assertj.core.groups.Tuple.tuple("wrong-type", 2L));
  }

  @Test
  void numbersCompareByValueAndTextsExactly() {
    Table numbers =
        table("t", Field.of("a", "A", new FieldType.Decimal(6, 2))).withPrimaryKey(List.of(A));
    assertThat(audit(numbers, "1.50", "1.5", "+1.5"))
        .extracting(Violation::rows)
        .containsExactly(List.of(2, 3));
    Table texts = table("t", Field.of("a", "A", new FieldType.Text(9))).withPrimaryKey(List.of(A));
    assertThat(audit(texts, "01", "1", "1 ", "a", "A")).isEmpty();
  }

  /** ISO/IEC 9075-2, unique constraint: rows with a NULL part do not count (from memory). */
  @Test
  void aUniqueKeyIgnoresRowsWithAnEmptyPart() {
    Table table =
        table(
                "t",
                Field.of("a", "A", new FieldType.Text(9)),
                Field.of("b", "B", new FieldType.Text(9)))
            .withUniqueKeys(List.of(new joiner.model.UniqueKey("uq", List.of(A, B))));
    assertThat(audit(table, "x|", "x|", "|", "|", "x|y")).isEmpty();
    assertThat(audit(table, "x|y", "x|y", "x|y"))
        .extracting(Violation::rows)
        .containsExactly(List.of(2, 3));
  }

  /**
   * ISO/IEC 9075-2, referential constraint, MATCH SIMPLE: a NULL part satisfies it (from memory).
   */
  @Test
  void aCompositeReferenceWithAnEmptyPartPasses() {
    Table parent =
        table(
                "p",
                Field.of("a", "A", new FieldType.Text(9)),
                Field.of("b", "B", new FieldType.WholeNumber(Width.BITS_32)))
            .withPrimaryKey(List.of(A, B));
    Table child =
        table(
            "c",
            Field.of("a", "A", new FieldType.Text(9)),
            Field.of("b", "B", new FieldType.WholeNumber(Width.BITS_32)));
    Design design =
        Design.empty("d", "D")
            .withTableAdded(parent)
            .withTableAdded(child)
            .withRelationshipAdded(
                Relationship.of("fk", child.id(), List.of(A, B), parent.id(), List.of(A, B)));
    var rows =
        new SampleRows(
            Map.of(
                parent.id(), Pottery.rows(parent, List.of(List.of("x", "1"))),
                child.id(),
                    Pottery.rows(
                        child,
                        List.of(
                            List.of("x", "01"),
                            List.of("zz", ""),
                            List.of("", "9"),
                            List.of("x", "2")))));
    assertThat(Audit.of(new Draft(design, rows), Pottery.CLOCK).violations())
        .extracting(v -> v.kind().id(), Violation::rows)
        .containsExactly(org.assertj.core.groups.Tuple.tuple("orphan", List.of(4)));
  }

  /** ISO/IEC 9075-2, check constraint: only false refuses, unknown passes (from memory). */
  @Test
  void aRuleThatIsUnknownPasses() {
    Table table =
        table("t", Field.of("a", "A", new FieldType.WholeNumber(Width.BITS_32)))
            .withRules(
                List.of(
                    new Rule("r", "r", "a > 0", "Must be positive."),
                    new Rule("z", "z", "10 / a > 1", "")));
    assertThat(audit(table, "", "5", "-1", "0"))
        .extracting(Violation::constraint, Violation::rows)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple("r", List.of(3, 4)),
            org.assertj.core.groups.Tuple.tuple("z", List.of(3, 4)));
  }

  @Test
  void boundsAndPatternsAreRules() {
    Limits limits =
        new Limits(
            Optional.of("2"),
            Optional.of("9"),
            Optional.empty(),
            Optional.empty(),
            Optional.of("[0-9]"),
            OptionalInt.empty(),
            List.of("3", "4.0"));
    Table table = table("t", Field.of("a", "A", new FieldType.AnyNumber()).withLimits(limits));
    assertThat(audit(table, "3", "4", "1", "10"))
        .extracting(v -> v.kind().id() + " " + v.rows())
        .containsExactly("not-in-list [3, 4]", "rule [3]", "rule [4]", "rule [4]");
  }

  @Test
  void stoppingLeavesTheTablesDone() {
    assertThat(Audit.of(Pottery.demo(), Pottery.CLOCK, () -> true).tables()).isEmpty();
  }
}
