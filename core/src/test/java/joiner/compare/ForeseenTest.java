package joiner.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.edit.Edit;
import joiner.edit.EditRefusedException;
import joiner.edit.RemoveField;
import joiner.edit.RemoveTable;
import joiner.edit.ToManyToMany;
import joiner.edit.TurnRound;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

/** What is shown of a change before it is made is what the change does. */
class ForeseenTest {
  private static final Draft DEMO = Pottery.demo();

  private static Foreseen foreseen(Edit edit) {
    return Foreseen.of(edit, DEMO, edit.apply(DEMO), Pottery.CLOCK);
  }

  private static Foreseen.Line line(Foreseen of, String what) {
    return of.lines().stream().filter(l -> l.what().equals(what)).findFirst().orElseThrow();
  }

  @Test
  void aForeignKeyThatBecomesAJoinTableLosesNothing() {
    Foreseen many =
        foreseen(new ToManyToMany(new RelationshipId("fk_firing_kiln_id"), "many kilns"));
    Foreseen.Line links = line(many, "Links from firing to kiln");
    assertThat(links.today()).contains(48L);
    assertThat(links.then()).isEmpty();
    assertThat(links.becomes()).isEqualTo("each becomes a row of Firing kiln");
    assertThat(line(many, "Rows of Firing kiln").then()).contains(48L);
    Foreseen.Line fields = line(many, "Fields of Firing");
    assertThat(fields.becomes()).isEqualTo("Kiln goes, what it says lives on");
    assertThat(many.lines()).noneMatch(Foreseen.Line::loses);
    assertThat(many.lines())
        .as("no other value changes")
        .noneMatch(l -> l.what().equals("Rows of Firing"));
    assertThat(many.impact().effects())
        .filteredOn(e -> e.risk() == Risk.LOSES)
        .allMatch(many::livesOn);
    assertThat(many.touchedToday()).contains(new TableId("kiln"), new TableId("firing"));
  }

  @Test
  void whatGoesForGoodIsSaid() {
    Foreseen gone = foreseen(new RemoveField(new TableId("kiln"), new FieldId("fuel"), "Fuel"));
    assertThat(line(gone, "Fields of Kiln").loses()).isTrue();
    assertThat(gone.impact().effects()).noneMatch(gone::livesOn);
    Foreseen without = foreseen(new RemoveTable(new TableId("cone"), "Cone"));
    assertThat(line(without, "Rows of Cone").loses()).isTrue();
    assertThat(line(without, "Links from firing to cone").becomes())
        .isEqualTo("the relationship goes, its values stay");
    assertThat(without.touchedThen()).doesNotContain(new TableId("cone"));
  }

  @Test
  void whatTheWayBackByHandWouldLoseIsSaid() {
    assertThat(foreseen(new ToManyToMany(new RelationshipId("fk_firing_kiln_id"), "many")).back())
        .contains(
            "Taken back by hand later, as it would stand then, no row, value or link is lost.");
    assertThat(foreseen(new RemoveTable(new TableId("cone"), "Cone")).back())
        .as("only undo brings rows back")
        .isEmpty();
  }

  @Test
  void newFindingsAreTold() {
    Foreseen loose = foreseen(new RemoveTable(new TableId("member"), "Member"));
    assertThat(loose.findings())
        .extracting(f -> f.id())
        .contains("tied-to-nothing", "no-path")
        .doesNotContain("redundant-relationship");
  }

  /** Counts are those of the drafts, and links that are said to live on are there. */
  @Test
  void countsAreThoseOfBothStates() {
    int told = 0;
    for (long seed : Tries.of(60).toArray()) {
      Draft draft = RandomLinks.draft(seed, 1);
      for (Relationship r : draft.design().relationships()) {
        for (Edit edit : List.of(new ToManyToMany(r.id(), "many"), new TurnRound(r.id()))) {
          try {
            Foreseen of = Foreseen.of(edit, draft, edit.apply(draft), Pottery.CLOCK);
            assertThat(of.after()).isEqualTo(edit.apply(draft));
            assertThat(of.lines())
                .filteredOn(l -> l.what().startsWith("Links") && l.then().isEmpty())
                .extracting(Foreseen.Line::becomes)
                .allMatch(b -> b.startsWith("each becomes") || b.startsWith("all kept"));
            assertThat(of.lines()).noneMatch(l -> l.today().equals(Optional.empty()) && l.loses());
            told++;
          } catch (EditRefusedException refused) {
            assertThat(refused.getMessage()).isNotBlank();
          }
        }
      }
    }
    assertThat(told).isGreaterThan(Tries.least(100));
  }
}
