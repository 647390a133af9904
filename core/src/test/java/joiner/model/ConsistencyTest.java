package joiner.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.Pottery;
import joiner.expression.Width;
import org.junit.jupiter.api.Test;

/** What does not fit together cannot be built, and what is taken away leaves nothing dangling. */
class ConsistencyTest {
  private static final FieldId NOWHERE = new FieldId("nowhere");
  private static final Design DEMO = Pottery.demo().design();

  private static Table kiln() {
    return DEMO.table(new TableId("kiln"));
  }

  private static void refused(Runnable building, String... says) {
    assertThatThrownBy(building::run)
        .isInstanceOf(IllegalArgumentException.class)
        .message()
        .contains(says);
  }

  @Test
  void aTableNamesOnlyFieldsItHas() {
    refused(() -> kiln().withPrimaryKey(List.of(NOWHERE)), "primary key", "kiln", "nowhere");
    refused(
        () -> kiln().withUniqueKeys(List.of(new UniqueKey("uq", List.of(NOWHERE)))),
        "uq",
        "nowhere");
    refused(() -> kiln().withIndexes(List.of(new Index("ix", List.of(NOWHERE)))), "ix", "nowhere");
    refused(
        () -> kiln().withKind(new TableKind.Lookup(Optional.of(NOWHERE), Optional.empty())),
        "sort order");
    refused(
        () -> kiln().withKind(new TableKind.Lookup(Optional.empty(), Optional.of(NOWHERE))),
        "retired");
    refused(() -> kiln().field(NOWHERE), "kiln", "nowhere");
  }

  @Test
  void nothingIsThereTwice() {
    Field name = kiln().field(new FieldId("name"));
    refused(() -> kiln().withFieldAdded(name), "name twice");
    refused(() -> kiln().withFieldAdded(name.withId(new FieldId("other"))), "name twice");
    refused(() -> kiln().withPrimaryKey(List.of(name.id(), name.id())), "twice");
    Rule rule = new Rule("r", "R", "litres > 0", "");
    refused(() -> kiln().withRules(List.of(rule, rule)), "rule r twice");
    UniqueKey key = new UniqueKey("uq", List.of(name.id()));
    refused(() -> kiln().withUniqueKeys(List.of(key, key)), "unique key uq twice");
    Index index = new Index("ix", List.of(name.id()));
    refused(() -> kiln().withIndexes(List.of(index, index)), "index ix twice");
    refused(() -> DEMO.withTableAdded(kiln()), "kiln is there twice");
    refused(() -> DEMO.withTableAdded(kiln().withId(new TableId("other"))), "kiln is there twice");
    refused(() -> DEMO.withAreas(List.of(new Area("A", 1), new Area("A", 2))), "area A");
    Relationship known = DEMO.relationships().iterator().next();
    refused(() -> DEMO.withRelationshipAdded(known), "is there twice");
  }

  @Test
  void relationshipsNameTablesAndFieldsThatAreThere() {
    Relationship known = DEMO.relationships().iterator().next();
    refused(
        () ->
            DEMO.withRelationshipAdded(
                Relationship.of(
                    "x",
                    new TableId("no"),
                    known.childFields(),
                    known.parent(),
                    known.parentFields())),
        "unknown table no");
    refused(
        () ->
            DEMO.withRelationshipAdded(
                Relationship.of(
                    "x", kiln().id(), List.of(NOWHERE), kiln().id(), kiln().primaryKey())),
        "unknown field nowhere");
    refused(() -> Relationship.of("x", kiln().id(), List.of(), kiln().id(), List.of()), "pairs");
  }

  @Test
  void aJoinTableNamesTwoRelationshipsOfItsOwn() {
    Table join = DEMO.table(new TableId("piece_glaze"));
    var foreign = new RelationshipId("fk_piece_maker_id");
    var missing = new RelationshipId("fk_nowhere");
    for (RelationshipId wrong : List.of(foreign, missing)) {
      refused(
          () -> DEMO.withTable(join.id(), t -> t.withKind(new TableKind.Join(wrong, wrong))),
          "piece_glaze",
          wrong.value());
    }
  }

  @Test
  void aJoinTableThatLosesASideBecomesPlain() {
    TableId join = new TableId("piece_glaze");
    var side = ((TableKind.Join) DEMO.table(join).kind()).first();
    assertThat(DEMO.withoutRelationship(side).table(join).kind())
        .isInstanceOf(TableKind.Plain.class);
    assertThat(DEMO.withoutTable(new TableId("glaze")).table(join).kind())
        .isInstanceOf(TableKind.Plain.class);
    assertThat(DEMO.withoutTable(new TableId("kiln")).table(join).kind())
        .isInstanceOf(TableKind.Join.class);
  }

