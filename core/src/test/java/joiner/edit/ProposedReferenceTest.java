package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.meaning.Draft;
import joiner.model.Relationship;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

class ProposedReferenceTest {
  @Test
  void aRelationshipOfTheDemoThatIsTakenAwayIsFoundAgainInItsRows() {
    Draft demo = Pottery.demo();
    for (Relationship removed : demo.design().relationships()) {
      boolean named =
          demo.design()
              .table(removed.child())
              .namesOf(removed.childFields())
              .getFirst()
              .contains(demo.design().table(removed.parent()).name());
      boolean several = removed.childFields().size() > 1;
      if (named && !several && !removed.isSelfReference()) {
        Draft without = new RemoveRelationship(removed.id(), removed.name()).apply(demo);
        List<ProposedReference> proposed =
            ProposedReference.of(without, removed.child(), () -> false);
        assertThat(proposed)
            .as(removed.name())
            .anyMatch(
                p ->
                    p.parent().equals(removed.parent())
                        && p.childFields().equals(removed.childFields())
                        && p.found().missing() == 0);
      }
    }
  }

  @Test
  void whatIsProposedCanBeApplied() {
    Draft demo = Pottery.demo();
    Relationship cone =
        demo.design().parentsOf(new TableId("firing")).stream()
            .filter(r -> r.parent().equals(new TableId("cone")))
            .findFirst()
            .orElseThrow();
    Draft without = new RemoveRelationship(cone.id(), cone.name()).apply(demo);
    ProposedReference proposed =
        ProposedReference.of(without, cone.child(), () -> false).stream()
            .filter(p -> p.parent().equals(cone.parent()))
            .findFirst()
            .orElseThrow();
    Draft again = proposed.edit(without).apply(without);
    assertThat(again.design().parentsOf(cone.child()))
        .anyMatch(r -> r.parent().equals(cone.parent()));
    assertThat(Audit.of(again, Pottery.CLOCK, () -> false).total()).isZero();
  }

  @Test
  void relationshipsThatAreThereAreNotProposedAgain() {
    Draft demo = Pottery.demo();
    assertThat(ProposedReference.of(demo, new TableId("piece_glaze"), () -> false)).isEmpty();
  }
}
