package joiner.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.meaning.TypeWords;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Index;
import joiner.model.KnownFact;
import joiner.model.Limits;
import joiner.model.Noun;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.UniqueKey;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What each check says, word for word, and where it keeps silent. */
class FindingSentencesTest {
  private static final FieldType NUMBER = new FieldType.WholeNumber(Width.BITS_32);
  private static final FieldType TEXT = new FieldType.Text(20);

  private static Table table(String name, Field... fields) {
    String label = Character.toUpperCase(name.charAt(0)) + name.substring(1);
    return Table.of(name, label, new Noun(name, name + "s")).withFields(List.of(fields));
  }

  private static Field field(String name, FieldType type) {
    return Field.of(name, Character.toUpperCase(name.charAt(0)) + name.substring(1), type);
  }

  private static FieldId id(String name) {
    return new FieldId(name);
  }

  private static Design design(Table... tables) {
    Design design = Design.empty("d", "D");
    for (Table table : tables) {
      design = design.withTableAdded(table);
    }
    return design;
  }

  private static Relationship reference(String child, String field, String parent) {
    return Relationship.of(
        "fk_" + child + "_" + field,
        new TableId(child),
        List.of(id(field)),
        new TableId(parent),
        List.of(id("id")));
  }

  private static List<Finding> found(String id, Design design) {
    return found(id, new Draft(design, SampleRows.NONE));
  }

  private static List<Finding> found(String id, Draft draft) {
    return DesignChecks.run(draft).stream().filter(finding -> finding.id().equals(id)).toList();
  }

  private static List<String> says(String id, Design design) {
    return found(id, design).stream().map(Finding::message).toList();
  }

  private static List<String> offers(List<Finding> findings) {
    return findings.stream().flatMap(f -> f.remedies().stream()).map(Remedy::label).toList();
  }

  @Test
  void namesThatBecomeOneAreToldWithTheReason() {
    assertThat(says("name-collides", design(table("kiln"), table("Kiln"))))
        .containsExactly("Kiln and kiln differ only in case, which engines do not tell apart.");
    String sixtyThree = "a".repeat(63);
    assertThat(
            says(
                "name-collides",
                design(
                    table("kiln", field(sixtyThree + "b", TEXT), field(sixtyThree + "c", TEXT)))))
        .containsExactly(
            sixtyThree
                + "c and "
                + sixtyThree
                + "b become one name when PostgreSQL shortens them.");
    assertThat(
            says(
                "name-collides",
                design(
                    table(
                        "kiln",
                        field("a".repeat(62) + "b", TEXT),
                        field("a".repeat(62) + "c", TEXT)))))
        .as("63 bytes are kept whole")
        .isEmpty();
    assertThat(says("name-collides", design(table("kiln", field("No", TEXT), field("no", TEXT)))))
        .hasSize(1);
  }

  @Test
  void aRowLabelIsProposedFromWhatNamesARow() {
    Table kiln = table("kiln", field("id", NUMBER), field("note", TEXT), field("kiln_name", TEXT));
    assertThat(offers(found("missing-row-label", design(kiln)))).containsExactly("Show Kiln_name");
    Finding finding = found("missing-row-label", design(kiln)).getFirst();
    assertThat(finding.message()).isEqualTo("Kiln has no row label.");
    assertThat(finding.why())
        .isEqualTo("Where a kiln is picked or named, people would see a bare key.");
    Draft mended =
        finding.remedies().getFirst().edit().apply(new Draft(design(kiln), SampleRows.NONE));
    assertThat(mended.design().table(kiln.id()).rowLabel()).contains(new Formula("kiln_name"));
    assertThat(
            offers(
                found(
                    "missing-row-label",
                    design(table("kiln", field("name", NUMBER), field("note", TEXT))))))
        .as("a text before a number of that name")
        .containsExactly("Show Note");
    assertThat(offers(found("missing-row-label", design(table("kiln", field("id", NUMBER))))))
        .isEmpty();
  }

