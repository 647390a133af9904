package joiner.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import joiner.Pottery;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Quantity;
import joiner.model.Relationship;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RelateSentenceTest {
  private static final Design DEMO = Pottery.demo().design();

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "member makes many pieces|member|makes|ANY_NUMBER|piece|AT_MOST_ONE",
        "Each kiln is mended by one supplier.|kiln|is mended by|EXACTLY_ONE|supplier|ANY_NUMBER",
        "each membership plan allows any number of kilns|membership_plan|allows|ANY_NUMBER|kiln|AT_MOST_ONE",
        "glaze is shown on at most one piece|glaze|is shown on|AT_MOST_ONE|piece|ANY_NUMBER",
        "piece glaze uses materials|piece_glaze|uses|ANY_NUMBER|material|AT_MOST_ONE",
        "supplier brings one or more materials|supplier|brings|ONE_OR_MANY|material|AT_MOST_ONE",
        "a member owns a kiln|member|owns|EXACTLY_ONE|kiln|ANY_NUMBER"
      })
  void aSentenceSaysTablesVerbAndNumber(
      String said, String one, String verb, Quantity of, String other, Quantity back) {
    Relate relate = RelateSentence.read(DEMO, said).orElseThrow();
    assertThat(relate.one().table()).isEqualTo(new TableId(one));
    assertThat(relate.one().verb()).isEqualTo(verb);
    assertThat(relate.one().quantity()).isEqualTo(of);
    assertThat(relate.other().table()).isEqualTo(new TableId(other));
    assertThat(relate.other().quantity()).isEqualTo(back);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "member",
        "member piece",
        "member makes",
        "makes pieces",
        "a b c",
        "member many pieces"
      })
  void whatIsNoSuchSentenceIsNone(String said) {
    assertThat(RelateSentence.read(DEMO, said)).isEmpty();
  }

  /** Those of the demo's relationships that their names alone would suggest are suggested again. */
  @Test
  void namesSuggestWhatWasThere() {
    int found = 0;
    for (Relationship r : DEMO.relationships()) {
      boolean pair = r.childFields().size() > 1 || r.isSelfReference();
      if (!pair) {
        Design without =
            DEMO.withRelationships(
                DEMO.relationships().stream()
                    .filter(
                        o ->
                            !o.childFields().equals(r.childFields())
                                || !o.child().equals(r.child()))
                    .toList());
        Optional<NamedReference> again =
            NamedReference.of(without, r.child()).stream()
                .filter(n -> n.field().equals(r.childFields().getFirst()))
                .findFirst();
        if (again.isPresent()) {
          assertThat(again.get().parent()).as(r.name()).isEqualTo(r.parent());
          found++;
        }
      }
    }
    assertThat(found).isGreaterThan(14);
    assertThat(NamedReference.of(DEMO, new TableId("firing")))
        .as("nothing is suggested that is there")
        .isEmpty();
  }

  @Test
  void whoDidSomethingIsOneOfThoseWhoDo() {
    Design without =
        DEMO.withRelationships(
            DEMO.relationships().stream()
                .filter(r -> !r.childFields().equals(List.of(new FieldId("unloaded_by"))))
                .toList());
    assertThat(NamedReference.of(without, new TableId("firing")))
        .singleElement()
        .satisfies(
            named -> {
              assertThat(named.parent()).isEqualTo(new TableId("member"));
              assertThat(named.reason()).startsWith("its name tells by whom");
              assertThat(
                      named
                          .edit(without)
                          .apply(Pottery.demo().withDesign(without))
                          .design()
                          .relationships())
                  .hasSize(DEMO.relationships().size());
            });
  }
}
