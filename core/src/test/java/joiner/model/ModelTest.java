package joiner.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.expression.Formula;
import joiner.expression.Width;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a design answers about itself. */
class ModelTest {
  private static final FieldId A = new FieldId("a");
  private static final FieldId B = new FieldId("b");
  private static final FieldId C = new FieldId("c");
  private static final Noun NOUN = new Noun("shelf", "shelves");

  private static Field field(String name) {
    return Field.of(name, name.toUpperCase(java.util.Locale.ROOT), new FieldType.Text(9));
  }

  private static Table shelf() {
    return Table.of("shelf", "Shelf", NOUN)
        .withFields(List.of(field("a"), field("b").withRequired(true), field("c")))
        .withPrimaryKey(List.of(A))
        .withUniqueKeys(List.of(new UniqueKey("uq", List.of(C, B))));
  }

  private static Relationship reference(String name, String child, String parent) {
    return Relationship.of(name, new TableId(child), List.of(B), new TableId(parent), List.of(A));
  }

  private static Design two() {
    Table slot = Table.of("slot", "Slot", new Noun("slot", "slots"));
    return Design.empty("d", "D")
        .withTableAdded(shelf())
        .withTableAdded(slot.withFields(List.of(field("a"), field("b"))).withPrimaryKey(List.of(A)))
        .withRelationshipAdded(reference("fk_slot", "slot", "shelf"))
        .withRelationshipAdded(reference("fk_self", "shelf", "shelf"));
  }

  @Test
  void aTableKnowsItsFieldsInOrder() {
    Table table = shelf();
    assertThat(table.fieldIds()).containsExactly(A, B, C);
    assertThat(table.namesOf(List.of(C, A))).containsExactly("c", "a");
    assertThat(table.labelsOf(List.of(B, A))).containsExactly("B", "A");
    assertThat(table.fieldsByName())
        .hasSize(3)
        .containsEntry("b", table.field(B))
        .containsEntry("c", table.field(C));
    assertThat(table.fieldNamed("c")).contains(table.field(C));
    assertThat(table.fieldNamed("d")).isEmpty();
    assertThat(table.hasField(C)).isTrue();
    assertThat(table.hasField(new FieldId("d"))).isFalse();
  }

  @Test
  void aTableKnowsWhatIdentifiesItsRows() {
    Table table = shelf();
    assertThat(table.keys()).containsExactly(List.of(A), List.of(C, B));
    assertThat(table.withPrimaryKey(List.of()).keys()).containsExactly(List.of(C, B));
    assertThat(table.isKey(List.of(A))).isTrue();
    assertThat(table.isKey(List.of(B, C))).as("whatever the order").isTrue();
    assertThat(table.isKey(List.of(B))).isFalse();
    assertThat(table.isKey(List.of(A, B))).as("more than a key is no key").isFalse();
    assertThat(table.isUnique(List.of(A, B))).as("but holds one").isTrue();
    assertThat(table.isUnique(List.of(B))).isFalse();
    assertThat(table.withPrimaryKey(List.of()).isUnique(List.of(A))).isFalse();
  }

  @Test
  void aFieldIsRequiredByItselfOrByTheKey() {
    assertThat(shelf().isRequired(A)).as("in the primary key").isTrue();
    assertThat(shelf().isRequired(B)).as("says so").isTrue();
    assertThat(shelf().isRequired(C)).as("in a unique key only").isFalse();
  }

