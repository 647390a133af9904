package joiner.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.edit.ChangeField;
import joiner.edit.ChoicesToLookup;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Index;
import joiner.model.KnownFact;
import joiner.model.Limits;
import joiner.model.Origin;
import joiner.model.Question;
import joiner.model.QuestionId;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.shape.CodedNumber;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Each check is silent on the demo and speaks on one small change of it; its remedy silences it.
 */
class DesignChecksTest {
  private record Case(String id, UnaryOperator<Design> change, boolean remedied) {
    @Override
    public String toString() {
      return id;
    }
  }

  private static UnaryOperator<Design> table(String name, UnaryOperator<Table> change) {
    return design -> design.withTable(new TableId(name), change);
  }

  private static UnaryOperator<Design> field(
      String table, String field, UnaryOperator<Field> change) {
    return table(table, t -> t.withField(new FieldId(field), change));
  }

  private static FieldType eachChoice(Field field, UnaryOperator<FieldType.Choice.Entry> change) {
    FieldType.Choice choice = (FieldType.Choice) field.type();
    for (FieldType.Choice.Entry entry : choice.entries()) {
      choice = choice.withEntry(entry.id(), change);
    }
    return choice;
  }

  private static UnaryOperator<Design> acting(String relationship, ReferentialAction action) {
    return design ->
        design.withRelationship(
            new RelationshipId(relationship), r -> r.withActions(action, r.onUpdate()));
  }

  /** Kilns are offered where a condition holds. */
  private static UnaryOperator<Design> offered(String condition) {
    return design ->
        design.withRelationship(
            new RelationshipId("fk_firing_kiln_id"),
            r -> r.withPicking(r.picking().withOnly(Optional.of(new Formula(condition)))));
  }

  private static FieldId id(String field) {
    return new FieldId(field);
  }

  private static Design cascading(Design design) {
    return design.withRelationships(
        design.relationships().stream()
            .map(
                r ->
                    r.parent().value().equals("glaze")
                            || r.parent().value().equals("piece")
                            || r.name().equals("fk_glaze_cone_no")
                        ? r.withActions(ReferentialAction.CASCADE, r.onUpdate())
                        : r)
            .map(
                r ->
                    r.name().equals("fk_firing_cone_no") || r.name().equals("fk_piece_firing_id")
                        ? r.withActions(ReferentialAction.CASCADE, r.onUpdate())
                        : r)
            .toList());
  }

