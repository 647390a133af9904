package joiner.desktop.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import joiner.Pottery;
import joiner.model.Design;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;

class GlossaryTest {
  @Test
  void everyWordIsExplainedShortlyAndStandsInOrder() {
    assertThat(Glossary.shipped().entries()).hasSizeGreaterThan(30);
    assertThat(Glossary.shipped().entries())
        .allSatisfy(
            entry -> {
              assertThat(entry.word()).isNotBlank();
              assertThat(entry.meaning()).as(entry.word()).endsWith(".").hasSizeBetween(40, 330);
            });
    assertThat(Glossary.shipped().entries())
        .extracting(entry -> entry.word().toLowerCase(java.util.Locale.ROOT))
        .isSorted()
        .doesNotHaveDuplicates();
  }

  @Test
  void examplesComeFromTheOpenDesignAndBeginWithTheChosenTable() {
    Design demo = Pottery.demo().design();
    var kiln = demo.find(new TableId("kiln"));
    assertThat(Glossary.example("primary key", demo, kiln))
        .contains("Kiln is identified by Kiln number.");
    for (String word :
        new String[] {
          "Primary key",
          "Unique",
          "Foreign key",
          "Reading",
          "Join table",
          "Lookup",
          "Required",
          "Row label",
          "Rule",
          "Default",
          "Label and name",
          "Index"
        }) {
      assertThat(Glossary.shipped().find(word)).as(word).isPresent();
      assertThat(Glossary.example(word, demo, Optional.empty())).as(word).isPresent();
    }
    assertThat(Glossary.example("primary key", Design.empty("e", "E"), Optional.empty())).isEmpty();
  }
}
