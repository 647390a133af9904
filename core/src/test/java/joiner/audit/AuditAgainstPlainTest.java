package joiner.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import joiner.Pottery;
import joiner.RandomComputed;
import joiner.RandomDesigns;
import joiner.RandomRules;
import joiner.Tries;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.meaning.WorkedOut;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Noun;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;
import joiner.rows.RowSource;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.rows.TableRows;
import org.junit.jupiter.api.Test;

/** The audit finds what a plain one finds, in memory, in one pass, and with keys in files. */
class AuditAgainstPlainTest {
  private static final List<FieldType> KEY_TYPES =
      List.of(
          new FieldType.WholeNumber(Width.BITS_64),
          new FieldType.WholeNumber(Width.BITS_16),
          new FieldType.Decimal(6, 2),
          new FieldType.Decimal(20, 3),
          new FieldType.AnyNumber(),
          new FieldType.Text(8),
          new FieldType.Uuid(),
          new FieldType.Date(),
          new FieldType.Time(),
          new FieldType.DateTime(false),
          new FieldType.DateTime(true),
          new FieldType.TrueFalse());

  private static final List<String> TEXTS =
      List.of(
          "1",
          "01",
          "1.0",
          "1.50",
          "-1",
          "+1",
          "0",
          "-0",
          "0.10",
          ".5",
          "5.",
          "1e2",
          "100",
          "9223372036854775807",
          "-9223372036854775808",
          "9223372036854775808",
          "32767",
          "32768",
          "999.999",
          "12345678901234567.891",
          "a",
          "A",
          " a",
          "ab",
          "Ofen süd",
          "😀",
          "x\u0000y",
          "2026-02-28",
          "2026-02-29",
          "2024-02-29",
          "2026-03-14",
          "2026-12-31",
          "2026-13-01",
          "0000-01-01",
          "0001-01-01",
          "9999-12-31",
          "2026-3-1",
          "2026-03-14T10:00:00",
          "2026-03-14T10:00",
          "2026-03-14T10:00:00.5",
          "2026-03-14T10:00:00.000000001",
          "2026-03-14T10:00:00Z",
          "2026-03-14T24:00:00",
          "2026-03-14T11:00:00+01:00",
          "10:00",
          "10:00:00",
          "23:59:59.999999999",
          "true",
          "TRUE",
          "0",
          "f",
          "6f9619ff-8b86-4011-b42d-00c04fc964ff",
          "6F9619FF-8B86-4011-B42D-00C04FC964FF",
          "mara@example.org",
          "mara@@example.org",
          "ma ra@x",
          "@x",
          "x@");

  private static Optional<String> cell(Random random) {
    return random.nextInt(6) == 0
        ? Optional.empty()
        : Optional.of(TEXTS.get(random.nextInt(TEXTS.size())));
  }

  private static Rows rows(Table table, int count, Random random) {
    var rows = new ArrayList<List<Optional<String>>>();
    for (int row = 0; row < count; row++) {
      rows.add(table.fields().stream().map(field -> cell(random)).toList());
    }
    return Rows.of(table.fieldIds(), rows);
  }