  static List<Case> cases() {
    FieldType text = new FieldType.Text(20);
    Field cost = Field.of("cost", "Cost", new FieldType.Money(8, 2));
    var thirteen = FieldType.Choice.of(IntStream.range(0, 13).mapToObj(i -> "form " + i).toList());
    return List.of(
        new Case("name-not-kept", field("kiln", "name", f -> f.withName("n".repeat(64))), false),
        new Case("name-not-kept", field("kiln", "name", f -> f.withName("name_🏺")), false),
        new Case(
            "name-not-kept",
            table("kiln", t -> t.withNames("k".repeat(300), "K", t.noun())),
            false),
        new Case("kit-field-changed", field("glaze", "made_at", f -> f.withUnit("s")), true),
        new Case(
            "coded-number-short",
            field(
                "member",
                "card_no",
                f ->
                    f.withOrigin(
                        new Origin.Generated(
                            new Generator.Coded(
                                CodedNumber.read(
                                    "'M-000'1", CodedNumber.Restart.NEVER, Optional.empty()))))),
            false),
        new Case(
            "row-label-shared",
            table("glaze", t -> t.withRowLabel(Optional.of(new Formula("surface")))),
            false),
        new Case(
            "cascade-meets-refusal", acting("fk_firing_kiln_id", ReferentialAction.CASCADE), true),
        new Case(
            "cascade-circle",
            design ->
                acting("fk_firing_kiln_id", ReferentialAction.CASCADE)
                    .apply(
                        design.withRelationshipAdded(
                            Relationship.of(
                                    "fk_kiln_name",
                                    new TableId("kiln"),
                                    List.of(id("kiln_id")),
                                    new TableId("firing"),
                                    List.of(id("firing_id")))
                                .withActions(
                                    ReferentialAction.CASCADE, ReferentialAction.NO_ACTION))),
            true),
        new Case(
            "one-or-more-not-kept",
            design ->
                acting("fk_piece_glaze_glaze_id", ReferentialAction.CASCADE)
                    .apply(
                        design.withRelationship(
                            new RelationshipId("fk_piece_glaze_piece_id"),
                            r -> r.withParentNeedsChild(true))),
            true),
        new Case(
            "tied-twice",
            design ->
                design.withRelationship(
                    new RelationshipId("fk_firing_unloaded_by"),
                    r ->
                        r.withRoles(
                            design
                                .relationship(new RelationshipId("fk_firing_loaded_by"))
                                .childRole(),
                            r.parentRole())),
            true),
        new Case(
            "no-path",
            design ->
                design.withRelationships(
                    design.relationships().stream()
                        .filter(r -> !r.name().equals("fk_recipe_line_material_id"))
                        .toList()),
            false),
        new Case(
            "fan",
            design ->
                table("firing", t -> t.withFieldAdded(cost))
                    .apply(table("glaze", t -> t.withFieldAdded(cost)).apply(design)),
            true),
        new Case(
            "one-message-two-rules",
            table(
                "firing",
                t -> t.withRuleAdded(new Rule("r", "R", "TRUE", t.rules().getFirst().message()))),
            false),
        new Case(
            "rule-message",
            table("firing", t -> t.withRuleAdded(new Rule("r", "R", "TRUE", ""))),
            false),
        new Case(
            "rule-message",
            table("firing", t -> t.withRuleAdded(new Rule("r", "R", "TRUE", "{heat} is wrong."))),
            false),
        new Case(
            "question-faulty",
            design ->
                design.withQuestions(
                    List.of(
                        new Question(
                            new QuestionId("q"),
                            "q",
                            "Hot firings",
                            List.of(
                                new Question.Role(
                                    "firing", new TableId("firing"), Optional.empty(), true)),
                            List.of(new Question.Shown("Heat", new Formula("firing.heat"))),
                            List.of(),
                            List.of(),
                            List.of(),
                            List.of(),
                            OptionalInt.empty()))),
            true),
        new Case(
            "owner-by-rule",
            table(
                "piece",
                t ->
                    t.withRuleAdded(
                        new Rule("own", "Own", "maker_id = firing_id.loaded_by", "Not yours."))),
            true),
        new Case("chasm", field("piece", "grams", f -> f.withUnit("g")), false),
        new Case(
            "origin-not-kept",
            field(
                "recipe_line",
                "percentage",
                f -> f.withOrigin(new Origin.Copied(new Formula("material_id.price_per_100g")))),
            true),
        new Case("no-primary-key", table("recipe_line", t -> t.withPrimaryKey(List.of())), true),
        new Case(
            "foreign-key-type-differs", field("firing", "cone_no", f -> f.withType(text)), true),
        new Case(
            "reference-to-no-key",
            table("supplier", t -> t.withPrimaryKey(List.of(id("name")))),
            true),
        new Case(
            "foreign-key-without-index", table("material", t -> t.withIndexes(List.of())), true),
        new Case(
            "join-pair-not-unique",
            table("recipe_line", t -> t.withPrimaryKey(List.of(id("glaze_id"), id("percentage")))),
            true),
        new Case(
            "no-choices",
            field(
                "glaze",
                "surface",
                f -> f.withType(new FieldType.Choice(List.of())).withDefault(Optional.empty())),
            false),
        new Case(
            "no-choices",
            field(
                "glaze",
                "surface",
                f ->
                    f.withType(eachChoice(f, e -> e.withRetired(true)))
                        .withDefault(Optional.empty())),
            false),
        new Case(
            "growing-choices",
            field(
                "glaze", "surface", f -> f.withType(((FieldType.Choice) f.type()).withGrows(true))),
            true),
        new Case(
            "retired-default",
            field(
                "glaze",
                "surface",
                f -> f.withType(eachChoice(f, e -> e.withRetired(e.text().equals("gloss"))))),
            true),
        new Case(
            "secret-too-short",
            table(
                "member",
                t -> t.withFieldAdded(Field.of("door_code", "Door code", new FieldType.Secret(8)))),
            true),
        new Case(
            "choices-twice",
            table(
                "kiln",
                t ->
                    t.withFieldAdded(
                        Field.of(
                            "lining",
                            "Lining",
                            FieldType.Choice.of(List.of("satin", "matt", "gloss"))))),
            true),
        new Case("lookup-condition", offered("litres + 'a'"), true),
        new Case("lookup-hides-rows", offered("litres > 100"), true),
        new Case(
            "default-does-not-fit",
            field("piece", "stage", f -> f.withDefault(Optional.of(new Formula("'raw'")))),
            true),
        new Case(
            "default-does-not-fit",
            field("kiln", "litres", f -> f.withDefault(Optional.of(new Formula("99999")))),
            true),
        new Case(
            "default-does-not-fit",
            field(
                "kiln",
                "name",
                f -> f.withDefault(Optional.of(new Formula("'" + "x".repeat(25) + "'")))),
            true),
        new Case(
            "computed-does-not-fit",
            field(
                "kiln",
                "litres",
                f -> f.withOrigin(new Origin.Computed(new Formula("CHAR_LENGTH(name) * 1.5")))),
            true),
        new Case(
            "computed-key",
            field("kiln", "kiln_id", f -> f.withOrigin(new Origin.Computed(new Formula("litres")))),
            true),
        new Case(
            "computed-reference",
            field(
                "firing", "kiln_id", f -> f.withOrigin(new Origin.Computed(new Formula("peak_c")))),
            true),
        new Case(
            "limit-does-not-fit",
            field("kiln", "litres", f -> f.withLimits(joiner.model.Limits.between("none", "soon"))),
            true),
        new Case(
            "action-empties-required",
            design ->
                design.withRelationship(
                    new RelationshipId("fk_piece_maker_id"),
                    r -> r.withActions(ReferentialAction.SET_NULL, r.onUpdate())),
            true),
        new Case(
            "action-empties-required",
            design ->
                design.withRelationship(
                    new RelationshipId("fk_piece_maker_id"),
                    r -> r.withActions(r.onDelete(), ReferentialAction.SET_DEFAULT)),
            true),
        new Case(
            "faulty-expression",
            field("piece", "mark", f -> f.withLimits(f.limits().withPattern(Optional.of("(?=x)")))),
            false),
        new Case(
            "length-not-considered",
            field("kiln", "name", f -> f.withType(new FieldType.Text(255))),
            true),
        new Case(
            "one-meaning-two-types",
            field("glaze", "name", f -> f.withType(new FieldType.WholeNumber(Width.BITS_32))),
            false),
        new Case(
            "repeated-numbered-fields",
            table(
                "piece",
                t ->
                    t.withFieldAdded(Field.of("glaze_1", "Glaze 1", text))
                        .withFieldAdded(Field.of("glaze_2", "Glaze 2", text))),
            false),
        new Case(
            "below-boyce-codd",
            table(
                "session",
                t ->
                    t.withFact(
                        new KnownFact(
                            List.of(t.fieldNamed("course_code").orElseThrow().id()),
                            List.of(t.fieldNamed("minutes").orElseThrow().id()),
                            true))),
            true),
        new Case(
            "name-collides",
            table("piece", t -> t.withFieldAdded(Field.of("Mark", "Other mark", text))),
            false),
        new Case(
            "name-collides",
            table(
                "piece",
                t ->
                    t.withFieldAdded(Field.of("x".repeat(63) + "a", "A", text))
                        .withFieldAdded(Field.of("x".repeat(63) + "b", "B", text))),
            false),
        new Case(
            "reserved-word",
            table("piece", t -> t.withFieldAdded(Field.of("order", "Order", text))),
            true),
        new Case(
            "tied-to-nothing",
            design ->
                design.withTableAdded(
                    Table.of("poster", "Poster", new joiner.model.Noun("poster", "posters"))),
            false),
        new Case(
            "lookup-without-unique-label",
            table("supplier", t -> t.withUniqueKeys(List.of())),
            true),
        new Case("required-cycle", DesignChecksTest::withCircle, true),
        new Case("redundant-relationship", DesignChecksTest::withShortcut, true),
        new Case("nullable-key-referred", DesignChecksTest::referringToDoor, true),
        new Case("long-choice-list", field("kiln", "fuel", f -> f.withType(thirteen)), true),
        new Case(
            "duplicate-index",
            table(
                "kiln",
                t ->
                    t.withIndexes(
                        List.of(
                            new Index("a", List.of(id("fallback_id"))),
                            new Index("b", List.of(id("fallback_id")))))),
            true),
        new Case("cascade-reaches-twice", DesignChecksTest::cascading, true),
        new Case("unit-missing", field("cone", "end_c", f -> f.withUnit("")), false),
        new Case(
            "pattern-without-match",
            table(
                "piece",
                t ->
                    t.withField(
                        id("mark"), f -> f.withLimits(Limits.NONE.withPattern(Optional.of("x+"))))),
            true),
        new Case("missing-row-label", table("glaze", t -> t.withRowLabel(Optional.empty())), true),
        new Case(
            "faulty-expression",
            table("kiln", t -> t.withRules(List.of(new Rule("r", "R", "litres >", "")))),
            false));
  }

