package joiner.naming;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
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
    assertThat(Engines.POSTGRESQL.quote("order")).isEqualTo("\"order\"");
    assertThat(Engines.POSTGRESQL.quote("value")).isEqualTo("value");
    assertThat(Engines.H2.quote("value")).isEqualTo("\"value\"");
    assertThat(Engines.SQLITE.quote("Mark")).isEqualTo("Mark");
    assertThat(Engines.POSTGRESQL.quote("Mark")).isEqualTo("\"Mark\"");
    assertThat(Engines.POSTGRESQL.quote("a\"b")).isEqualTo("\"a\"\"b\"");
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
    assertThat(Engines.POSTGRESQL.isTooLong("a".repeat(63))).isFalse();
    assertThat(Engines.POSTGRESQL.isTooLong("a".repeat(64))).isTrue();
    assertThat(Engines.POSTGRESQL.isTooLong("ß".repeat(32))).as("two bytes each").isTrue();
    assertThat(Engines.POSTGRESQL.isTooLong("ß".repeat(31))).isFalse();
  }

  @Test
  void anEngineThatFoldsUpwardsGivesNamesBackInCapitals() {
    assertThat(Engines.H2.stored("kiln")).isEqualTo("KILN");
    assertThat(Engines.H2.stored("Kiln")).as("has to be quoted").isEqualTo("Kiln");
    assertThat(Engines.POSTGRESQL.stored("kiln")).isEqualTo("kiln");
    assertThat(Engines.SQLITE.stored("Kiln")).isEqualTo("Kiln");
    assertThat(Engines.POSTGRESQL.isReserved("ORDER")).isTrue();
    assertThat(Engines.POSTGRESQL.needsQuotes("1st")).isTrue();
  }

  @Test
  void aNounFollowsFromALabel() {
    assertThat(NamingPolicy.nounFor("Clay Bags"))
        .isEqualTo(new joiner.model.Noun("clay bag", "clay bags"));
    assertThat(NamingPolicy.singular("gas")).isEqualTo("gas");
    assertThat(NamingPolicy.singular("kit")).isEqualTo("kit");
    assertThat(NamingPolicy.singular("kits")).isEqualTo("kit");
    assertThat(NamingPolicy.singular("pies")).isEqualTo("pie");
    assertThat(NamingPolicy.plural("")).isEqualTo("s");
  }
}