  /** Two tables that refer to each other and to themselves, by one or two fields of any type. */
  private static Draft draft(Random random) {
    var tables = new ArrayList<Table>();
    for (String name : List.of("kiln", "firing")) {
      var fields = new ArrayList<Field>();
      for (String field : List.of("a", "b", "c", "d")) {
        FieldType type = KEY_TYPES.get(random.nextInt(KEY_TYPES.size()));
        fields.add(Field.of(field, field.toUpperCase(java.util.Locale.ROOT), type));
      }
      fields.add(Field.of("mail", "Mail", new FieldType.Email(14)));
      tables.add(
          Table.of(name, name, new Noun(name, name + "s"))
              .withFields(fields)
              .withPrimaryKey(some(random))
              .withUniqueKeys(List.of(new UniqueKey("uq_" + name, some(random)))));
    }
    var related = new ArrayList<Relationship>();
    for (int i = 0; i < 4; i++) {
      List<FieldId> child = some(random);
      List<FieldId> parent = new ArrayList<>(some(random));
      while (parent.size() != child.size()) {
        parent = new ArrayList<>(some(random));
      }
      related.add(
          Relationship.of(
                  "fk" + i,
                  tables.get(random.nextInt(2)).id(),
                  child,
                  tables.get(random.nextInt(2)).id(),
                  parent)
              .withParentNeedsChild(random.nextInt(3) == 0));
    }
    Design design =
        Design.empty("d", "D").withTableAdded(tables.get(0)).withTableAdded(tables.get(1));
    Map<TableId, Rows> rows = new HashMap<>();
    tables.forEach(t -> rows.put(t.id(), rows(t, random.nextInt(60), random)));
    return new Draft(design.withRelationships(related), new SampleRows(rows));
  }

  private static List<FieldId> some(Random random) {
    var one = new FieldId(List.of("a", "b").get(random.nextInt(2)));
    var other = new FieldId(List.of("c", "d").get(random.nextInt(2)));
    return random.nextBoolean() ? List.of(one) : List.of(one, other);
  }

  private static Map<TableId, RowSource> sources(Draft draft) {
    Map<TableId, RowSource> sources = new HashMap<>();
    for (Table table : draft.design().tables()) {
      sources.put(table.id(), TableRows.of(table, draft.rows().of(table.id())));
    }
    return sources;
  }