  /** A kiln names the firing that opened it, and a firing names its kiln. */
  private static Design withCircle(Design design) {
    Field opened =
        Field.of("opened_by_id", "Opened by", new FieldType.WholeNumber(Width.BITS_32))
            .withRequired(true);
    return design
        .withTable(
            new TableId("kiln"),
            t ->
                t.withFieldAdded(opened)
                    .withIndexes(
                        List.of(new Index("i", List.of(opened.id())), t.indexes().getFirst())))
        .withRelationshipAdded(
            Relationship.of(
                "fk_kiln_opened",
                new TableId("kiln"),
                List.of(opened.id()),
                new TableId("firing"),
                List.of(id("firing_id"))));
  }

  /** An incident names its kiln, which its firing names already. */
  private static Design withShortcut(Design design) {
    Field kiln =
        Field.of("kiln_id", "Kiln", new FieldType.WholeNumber(Width.BITS_32)).withRequired(true);
    return design
        .withTable(new TableId("incident"), t -> t.withFieldAdded(kiln))
        .withRelationshipAdded(
            Relationship.of(
                "fk_incident_kiln",
                new TableId("incident"),
                List.of(kiln.id()),
                new TableId("kiln"),
                List.of(id("kiln_id"))));
  }

  /** A firing names a locker by its member, which may be empty. */
  private static Design referringToDoor(Design design) {
    return design.withRelationshipAdded(
        Relationship.of(
            "fk_firing_locker",
            new TableId("firing"),
            List.of(id("loaded_by")),
            new TableId("locker"),
            List.of(id("member_id"))));
  }

