package joiner.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.LocalDate;
import java.time.Period;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import joiner.Formulas;
import joiner.RandomRules;
import joiner.expression.Checked;
import joiner.expression.Evaluator;
import joiner.expression.Formula;
import joiner.expression.Value;
import joiner.model.Design;
import joiner.model.Origin;
import joiner.model.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class DateWordsTest {
  private static final Table TABLE = RandomRules.table();

  private static List<ReadyOrigins.Ready> ready(String typed) {
    return ReadyOrigins.of(Design.empty("d", "D").withTableAdded(TABLE), TABLE, typed);
  }

  private static Optional<Formula> named(String words) {
    return ready(words).stream()
        .filter(ready -> ready.words().equals(words))
        .map(ready -> ((Origin.Computed) ready.origin()).formula())
        .findFirst();
  }

  private static Value on(LocalDate today, String formula, LocalDate day) {
    Checked.Sound sound = (Checked.Sound) Formulas.value(formula, TABLE);
    Clock clock = Clock.fixed(today.atStartOfDay(ZoneOffset.UTC).toInstant(), ZoneOffset.UTC);
    return new Evaluator(clock).evaluate(sound.tree(), reference -> new Value.Date(day));
  }

  /** LLLL and cccc are the names that stand by themselves (UTS #35, date field symbols). */
  @ParameterizedTest
  @ValueSource(strings = {"English", "German", "French", "Polish", "Finnish", "Greek", "Japanese"})
  void monthsAndWeekdaysAreCalledAsTheCommonLocaleDataHasThem(String language) {
    Locale locale =
        List.of(Locale.getAvailableLocales()).stream()
            .filter(one -> one.getDisplayName(Locale.ENGLISH).equals(language))
            .findFirst()
            .orElseThrow();
    String month = named("month of day in " + language).orElseThrow().text();
    String weekday = named("weekday of day in " + language).orElseThrow().text();
    LocalDate first = LocalDate.of(1582, 10, 15);
    for (int i = 0; i < 800; i++) {
      LocalDate day = first.plusDays(229L * i);
      assertThat(on(first, month, day))
          .isEqualTo(new Value.Text(DateTimeFormatter.ofPattern("LLLL", locale).format(day)));
      assertThat(on(first, weekday, day))
          .isEqualTo(new Value.Text(DateTimeFormatter.ofPattern("cccc", locale).format(day)));
    }
  }

  @Test
  void fullYearsAreThoseOfTheCalendar() {
    String years = named("full years since day").orElseThrow().text();
    var random = new Random(7);
    for (int i = 0; i < 5_000; i++) {
      LocalDate born = LocalDate.of(1904, 2, 27).plusDays(random.nextInt(44_000));
      LocalDate today =
          random.nextBoolean()
              ? born.plusYears(random.nextInt(90)).plusDays(random.nextInt(-2, 3))
              : born.plusDays(random.nextInt(40_000));
      if (!today.isBefore(born)) {
        assertThat(on(today, years, born))
            .as("born %s, today %s", born, today)
            .isEqualTo(Value.whole(Period.between(born, today).getYears()));
      }
    }
  }

  @Test
  void everythingThatIsOfferedCanBeWorkedOut() {
    List<ReadyOrigins.Ready> all =
        ready("in german").stream().filter(one -> one.origin() instanceof Origin.Computed).toList();
    assertThat(all)
        .allSatisfy(
            one ->
                assertThat(Formulas.value(((Origin.Computed) one.origin()).formula().text(), TABLE))
                    .as(one.words())
                    .isInstanceOf(Checked.Sound.class));
    assertThat(all)
        .extracting(ReadyOrigins.Ready::words)
        .doesNotHaveDuplicates()
        .contains(
            "days from day to due",
            "hours from begun to ended",
            "minutes from begun to ended",
            "days from sent to today",
            "year of day",
            "weekday of begun, 1 for Monday",
            "month of day in English",
            "weekday of sent in German")
        .doesNotContain(
            "days from begun to sent", "hours from day to due", "month of day in Polish");
  }
}
