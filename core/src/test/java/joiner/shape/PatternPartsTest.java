package joiner.shape;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import joiner.RandomPatterns;
import joiner.Tries;
import org.junit.jupiter.api.Test;

/** Patterns put together from parts, proposed from examples and said in words. */
class PatternPartsTest {
  private static String said(String expression) {
    return PatternWords.of(expression).orElseThrow();
  }

  @Test
  void aPatternIsSaidAsOneWouldSayIt() {
    assertThat(said("M-[0-9]{4}")).isEqualTo("“M-”, then 4 digits");
    assertThat(said("[A-Z]{2}\\d{1,3}x?"))
        .isEqualTo("2 capitals, then 1 to 3 digits, then perhaps “x”");
    assertThat(said("[A-Za-z0-9]+")).isEqualTo("1 or more letters or digits");
    assertThat(said("gloss|matt")).isEqualTo("“gloss” or “matt”");
    assertThat(said("(ab){2}[.-]")).isEqualTo("“ab” 2 times, then a character of - .");
    assertThat(said("[^x]*")).isEqualTo("any number of characters that is none of x");
    assertThat(said("\\p{Lu}.")).isEqualTo("a capital, then a character");
    assertThat(said("")).isEqualTo("nothing");
    assertThat(PatternWords.of("[")).isEmpty();
    assertThat(PatternWords.of("a\\bx")).isEmpty();
  }

  @Test
  void smallLettersAndCapitalsAreSaidAsOne() {
    assertThat(PatternWords.of("[pP][dD][fF]")).contains("“pdf” in any case");
    assertThat(PatternWords.of(".+\\.([jJ][pP][gG]|[mM][pP]4)"))
        .contains("1 or more characters, then “.”, then (“jpg” or “mp4” in any case)");
    assertThat(PatternWords.of("([jJ]|x)[0-9]"))
        .isPresent()
        .get()
        .asString()
        .doesNotContain("case");
  }

  @Test
  void anExpressionIsReadBackAsParts() {
    assertThat(PatternPart.read("M-[0-9]{4}"))
        .contains(List.of(PatternPart.fixed("M-"), PatternPart.of(PartKind.DIGIT, 4)));
    assertThat(PatternPart.read("[.\\-]?a+"))
        .contains(
            List.of(
                new PatternPart(new PatternPart.What.AnyOf("-."), 0, Optional.of(1)),
                new PatternPart(new PatternPart.What.Fixed("a"), 1, Optional.empty())));
    assertThat(PatternPart.read("(M-|G-){2}"))
        .contains(
            List.of(
                new PatternPart(
                    new PatternPart.What.OneOf(List.of("M-", "G-")), 2, Optional.of(2))));
    assertThat(PatternPart.read("ab|[0-9]")).isEmpty();
    assertThat(PatternPart.read("(ab|)")).isEmpty();
    assertThat(PatternPart.read("[")).isEmpty();
    assertThat(PatternPart.read("")).contains(List.of());
  }