  private static List<Finding> found(String id, Draft draft) {
    return DesignChecks.run(draft).stream().filter(finding -> finding.id().equals(id)).toList();
  }

  @ParameterizedTest
  @MethodSource("cases")
  void speaksOnTheChangeAndIsSilencedByItsRemedy(Case tried) {
    Draft demo = Pottery.demo();
    int before = found(tried.id, demo).size();
    Draft changed = demo.withDesign(tried.change.apply(demo.design()));
    List<Finding> after = found(tried.id, changed);
    assertThat(after).hasSizeGreaterThan(before);
    assertThat(after)
        .allSatisfy(
            finding ->
                assertThat(finding.message() + finding.why()).doesNotContain("null").endsWith("."));
    if (tried.remedied) {
      Finding newest =
          after.stream()
              .filter(
                  f ->
                      found(tried.id, demo).stream()
                          .noneMatch(g -> g.message().equals(f.message())))
              .findFirst()
              .orElseThrow();
      Draft mended = newest.remedies().getFirst().edit().apply(changed);
      assertThat(found(tried.id, mended)).hasSizeLessThan(after.size());
    }
  }

  @Test
  void everyCheckIsTried() {
    assertThat(
            Stream.concat(cases().stream().map(Case::id), Stream.of("lookup-could-be-choices"))
                .distinct())
        .containsExactlyInAnyOrderElementsOf(DesignChecks.ids());
  }

