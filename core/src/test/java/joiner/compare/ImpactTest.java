package joiner.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import joiner.Pottery;
import joiner.edit.ChangeField;
import joiner.edit.RemoveField;
import joiner.edit.RemoveTable;
import joiner.edit.SetUnique;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

class ImpactTest {
  private static final Draft DEMO = Pottery.demo();
  private static final Table FIRING = DEMO.design().table(new TableId("firing"));

  @Test
  void aRemovedFieldBreaksTheRulesThatReadIt() {
    Field ended = FIRING.fieldNamed("ended_at").orElseThrow();
    Impact impact = Impact.of(new RemoveField(FIRING.id(), ended.id(), "Ended"), DEMO);
    assertThat(impact.effects())
        .filteredOn(e -> e.kind() == Effect.Kind.FORMULA_BROKEN)
        .extracting(Effect::message)
        .hasSize(3)
        .allMatch(message -> message.contains("of Firing can no longer be read"))
        .allMatch(message -> message.contains("ended_at"));
    assertThat(impact.effects()).anyMatch(e -> e.risk() == Risk.LOSES);
    assertThat(impact.kept()).isEqualTo(DEMO.rows().of(FIRING.id()).count());
  }

  @Test
  void aRuleThatCouldNotBeReadBeforeIsNoNews() {
    Field ended = FIRING.fieldNamed("ended_at").orElseThrow();
    Draft broken = new RemoveField(FIRING.id(), ended.id(), "Ended").apply(DEMO);
    Field started = FIRING.fieldNamed("started_at").orElseThrow();
    assertThat(Impact.of(ChangeField.description(FIRING, started, "When."), broken).effects())
        .noneMatch(e -> e.kind() == Effect.Kind.FORMULA_BROKEN);
  }

  @Test
  void rowsThatWouldBreakTheDesignAreCountedAndThoseThatDidBeforeAreNot() {
    Table piece = DEMO.design().table(new TableId("piece"));
    FieldId maker = piece.fieldNamed("maker_id").orElseThrow().id();
    Impact impact = Impact.of(SetUnique.of(piece, List.of(maker), true), DEMO, Pottery.CLOCK);
    assertThat(impact.effects())
        .filteredOn(e -> e.kind() == Effect.Kind.ROWS_BROKEN)
        .singleElement()
        .satisfies(e -> assertThat(e.table()).contains("piece"))
        .satisfies(e -> assertThat(e.risk()).isEqualTo(Risk.REFUSES));
    Draft after = SetUnique.of(piece, List.of(maker), true).apply(DEMO);
    Table changed = after.design().table(piece.id());
    assertThat(
            Impact.of(
                    ChangeField.description(changed, changed.field(maker), "Who."),
                    after,
                    Pottery.CLOCK)
                .effects())
        .noneMatch(e -> e.kind() == Effect.Kind.ROWS_BROKEN);
  }

  @Test
  void aRemovedTableTakesItsRelationshipsAlongAndLeavesTheRowsOfOthers() {
    Impact impact = Impact.of(new RemoveTable(new TableId("member"), "Member"), DEMO);
    assertThat(impact.effects())
        .filteredOn(e -> e.kind() == Effect.Kind.RELATIONSHIP_REMOVED)
        .hasSize(
            DEMO.design().childrenOf(new TableId("member")).size()
                + (int)
                    DEMO.design().parentsOf(new TableId("member")).stream()
                        .filter(r -> !r.isSelfReference())
                        .count());
    assertThat(impact.effects()).filteredOn(e -> e.kind() == Effect.Kind.TABLE_REMOVED).hasSize(1);
  }
}