  @Test
  void aLookupForgetsASortOrderOrMarkThatGoes() {
    FieldId name = new FieldId("name");
    FieldId litres = new FieldId("litres");
    Table lookup = kiln().withKind(new TableKind.Lookup(Optional.of(name), Optional.of(litres)));
    assertThat(lookup.withoutField(name).kind())
        .isEqualTo(new TableKind.Lookup(Optional.empty(), Optional.of(litres)));
    assertThat(lookup.withoutField(litres).kind())
        .isEqualTo(new TableKind.Lookup(Optional.of(name), Optional.empty()));
    assertThat(lookup.withoutField(new FieldId("fuel")).kind()).isEqualTo(lookup.kind());
  }

  @Test
  void aFieldTakesItsKeysAndIndexesAlong() {
    FieldId name = new FieldId("name");
    Table table =
        kiln()
            .withPrimaryKey(List.of(name, new FieldId("litres")))
            .withUniqueKeys(List.of(new UniqueKey("uq", List.of(name))))
            .withIndexes(List.of(new Index("ix", List.of(name))));
    Table without = table.withoutField(name);
    assertThat(without.primaryKey()).containsExactly(new FieldId("litres"));
    assertThat(without.uniqueKeys()).isEmpty();
    assertThat(without.indexes()).isEmpty();
    assertThat(without.hasField(name)).isFalse();
  }

  @Test
  void newThingsGetIdsOfTheirOwnAlsoAfterRenames() {
    Table renamed = kiln().withField(new FieldId("name"), f -> f.withName("title"));
    Field again = renamed.unused(Field.of("name", "Name", new FieldType.Text(20)));
    assertThat(again.name()).isEqualTo("name");
    assertThat(again.id()).isEqualTo(new FieldId("name_2"));
    assertThat(renamed.withFieldAdded(again).fieldNamed("name")).contains(again);
    Design moved =
        DEMO.withTable(kiln().id(), t -> t.withNames("oven", "Oven", new Noun("oven", "ovens")));
    Table table = moved.unused(Table.of("kiln", "Kiln", new Noun("kiln", "kilns")));
    assertThat(moved.withTableAdded(table).tableNamed("kiln")).contains(table);
    Relationship known = DEMO.relationships().iterator().next();
    assertThat(DEMO.unused(known).id()).isNotEqualTo(known.id());
  }

  @Test
  void anAreaThatOnlyATableNamesIsThere() {
    Design design = DEMO.withTable(kiln().id(), t -> t.withArea(Optional.of(new AreaId("Ovens"))));
    assertThat(design.areaNamed("Ovens")).isPresent();
    assertThat(design.areas()).startsWith(DEMO.areas().toArray(Area[]::new));
  }

  @Test
  void anIndexOfTheSameFieldsIsNotAddedTwiceAndItsNameIsFree() {
    FieldId name = new FieldId("name");
    Table once = kiln().withIndexes(List.of()).withIndexAdded(new Index("ix", List.of(name)));
    assertThat(once.withIndexAdded(new Index("other", List.of(name)))).isEqualTo(once);
    Table twice = once.withIndexAdded(new Index("ix", List.of(new FieldId("litres"))));
    assertThat(twice.indexes()).extracting(Index::name).containsExactly("ix", "ix_2");
  }

  @Test
  void typesRefuseWhatMakesNoSense() {
    refused(() -> new FieldType.Text(0), "at least 1");
    refused(() -> new FieldType.Decimal(39, 2), "38");
    refused(() -> new FieldType.Decimal(4, 5), "no more decimals");
    refused(() -> new FieldType.Money(4, -1), "no more decimals");
    refused(
        () -> new Picking(List.of(), List.of(), Optional.empty(), OptionalInt.of(0), false),
        "at least one");
    refused(() -> FieldType.Choice.of(List.of("a", "a")), "choices");
    refused(() -> Width.ofBits(8), "not 8");
    refused(() -> new Area("A", 6), "0 to 5");
    refused(() -> new FieldId(" "), "blank");
    refused(() -> new TableId(""), "blank");
    refused(() -> new Rule(" ", "", "", ""), "blank");
    refused(() -> new UniqueKey("uq", List.of()), "no field");
    refused(() -> new Index("ix", List.of()), "no field");
  }
}
