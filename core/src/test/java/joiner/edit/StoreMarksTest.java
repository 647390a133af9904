package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import joiner.Pottery;
import joiner.audit.Audit;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.EnteredText;
import joiner.rows.Rows;
import org.junit.jupiter.api.Test;

/** Card numbers of members, kept without what every one of them has. */
class StoreMarksTest {
  private static final TableId MEMBER = new TableId("member");
  private static final FieldId CARD = new FieldId("card_no");
  private static final Edit OUT = new StoreMarks(MEMBER, CARD, "Card number", false);
  private static final Edit IN = new StoreMarks(MEMBER, CARD, "Card number", true);

  private static Field card(Draft draft) {
    return draft.design().table(MEMBER).field(CARD);
  }

  private static List<String> cards(Draft draft, TableId table, FieldId field) {
    Rows rows = draft.rows().of(table);
    return java.util.stream.IntStream.range(0, rows.count())
        .mapToObj(row -> rows.cell(row, field).orElse(""))
        .toList();
  }

  @Test
  void rowsLoseTheMarksAndStillFit() {
    Draft demo = Pottery.demo();
    Draft bare = OUT.apply(demo);
    assertThat(card(bare).limits().pattern()).contains("[0-9]{4}");
    assertThat(card(bare).limits().shown()).contains("M-[0-9]{4}");
    assertThat(cards(bare, MEMBER, CARD))
        .isEqualTo(cards(demo, MEMBER, CARD).stream().map(text -> text.replace("M-", "")).toList());
    assertThat(Audit.of(bare, Pottery.CLOCK).violations().count())
        .isEqualTo(Audit.of(demo, Pottery.CLOCK).violations().count());
    assertThat(IN.apply(bare)).isEqualTo(demo);
  }

  @Test
  void whatIsTypedIsKeptWithoutMarksHoweverItIsTyped() {
    Field bare = card(OUT.apply(Pottery.demo()));
    assertThat(List.of("M-0048", "m 0048", "0048"))
        .allSatisfy(typed -> assertThat(EnteredText.of(bare, typed)).isEqualTo("0048"));
    assertThat(EnteredText.of(bare, "M-48")).isEqualTo("M-48");
  }

  @Test
  void whatRefersToTheFieldGoesAlong() {
    Draft demo = Pottery.demo();
    Table member = demo.design().table(MEMBER);
    Draft keyed = ChangeKey.of(member, List.of(CARD)).apply(demo);
    Draft bare = new StoreMarks(MEMBER, CARD, "Card number", false).apply(keyed);
    assertThat(Audit.of(bare, Pottery.CLOCK).violations().count())
        .isEqualTo(Audit.of(keyed, Pottery.CLOCK).violations().count());
    assertThat(IN.apply(bare)).isEqualTo(keyed);
  }

  @Test
  void aRuleThatReadsTheFieldIsNamed() {
    Draft demo = Pottery.demo();
    Draft ruled =
        demo.withDesign(
            demo.design()
                .withTable(
                    MEMBER,
                    t ->
                        t.withRules(
                            List.of(new Rule("r", "Old cards", "card_no LIKE 'M-%'", "Old.")))));
    assertThatThrownBy(() -> OUT.apply(ruled))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("Old cards");
  }

  @Test
  void valuesThatWouldMeetAreNamed() {
    Draft demo = Pottery.demo();
    Draft doubled =
        demo.withRows(
            demo.rows().with(MEMBER, r -> r.withCell(0, CARD, java.util.Optional.of("0002"))));
    Draft other =
        doubled.withRows(
            doubled.rows().with(MEMBER, r -> r.withCell(1, CARD, java.util.Optional.of("M-0002"))));
    assertThatThrownBy(() -> OUT.apply(other))
        .isInstanceOf(EditRefusedException.class)
        .hasMessageContaining("become the same");
  }

  @Test
  void aPatternWithoutMarksIsToldSo() {
    Draft demo = Pottery.demo();
    FieldId name = demo.design().table(MEMBER).fields().get(2).id();
    assertThatThrownBy(() -> new StoreMarks(MEMBER, name, "Name", false).apply(demo))
        .isInstanceOf(EditRefusedException.class);
  }
}
