package joiner.naming;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import joiner.engine.Dialects;
import joiner.model.Noun;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NamingTest {
  @ParameterizedTest
  @CsvSource({
    "Date joined,date_joined",
    "°C,c",
    "E-mail,e_mail",
    "Größe,grosse",
    "Kiln's name,kilns_name",
    "Glaze 1,glaze_1",
    "2nd coat,_2nd_coat",
    "!!!,field",
    "pieceMark,piece_mark",
    "  Peak  (°C) ,peak_c",
    "Ørsted Œuvre,orsted_oeuvre",
    "Straße,strasse",
    "Γλάζο,glazo",
    "Глазурь,glazur",
    "釉,you",
    "ﬁring,firing"
  })
  void aNameFollowsFromItsLabel(String label, String name) {
    assertThat(NamingPolicy.nameFor(label)).isEqualTo(name);
  }

  @Test
  void aTakenNameGetsTheFirstFreeNumber() {
    assertThat(NamingPolicy.free("mark", List.of("mark", "mark_2"))).isEqualTo("mark_3");
  }

  @ParameterizedTest
  @CsvSource({
    "piece,pieces",
    "glaze,glazes",
    "box,boxes",
    "supply,supplies",
    "day,days",
    "dish,dishes",
    "person,people",
    "species,species",
    "loan of a kiln,loan of a kilns",
    "shelf,shelves"
  })
  void pluralsAreTheUsualOnes(String singular, String plural) {
    assertThat(NamingPolicy.plural(singular)).isEqualTo(plural);
  }

  @ParameterizedTest
  @CsvSource({
    "pieces,piece",
    "supplies,supply",
    "species,species",
    "series,series",
    "people,person",
    "studio_people,studio_person",
    "clay bags,clay bag",
    "glass,glass",
    "boxes,box",
    "status,status"
  })
  void singularsAreTheUsualOnes(String plural, String singular) {
    assertThat(NamingPolicy.singular(plural)).isEqualTo(singular);
  }

  @Test
  void namesAreQuotedOnlyWhereTheyMustBe() {
    assertThat(Dialects.POSTGRESQL.identifiers().quote("order")).isEqualTo("\"order\"");
    assertThat(Dialects.POSTGRESQL.identifiers().quote("value")).isEqualTo("value");
    assertThat(Dialects.H2.identifiers().quote("value")).isEqualTo("\"value\"");
    assertThat(Dialects.SQLITE.identifiers().quote("Mark")).isEqualTo("Mark");
    assertThat(Dialects.POSTGRESQL.identifiers().quote("Mark")).isEqualTo("\"Mark\"");
    assertThat(Dialects.POSTGRESQL.identifiers().quote("a\"b")).isEqualTo("\"a\"\"b\"");
  }

  @Test
  void numbersAreWrittenWithACommaBetweenThousands() {
    assertThat(Counts.of(999)).isEqualTo("999");
    assertThat(Counts.of(66_667)).isEqualTo("66,667");
    assertThat(Counts.of(1, "row", "rows")).isEqualTo("1 row");
    assertThat(Counts.of(0, "row", "rows")).isEqualTo("0 rows");
    assertThat(Counts.of(1_000, "row", "rows")).isEqualTo("1,000 rows");
  }

  @ParameterizedTest
  @CsvSource({
    "date_joined,Date joined",
    "pieceMark,Piece Mark",
    "_hidden_,Hidden",
    "kiln,Kiln",
    "__,__",
    "ß,ß"
  })
  void aLabelFollowsFromAName(String name, String label) {
    assertThat(NamingPolicy.labelFor(name)).isEqualTo(label);
  }

  @ParameterizedTest
  @CsvSource({"kiln,id,kiln_id", "kiln,kiln_id,kiln_id", "kiln,number,kiln_number"})
  void aReferenceIsNamedAfterTheTable(String table, String key, String name) {
    assertThat(NamingPolicy.referenceTo(table, key)).isEqualTo(name);
  }

  /** Known lengths: PostgreSQL 63 bytes (NAMEDATALEN - 1), H2 256 characters. */
  @Test
  void aNameIsTooLongByItsBytes() {
    assertThat(Dialects.POSTGRESQL.identifiers().isTooLong("a".repeat(63))).isFalse();
    assertThat(Dialects.POSTGRESQL.identifiers().isTooLong("a".repeat(64))).isTrue();
    assertThat(Dialects.POSTGRESQL.identifiers().isTooLong("ß".repeat(32)))
        .as("two bytes each")
        .isTrue();
    assertThat(Dialects.POSTGRESQL.identifiers().isTooLong("ß".repeat(31))).isFalse();
  }

  @Test
  void anEngineThatFoldsUpwardsGivesNamesBackInCapitals() {
    assertThat(Dialects.H2.identifiers().stored("kiln")).isEqualTo("KILN");
    assertThat(Dialects.H2.identifiers().stored("Kiln")).as("has to be quoted").isEqualTo("Kiln");
    assertThat(Dialects.POSTGRESQL.identifiers().stored("kiln")).isEqualTo("kiln");
    assertThat(Dialects.SQLITE.identifiers().stored("Kiln")).isEqualTo("Kiln");
    assertThat(Dialects.POSTGRESQL.identifiers().isReserved("ORDER")).isTrue();
    assertThat(Dialects.POSTGRESQL.identifiers().needsQuotes("1st")).isTrue();
  }

  @Test
  void aNounFollowsFromALabel() {
    assertThat(Noun.ofLabel("Clay Bags")).isEqualTo(new joiner.model.Noun("clay bag", "clay bags"));
    assertThat(NamingPolicy.singular("gas")).isEqualTo("gas");
    assertThat(NamingPolicy.singular("kit")).isEqualTo("kit");
    assertThat(NamingPolicy.singular("kits")).isEqualTo("kit");
    assertThat(NamingPolicy.singular("pies")).isEqualTo("pie");
    assertThat(NamingPolicy.plural("")).isEqualTo("s");
  }

  @Test
  void aNameIsCutWhereTheEngineCutsItAndNeverWithinACharacter() {
    var postgres = Dialects.POSTGRESQL.identifiers();
    assertThat(postgres.stored("a".repeat(70))).isEqualTo("a".repeat(63));
    assertThat(postgres.stored("ß".repeat(40))).isEqualTo("ß".repeat(31));
    assertThat(postgres.stored("a".repeat(63))).isEqualTo("a".repeat(63));
    var mariadb = Dialects.MARIADB.identifiers();
    assertThat(mariadb.isTooLong("ß".repeat(64))).isFalse();
    assertThat(mariadb.isTooLong("ß".repeat(65))).isTrue();
    assertThat(mariadb.stored("a".repeat(70))).hasSize(70);
    assertThat(mariadb.hasStrangeCharacters("piece 🏺")).isTrue();
    assertThat(postgres.hasStrangeCharacters("piece 🏺")).isFalse();
  }
}