  @Test
  void aDesignKnowsItsTablesAndWhatRelatesThem() {
    Design design = two();
    TableId shelf = new TableId("shelf");
    TableId slot = new TableId("slot");
    assertThat(design.tables()).extracting(Table::id).containsExactly(shelf, slot);
    assertThat(design.find(slot)).contains(design.table(slot));
    assertThat(design.find(new TableId("rack"))).isEmpty();
    assertThat(design.tableNamed("slot")).contains(design.table(slot));
    assertThat(design.tableNamed("rack")).isEmpty();
    assertThat(design.fieldCount()).isEqualTo(5);
    assertThat(design.relationships())
        .as("in the order of their child tables")
        .extracting(Relationship::name)
        .containsExactly("fk_self", "fk_slot");
    assertThat(design.parentsOf(slot)).extracting(Relationship::name).containsExactly("fk_slot");
    assertThat(design.parentsOf(shelf)).extracting(Relationship::name).containsExactly("fk_self");
    assertThat(design.childrenOf(slot)).isEmpty();
    assertThat(design.childrenOf(shelf))
        .extracting(Relationship::name)
        .containsExactly("fk_self", "fk_slot");
    var id = new RelationshipId("fk_slot");
    assertThat(design.find(id)).contains(design.relationship(id));
    assertThat(design.relationship(id).name()).isEqualTo("fk_slot");
    assertThat(design.find(new RelationshipId("fk"))).isEmpty();
    assertThat(design.relationship(id).isSelfReference()).isFalse();
    assertThat(design.relationship(new RelationshipId("fk_self")).isSelfReference()).isTrue();
    assertThatThrownBy(() -> design.relationship(new RelationshipId("fk")))
        .hasMessage("no relationship fk");
    assertThatThrownBy(() -> design.table(new TableId("rack"))).hasMessage("no table rack");
    assertThat(design).hasToString("D: [shelf, slot]");
  }

  @Test
  void aRelationshipIsChangedOrTakenAwayByItself() {
    Design design = two();
    var id = new RelationshipId("fk_slot");
    Design changed = design.withRelationship(id, r -> r.withRoles("stands on", "carries"));
    assertThat(changed.relationship(id).childRole()).isEqualTo("stands on");
    assertThat(changed.relationships()).hasSize(2);
    assertThat(changed.relationship(new RelationshipId("fk_self")))
        .isEqualTo(design.relationship(new RelationshipId("fk_self")));
    assertThat(design.withoutRelationship(id).relationships())
        .extracting(Relationship::name)
        .containsExactly("fk_self");
    assertThat(design.withoutTable(new TableId("slot")).tables()).hasSize(1);
    assertThat(design.withoutTable(new TableId("slot")).relationships()).hasSize(1);
    assertThat(design.withoutTable(new TableId("shelf")).relationships()).isEmpty();
  }

  @Test
  void designsAreEqualOnlyIfEveryPartIs() {
    Design design = two();
    assertThat(design).isEqualTo(two()).hasSameHashCodeAs(two());
    List<UnaryOperator<Design>> changes =
        List.of(
            d -> d.withName("e"),
            d -> d.withTitle("E"),
            d -> d.withAreas(List.of(new Area("Store", 1))),
            d -> d.withExtras(new Extras(Map.of("version", "1"))),
            d -> d.withTable(new TableId("slot"), t -> t.withDescription("A place.")),
            d -> d.withTable(new TableId("slot"), t -> t.withField(B, f -> f.withRequired(true))),
            d -> d.withoutRelationship(new RelationshipId("fk_self")),
            d ->
                Design.of(
                    d.name(),
                    d.title(),
                    "A note.",
                    d.areas(),
                    d.tables(),
                    d.relationships(),
                    d.extras()),
            d ->
                Design.of(
                    d.name(),
                    d.title(),
                    "",
                    d.areas(),
                    List.copyOf(d.tables()).reversed(),
                    d.relationships(),
                    d.extras()));
    for (UnaryOperator<Design> change : changes) {
      assertThat(change.apply(design)).isNotEqualTo(design);
    }
    assertThat(design).isNotEqualTo("D").isNotEqualTo(null);
    assertThat(design.hashCode()).isNotEqualTo(design.withRelationships(List.of()).hashCode());
    assertThat(design.hashCode()).isNotEqualTo(Design.empty("d", "D").hashCode());
  }

  @Test
  void generatedDesignsAreEqualToThemselvesAndToNoNeighbour() {
    Tries.of(100)
        .forEach(
            seed -> {
              Design design = RandomDesigns.draft(seed).design();
              assertThat(RandomDesigns.draft(seed).design()).isEqualTo(design);
              assertThat(design.withTableAdded(design.unused(shelf()))).isNotEqualTo(design);
            });
  }