  @Test
  void aPartComesAtLeastOnceAtMost() {
    assertThatThrownBy(() -> new PatternPart(new PatternPart.What.Fixed("a"), 2, Optional.of(1)))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> PatternPart.of(PartKind.DIGIT, 0))
        .isInstanceOf(IllegalArgumentException.class);
  }

  /** Law: parts written as an expression and read back are the same parts. */
  @Test
  void partsComeBack() {
    Tries.of(2_000)
        .forEach(
            seed -> {
              List<PatternPart> parts = parts(new Random(seed));
              String expression = PatternPart.expression(parts);
              assertThat(PatternPart.read(expression)).as("%s", expression).contains(parts);
            });
  }

  private static List<PatternPart> parts(Random random) {
    var parts = new ArrayList<PatternPart>();
    boolean fixed = false;
    for (int i = random.nextInt(5); i >= 0; i--) {
      int least = random.nextInt(4);
      Optional<Integer> most =
          random.nextInt(4) == 0
              ? Optional.empty()
              : Optional.of(Math.max(1, least + random.nextInt(3)));
      boolean any = random.nextInt(3) == 0;
      if (random.nextInt(3) == 0 && !fixed) {
        String text = List.of("M-", "a.b", "[x]", "é", "(&&)", "{2}").get(random.nextInt(6));
        parts.add(new PatternPart(new PatternPart.What.Fixed(text), least, most));
        fixed = true; // Two of them that come once each would be one.
      } else if (any && random.nextBoolean()) {
        var oneOf = new PatternPart.What.OneOf(List.of("M-", "G|", "raku"));
        parts.add(new PatternPart(oneOf, least, most));
        fixed = false;
      } else if (any) {
        parts.add(new PatternPart(new PatternPart.What.AnyOf("-.]^é"), least, most));
        fixed = false;
      } else {
        PartKind[] kinds = PartKind.values();
        PartKind kind = kinds[random.nextInt(kinds.length)];
        if (kind != PartKind.BLANK) { // A blank is a fixed text as well.
          parts.add(new PatternPart(new PatternPart.What.OfKind(kind), least, most));
          fixed = false;
        }
      }
    }
    return parts;
  }

  /** Law: read as parts and written again, an expression matches what it matched. */
  @Test
  void whatIsReadMatchesTheSame() {
    var read = new AtomicInteger();
    Tries.of(400)
        .forEach(
            seed -> {
              var random = new RandomPatterns(seed);
              String expression = random.next();
              PatternPart.read(expression)
                  .ifPresent(
                      parts -> {
                        read.incrementAndGet();
                        TextPattern one = understood(expression);
                        TextPattern other = understood(PatternPart.expression(parts));
                        for (int i = 0; i < 10; i++) {
                          String text = random.text();
                          assertThat(other.matches(text))
                              .as("%s, %s", expression, text)
                              .isEqualTo(one.matches(text));
                        }
                      });
            });
    assertThat(read.get()).isGreaterThan(Tries.least(30));
  }

  private static TextPattern understood(String expression) {
    return ((TextPattern.Read.Understood) TextPattern.of(expression)).pattern();
  }

  @Test
  void examplesShowTheirPatternAndThoseThatLackItAreTold() {
    PatternExamples found =
        PatternExamples.of(List.of("M-0001", "M-0417", "M-12", "0042", " M-0005 ")).orElseThrow();
    assertThat(found.expression()).isEqualTo("M-[0-9]{2,4}");
    assertThat(found.unfit()).containsExactly("0042");
    assertThat(PatternExamples.of(List.of("40x40x60", "40x40x120")).orElseThrow().expression())
        .isEqualTo("[0-9]{2}x[0-9]{2}x[0-9]{2,3}");
    assertThat(PatternExamples.of(List.of("AB 12", "C 3")).orElseThrow().expression())
        .isEqualTo("[A-Z]{1,2} [0-9]{1,2}");
    assertThat(PatternExamples.of(List.of("one", "Two three", "4"))).isEmpty();
    assertThat(PatternExamples.of(List.of("Big Tom", "Little Ann", "The Bin"))).isEmpty();
    assertThat(PatternExamples.of(List.of(" ", ""))).isEmpty();
  }

  /** Law: each example has the pattern proposed, or is told not to. */
  @Test
  void everyExampleFitsOrIsTold() {
    Tries.of(1_000)
        .forEach(
            seed -> {
              var random = new Random(seed);
              List<String> kinds = List.of("A", "b", "7", "-", "é", ".", "🏺", "Q", "(", " ");
              List<String> examples =
                  IntStream.range(0, 1 + random.nextInt(6))
                      .mapToObj(
                          i ->
                              Stream.generate(() -> kinds.get(random.nextInt(kinds.size())))
                                  .limit(1 + random.nextInt(3))
                                  .collect(java.util.stream.Collectors.joining()))
                      .toList();
              PatternExamples.of(examples)
                  .ifPresent(
                      found -> {
                        TextPattern pattern = understood(found.expression());
                        List<String> unfit =
                            examples.stream()
                                .map(String::strip)
                                .filter(text -> !text.isEmpty() && !pattern.matches(text))
                                .toList();
                        assertThat(found.unfit()).isEqualTo(unfit);
                        assertThat(unfit.size() * 2).isLessThan(examples.size());
                      });
            });
  }
}