  private static Limits allowing(String... values) {
    return new Limits(
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        java.util.OptionalInt.empty(),
        List.of(values));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      quoteCharacter = '"',
      value = {
        "NUMBER ~ 5 ~ ",
        "NUMBER ~ -5 ~ ",
        "NUMBER ~ NULL ~ ",
        "NUMBER ~ 'five' ~ it is text, the field holds a whole number.",
        "NUMBER ~ 99999999999 ~ a whole number from -2147483648 to 2147483647 was expected.",
        "NUMBER ~ -99999999999 ~ a whole number from -2147483648 to 2147483647 was expected.",
        "DECIMAL ~ 5 ~ ",
        "DECIMAL ~ 5.55 ~ a number of at most 3 digits and 1 decimals was expected.",
        "UUID ~ '6f9619ff-8b86-d011-b42d-00cf4fc964ff' ~ ",
        "UUID ~ 'none' ~ a UUID like 6f9619ff-8b86-4011-b42d-00c04fc964ff was expected.",
        "DATE ~ CURRENT_DATE ~ ",
        "DATE ~ '2026-03-14' ~ it is text, the field holds a date.",
        "CHOICE ~ 'gas' ~ ",
        "CHOICE ~ 'coal' ~ it must be one of gas, wood.",
        "LISTED ~ 'b' ~ ",
        "LISTED ~ 'c' ~ it must be one of a, b.",
        "SHORT ~ 'abcd' ~ ",
        "SHORT ~ 'abcde' ~ it must have at most 4 characters."
      })
  void aDefaultFitsItsFieldOrSaysWhyNot(String type, String text, String misfit) {
    Field field =
        switch (type) {
          case "NUMBER" -> field("a", NUMBER);
          case "DECIMAL" -> field("a", new FieldType.Decimal(4, 1));
          case "UUID" -> field("a", new FieldType.Uuid());
          case "DATE" -> field("a", new FieldType.Date());
          case "CHOICE" -> field("a", FieldType.Choice.of(List.of("gas", "wood")));
          case "LISTED" -> field("a", TEXT).withLimits(allowing("a", "b"));
          default -> field("a", new FieldType.Text(4));
        };
    assertThat(
            DefaultFit.misfit(
                field,
                TableMeaning.of(table("kiln", field)).constraintsOf(field.id()),
                new Formula(text).constant()))
        .isEqualTo(Optional.ofNullable(misfit));
  }

  private static Design linked(ReferentialAction delete, ReferentialAction update, Field link) {
    Table kiln = table("oven", field("id", NUMBER)).withPrimaryKey(List.of(id("id")));
    Table load = table("load", link);
    return design(kiln, load)
        .withRelationshipAdded(reference("load", "oven_id", "oven").withActions(delete, update));
  }