  /** The one case that needs rows of its own: a lookup table of a few words. */
  @Test
  void aTableOfAFewWordsIsAdvisedToBecomeChoicesAndBack() {
    Draft apart =
        new ChoicesToLookup(new TableId("kiln"), id("fuel"), "Fuel").apply(Pottery.demo());
    Finding finding = found("lookup-could-be-choices", apart).getFirst();
    assertThat(finding.message()).isEqualTo("Fuel is a table for 3 words.");
    Draft back = finding.remedies().getFirst().edit().apply(apart);
    assertThat(found("lookup-could-be-choices", back)).isEmpty();
    Draft growing =
        apart.withDesign(
            apart
                .design()
                .withRelationship(
                    apart.design().childrenOf(new TableId("fuel")).getFirst().id(),
                    r -> r.withPicking(r.picking().withMayAdd(true))));
    assertThat(found("lookup-could-be-choices", growing)).isEmpty();
  }

  @Test
  void theDemoHasNothingButTwoAdvices() {
    assertThat(DesignChecks.run(Pottery.demo()))
        .extracting(Finding::id)
        .containsExactly("redundant-relationship", "fan");
  }

  @Test
  void everyPlantedDefectOfTheDesignIsFound() {
    assertThat(DesignChecks.run(Pottery.broken()))
        .extracting(Finding::id)
        .containsExactly(
            "foreign-key-type-differs",
            "join-pair-not-unique",
            "default-does-not-fit",
            "computed-does-not-fit",
            "faulty-expression",
            "one-meaning-two-types",
            "retired-default",
            "lookup-hides-rows",
            "kit-field-changed",
            "foreign-key-without-index",
            "redundant-relationship",
            "growing-choices",
            "duplicate-index",
            "fan",
            "missing-row-label",
            "rule-message");
  }

  @Test
  void aCounterAndItsPlainReferenceAreOneType() {
    assertThat(found("one-meaning-two-types", Pottery.demo())).isEmpty();
    Table kiln = Pottery.demo().design().table(new TableId("kiln"));
    assertThat(
            ChangeField.type(kiln, kiln.field(id("kiln_id")), new FieldType.Counter(Width.BITS_64))
                .apply(Pottery.demo())
                .design()
                .table(kiln.id())
                .field(id("kiln_id"))
                .type()
                .asReferenced())
        .isEqualTo(new FieldType.WholeNumber(Width.BITS_64));
  }

  @Test
  void aJoinTableNeedsNoRowLabel() {
    var kinds =
        new ArrayList<>(
            Pottery.demo().design().tables().stream()
                .filter(t -> t.kind() instanceof TableKind.Join)
                .toList());
    assertThat(kinds).hasSize(3).allMatch(t -> t.rowLabel().isEmpty());
    assertThat(found("missing-row-label", Pottery.demo())).isEmpty();
  }
}
