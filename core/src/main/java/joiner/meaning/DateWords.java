package joiner.meaning;

import java.time.DayOfWeek;
import java.time.Month;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.SqlText;
import joiner.model.Field;
import joiner.model.Origin;
import joiner.model.Table;

/**
 * What can be told of the dates and moments in a row, as formulas: parts of them, the names of
 * their months and weekdays in any language, how long it is from one to another. ISO/IEC 9075-2
 * knows no names of months; they are written out, so that every engine gives the same. The names
 * are those of the Unicode Common Locale Data Repository, as they stand by themselves.
 */
final class DateWords {
  /** Shorter words than that are hardly the beginning of a language. */
  private static final int FEWEST_LETTERS = 3;

  private DateWords() {}

  /**
   * What can be told of a table's rows.
   *
   * @param typed words that are looked for; languages come in where one of them begins their name,
   *     English and that of this machine always do
   */
  static Stream<ReadyOrigins.Ready> of(Table table, String typed) {
    List<Field> dates =
        table.fields().stream().filter(field -> hasDate(field.type().kind())).toList();
    if (dates.isEmpty()) {
      return Stream.empty();
    }
    List<Locale> languages = languages(typed);
    return Stream.concat(
        dates.stream().flatMap(field -> between(field, dates)),
        dates.stream().flatMap(field -> parts(field, languages)));
  }

  private static boolean hasDate(Kind kind) {
    return kind == Kind.DATE || kind == Kind.DATE_TIME || kind == Kind.ZONED;
  }

  private static List<Locale> languages(String typed) {
    var languages = new ArrayList<>(List.of(Locale.ENGLISH));
    languages.add(Locale.forLanguageTag(Locale.getDefault().getLanguage()));
    for (String word : typed.toLowerCase(Locale.ROOT).split("\\s+")) {
      if (word.length() >= FEWEST_LETTERS) {
        All.BY_NAME.tailMap(word).entrySet().stream()
            .takeWhile(entry -> entry.getKey().startsWith(word))
            .map(Map.Entry::getValue)
            .forEach(languages::add);
      }
    }
    return languages.stream().distinct().toList();
  }

  /** Every language whose names of months are known, by its English name. */
  private static final class All {
    private static final TreeMap<String, Locale> BY_NAME =
        Arrays.stream(Locale.getAvailableLocales())
            .map(Locale::getLanguage)
            .filter(tag -> !tag.isEmpty())
            .distinct()
            .map(Locale::forLanguageTag)
            .collect(
                Collectors.toMap(
                    language ->
                        language.getDisplayLanguage(Locale.ENGLISH).toLowerCase(Locale.ROOT),
                    Function.identity(),
                    (one, other) -> one,
                    TreeMap::new));
  }

  private static Stream<ReadyOrigins.Ready> between(Field field, List<Field> dates) {
    Kind kind = field.type().kind();
    Stream<ReadyOrigins.Ready> toOthers =
        dates.stream()
            .dropWhile(other -> !other.equals(field))
            .skip(1)
            .filter(other -> (other.type().kind() == Kind.ZONED) == (kind == Kind.ZONED))
            .flatMap(other -> lengths(field, other));
    String now = kind == Kind.ZONED ? "CURRENT_TIMESTAMP" : "CURRENT_DATE";
    return Stream.concat(
        toOthers,
        Stream.of(
            ready("days from " + field.label() + " to today", days(now, name(field))),
            ready("full years since " + field.label(), years(name(field)))));
  }

  private static Stream<ReadyOrigins.Ready> lengths(Field from, Field to) {
    String told = " from " + from.label() + " to " + to.label();
    var inDays = ready("days" + told, days(name(to), name(from)));
    boolean dates = from.type().kind() == Kind.DATE && to.type().kind() == Kind.DATE;
    return dates
        ? Stream.of(inDays)
        : Stream.of(
            inDays,
            ready("hours" + told, elapsed("HOUR", name(to), name(from))),
            ready("minutes" + told, elapsed("MINUTE", name(to), name(from))));
  }

  private static String days(String later, String earlier) {
    return elapsed("DAY", later, earlier);
  }

  private static String elapsed(String unit, String later, String earlier) {
    return "EXTRACT(" + unit + " FROM (" + later + " - " + earlier + ") " + unit + ")";
  }

  /** Whoever is born on 29 February is a year older on 1 March. */
  private static String years(String since) {
    return "%s - %s - CASE WHEN %s * 100 + %s < %s * 100 + %s THEN 1 ELSE 0 END"
        .formatted(
            part("YEAR", "CURRENT_DATE"),
            part("YEAR", since),
            part("MONTH", "CURRENT_DATE"),
            part("DAY", "CURRENT_DATE"),
            part("MONTH", since),
            part("DAY", since));
  }

  private static Stream<ReadyOrigins.Ready> parts(Field field, List<Locale> languages) {
    String of = " of " + field.label();
    Stream<ReadyOrigins.Ready> numbers =
        Stream.of(
            ready("year" + of, part("YEAR", name(field))),
            ready("month" + of + ", 1 to 12", part("MONTH", name(field))),
            ready("weekday" + of + ", 1 for Monday", part("ISODOW", name(field))));
    Stream<ReadyOrigins.Ready> named =
        languages.stream()
            .flatMap(
                language -> {
                  String in = of + " in " + language.getDisplayLanguage(Locale.ENGLISH);
                  return Stream.of(
                      ready("month" + in, months(name(field), language)),
                      ready("weekday" + in, weekdays(name(field), language)));
                });
    return Stream.concat(numbers, named);
  }

  /** The name of the month of a date. */
  static String months(String date, Locale language) {
    return named(
        part("MONTH", date),
        Arrays.stream(Month.values())
            .map(month -> month.getDisplayName(TextStyle.FULL_STANDALONE, language)));
  }

  /** The name of the day of the week of a date. */
  static String weekdays(String date, Locale language) {
    return named(
        part("ISODOW", date),
        Arrays.stream(DayOfWeek.values())
            .map(day -> day.getDisplayName(TextStyle.FULL_STANDALONE, language)));
  }

  /** The names of 1, 2, 3 and so on. */
  private static String named(String number, Stream<String> names) {
    var text = new StringBuilder("CASE " + number);
    int[] of = {0};
    names.forEach(
        name ->
            text.append(" WHEN ")
                .append(++of[0])
                .append(" THEN '")
                .append(name.replace("'", "''"))
                .append("'"));
    return text.append(" END").toString();
  }

  private static String part(String part, String date) {
    return "EXTRACT(" + part + " FROM " + date + ")";
  }

  private static ReadyOrigins.Ready ready(String words, String formula) {
    return new ReadyOrigins.Ready(words, new Origin.Computed(new Formula(formula)));
  }

  private static String name(Field field) {
    return SqlText.iso().write(new Expression.Name(List.of(field.name()), Place.NOWHERE));
  }
}
