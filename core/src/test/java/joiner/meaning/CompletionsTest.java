package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import joiner.Pottery;
import joiner.meaning.Completions.Completion;
import joiner.meaning.Completions.Sort;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a condition can go on with. */
class CompletionsTest {
  private static List<Completion> of(String table, String text) {
    TableMeaning meaning = Pottery.demo().meaning().of(new TableId(table));
    return Completions.of(meaning.table(), meaning.scope(), text, text.length());
  }

  /** The text with the first that is offered put in. */
  private static String first(String table, String text) {
    Completion first = of(table, text).getFirst();
    return text.substring(0, first.from()) + first.text();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '!',
      quoteCharacter = '`',
      value = {
        "firing ! pe ! peak_c",
        "firing ! ended_at IS NULL OR sta ! ended_at IS NULL OR started_at",
        "firing ! kiln_id.hot ! kiln_id.hottest_c",
        "firing ! peak_c <= kiln_id.h ! peak_c <= kiln_id.hottest_c",
        "firing ! CHAR_L ! CHAR_LENGTH(",
        "firing ! peak_c BET ! peak_c BETWEEN",
        "kiln ! fuel = ! fuel ='electric'",
        "kiln ! fuel = 'g ! fuel = 'gas'",
        "kiln ! fuel IN ('gas', r ! fuel IN ('gas', 'raku'",
        "incident ! severity <> ! severity <>'low'",
      })
  void theFirstThatFitsIs(String table, String begun, String whole) {
    assertThat(first(table, begun)).isEqualTo(whole);
  }

  @Test
  void aFieldIsFoundByItsLabelAndToldWithItsType() {
    Completion completion =
        of("firing", "loade").stream()
            .filter(one -> one.sort() == Sort.FIELD)
            .findFirst()
            .orElseThrow();
    assertThat(completion.text()).isEqualTo("loaded_by");
    assertThat(completion.detail()).startsWith("Loaded by · ");
    assertThat(of("kiln", "falls")).isEmpty();
    assertThat(of("kiln", "fallback k")).extracting(Completion::text).doesNotContain("fallback_id");
  }

  @Test
  void insideATextNothingButValuesIsOffered() {
    assertThat(of("firing", "remark = 'an")).isEmpty();
    assertThat(of("firing", "nowhere.x")).isEmpty();
    assertThat(of("firing", "")).isNotEmpty();
  }

  /** Law: whatever is offered goes on from what stands there, and stands before the caret. */
  @Test
  void whatIsOfferedTakesThePlaceOfWhatIsBegun() {
    String text = "peak_c >= 580 AND kiln_id.hottest_c > peak_c OR remark LIKE 'x%'";
    TableMeaning meaning = Pottery.demo().meaning().of(new TableId("firing"));
    for (int caret = 0; caret <= text.length(); caret++) {
      for (Completion one : Completions.of(meaning.table(), meaning.scope(), text, caret)) {
        assertThat(one.from()).isBetween(0, caret);
      }
    }
  }
}
