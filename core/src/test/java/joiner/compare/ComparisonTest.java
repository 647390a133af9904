package joiner.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.edit.AddField;
import joiner.edit.ChangeField;
import joiner.edit.ChangeTable;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.IndexId;
import joiner.model.KeyId;
import joiner.model.RelationshipId;
import joiner.model.RuleId;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

class ComparisonTest {
  private static final Draft DEMO = Pottery.demo();
  private static final TableId KILN = new TableId("kiln");

  /** The same design as somebody else would have made it: nothing but the ids is another. */
  private static Draft underOtherIds(Draft draft) {
    var identities = new Identities();
    for (Table table : draft.design().tables()) {
      identities.table(table.id(), new TableId("other " + table.id()));
      table
          .fields()
          .forEach(
              f -> identities.field(table.id(), f.id(), new FieldId("other " + f.id().value())));
    }
    draft
        .design()
        .relationships()
        .forEach(r -> identities.relationship(r.id(), new RelationshipId("other " + r.id())));
    for (Table table : draft.design().tables()) {
      TableId id = table.id();
      table
          .uniqueKeys()
          .forEach(k -> identities.uniqueKey(id, k.id(), new KeyId("other_" + k.id())));
      table.indexes().forEach(i -> identities.index(id, i.id(), new IndexId("other_" + i.id())));
      table.rules().forEach(r -> identities.rule(id, r.id(), new RuleId("other_" + r.id())));
    }
    return identities.of(draft);
  }

  @Test
  void theSameUnderOtherIdsIsTheSame() {
    assertThat(Comparison.between(DEMO, underOtherIds(DEMO))).isEmpty();
    Tries.of(150)
        .forEach(
            seed -> {
              Draft one = RandomDesigns.draft(seed);
              Draft other = underOtherIds(one);
              assertThat(Effects.between(one, other).isEmpty())
                  .isEqualTo(one.design().tables().isEmpty());
              assertThat(Comparison.between(one, other)).as("seed " + seed).isEmpty();
            });
  }

  @Test
  void somethingIsToldExactlyWhereDesignsDiffer() {
    Tries.of(150)
        .forEach(
            seed -> {
              Draft one = RandomDesigns.draft(seed);
              Draft other = RandomDesigns.draft(seed + 1);
              assertThat(Comparison.between(one, other).isEmpty()).isEqualTo(one.equals(other));
            });
  }

  @Test
  void aTableWithMostFieldsOfAnotherIsTakenForItAndThatIsSaid() {
    Table kiln = DEMO.design().table(KILN);
    Draft renamed = ChangeTable.rename(kiln, "oven", "Oven", kiln.noun()).apply(DEMO);
    List<Effect> effects = Comparison.between(DEMO, underOtherIds(renamed));
    assertThat(effects.getFirst().message())
        .startsWith("The table Oven is taken for Kiln under another name: ");
    assertThat(effects).extracting(Effect::kind).containsOnly(Effect.Kind.TABLE_RENAMED).hasSize(3);
  }

  @Test
  void aTableWithFewFieldsOfAnotherIsAnother() {
    Draft one =
        DEMO.withDesign(DEMO.design().withTable(KILN, t -> t.withNames("oven", "Oven", t.noun())));
    Draft other = underOtherIds(one);
    Table oven = other.design().tableNamed("oven").orElseThrow();
    for (int i = 0; i < 9; i++) {
      Field field = Field.of("other_" + i, "Other " + i, new FieldType.Date());
      other = new AddField(oven.id(), field).apply(other);
    }
    assertThat(Comparison.between(DEMO, other))
        .extracting(Effect::kind)
        .contains(Effect.Kind.TABLE_ADDED, Effect.Kind.TABLE_REMOVED);
  }

  @Test
  void theOnlyFieldOfItsTypeIsTakenForAnotherAndThatIsSaid() {
    Table kiln = DEMO.design().table(KILN);
    Field extra = Field.of("bought", "Bought", new FieldType.DateTime(true));
    Draft one = new AddField(KILN, extra).apply(DEMO);
    Table with = one.design().table(KILN);
    Draft other =
        underOtherIds(
            ChangeField.rename(with, with.field(extra.id()), "Acquired", "acquired").apply(one));
    assertThat(Comparison.between(one, other))
        .extracting(Effect::message)
        .first()
        .isEqualTo(
            kiln.label()
                + " · Acquired is taken for Bought under another name: no other field left has its type.");
    assertThat(Comparison.between(one, other))
        .noneMatch(e -> e.kind() == Effect.Kind.FIELD_REMOVED);
  }

  @Test
  void valuesOfWhatIsTheSameAreCompared() {
    Draft other = underOtherIds(DEMO);
    Table kiln = other.design().tableNamed("kiln").orElseThrow();
    FieldId name = kiln.fieldNamed("name").orElseThrow().id();
    Draft changed =
        other.withRows(other.rows().with(kiln.id(), r -> r.withCell(0, name, Optional.of("Ann"))));
    assertThat(Comparison.between(DEMO, changed))
        .extracting(Effect::message)
        .containsExactly("Kiln: 1 cell holds another value.");
  }
}