  @Test
  void anActionThatWouldEmptyARequiredLinkIsToldWithBothWaysOut() {
    Field required = field("oven_id", NUMBER).withRequired(true);
    String id = "action-empties-required";
    Design onDelete = linked(ReferentialAction.SET_NULL, ReferentialAction.NO_ACTION, required);
    assertThat(says(id, onDelete))
        .containsExactly(
            "Deleting an oven would empty Oven_id of Load (SET NULL), which must have a value.");
    assertThat(offers(found(id, onDelete)))
        .containsExactly("Refuse such a delete", "Let Oven_id be empty");
    Design onUpdate = linked(ReferentialAction.CASCADE, ReferentialAction.SET_DEFAULT, required);
    assertThat(says(id, onUpdate))
        .containsExactly(
            "Changing the key of an oven would empty Oven_id of Load (SET DEFAULT), which must have"
                + " a value.");
    Draft mended =
        found(id, onUpdate)
            .getFirst()
            .remedies()
            .getFirst()
            .edit()
            .apply(new Draft(onUpdate, SampleRows.NONE));
    assertThat(mended.design().relationships())
        .extracting(Relationship::onDelete, Relationship::onUpdate)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(
                ReferentialAction.CASCADE, ReferentialAction.NO_ACTION));
    assertThat(
            found(
                id,
                linked(
                    ReferentialAction.SET_DEFAULT,
                    ReferentialAction.NO_ACTION,
                    required.withDefault(Optional.of(new Formula("1"))))))
        .isEmpty();
    assertThat(
            found(
                id,
                linked(
                    ReferentialAction.SET_NULL,
                    ReferentialAction.SET_NULL,
                    field("oven_id", NUMBER))))
        .isEmpty();
    Design keyed =
        onDelete.withTable(new TableId("load"), t -> t.withPrimaryKey(List.of(id("oven_id"))));
    assertThat(offers(found(id, keyed)))
        .as("a field of the key cannot be empty")
        .containsExactly("Refuse such a delete");
  }

  @Test
  void reservedWordsNameTheirEngines() {
    assertThat(says("reserved-word", design(table("order"))))
        .containsExactly("“order” is a reserved word of every engine.");
    List<Finding> field =
        found(
            "reserved-word",
            design(table("kiln", field("value", TEXT), field("kiln_value", TEXT))));
    assertThat(field)
        .extracting(Finding::message)
        .containsExactly("“value” is a reserved word of H2.");
    assertThat(offers(field)).containsExactly("Rename to kiln_value_2");
  }

  @Test
  void aUsualLengthIsQuestionedUnlessTheRowsNeedIt() {
    Table kiln = table("kiln", field("name", new FieldType.Text(100)));
    assertThat(says("length-not-considered", design(kiln)))
        .containsExactly("Name of Kiln allows 100 characters, a length often left as it came.");
    Finding seen = found("length-not-considered", rows(kiln, "Ember", "Ash")).getFirst();
    assertThat(seen.message())
        .isEqualTo("Name of Kiln allows 100 characters; the longest seen is 5.");
    assertThat(seen.remedies()).extracting(Remedy::label).containsExactly("Set to 10");
    assertThat(found("length-not-considered", rows(kiln, "x".repeat(80))))
        .as("80 and a quarter is 100")
        .isEmpty();
    assertThat(found("length-not-considered", rows(kiln, "x".repeat(77)))).hasSize(0);
    assertThat(found("length-not-considered", rows(kiln, "x".repeat(76)))).hasSize(1);
  }

  private static Draft rows(Table table, String... names) {
    Rows rows =
        Rows.of(
            List.of(table.fields().getFirst().id()),
            IntStream.range(0, names.length)
                .mapToObj(i -> List.of(Optional.of(names[i])))
                .toList());
    return new Draft(design(table), new SampleRows(Map.of(table.id(), rows)));
  }

  @Test
  void choicesUpToTwelveMayStay() {
    assertThat(found("long-choice-list", design(choices(12)))).isEmpty();
    assertThat(says("long-choice-list", design(choices(13))))
        .containsExactly("Form of Kiln has 13 fixed choices.");
  }

  private static Table choices(int count) {
    var values = IntStream.range(0, count).mapToObj(i -> "form " + i).toList();
    return table("kiln", field("form", FieldType.Choice.of(values)));
  }

  @Test
  void numberedCopiesNeedTwo() {
    assertThat(found("repeated-numbered-fields", design(table("kiln", field("glaze1", TEXT)))))
        .isEmpty();
    assertThat(
            says(
                "repeated-numbered-fields",
                design(table("kiln", field("glaze1", TEXT), field("glaze_2", TEXT)))))
        .containsExactly("Kiln repeats one thing in numbered fields: Glaze1, Glaze_2.");
  }

  @Test
  void whatDecidesIsAKey() {
    String id = "below-boyce-codd";
    Table load =
        table("load", field("no", TEXT), field("kiln", TEXT), field("fuel", TEXT))
            .withPrimaryKey(List.of(new FieldId("no")));
    var decides = new KnownFact(List.of(new FieldId("kiln")), List.of(new FieldId("fuel")), true);
    assertThat(says(id, design(load.withFact(decides))))
        .containsExactly("In Load, Kiln decides Fuel, but rows are not identified by it.");
    var denied = new KnownFact(decides.determinant(), decides.dependents(), false);
    assertThat(says(id, design(load.withFact(denied)))).as("somebody knows better").isEmpty();
    assertThat(says(id, design(load.withFact(decides).withFact(denied)))).isEmpty();
    Table alone = load.withFact(decides).withPrimaryKey(List.of(new FieldId("kiln")));
    assertThat(says(id, design(alone))).as("it is the key").isEmpty();
    var back = new KnownFact(List.of(new FieldId("kiln")), List.of(new FieldId("no")), true);
    assertThat(says(id, design(load.withFact(decides).withFact(back))))
        .as("it decides the key, and so all")
        .isEmpty();
  }

  @Test
  void oneNameMeansOneType() {
    String id = "one-meaning-two-types";
    assertThat(
            says(
                id,
                design(table("kiln", field("size", NUMBER)), table("pot", field("size", TEXT)))))
        .containsExactly("Size is text of 20 in Pot but a whole number of 32 bits in Kiln.");
    assertThat(
            found(
                id,
                design(
                    table("kiln", field("size", new FieldType.Text(9))),
                    table("pot", field("size", TEXT)))))
        .as("lengths may differ")
        .isEmpty();
    assertThat(
            found(
                id,
                design(
                    table("kiln", field("size", new FieldType.Email(20))),
                    table("pot", field("size", TEXT)))))
        .hasSize(1);
    assertThat(
            found(
                id,
                design(
                    table("kiln", field("s", FieldType.Choice.of(List.of("a")))),
                    table("pot", field("s", FieldType.Choice.of(List.of("b")))))))
        .isEmpty();
    assertThat(
            found(
                id,
                design(
                    table("kiln", field("s", FieldType.Choice.of(List.of("a")))),
                    table("pot", field("s", TEXT)))))
        .hasSize(1);
  }

  @Test
  void aSingleTableIsTiedToNothingAndNeedNotBe() {
    assertThat(found("tied-to-nothing", design(table("kiln")))).isEmpty();
    assertThat(says("tied-to-nothing", design(table("kiln"), table("pot"))))
        .containsExactly("Kiln is tied to no other table.", "Pot is tied to no other table.");
  }

  private static Design chain(ReferentialAction onDelete) {
    Design design = Design.empty("d", "D");
    for (String name : List.of("a", "b", "c", "z")) {
      design =
          design.withTableAdded(
              table(name, field("id", NUMBER), field("x", NUMBER), field("y", NUMBER))
                  .withPrimaryKey(List.of(id("id"))));
    }
    var links = new ArrayList<Relationship>();
    links.add(reference("b", "x", "a"));
    links.add(reference("c", "x", "a"));
    links.add(reference("z", "x", "b"));
    links.add(reference("z", "y", "c"));
    for (Relationship link : links) {
      design =
          design.withRelationshipAdded(link.withActions(onDelete, ReferentialAction.NO_ACTION));
    }
    return design;
  }

  @Test
  void twoCascadesIntoOneTableAreTold() {
    assertThat(says("cascade-reaches-twice", chain(ReferentialAction.CASCADE)))
        .containsExactly("Deleting an a reaches Z by two cascades.");
    assertThat(found("cascade-reaches-twice", chain(ReferentialAction.SET_NULL))).isEmpty();
    Design one =
        chain(ReferentialAction.CASCADE)
            .withoutRelationship(new joiner.model.RelationshipId("fk_z_y"));
    assertThat(found("cascade-reaches-twice", one)).isEmpty();
  }

  @Test
  void aCircleOfRequiredLinksNamesItsTablesOnly() {
    Design design = design(ringed("a"), ringed("b"), table("other", field("id", NUMBER)));
    design =
        design
            .withRelationshipAdded(reference("a", "next", "b"))
            .withRelationshipAdded(reference("b", "next", "a"));
    assertThat(says("required-cycle", design))
        .containsExactly("A, B need each other: no first row can ever be entered.");
    assertThat(offers(found("required-cycle", design))).containsExactly("Make fk_a_next optional");
  }

  private static Table ringed(String name) {
    return table(name, field("id", NUMBER), field("next", NUMBER).withRequired(true))
        .withPrimaryKey(List.of(id("id")));
  }

  @Test
  void aForeignKeyMayUseAnyIndexThatBeginsWithIt() {
    Design bare =
        linked(ReferentialAction.NO_ACTION, ReferentialAction.NO_ACTION, field("oven_id", NUMBER));
    String check = "foreign-key-without-index";
    assertThat(says(check, bare)).containsExactly("No index on oven_id of Load.");
    TableId load = new TableId("load");
    Design more = bare.withTable(load, t -> t.withFieldAdded(field("day", TEXT)));
    assertThat(
            found(
                check,
                more.withTable(
                    load,
                    t ->
                        t.withIndexes(
                            List.of(new Index("ix", List.of(id("oven_id"), id("day"))))))))
        .isEmpty();
    assertThat(
            found(
                check,
                more.withTable(
                    load,
                    t ->
                        t.withIndexes(
                            List.of(new Index("ix", List.of(id("day"), id("oven_id"))))))))
        .as("an index that begins with something else is no help")
        .hasSize(1);
    assertThat(
            found(
                check,
                more.withTable(
                    load,
                    t -> t.withUniqueKeys(List.of(new UniqueKey("uq", List.of(id("oven_id"))))))))
        .isEmpty();
  }

  @Test
  void whatCannotBeReadIsToldForRulesPatternsAndRowLabels() {
    Table kiln =
        table("kiln", field("a", TEXT).withLimits(Limits.NONE.withPattern(Optional.of("["))))
            .withRules(List.of(new Rule("r", "Hot", "heat > 1", "")))
            .withRowLabel(Optional.of(new Formula("nam")));
    assertThat(says("faulty-expression", design(kiln)))
        .hasSize(3)
        .anySatisfy(s -> assertThat(s).startsWith("The rule Hot of Kiln cannot be used: There is"))
        .anySatisfy(s -> assertThat(s).startsWith("The pattern of A cannot be used: “["))
        .anySatisfy(s -> assertThat(s).startsWith("The row label of Kiln cannot be used: There"));
  }

  /** By hand: M1 has two of each, which makes four; M2 has one of each; M3 has none of one. */
  @Test
  void aFanIsToldWithTheRowsThatItCountsTwice() {
    FieldType money = new FieldType.Money(8, 2);
    Table member = table("member", field("no", TEXT)).withPrimaryKey(List.of(id("no")));
    Table sale = table("sale", field("by", TEXT), field("price", money));
    Table fee = table("fee", field("of", TEXT), field("paid", money));
    Design design =
        design(member, sale, fee)
            .withRelationshipAdded(
                Relationship.of("s", sale.id(), List.of(id("by")), member.id(), List.of(id("no"))))
            .withRelationshipAdded(
                Relationship.of("f", fee.id(), List.of(id("of")), member.id(), List.of(id("no"))));
    SampleRows rows =
        new SampleRows(
            Map.of(
                member.id(),
                Pottery.rows(member, List.of(List.of("M1"), List.of("M2"), List.of("M3"))),
                sale.id(),
                Pottery.rows(
                    sale,
                    Stream.of("M1", "M1", "M2", "M3", "M3").map(m -> List.of(m, "8")).toList()),
                fee.id(),
                Pottery.rows(fee, Stream.of("M1", "M1", "M2").map(m -> List.of(m, "5")).toList())));
    assertThat(
            DesignChecks.run(new Draft(design, rows)).stream()
                .filter(f -> f.id().equals("fan"))
                .map(Finding::message))
        .containsExactly(
            "Adding up Price of sales and Paid of fees in one question through members"
                + " counts rows more than once, today for 1 member.");
    assertThat(says("fan", design)).as("without rows nothing shows it").isEmpty();
  }

  /** What is kept of earlier runs never makes a difference. */
  @Test
  void findingsWithWhatIsKnownAreThoseWithout() {
    var known = new KnownFindings();
    Draft demo = Pottery.demo();
    assertThat(said(demo, known)).isEqualTo(said(demo, new KnownFindings()));
    assertThat(said(demo, known)).isEqualTo(said(demo, new KnownFindings()));
    Draft less =
        demo.withDesign(
            demo.design().withTable(new TableId("kiln"), t -> t.withRowLabel(Optional.empty())));
    assertThat(said(less, known)).isEqualTo(said(less, new KnownFindings())).hasSize(3);
    Relationship link = demo.design().relationships().iterator().next();
    Draft emptied =
        demo.withDesign(
            demo.design()
                .withTable(link.child(), t -> t.withIndexes(List.of()).withUniqueKeys(List.of())));
    assertThat(said(emptied, known)).isEqualTo(said(emptied, new KnownFindings()));
    assertThat(said(demo, known)).isEqualTo(said(demo, new KnownFindings()));
  }

  private static List<String> said(Draft draft, KnownFindings known) {
    return DesignChecks.run(draft, known).stream().map(f -> f.id() + ": " + f.message()).toList();
  }

  @Test
  void severitiesAndTypesAreSaidInWords() {
    assertThat(Severity.values())
        .extracting(Severity::id)
        .containsExactly("error", "warning", "advice");
    assertThat(TypeWords.of(new FieldType.DateTime(true))).isEqualTo("a date and time with zone");
    assertThat(TypeWords.of(new FieldType.DateTime(false))).isEqualTo("a date and time");
    assertThat(TypeWords.of(new FieldType.Money(9, 2))).isEqualTo("money (9, 2)");
    assertThat(TypeWords.kind(new FieldType.Text(9))).isEqualTo("text");
    assertThat(TypeWords.kind(new FieldType.Kept("geojson"))).isEqualTo("geojson");
    assertThat(offers(found("no-primary-key", design(table("kiln", field("a", TEXT))))))
        .containsExactly("Add a counter");
  }
}
