package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.expression.Checked;
import joiner.finding.DesignChecks;
import joiner.finding.Finding;
import joiner.meaning.Draft;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldGroup;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Kit;
import joiner.model.Origin;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

/** Fields that are dropped into several tables and kept in step. */
class KitsTest {
  private static final TableId KILN = new TableId("kiln");
  private static final TableId MATERIAL = new TableId("material");
  private static final Kit STAMPS = standard("Stamps");
  private static final FieldId CHANGED = new FieldId("changed_at");
  private static final Draft TWO = drop(drop(Pottery.demo(), KILN, STAMPS), MATERIAL, STAMPS);

  private static Kit standard(String label) {
    return StandardKits.all().stream()
        .filter(k -> k.label().equals(label))
        .findFirst()
        .orElseThrow();
  }

  private static Draft drop(Draft draft, TableId table, Kit kit) {
    return new DropKit(table, kit).apply(draft);
  }

  private static Field field(Draft draft, TableId table, FieldId field) {
    return draft.design().table(table).field(field);
  }

  private static List<Finding> kitFindings(Draft draft) {
    return DesignChecks.run(draft).stream()
        .filter(finding -> finding.id().equals("kit-field-changed"))
        .toList();
  }

  private static Draft remedied(Draft draft, String label) {
    return kitFindings(draft).getFirst().remedies().stream()
        .filter(remedy -> remedy.label().startsWith(label))
        .findFirst()
        .orElseThrow()
        .edit()
        .apply(draft);
  }

  @Test
  void aKitComesWithAllItsFieldsAsAGroupAndIsTheDesignsThen() {
    Table kiln = TWO.design().table(KILN);
    assertThat(kiln.fields().stream().map(Field::label))
        .endsWith("Made at", "Made by", "Changed at", "Changed by");
    FieldGroup group = kiln.groupOf(CHANGED).orElseThrow();
    assertThat(group.label()).isEqualTo("Stamps");
    assertThat(TWO.design().kits()).containsExactly(STAMPS);
    assertThat(kitFindings(TWO)).isEmpty();
    assertThatThrownBy(() -> drop(TWO, KILN, STAMPS)).hasMessageContaining("has the kit Stamps");
  }

  @Test
  void aNameThatIsTakenIsRefusedByTable() {
    Table kiln = Pottery.demo().design().table(KILN);
    Draft taken =
        new AddField(KILN, Field.of("made_by", "Maker", new FieldType.Text(20)))
            .apply(Pottery.demo());
    assertThatThrownBy(() -> drop(taken, KILN, STAMPS))
        .hasMessage(kiln.label() + " has a field made_by already; give it another name first.");
  }

  @Test
  void aChangeByHandIsFoundAndPutBack() {
    Draft changed =
        ChangeField.rename(
                TWO.design().table(KILN), field(TWO, KILN, CHANGED), "Touched", "changed_at")
            .apply(TWO);
    assertThat(kitFindings(changed))
        .singleElement()
        .extracting(Finding::message)
        .isEqualTo("Touched of Kiln has another label than the kit Stamps.");
    assertThat(remedied(changed, "Put it back").design()).isEqualTo(TWO.design());
  }

  @Test
  void theKitFollowsAndAllTablesWithIt() {
    Draft changed =
        ChangeField.description(
                TWO.design().table(KILN), field(TWO, KILN, CHANGED), "to the second")
            .apply(TWO);
    Draft everywhere = remedied(changed, "Change the kit");
    assertThat(field(everywhere, MATERIAL, CHANGED).description()).isEqualTo("to the second");
    assertThat(everywhere.design().kits().getFirst().find(CHANGED).orElseThrow().description())
        .isEqualTo("to the second");
    assertThat(kitFindings(everywhere)).isEmpty();
    assertThat(everywhere.design().table(KILN).fields())
        .isEqualTo(changed.design().table(KILN).fields());
  }

  /** A kit whose formula reads its own fields, one of which a table calls otherwise. */
  @Test
  void formulasOfAKitGoByTheNamesOfTheTable() {
    Kit person =
        StandardKits.all().stream()
            .filter(kit -> kit.fields().stream().anyMatch(Field::isComputed))
            .findFirst()
            .orElseThrow();
    Draft both = drop(drop(Pottery.demo(), KILN, person), MATERIAL, person);
    Field given = person.fields().stream().filter(f -> !f.isComputed()).findFirst().orElseThrow();
    Field full = person.fields().stream().filter(Field::isComputed).findFirst().orElseThrow();
    Draft renamed =
        ChangeField.rename(
                both.design().table(KILN), field(both, KILN, given.id()), given.label(), "first")
            .apply(both);
    Field here = field(renamed, KILN, full.id());
    assertThat(((Origin.Computed) here.origin()).formula().text()).contains("first");
    assertThat(kitFindings(renamed)).as("it is the same formula").isEmpty();
    Draft noted =
        ChangeField.description(renamed.design().table(KILN), here, "for letters").apply(renamed);
    Draft everywhere = remedied(noted, "Change the kit");
    assertThat(everywhere.design().kits().getLast().find(full.id()).orElseThrow().origin())
        .isEqualTo(full.origin());
    assertThat(field(everywhere, MATERIAL, full.id()).origin()).isEqualTo(full.origin());
    assertThat(field(everywhere, MATERIAL, full.id()).description()).isEqualTo("for letters");
    assertThat(field(everywhere, KILN, full.id()).origin()).isEqualTo(here.origin());
    assertThat(kitFindings(everywhere)).isEmpty();
  }

