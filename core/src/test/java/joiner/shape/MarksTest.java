package joiner.shape;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.Tries;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Texts without the fixed texts of their pattern, and with them again. */
class MarksTest {
  @Test
  void marksAreLeftOutAndPutBack() {
    Marks marks = Marks.parted("[0-9]{2}-[0-9]{3}").orElseThrow();
    assertThat(marks.bareExpression()).isEqualTo("[0-9]{2}[0-9]{3}");
    assertThat(marks.without("98-765")).isEqualTo("98765");
    assertThat(marks.with("98765")).isEqualTo("98-765");
    assertThat(marks.without("98765")).isEqualTo("98765");
    assertThat(marks.without("9-8765")).isEqualTo("9-8765");
    assertThat(marks.with("987")).isEqualTo("987");
  }

  @Test
  void onePartMayDifferInLength() {
    Marks marks = Marks.parted("P-[0-9]{1,4}/[A-Z]{2}").orElseThrow();
    assertThat(marks.without("P-7/AB")).isEqualTo("7AB");
    assertThat(marks.with("2048AB")).isEqualTo("P-2048/AB");
  }

  @ParameterizedTest
  @ValueSource(strings = {"[0-9]{4}", "M-", "[0-9]+-[0-9]+", "a|b[0-9]", "["})
  void whereNothingCanBePutBackItIsSaid(String expression) {
    assertThat(Marks.of(expression)).isInstanceOf(Marks.Found.None.class);
    assertThat(Marks.parted(expression)).isEmpty();
  }

  /** Law: no text is lost, none made up, and two that differ stay different. */
  @Test
  void everyTextComesBack() {
    var parted = new AtomicInteger();
    Tries.of(2_000)
        .forEach(
            seed -> {
              var random = new Random(seed);
              List<PatternPart> parts = parts(random);
              if (Marks.of(PatternPart.expression(parts))
                  instanceof Marks.Found.Parted(var marks)) {
                parted.incrementAndGet();
                Map<String, String> back = new HashMap<>();
                for (int i = 0; i < 5; i++) {
                  String text = text(parts, random);
                  String bare = marks.without(text);
                  assertThat(marks.with(bare)).isEqualTo(text);
                  assertThat(bare).matches(marks.bareExpression());
                  assertThat(back.putIfAbsent(bare, text)).isIn(null, text);
                }
              }
            });
    assertThat(parted.get()).isGreaterThan(Tries.least(1_000));
  }

  /** Parts of which most come so many times, and some are marks. */
  private static List<PatternPart> parts(Random random) {
    boolean varied = random.nextBoolean();
    var parts = new ArrayList<PatternPart>();
    for (int i = random.nextInt(1, 6); i >= 0; i--) {
      if (i % 2 == random.nextInt(2)) {
        String mark = List.of("M-", "/", " ", "é", "2x").get(random.nextInt(5));
        parts.add(PatternPart.fixed(mark));
      } else {
        int least = random.nextInt(1, 4);
        int most = varied ? least + random.nextInt(3) : least;
        varied &= most == least;
        parts.add(new PatternPart(what(random), least, Optional.of(most)));
      }
    }
    return parts;
  }

  private static PatternPart.What what(Random random) {
    return switch (random.nextInt(3)) {
      case 0 -> new PatternPart.What.AnyOf("-/é2");
      case 1 -> new PatternPart.What.OneOf(List.of("mat", "glo"));
      default ->
          new PatternPart.What.OfKind(random.nextBoolean() ? PartKind.DIGIT : PartKind.LETTER);
    };
  }

  /** A text that has the parts, made of characters that each of them may have. */
  private static String text(List<PatternPart> parts, Random random) {
    return parts.stream().map(part -> text(part, random)).collect(Collectors.joining());
  }

  private static String text(PatternPart part, Random random) {
    int times = random.nextInt(part.least(), part.most().orElse(part.least() + 3) + 1);
    return IntStream.range(0, times)
        .mapToObj(i -> one(part.what(), random))
        .collect(Collectors.joining());
  }

  private static String one(PatternPart.What what, Random random) {
    return switch (what) {
      case PatternPart.What.Fixed(String text) -> text;
      case PatternPart.What.OneOf(List<String> texts) -> texts.get(random.nextInt(texts.size()));
      case PatternPart.What.AnyOf(String characters) ->
          Character.toString(characters.charAt(random.nextInt(characters.length())));
      case PatternPart.What.OfKind(PartKind kind) ->
          Character.toString((kind == PartKind.DIGIT ? '0' : 'k') + random.nextInt(10));
    };
  }
}
