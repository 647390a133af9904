package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.RandomDesigns;
import joiner.Tries;
import joiner.expression.Formula;
import joiner.meaning.TableInWords.Phrase;
import joiner.meaning.TableInWords.Source;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

class TableInWordsTest {
  private static final Draft DEMO = Pottery.demo();

  private static List<String> sentences(Draft draft, String table) {
    return TableInWords.of(draft, new TableId(table)).sentences().stream()
        .map(TableInWords.Sentence::text)
        .toList();
  }

  @Test
  void aTableIsReadToThoseWhoseDataItHolds() {
    assertThat(sentences(DEMO, "firing"))
        .containsExactly(
            "A firing is identified by its Firing number, which is counted up.",
            "It runs in exactly one kiln, was loaded by exactly one member, was unloaded by at"
                + " most one member and goes to exactly one cone.",
            "It always has Started; it may have Ended, Peak and Remark.",
            "Unless said otherwise, Started is now.",
            "Pieces is the number of its pieces.",
            "Peak must lie between 580 and 1400 °C.",
            "A firing cannot end before it has started.",
            "Note the peak temperature when the firing has ended.",
            "A firing may be entered at most two weeks ahead.",
            "A kiln fires one load at a time; this one is still at work.",
            "The kiln cannot have been hotter than it can be.",
            "A firing saw any number of incidents and fires any number of pieces.",
            "It cannot be deleted while it has incidents.",
            "People recognise it by Firing number and Cone.");
  }

  @Test
  void keysOfSeveralFieldsAndTheOtherSideOfAJoinAreSaid() {
    assertThat(sentences(DEMO, "session"))
        .contains(
            "A session is identified by its Course and Number together.",
            "Unless said otherwise, Minutes is 120.",
            "A session is attended by any number of members.",
            "When a session is deleted, so are its enrolments.");
    assertThat(sentences(DEMO, "piece_glaze"))
        .contains("No two piece glazes have the same Piece and Coat order together.");
  }

  @Test
  void choicesBoundsAndPatternsAreSaid() {
    assertThat(sentences(DEMO, "piece"))
        .contains(
            "Mark must be “P-”, then 4 digits.",
            "Stage must be thrown, dried, bisque, glazed or fired.");
    assertThat(sentences(DEMO, "recipe_line"))
        .contains("Percentage must be at most 100 % and be greater than 0 %.");
    assertThat(sentences(DEMO, "member"))
        .contains(
            "It pays for exactly one membership plan and was referred by at most one other"
                + " member.");
  }

  @Test
  void whatIsNotSaidYetIsSaidToBeMissing() {
    Draft without =
        DEMO.withDesign(
            DEMO.design().withTable(new TableId("locker"), t -> t.withPrimaryKey(List.of())));
    assertThat(sentences(without, "locker")).startsWith("Nothing identifies a locker yet.");
  }

  @Test
  void aDefaultThatIsNoPlainValueIsShownAsItWasTyped() {
    Draft added =
        DEMO.withDesign(
            DEMO.design()
                .withTable(
                    new TableId("session"),
                    t ->
                        t.withField(
                            new FieldId("minutes"),
                            f -> f.withDefault(Optional.of(new Formula("60 * 2"))))));
    assertThat(sentences(added, "session")).contains("Unless said otherwise, Minutes is 60 * 2.");
  }

  /** Law: nothing a designer decided about a table is left unsaid. */
  @Test
  void whateverIsDecidedIsSaid() {
    Tries.of(200).forEach(TableInWordsTest::saysAll);
  }

  private static void saysAll(long seed) {
    Draft draft = RandomDesigns.draft(seed);
    for (Table table : draft.design().tables()) {
      TableInWords words = TableInWords.of(draft, table.id());
      Set<Source> sources =
          words.sentences().stream()
              .flatMap(sentence -> sentence.phrases().stream())
              .flatMap(p -> p instanceof Phrase.Said said ? Stream.of(said.source()) : Stream.of())
              .collect(Collectors.toSet());
      assertThat(sources)
          .as("sources of %s, seed %d", table.name(), seed)
          .containsAll(table.rules().stream().map(Rule::id).map(Source.OfRule::new).toList())
          .containsAll(
              draft.design().parentsOf(table.id()).stream()
                  .map(Relationship::id)
                  .map(Source.OfRelationship::new)
                  .toList())
          .containsAll(
              draft.design().childrenOf(table.id()).stream()
                  .map(Relationship::id)
                  .map(Source.OfRelationship::new)
                  .toList())
          .containsAll(unreferring(draft, table).map(Source.OfField::new).toList());
      assertThat(words.sentences())
          .allSatisfy(sentence -> assertThat(sentence.text()).matches("(?s).*[.!?]"));
    }
  }

  /** Of a field that refers its relationship is said. */
  private static Stream<FieldId> unreferring(Draft draft, Table table) {
    return table.fieldIds().stream()
        .filter(
            id ->
                draft.design().parentsOf(table.id()).stream()
                    .noneMatch(r -> r.childFields().contains(id)));
  }
}
