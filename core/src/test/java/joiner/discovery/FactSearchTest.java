package joiner.discovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import joiner.rows.EncodedTable;
import org.junit.jupiter.api.Test;

class FactSearchTest {
  private static FactSearch search(EncodedTable table) {
    List<ColumnProfile> profiles = table.columns().stream().map(ColumnProfile::of).toList();
    return FactSearch.of(table, profiles, () -> false);
  }

  private static Fact fact(EncodedTable table, String id) {
    return search(table).facts().stream()
        .filter(fact -> fact.id().equals(id))
        .findFirst()
        .orElseThrow(() -> new AssertionError(id + " is not among " + search(table).facts()));
  }

  /** Firings with a member, an address, a cone, its temperature, glazes and a load. */
  private static EncodedTable firings() {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(5);
    String[] members = {"Mara Vell", "Odo Wick", "Ines Finch", "Tobin Lund", "Lise Pell"};
    String[] cones = {"04", "6", "10"};
    String[] peaks = {"1063", "1222", "1285"};
    String[] glazes = {"Celadon", "Moss", "Tenmoku", ""};
    String[] things = {"bowls", "jugs", "tiles"};
    String[] suppliers = {"Clay Barn", "Clay Barn", "Claybarn", "Northlight"};
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 200; i++) {
      String member = members[random.nextInt(5)];
      int cone = random.nextInt(3);
      String address = member.split(" ")[0].toLowerCase() + "@example.org";
      rows.add(
          List.of(
              String.valueOf(1000 + i),
              member,
              i == 77 ? "mara.v@example.org" : address,
              cones[cone],
              peaks[cone],
              glazes[random.nextInt(4)],
              glazes[random.nextInt(4)],
              random.nextInt(1, 9)
                  + " "
                  + things[random.nextInt(3)]
                  + (i % 2 == 0 ? "; 2 " + things[random.nextInt(3)] : ""),
              suppliers[random.nextInt(4)],
              String.valueOf(random.nextInt(50))));
    }
    return EncodedTable.of(
        "firings",
        List.of(
            "No",
            "Member",
            "E-mail",
            "Cone",
            "°C",
            "Glaze 1",
            "Glaze 2",
            "Load",
            "Supplier",
            "Minutes"),
        rows);
  }

  @Test
  void whatMattersComesBeforeWhatIsTrueByAccident() {
    List<String> plausible =
        search(firings()).facts().stream()
            .filter(fact -> fact.score() >= FactSearch.PLAUSIBLE)
            .map(Fact::id)
            .toList();
    assertThat(plausible)
        .contains("member.decides.e_mail", "cone.decides.c", "glaze.repeats", "load.list");
    assertThat(plausible).noneMatch(id -> id.startsWith("no.") || id.startsWith("minutes"));
    assertThat(plausible).doesNotContain("c.decides.cone", "e_mail.decides.member");
  }

  @Test
  void rowsThatContradictAreCountedAndSaid() {
    var fact = (Fact.Decides) fact(firings(), "member.decides.e_mail");
    assertThat(fact.exceptions()).isEqualTo(1);
    assertThat(fact.reasons()).contains("true in 199 of 200 rows");
  }

  @Test
  void aListInCellsIsSeenWithItsSeparatorAndCounts() {
    var list = (Fact.HoldsSeveral) fact(firings(), "load.list");
    assertThat(list.separator()).isEqualTo("; ");
    assertThat(list.counted()).isTrue();
  }

  @Test
  void aNameWithACommaIsNoList() {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 60; i++) {
      rows.add(List.of(List.of("Vell, Mara", "Wick, Odo", "Finch, Ines").get(i % 3)));
    }
    assertThat(search(EncodedTable.of("m", List.of("Member"), rows)).facts())
        .noneMatch(Fact.HoldsSeveral.class::isInstance);
  }

  @Test
  void columnsOfDifferentNamesThatAreFilledTogetherRepeatTogether() {
    var rows = new ArrayList<List<String>>();
    for (int i = 0; i < 30; i++) {
      boolean second = i % 3 == 0;
      rows.add(List.of("bowl", "4", second ? "jug" : "", second ? "1" : "", "x" + i));
    }
    var repeats =
        (Fact.Repeats)
            fact(
                EncodedTable.of(
                    "load", List.of("Piece 1", "Count 1", "Piece 2", "Count 2", "No"), rows),
                "piece.repeats");
    assertThat(repeats.bases()).extracting(Fact.Repeats.Base::label).contains("Piece", "Count");
  }

  @Test
  void twoSpellingsAreProposedWithTheirCountsAndNumbersAreNot() {
    var fact =
        (Fact.SameThing)
            search(firings()).facts().stream()
                .filter(Fact.SameThing.class::isInstance)
                .findFirst()
                .orElseThrow();
    assertThat(List.of(fact.keep(), fact.other())).containsExactly("Clay Barn", "Claybarn");
    assertThat(fact.keepRows()).isGreaterThan(fact.otherRows());
    var lockers = new ArrayList<List<String>>();
    for (int i = 0; i < 40; i++) {
      lockers.add(List.of(i % 8 == 0 ? "Locker 12" : "Locker 13"));
    }
    assertThat(search(EncodedTable.of("l", List.of("Locker"), lockers)).facts())
        .noneMatch(Fact.SameThing.class::isInstance);
  }

  @Test
  void aDependencySomebodyStatesIsPutToTheRows() {
    EncodedTable table = firings();
    List<ColumnProfile> profiles = table.columns().stream().map(ColumnProfile::of).toList();
    Fact.Decides stated = FactSearch.ask(table, profiles, joiner.dependency.AttributeSet.of(1), 8);
    assertThat(stated.id()).isEqualTo("member.decides.supplier");
    assertThat(stated.exceptions()).isPositive();
  }

  @Test
  void idsAndOrderAreTheSameEveryTime() {
    assertThat(search(firings())).isEqualTo(search(firings()));
  }
}
