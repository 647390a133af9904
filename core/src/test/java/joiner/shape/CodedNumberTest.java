package joiner.shape;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.math.BigInteger;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import joiner.RandomCodes;
import joiner.Tries;
import joiner.shape.CodedNumber.Part;
import joiner.shape.CodedNumber.Restart;
import org.junit.jupiter.api.Test;

/** Coded numbers, check digits and codes drawn by chance. */
class CodedNumberTest {
  private static final LocalDate DAY = LocalDate.of(2026, 3, 7);

  private static CodedNumber number(Restart restart, Part... parts) {
    return new CodedNumber(List.of(parts), restart);
  }

  @Test
  void itIsWrittenPartByPart() {
    CodedNumber number =
        number(
            Restart.YEARLY,
            new Part.Fixed("F-"),
            new Part.Year(false),
            new Part.Fixed("-"),
            new Part.Counter(4));
    assertThat(number.text(DAY, 48)).contains("F-2026-0048");
    assertThat(number.length()).isEqualTo(11);
    assertThat(number.text(DAY, 10_000)).isEmpty();
    CodedNumber whole =
        number(
            Restart.NEVER,
            new Part.Year(true),
            new Part.Month(),
            new Part.Day(),
            new Part.Counter(2));
    assertThat(whole.text(DAY, 5)).contains("26030705");
  }

  @Test
  void itGoesOnFromThoseThatAreThereAndBeginsAnewWithItsPeriod() {
    CodedNumber number =
        number(Restart.YEARLY, new Part.Year(false), new Part.Fixed("/"), new Part.Counter(2));
    List<String> taken = List.of("2025/40", "2026/07", "2026/7", "no number", "2026/03");
    assertThat(number.next(taken.stream(), DAY)).contains("2026/08");
    assertThat(number.next(taken.stream(), DAY.plusYears(1))).contains("2027/01");
    assertThat(number.next(Stream.of("2026/99"), DAY)).isEmpty();
    CodedNumber monthly =
        number(Restart.MONTHLY, new Part.Counter(2), new Part.Month(), new Part.Year(true));
    assertThat(monthly.next(Stream.of("090326", "120226"), DAY)).contains("100326");
    CodedNumber never = number(Restart.NEVER, new Part.Year(true), new Part.Counter(2));
    assertThat(never.next(Stream.of("2512"), DAY)).contains("2613");
  }

  /** One text of many is enough to count on from them. */
  @Test
  void theLastCountsOnAsAllDo() {
    Tries.of(400)
        .forEach(
            seed -> {
              var random = new Random(seed);
              CodedNumber number = RandomCodes.number(random);
              LocalDate day = LocalDate.of(2026, 1, 1).plusDays(random.nextInt(700));
              List<String> taken =
                  random
                      .longs(random.nextInt(6), 0, 40)
                      .mapToObj(n -> number.text(day.minusDays(random.nextInt(60)), n))
                      .flatMap(Optional::stream)
                      .toList();
              assertThat(number.next(number.last(taken.stream(), day).stream(), day))
                  .as("%s %s", number, taken)
                  .isEqualTo(number.next(taken.stream(), day));
            });
  }

  @Test
  void eachHasItsOwnFormAndNoOther() {
    Tries.of(400)
        .forEach(
            seed -> {
              var random = new Random(seed);
              CodedNumber number = RandomCodes.number(random);
              LocalDate day = LocalDate.of(1900 + random.nextInt(300), 1, 1).plusDays(seed % 365);
              long counted = Math.min(number.greatest(), random.nextInt(2_000));
              String text = number.text(day, counted).orElseThrow();
              assertThat(text).hasSize(number.length());
              assertThat(number.is(text)).as("%s %s", number, text).isTrue();
              assertThat(number.is(text + "0")).isFalse();
              assertThat(number.is(text.substring(1))).isFalse();
              Optional<String> next = number.next(Stream.of(text), day);
              assertThat(next).isEqualTo(number.text(day, counted + 1));
            });
  }

  @Test
  void aFormIsReadAsItIsWritten() {
    assertThat(CodedNumber.read("F-YYYY-0001", Restart.YEARLY, Optional.empty()))
        .isEqualTo(
            number(
                Restart.YEARLY,
                new Part.Fixed("F-"),
                new Part.Year(false),
                new Part.Fixed("-"),
                new Part.Counter(4)));
    assertThat(CodedNumber.read("'YY1'000", Restart.NEVER, Optional.of(CheckDigit.LUHN)).parts())
        .containsExactly(
            new Part.Fixed("YY1"), new Part.Counter(3), new Part.Check(CheckDigit.LUHN));
    assertThatThrownBy(() -> CodedNumber.read("F-YYYY", Restart.NEVER, Optional.empty()))
        .hasMessageContaining("Write zeros where it counts");
    assertThatThrownBy(() -> CodedNumber.read("it's 0001", Restart.NEVER, Optional.empty()))
        .hasMessageContaining("apostrophe");
    Tries.of(400)
        .forEach(
            seed -> {
              CodedNumber number = RandomCodes.number(new Random(seed));
              LocalDate day = DAY.plusDays(seed % 3_000);
              CodedNumber again = CodedNumber.read(number.form(), number.restart(), number.check());
              assertThat(again.text(day, 1)).as(number.form()).isEqualTo(number.text(day, 1));
              assertThat(again.form()).isEqualTo(number.form());
            });
  }

