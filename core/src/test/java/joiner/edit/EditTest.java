package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.finding.DesignChecks;
import joiner.finding.Severity;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Multiplicity;
import joiner.model.Quantity;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

class EditTest {
  private static final RelationshipId MAKER = new RelationshipId("fk_piece_maker_id");
  private static final TableId PIECE = new TableId("piece");

  private static Reading.Option option(
      Draft draft, RelationshipId id, int reading, Quantity quantity) {
    Design design = draft.design();
    return Reading.of(design, design.relationship(id)).get(reading).options().stream()
        .filter(option -> option.quantity() == quantity)
        .findFirst()
        .orElseThrow();
  }

  private static void assertSound(Draft draft) {
    assertThat(Audit.of(draft, Pottery.CLOCK).violations()).isEmpty();
    assertThat(DesignChecks.run(draft)).noneMatch(finding -> finding.severity() == Severity.ERROR);
  }

  @Test
  void aRelationshipReadsAsTwoSentences() {
    Design design = Pottery.demo().design();
    assertThat(Reading.of(design, design.relationship(MAKER)))
        .extracting(Reading::sentence)
        .containsExactly(
            "Each member makes any number of pieces.", "Each piece is made by exactly one member.");
    assertThat(
            Reading.of(design, design.relationship(new RelationshipId("fk_piece_glaze_piece_id"))))
        .extracting(Reading::sentence)
        .containsExactly(
            "Each piece is dipped in any number of glazes.",
            "Each glaze is used on any number of pieces.");
    assertThat(Reading.of(design, design.relationship(new RelationshipId("fk_locker_member_id"))))
        .extracting(Reading::sentence)
        .containsExactly(
            "Each member uses at most one locker.", "Each locker is used by at most one member.");
  }

  @Test
  void readingManyMakesAJoinTableAndKeepsEveryLink() {
    Draft before = Pottery.demo();
    Draft after = option(before, MAKER, 1, Quantity.ANY_NUMBER).edit().apply(before);
    Table join = after.design().tableNamed("piece_member").orElseThrow();
    assertThat(join.kind()).isInstanceOf(TableKind.Join.class);
    assertThat(after.rows().of(join.id()).count()).isEqualTo(before.rows().of(PIECE).count());
    assertThat(after.design().table(PIECE).fieldNamed("maker_id")).isEmpty();
    assertSound(after);
  }

  @Test
  void readingAtMostOneCollapsesTheJoinTableAgainWithEveryLink() {
    Draft before = Pottery.demo();
    Draft many = option(before, MAKER, 1, Quantity.ANY_NUMBER).edit().apply(before);
    Draft back =
        option(many, new RelationshipId("fk_piece_member_piece"), 0, Quantity.AT_MOST_ONE)
            .edit()
            .apply(many);
    Field link = back.design().table(PIECE).fieldNamed("member_id").orElseThrow();
    for (int row = 0; row < before.rows().of(PIECE).count(); row++) {
      assertThat(back.rows().of(PIECE).cell(row, link.id()))
          .isEqualTo(before.rows().of(PIECE).cell(row, new FieldId("maker_id")));
    }
    assertSound(back);
  }

  @Test
  void collapsingAJoinTableThatWouldLoseSomethingIsRefused() {
    Draft demo = Pottery.demo();
    Edit edit =
        option(demo, new RelationshipId("fk_piece_glaze_piece_id"), 0, Quantity.AT_MOST_ONE).edit();
    assertThatThrownBy(() -> edit.apply(demo))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("Coat order");
  }

  @Test
  void readingAtMostOneFromTheParentMakesTheLinkUnique() {
    Draft demo = Pottery.demo();
    Draft one = option(demo, MAKER, 0, Quantity.AT_MOST_ONE).edit().apply(demo);
    assertThat(Multiplicity.of(one.design(), one.design().relationship(MAKER)).childUnique())
        .isTrue();
    Draft back = option(one, MAKER, 0, Quantity.ANY_NUMBER).edit().apply(one);
    assertThat(back.design()).isEqualTo(demo.design());
  }

  @Test
  void anIdentifyingLinkThatMayRepeatGivesTheChildACounter() {
    Draft demo = Pottery.demo();
    var locker = new TableId("locker");
    var change =
        ChangeTable.primaryKey(demo.design().table(locker), List.of(new FieldId("member_id")));
    Draft keyed = change.apply(demo);
    var link = new RelationshipId("fk_locker_member_id");
    Draft freed = option(keyed, link, 0, Quantity.ANY_NUMBER).edit().apply(keyed);
    Table after = freed.design().table(locker);
    assertThat(after.primaryKey()).extracting(FieldId::value).containsExactly("locker_id_2");
    assertThat(freed.rows().of(locker).cell(0, after.primaryKey().getFirst())).contains("1");
  }

