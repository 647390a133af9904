package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.meaning.Draft;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

class GroupIntoAreasTest {
  private static Draft without(Draft draft) {
    Design design = draft.design();
    List<Table> bare = design.tables().stream().map(t -> t.withArea(Optional.empty())).toList();
    return draft.withDesign(design.withTables(bare).withAreas(List.of()));
  }

  private static Optional<AreaId> area(Draft draft, String table) {
    return draft.design().table(new TableId(table)).area();
  }

  /** Most of the areas that people gave the demo come out of its relationships. */
  @Test
  void theDemosTablesAreGroupedAsPeopleDid() {
    Draft grouped = new GroupIntoAreas().apply(without(Pottery.demo()));
    assertThat(grouped.design().areas()).hasSizeBetween(3, 5);
    for (List<String> together :
        List.of(
            List.of("course", "session", "enrolment"),
            List.of("kiln", "firing", "incident"),
            List.of("member", "locker", "membership_plan"),
            List.of("material", "supplier", "recipe_line", "glaze"))) {
      assertThat(together)
          .extracting(table -> area(grouped, table))
          .containsOnly(area(grouped, together.getFirst()));
    }
  }

  /** Whoever is in an area has a relative in it; whoever is in none has relatives in no new one. */
  @Test
  void groupsHoldTogether() {
    for (long seed : Tries.of(60).toArray()) {
      Draft draft = RandomLinks.draft(seed, 5);
      Draft grouped = new GroupIntoAreas().apply(draft);
      assertThat(new GroupIntoAreas().apply(draft).design()).isEqualTo(grouped.design());
      Set<TableId> tied = new HashSet<>();
      for (Relationship r : grouped.design().relationships()) {
        Optional<AreaId> area = grouped.design().table(r.child()).area();
        if (!r.isSelfReference() && area.equals(grouped.design().table(r.parent()).area())) {
          tied.addAll(List.of(r.child(), r.parent()));
        }
      }
      assertThat(grouped.design().tables().stream().filter(t -> t.area().isPresent()))
          .as("seed %d", seed)
          .allMatch(table -> tied.contains(table.id()));
    }
  }

  @Test
  void areasThatAreThereStay() {
    assertThatThrownBy(() -> new GroupIntoAreas().apply(Pottery.demo()))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("in an area already");
  }
}