  @Test
  void whatCannotCountIsRefusedWithTheReason() {
    assertThatThrownBy(() -> number(Restart.NEVER, new Part.Fixed("F")))
        .hasMessage("A coded number has one part that counts up.");
    assertThatThrownBy(() -> number(Restart.YEARLY, new Part.Counter(4)))
        .hasMessageContaining("told apart by the year");
    assertThatThrownBy(() -> number(Restart.MONTHLY, new Part.Counter(4), new Part.Year(true)))
        .hasMessageContaining("told apart by the month");
    assertThatThrownBy(
            () -> number(Restart.NEVER, new Part.Check(CheckDigit.LUHN), new Part.Counter(4)))
        .hasMessage("The check digit stands at the end.");
    assertThatThrownBy(() -> number(Restart.NEVER, new Part.Counter(19)))
        .hasMessageContaining("1 to 18 digits");
  }

  /** Examples that were published: ISO/IEC 7812-1 (Luhn), ORCID and ISO 7064's own. */
  @Test
  void checkDigitsAreThosePublished() {
    // Luhn, as in Wikipedia's article “Luhn algorithm”, read from memory.
    assertThat(CheckDigit.LUHN.of("1789372997")).isEqualTo("4");
    assertThat(CheckDigit.LUHN.of("7992739871")).isEqualTo("3");
    // ORCID's page “Structure of the ORCID Identifier”, whose digit is of MOD 11-2; from memory.
    assertThat(CheckDigit.MOD_11_2.of("000000021825009")).isEqualTo("7");
    assertThat(CheckDigit.MOD_11_2.of("000000021694233")).isEqualTo("X");
    // ISO/IEC 7064: “0794” has 0 in MOD 11-2 and 44 in MOD 97-10; from memory.
    assertThat(CheckDigit.MOD_11_2.of("0794")).isEqualTo("0");
    assertThat(CheckDigit.MOD_97_10.of("0794")).isEqualTo("44");
  }

  /** The definitions: ISO/IEC 7064 asks for a number that leaves 1. */
  @Test
  void checkedNumbersLeaveWhatTheStandardSays() {
    Tries.of(300)
        .forEach(
            seed -> {
              String digits = String.valueOf(new Random(seed).nextLong(1_000_000_000_000L));
              var whole = new BigInteger(digits + CheckDigit.MOD_97_10.of(digits));
              assertThat(whole.mod(BigInteger.valueOf(97))).isEqualTo(BigInteger.ONE);
              String check = CheckDigit.MOD_11_2.of(digits);
              int product = 0;
              for (char digit : digits.toCharArray()) {
                product = (product + digit - '0') * 2 % 11;
              }
              int last = check.equals("X") ? 10 : Integer.parseInt(check);
              assertThat((product + last) % 11).isEqualTo(1);
            });
  }

  @Test
  void everyWrongDigitIsNoticed() {
    Tries.of(200)
        .forEach(
            seed -> {
              var random = new Random(seed);
              String digits = String.valueOf(random.nextLong(1_000_000_000L));
              int at = random.nextInt(digits.length());
              char other = (char) ('0' + (digits.charAt(at) - '0' + 1 + random.nextInt(9)) % 10);
              String wrong = digits.substring(0, at) + other + digits.substring(at + 1);
              for (CheckDigit by : CheckDigit.values()) {
                assertThat(by.of(wrong))
                    .as("%s: %s, %s", by, digits, wrong)
                    .isNotEqualTo(by.of(digits));
              }
            });
  }

  /** The birthday problem: 23 people, 365 days, a little over a half; any textbook. */
  @Test
  void aClashIsAsLikelyAsTheBirthdayProblemHasIt() {
    var nearly = new RandomCode("0123456789ABCDEFGHJ", 2); // 361 of them.
    double none = 1;
    for (int i = 0; i < 23; i++) {
      none *= 1 - i / 361.0;
    }
    assertThat(nearly.clash(23)).isCloseTo(1 - none, within(0.02));
    var code = new RandomCode(RandomCode.PLAIN, 8);
    assertThat(code.clash(1_000)).isCloseTo(1_000.0 * 999 / 2 / Math.pow(31, 8), within(1e-12));
  }

  @Test
  void aCodeIsAsLongAsItsRowsAskFor() {
    for (long rows : List.of(10L, 1_000L, 1_000_000L)) {
      RandomCode code = RandomCode.against(RandomCode.PLAIN, rows, 1e-6);
      assertThat(code.clash(rows)).isLessThanOrEqualTo(1e-6);
      assertThat(new RandomCode(RandomCode.PLAIN, code.length() - 1).clash(rows))
          .isGreaterThan(1e-6);
    }
  }

  @Test
  void whatIsDrawnHasItsPattern() {
    var drawn = new ArrayList<String>();
    for (String alphabet : List.of(RandomCode.PLAIN, "ab-^]\\", "01")) {
      var code = new RandomCode(alphabet, 6);
      TextPattern pattern =
          ((TextPattern.Read.Understood) TextPattern.of(code.pattern())).pattern();
      for (long seed = 0; seed < 50; seed++) {
        String text = code.drawn(new Random(seed));
        assertThat(pattern.matches(text)).as(text).isTrue();
        drawn.add(text);
      }
    }
    assertThat(drawn).contains(new RandomCode("01", 6).drawn(new Random(3)));
    assertThat(RandomCode.PLAIN).doesNotContain("0", "O", "1", "I", "L");
  }
}
