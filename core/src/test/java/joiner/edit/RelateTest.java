package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.edit.Relate.Shape;
import joiner.edit.Relate.Side;
import joiner.edit.Relate.Types;
import joiner.finding.DesignChecks;
import joiner.finding.Severity;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Multiplicity;
import joiner.model.Quantity;
import joiner.model.ReferentialAction;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class RelateTest {
  private static final Draft DEMO = Pottery.demo();

  private static Table table(Draft draft, String id) {
    return draft.design().table(new TableId(id));
  }

  private static Relate relate(String one, Quantity of, String other, Quantity back) {
    return relate(one, of, other, back, List.of(), List.of());
  }

  private static Relate relate(
      String one, Quantity of, String other, Quantity back, List<FieldId> by, List<FieldId> key) {
    return new Relate(
        Side.of(table(DEMO, one), "keeps", of),
        Side.of(table(DEMO, other), "is kept by", back),
        by,
        key,
        ReferentialAction.NO_ACTION,
        Types.OF_KEY);
  }

  private static Relationship made(Draft after) {
    return Relate.made(DEMO.design(), after.design()).orElseThrow();
  }

  private static Stream<Arguments> words() {
    return Stream.of(Quantity.values())
        .flatMap(of -> Stream.of(Quantity.values()).map(back -> Arguments.of(of, back)));
  }

  /** Whatever number words are chosen, the relationship is read with them afterwards. */
  @ParameterizedTest
  @MethodSource("words")
  void theSentencesSayAfterwardsWhatWasAskedFor(Quantity of, Quantity back) {
    Relate edit = relate("supplier", of, "kiln", back);
    Draft after = edit.apply(DEMO);
    List<Reading> readings = Reading.of(after.design(), made(after));
    boolean turned = edit.child() == edit.one();
    boolean many = edit.shape() == Shape.MANY_TO_MANY;
    Reading ofOne = readings.get(turned || many ? 1 : 0);
    Reading ofOther = readings.get(turned || many ? 0 : 1);
    assertThat(ofOne.subject()).isEqualTo("supplier");
    assertThat(ofOne.verb()).isEqualTo("keeps");
    assertThat(ofOne.quantity()).isEqualTo(of);
    assertThat(ofOther.subject()).isEqualTo("kiln");
    assertThat(ofOther.verb()).isEqualTo("is kept by");
    assertThat(ofOther.quantity()).isEqualTo(back);
    assertThat(DesignChecks.run(after)).noneMatch(f -> f.severity() == Severity.ERROR);
  }

  @Test
  void aKeyOfSeveralFieldsIsReferredToByAsManyWithAnIndex() {
    Draft after = relate("session", Quantity.ANY_NUMBER, "kiln", Quantity.AT_MOST_ONE).apply(DEMO);
    Relationship made = made(after);
    assertThat(made.parentFields()).hasSize(2).hasSameSizeAs(made.childFields());
    Table kiln = table(after, "kiln");
    assertThat(kiln.indexes()).anyMatch(index -> index.fields().equals(made.childFields()));
    for (int i = 0; i < 2; i++) {
      assertThat(kiln.field(made.childFields().get(i)).type())
          .isEqualTo(
              table(after, "session").field(made.parentFields().get(i)).type().asReferenced());
    }
    assertThat(DesignChecks.run(after)).noneMatch(f -> f.severity() == Severity.ERROR);
  }

  @Test
  void bothManyGetAJoinTable() {
    Draft after = relate("supplier", Quantity.ANY_NUMBER, "kiln", Quantity.ONE_OR_MANY).apply(DEMO);
    Table join = after.design().table(made(after).child());
    assertThat(join.kind()).isInstanceOf(TableKind.Join.class);
    assertThat(join.primaryKey()).hasSize(2);
    assertThat(table(after, "kiln").fields()).isEqualTo(table(DEMO, "kiln").fields());
  }

  @Test
  void aSecondRelationshipIsNamedAfterItsRole() {
    Draft after =
        new Relate(
                Side.of(table(DEMO, "firing"), "was checked by", Quantity.AT_MOST_ONE),
                Side.of(table(DEMO, "member"), "checked", Quantity.ANY_NUMBER),
                List.of(),
                List.of(),
                ReferentialAction.SET_NULL,
                Types.OF_KEY)
            .apply(DEMO);
    Relationship checked = made(after);
    assertThat(table(after, "firing").field(checked.childFields().getFirst()).name())
        .isEqualTo("member_id");
    Draft more =
        new Relate(
                Side.of(table(after, "firing"), "was signed by", Quantity.AT_MOST_ONE),
                Side.of(table(after, "member"), "signed", Quantity.ANY_NUMBER),
                List.of(),
                List.of(),
                ReferentialAction.SET_NULL,
                Types.OF_KEY)
            .apply(after);
    Relationship signed = Relate.made(after.design(), more.design()).orElseThrow();
    Field field = table(more, "firing").field(signed.childFields().getFirst());
    assertThat(field.name()).isEqualTo("signed_by");
    assertThat(field.label()).isEqualTo("Signed by");
  }

  @Test
  void anotherKeyThanThePrimaryOneIsReferredTo() {
    Table member = table(DEMO, "member");
    List<FieldId> email =
        member.uniqueKeys().stream().map(key -> key.fields()).findFirst().orElseThrow();
    Draft after =
        relate("member", Quantity.ANY_NUMBER, "incident", Quantity.AT_MOST_ONE, List.of(), email)
            .apply(DEMO);
    Relationship made = made(after);
    assertThat(made.parentFields()).isEqualTo(email);
    Field by = table(after, "incident").field(made.childFields().getFirst());
    assertThat(by.type()).isEqualTo(member.field(email.getFirst()).type().asReferenced());
  }

  @Test
  void whatIdentifiesNothingCannotBeReferredTo() {
    Relate byFuel =
        relate(
            "kiln",
            Quantity.ANY_NUMBER,
            "incident",
            Quantity.AT_MOST_ONE,
            List.of(),
            List.of(new FieldId("fuel")));
    assertThatThrownBy(() -> byFuel.apply(DEMO))
        .isInstanceOf(EditRefusedException.class)
        .hasMessage(
            "Several rows of Kiln may have the same Fuel, so nothing can refer to one of them by"
                + " it. Make it unique first, or refer to Kiln number.");
  }

  @Test
  void fieldsThatAreThereReferAndOneOfTheTwoTypesGivesWay() {
    FieldId details = new FieldId("details");
    Relate ofKey =
        relate(
            "kiln",
            Quantity.ANY_NUMBER,
            "incident",
            Quantity.AT_MOST_ONE,
            List.of(details),
            List.of(new FieldId("name")));
    Draft wider = ofKey.apply(DEMO);
    FieldType ofName = table(DEMO, "kiln").field(new FieldId("name")).type();
    assertThat(table(wider, "incident").field(details).type()).isEqualTo(ofName);
    Draft other =
        new Relate(
                ofKey.one(),
                ofKey.other(),
                ofKey.by(),
                ofKey.key(),
                ReferentialAction.NO_ACTION,
                Types.OF_FIELDS)
            .apply(DEMO);
    assertThat(table(other, "kiln").field(new FieldId("name")).type())
        .isEqualTo(table(DEMO, "incident").field(details).type());
    assertThatThrownBy(() -> ofKey.apply(wider)).hasMessageContaining("refers to Kiln already");
  }

  /** A relationship of the demo that is turned round twice ties the same rows again. */
  @Test
  void turnedRoundTwiceTheSameRowsAreTied() {
    Relationship locker =
        DEMO.design().parentsOf(new TableId("locker")).stream().findFirst().orElseThrow();
    Draft once = new TurnRound(locker.id()).apply(DEMO);
    Relationship turned = made(once);
    assertThat(turned.parent()).isEqualTo(locker.child());
    assertThat(turned.child()).isEqualTo(locker.parent());
    assertThat(turned.parentRole()).isEqualTo(locker.childRole());
    assertThat(Multiplicity.of(once.design(), turned).childUnique()).isTrue();
    assertThat(links(once, turned)).isEqualTo(links(DEMO, locker));
    assertThat(Audit.of(once, Pottery.CLOCK).violations()).isEmpty();
    Draft twice = new TurnRound(turned.id()).apply(once);
    Relationship back = Relate.made(once.design(), twice.design()).orElseThrow();
    assertThat(links(twice, back)).isEqualTo(links(DEMO, locker));
  }

  /** How many links there are. */
  private static long links(Draft draft, Relationship r) {
    var rows = draft.rows().of(r.child());
    return java.util.stream.IntStream.range(0, rows.count())
        .filter(row -> rows.row(row, r.childFields()).stream().allMatch(Optional::isPresent))
        .count();
  }

  @Test
  void severalLinksStandAgainstTurningRound() {
    Relationship made =
        DEMO.design().parentsOf(new TableId("piece")).stream()
            .filter(r -> r.parent().equals(new TableId("member")))
            .findFirst()
            .orElseThrow();
    assertThatThrownBy(() -> new TurnRound(made.id()).apply(DEMO))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("Several pieces refer to member")
        .hasMessageContaining("Make both sides many instead");
  }
}
