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
}