  private static AuditReport streamed(Draft draft, long memory) {
    try {
      return Audit.of(draft, sources(draft), Pottery.CLOCK, memory, (table, rows) -> true);
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  private static void assertAsPlain(Draft draft, String as) {
    AuditReport plain = PlainAudit.of(draft, Pottery.CLOCK);
    for (AuditReport found : List.of(Audit.of(draft, Pottery.CLOCK), streamed(draft, 1 << 26))) {
      assertThat(found.tables()).extracting(TableAudit::rows).isEqualTo(rowsOf(plain));
      assertThat(inUtc(found)).as(as).containsExactlyElementsOf(inUtc(plain));
      assertThat(found.hints()).as(as).containsExactlyElementsOf(plain.hints().toList());
    }
    // With keys in files slips are not looked for.
    for (AuditReport spilled :
        List.of(Audit.of(draft, Pottery.CLOCK, 0), streamed(draft, 0), streamed(draft, 60_000))) {
      assertThat(withoutWords(spilled)).as(as + ", in files").isEqualTo(withoutWords(plain));
    }
  }

  private static List<Integer> rowsOf(AuditReport report) {
    return report.tables().stream().map(TableAudit::rows).toList();
  }

  /** A key tells the moment and not the zone it was written in. */
  private static List<String> inUtc(AuditReport report) {
    return report
        .violations()
        .map(v -> v.toString().replace("2026-03-14T11:00:00+01:00”", "2026-03-14T10:00:00Z”"))
        .toList();
  }

  private static List<Object> withoutWords(AuditReport report) {
    return report
        .violations()
        .<Object>map(
            v -> List.of(v.kind(), v.table(), v.fields(), v.constraint(), v.count(), v.rows()))
        .toList();
  }

  @Test
  void keysAndReferencesOfEveryType() {
    for (long seed : Tries.of(250).toArray()) {
      assertAsPlain(draft(new Random(seed)), "seed " + seed);
    }
  }

  @Test
  void designsOfEverySort() {
    for (long seed : Tries.of(150).toArray()) {
      assertAsPlain(RandomDesigns.draft(seed), "seed " + seed);
    }
    assertAsPlain(Pottery.demo(), "demo");
  }

  /** Rules go by steps where they can; whatever they go by, the verdict is the evaluator's. */
  @Test
  void rulesOfEverySort() {
    for (long seed : Tries.of(40).toArray()) {
      var rules = new RandomRules(seed);
      Draft draft = rules.draft(40);
      Table table = draft.design().tables().iterator().next();
      var ruled = new ArrayList<Rule>();
      List<String> conditions = rules.conditions(30);
      for (int i = 0; i < conditions.size(); i++) {
        ruled.add(new Rule("r" + i, "R" + i, conditions.get(i), ""));
      }
      Draft with = draft.withDesign(draft.design().withTable(table.id(), t -> t.withRules(ruled)));
      assertAsPlain(with, "seed " + seed);
    }
  }

  /** Fields that are worked out, some of which come with values all the same. */
  @Test
  void computedFieldsOfEverySort() {
    for (long seed : Tries.of(60).toArray()) {
      Draft draft = RandomComputed.draft(seed, 30, 5);
      assertAsPlain(draft, "seed " + seed);
      Table table = draft.design().tables().iterator().next();
      var random = new Random(seed);
      Rows rows = draft.rows().of(table.id());
      Rows worked = WorkedOut.of(draft, table, Pottery.CLOCK).in(rows);
      for (Field field : table.fields()) {
        for (int row = 0; field.isComputed() && row < rows.count(); row++) {
          Optional<String> right = worked.cell(row, field.id());
          Optional<String> given = random.nextInt(3) == 0 ? Optional.of("7") : right;
          rows = rows.withCell(row, field.id(), given);
        }
      }
      Rows with = rows;
      assertAsPlain(
          draft.withRows(draft.rows().with(table.id(), r -> with)), "seed " + seed + ", given");
    }
  }

  /** More rows than a batch takes, so that keys and rows go over its borders. */
  @Test
  void manyRows() {
    var random = new Random(5);
    Table kiln =
        Table.of("kiln", "Kiln", new Noun("kiln", "kilns"))
            .withFields(
                List.of(
                    Field.of("a", "A", new FieldType.WholeNumber(Width.BITS_32)),
                    Field.of("b", "B", new FieldType.Text(9)),
                    Field.of("c", "C", new FieldType.WholeNumber(Width.BITS_32))))
            .withPrimaryKey(List.of(new FieldId("a")))
            .withUniqueKeys(List.of(new UniqueKey("u", List.of(new FieldId("b")))))
            .withRules(List.of(new Rule("r", "R", "a < 20000 OR c IS NOT NULL", "")));
    var rows = new ArrayList<List<Optional<String>>>();
    for (int row = 0; row < 30_000; row++) {
      boolean again = random.nextInt(3_000) == 0;
      rows.add(
          List.of(
              Optional.of(String.valueOf(again ? random.nextInt(row + 1) : row)),
              Optional.of("k" + (again ? random.nextInt(row + 1) : row)),
              random.nextInt(4) == 0
                  ? Optional.empty()
                  : Optional.of(String.valueOf(random.nextInt(30_020)))));
    }
    Relationship self =
        Relationship.of(
            "fk", kiln.id(), List.of(new FieldId("c")), kiln.id(), List.of(new FieldId("a")));
    Draft draft =
        new Draft(
            Design.empty("d", "D").withTableAdded(kiln).withRelationshipAdded(self),
            new SampleRows(Map.of(kiln.id(), Rows.of(kiln.fieldIds(), rows))));
    AuditReport plain = PlainAudit.of(draft, Pottery.CLOCK);
    assertThat(plain.violations().count()).isEqualTo(4);
    assertThat(Audit.of(draft, Pottery.CLOCK)).isEqualTo(plain);
    for (long memory : new long[] {0, 300_000, 1 << 26}) {
      AuditReport streamed = streamed(draft, memory);
      assertThat(streamed.total()).isEqualTo(plain.total());
      List<Violation> found = streamed.violations().toList();
      List<Violation> expected = plain.violations().toList();
      for (int i = 0; i < expected.size(); i++) {
        List<Integer> named = expected.get(i).rows().stream().limit(1_000).toList();
        assertThat(found.get(i).rows()).isEqualTo(named);
        assertThat(found.get(i).message()).isEqualTo(expected.get(i).message());
      }
    }
  }
}