  @Test
  void aNewFieldNameIsCarriedIntoRulesAndRowLabel() {
    Draft demo = Pottery.demo();
    Table firing = demo.design().table(new TableId("firing"));
    Field ended = firing.fieldNamed("ended_at").orElseThrow();
    Draft renamed = ChangeField.rename(firing, ended, "Finished", "finished_at").apply(demo);
    assertThat(
            renamed.design().table(firing.id()).rules().getFirst().condition().orElseThrow().text())
        .isEqualTo("finished_at IS NULL OR finished_at > started_at");
    assertSound(renamed);
  }

  @Test
  void choicesBecomeALookupTableWithoutChangingAValue() {
    Draft demo = Pottery.demo();
    Table glaze = demo.design().table(new TableId("glaze"));
    var surface = new FieldId("surface");
    Draft after = new ChoicesToLookup(glaze.id(), surface, "Surface").apply(demo);
    assertThat(after.rows().of(glaze.id())).isEqualTo(demo.rows().of(glaze.id()));
    assertThat(after.rows().of(new TableId("surface")).count()).isEqualTo(3);
    assertSound(after);
  }

  @Test
  void removingATableTakesItsRelationshipsAndLeavesNoBrokenJoin() {
    Draft demo = Pottery.demo();
    Draft after = new RemoveTable(new TableId("glaze"), "Glaze").apply(demo);
    assertThat(after.design().relationships())
        .noneMatch(r -> r.parent().equals(new TableId("glaze")));
    assertThat(after.design().table(new TableId("piece_glaze")).kind())
        .isInstanceOf(TableKind.Plain.class);
  }

  @Test
  void undoGivesTheVeryValueBackAndRedoTheOther() {
    Draft demo = Pottery.demo();
    Table member = demo.design().table(new TableId("member"));
    History history =
        History.startingWith(demo).after(SetUnique.of(member, List.of(new FieldId("phone")), true));
    assertThat(history.undoName()).contains("make Phone unique");
    assertThat(history.undone().present()).isEqualTo(demo);
    assertThat(history.undone().redone().present()).isEqualTo(history.present());
    assertThat(history.undone().undone().present()).isEqualTo(demo);
  }

  @Test
  void aChangeOfNothingLeavesNoStep() {
    Draft demo = Pottery.demo();
    Table member = demo.design().table(new TableId("member"));
    assertThat(
            History.startingWith(demo)
                .after(ChangeField.required(member, member.field(new FieldId("email")), true))
                .undoName())
        .isEmpty();
  }

  @Test
  void rowsKeepTheirOtherCellsWhenOneChanges() {
    Draft demo = Pottery.demo();
    Table kiln = demo.design().table(new TableId("kiln"));
    Draft after =
        ChangeRows.cell(
                kiln,
                demo.rows().of(kiln.id()),
                1,
                kiln.field(new FieldId("name")),
                Optional.of("Small Ann"))
            .apply(demo);
    assertThat(after.rows().of(kiln.id()).cell(1, new FieldId("name"))).contains("Small Ann");
    assertThat(
            after.rows().of(kiln.id()).withCell(1, new FieldId("name"), Optional.of("Little Ann")))
        .isEqualTo(demo.rows().of(kiln.id()));
  }

  @Test
  void aFieldOfATakenNameIsRefused() {
    Draft demo = Pottery.demo();
    var edit = new AddField(new TableId("kiln"), Field.of("name", "Name", new FieldType.Text(9)));
    assertThatThrownBy(() -> edit.apply(demo))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("another name");
  }

  @Test
  void removedRowsGoAndTheOthersKeepTheirOrder() {
    Draft demo = Pottery.demo();
    Table kiln = demo.design().table(new TableId("kiln"));
    var name = new FieldId("name");
    ChangeRows removal =
        ChangeRows.removed(kiln, demo.rows().of(kiln.id()), java.util.Set.of(0, 2));
    Draft after = removal.apply(demo);
    assertThat(removal.name()).isEqualTo("remove 2 rows of Kiln");
    assertThat(after.rows().of(kiln.id()).count()).isEqualTo(2);
    assertThat(after.rows().of(kiln.id()).cell(0, name))
        .isEqualTo(demo.rows().of(kiln.id()).cell(1, name));
    assertThat(after.rows().of(kiln.id()).cell(1, name))
        .isEqualTo(demo.rows().of(kiln.id()).cell(3, name));
    assertThat(History.startingWith(demo).after(removal).undone().present()).isEqualTo(demo);
  }

  @Test
  void whatWasSaidOfARowHoldsOfThatRowAlsoWhenOthersBeforeItWent() {
    Draft demo = Pottery.demo();
    Table kiln = demo.design().table(new TableId("kiln"));
    Rows rows = demo.rows().of(kiln.id());
    Field name = kiln.field(new FieldId("name"));
    Draft fewer = ChangeRows.removed(kiln, rows, java.util.Set.of(0)).apply(demo);
    Edit second = ChangeRows.cell(kiln, rows, 1, name, Optional.of("Ann"));
    assertThat(second.apply(fewer).rows().of(kiln.id()).cell(0, name.id())).contains("Ann");
    Edit first = ChangeRows.cell(kiln, rows, 0, name, Optional.of("Ann"));
    assertThat(first.apply(fewer)).isEqualTo(fewer);
  }
}