  @Test
  void aFieldTakenOutOfTheKitStaysInTheTablesOrGoesEverywhere() {
    Field changed = STAMPS.find(CHANGED).orElseThrow();
    Draft taken = new TakeFromKit(STAMPS, changed, false).apply(TWO);
    assertThat(taken.design().kits().getFirst().find(CHANGED)).isEmpty();
    for (TableId table : List.of(KILN, MATERIAL)) {
      assertThat(field(taken, table, CHANGED)).isEqualTo(field(TWO, table, CHANGED));
      assertThat(taken.design().table(table).groupOf(CHANGED)).isEmpty();
    }
    Draft removed = new TakeFromKit(STAMPS, changed, true).apply(TWO);
    assertThat(removed.design().table(KILN).hasField(CHANGED)).isFalse();
    assertThat(removed.design().table(MATERIAL).hasField(CHANGED)).isFalse();
    assertThat(removed.design().kits().getFirst().fields()).hasSize(3);
    assertThat(kitFindings(removed)).isEmpty();
    Draft last =
        STAMPS.fields().stream()
            .limit(3)
            .reduce(TWO, (d, f) -> new TakeFromKit(STAMPS, f, true).apply(d), (a, b) -> b);
    assertThatThrownBy(() -> new TakeFromKit(STAMPS, STAMPS.fields().getLast(), true).apply(last))
        .hasMessageContaining("let go of the kit instead");
  }

  @Test
  void aFieldPutIntoTheGroupComesToEveryTable() {
    Table kiln = TWO.design().table(KILN);
    Field reason = Field.of("reason", "Reason", new FieldType.Text(60));
    FieldGroup group = kiln.groupOf(CHANGED).orElseThrow();
    List<FieldId> more = Stream.concat(group.fields().stream(), Stream.of(reason.id())).toList();
    Table grown = kiln.withFieldAdded(reason).withGroups(List.of(group.withFields(more)));
    Draft changed = TWO.withDesign(TWO.design().withTable(KILN, t -> grown));
    assertThat(kitFindings(changed).getFirst().message())
        .contains("stands in the kit Stamps here only");
    Draft everywhere = remedied(changed, "Add it");
    assertThat(field(everywhere, MATERIAL, reason.id())).isEqualTo(reason);
    assertThat(kitFindings(everywhere)).isEmpty();
    assertThat(everywhere.design().table(MATERIAL).groupOf(reason.id())).isPresent();
  }

  @Test
  void whatIsLetGoIsChangedNoMore() {
    Table glaze = TWO.design().table(MATERIAL);
    Draft left = LeaveKit.of(glaze, STAMPS, glaze.field(CHANGED)).apply(TWO);
    Draft changed =
        ChangeField.description(
                left.design().table(KILN), field(left, KILN, CHANGED), "to the second")
            .apply(left);
    Draft everywhere = remedied(changed, "Change the kit");
    assertThat(field(everywhere, MATERIAL, CHANGED)).isEqualTo(field(TWO, MATERIAL, CHANGED));
    assertThat(everywhere.design().table(MATERIAL).groupOf(CHANGED)).isEmpty();
    Draft alone = LeaveKit.of(left.design().table(MATERIAL), STAMPS).apply(left);
    assertThat(alone.design().table(MATERIAL).groups()).allMatch(group -> group.use().isEmpty());
    assertThat(kitFindings(alone)).isEmpty();
  }

  @Test
  void aKitIsMadeOfFieldsThatAreThere() {
    Table kiln = Pottery.demo().design().table(KILN);
    List<FieldId> some = List.of(new FieldId("litres"), new FieldId("hottest_c"));
    Draft made =
        new MakeKit(KILN, some.stream().filter(kiln::hasField).toList(), "Size")
            .apply(Pottery.demo());
    Kit size = made.design().kits().getLast();
    Draft other = drop(made, MATERIAL, size);
    for (FieldId field : size.fields().stream().map(Field::id).toList()) {
      assertThat(field(other, MATERIAL, field)).isEqualTo(field(made, KILN, field));
    }
    assertThatThrownBy(() -> new MakeKit(KILN, kiln.primaryKey(), "Key").apply(made))
        .hasMessageContaining("identifies rows");
  }

  @Test
  void removingAFieldLetsItGo() {
    Draft without = new RemoveField(MATERIAL, CHANGED, "Changed at").apply(TWO);
    assertThat(kitFindings(without)).isEmpty();
    Draft everywhere = new ChangeKit(KILN, STAMPS).apply(without);
    assertThat(everywhere.design().table(MATERIAL).hasField(CHANGED)).isFalse();
    assertThat(everywhere.design().kits()).containsExactly(STAMPS);
  }

  @Test
  void everyStandardKitIsSound() {
    for (Kit kit : StandardKits.all()) {
      Draft draft = drop(Pottery.demo(), new TableId("locker"), kit);
      Table table = draft.design().table(new TableId("locker"));
      for (Field field : kit.fields()) {
        if (field.isComputed()) {
          assertThat(TableMeaning.of(table).computed(field.id()))
              .as(kit.label())
              .get()
              .isInstanceOf(Checked.Sound.class);
        }
      }
      assertThat(DesignChecks.run(draft))
          .as(kit.label())
          .noneMatch(f -> f.field().filter(id -> kit.find(id).isPresent()).isPresent());
    }
    assertThat(STAMPS.fields())
        .extracting(Field::origin)
        .allMatch(Origin.Stamped.class::isInstance);
  }
}