  @Test
  void everythingADesignSaysAboutItselfCanBeRead() {
    Design demo = Pottery.demo().design();
    assertThat(demo.name()).isEqualTo("saltmarsh-pottery");
    assertThat(demo.title()).isEqualTo("Saltmarsh Pottery");
    assertThat(demo.withName("other").name()).isEqualTo("other");
    assertThat(
            Design.of("d", "D", "A note.", List.of(), List.of(), List.of(), Extras.NONE)
                .description())
        .isEqualTo("A note.");
    assertThat(demo.withAreas(List.of(new Area("Store", 1))).areaNamed("Store"))
        .contains(new Area("Store", 1));
    assertThat(demo.areaNamed("nowhere")).isEmpty();
    assertThat(demo.withExtras(new Extras(Map.of("version", "1"))).extras().isEmpty()).isFalse();
    assertThat(Extras.NONE.isEmpty()).isTrue();
  }

  @Test
  void idsAreOrderedByTheirText() {
    assertThat(A).isLessThan(B);
    assertThat(C).isGreaterThan(B);
    assertThat(new TableId("a")).isLessThan(new TableId("b"));
    assertThat(new TableId("b")).isGreaterThan(new TableId("a"));
    assertThat(new RelationshipId("a")).isLessThan(new RelationshipId("b"));
    assertThat(new RelationshipId("b")).isGreaterThan(new RelationshipId("a"));
  }

  @Test
  void aFreeIdTakesTheFirstNumberThatIsFree() {
    assertThat(Taken.free("kiln", List.of("kiln", "kiln_2", "kiln_4"))).isEqualTo("kiln_3");
    assertThat(Taken.free("kiln", List.of("kiln", "kiln_2", "kiln_3"))).isEqualTo("kiln_4");
    assertThat(Taken.free("kiln", List.of())).isEqualTo("kiln");
  }

  @ParameterizedTest
  @CsvSource({
    "member,a member",
    "enrolment,an enrolment",
    "Oven,an Oven",
    "Kiln,a Kiln",
    "'','a '"
  })
  void aNounGetsItsArticle(String noun, String article) {
    assertThat(new Noun(noun, noun + "s").indefinite()).isEqualTo(article);
  }

  /** ISO/IEC 9075-2, referential action. */
  @Test
  void actionsAreSaidInTheWordsOfTheStandard() {
    assertThat(ReferentialAction.values())
        .extracting(ReferentialAction::sql)
        .containsExactly("NO ACTION", "RESTRICT", "CASCADE", "SET NULL", "SET DEFAULT");
  }

  /** Two's complement. */
  @Test
  void wholeNumbersHaveTheirWidths() {
    for (Width width : Width.values()) {
      assertThat(Width.ofBits(width.bits())).isEqualTo(width);
      assertThat(width.max()).isEqualTo(-(width.min() + 1));
    }
    assertThat(Width.BITS_16.min()).isEqualTo(-32_768);
    assertThat(Width.BITS_32.max()).isEqualTo(2_147_483_647L);
    assertThat(Width.BITS_64.max()).isEqualTo(9_223_372_036_854_775_807L);
    assertThat(Width.BITS_32.bits()).isEqualTo(32);
  }

  @Test
  void onlyTextsHaveALength() {
    assertThat(new FieldType.Text(9).length()).isEqualTo(OptionalInt.of(9));
    assertThat(FieldType.Choice.of(List.of("raku", "🏺🏺🏺🏺🏺", "cone")).length())
        .isEqualTo(OptionalInt.of(5));
    assertThat(FieldType.Choice.of(List.of("raku", "cone 10")).longest()).isEqualTo(7);
    assertThat(new FieldType.LongText().length()).isEmpty();
    assertThat(new FieldType.Decimal(9, 2).length()).isEmpty();
    assertThat(new FieldType.Text(9).withMaxLength(12)).isEqualTo(new FieldType.Text(12));
    assertThat(new FieldType.Email(9).withMaxLength(12)).isEqualTo(new FieldType.Email(12));
    assertThat(new FieldType.Phone(9).withMaxLength(12)).isEqualTo(new FieldType.Phone(12));
    assertThat(new FieldType.WebAddress(9).withMaxLength(12))
        .isEqualTo(new FieldType.WebAddress(12));
    assertThat(new FieldType.FileReference(9).withMaxLength(12))
        .isEqualTo(new FieldType.FileReference(12));
  }

  @Test
  void everyTypeWithALengthRefusesNone() {
    List<Runnable> none =
        List.of(
            () -> new FieldType.Email(0),
            () -> new FieldType.Phone(0),
            () -> new FieldType.WebAddress(0),
            () -> new FieldType.FileReference(0),
            () -> new FieldType.Text(-1));
    none.forEach(type -> assertThatThrownBy(type::run).hasMessageContaining("at least 1 long"));
    assertThat(new FieldType.Text(1).maxLength()).isOne();
    assertThat(new FieldType.Decimal(1, 0).scale()).isZero();
    assertThat(new FieldType.Decimal(38, 38).scale()).isEqualTo(38);
    assertThatThrownBy(() -> new FieldType.Decimal(0, 0)).hasMessageContaining("1 to 38 digits");
    assertThatThrownBy(() -> new FieldType.Decimal(39, 0)).hasMessageContaining("1 to 38 digits");
    assertThat(new Area("A", 0).hue()).isZero();
    assertThat(new Area("A", 5).hue()).isEqualTo(5);
    assertThatThrownBy(() -> new Area("A", -1)).hasMessageContaining("0 to 5");
  }

  @Test
  void aCounterIsReferredToByAPlainNumber() {
    assertThat(new FieldType.Counter(Width.BITS_64).asReferenced())
        .isEqualTo(new FieldType.WholeNumber(Width.BITS_64));
    assertThat(new FieldType.Text(9).asReferenced()).isEqualTo(new FieldType.Text(9));
  }

  @ParameterizedTest
  @CsvSource({"0,4", "1,5", "4,5", "5,10", "8,10", "9,15", "100,125", "101,130"})
  void aRoomyLengthLeavesAQuarter(int longest, int length) {
    assertThat(FieldType.roomyLength(longest)).isEqualTo(length);
  }

  @Test
  void relationshipsRefuseUnknownEndsOnEitherSide() {
    FieldId nowhere = new FieldId("nowhere");
    TableId shelf = new TableId("shelf");
    assertThatThrownBy(
            () ->
                two()
                    .withRelationshipAdded(
                        Relationship.of("x", shelf, List.of(A), shelf, List.of(nowhere))))
        .hasMessageContaining("nowhere");
    assertThatThrownBy(
            () ->
                two()
                    .withRelationshipAdded(
                        Relationship.of("x", shelf, List.of(A), new TableId("rack"), List.of(A))))
        .hasMessageContaining("rack");
    assertThatThrownBy(() -> Relationship.of("x", shelf, List.of(A, B), shelf, List.of(A)))
        .hasMessageContaining("pairs");
  }

  @Test
  void whatIsChangedIsChangedAndNothingElse() {
    Table table = shelf();
    assertThat(table.withRowLabel(Optional.of(new Formula("a"))).rowLabel())
        .contains(new Formula("a"));
    assertThat(table.withArea(Optional.of(new AreaId("Store"))).area())
        .contains(new AreaId("Store"));
    assertThat(table.withDescription("x").description()).isEqualTo("x");
    assertThat(table.withExtras(new Extras(Map.of("p", "1"))).extras().byProperty())
        .containsEntry("p", "1");
    assertThat(table.withNames("rack", "Rack", NOUN).withNames("shelf", "Shelf", NOUN))
        .isEqualTo(table);
    Relationship reference = reference("fk", "slot", "shelf");
    assertThat(reference.withParentNeedsChild(true).parentNeedsChild()).isTrue();
    assertThat(reference.withActions(ReferentialAction.CASCADE, ReferentialAction.RESTRICT))
        .returns(ReferentialAction.CASCADE, Relationship::onDelete)
        .returns(ReferentialAction.RESTRICT, Relationship::onUpdate);
    assertThat(reference.withId(new RelationshipId("y")).id().value()).isEqualTo("y");
  }
}
