package joiner.shape;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Predicate;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Numbers as offices write them, as "F-2026-0048": fixed texts, the day, a number that counts up,
 * and a check digit, each at a place of its own.
 *
 * @param parts from the left; one of them counts, and at most one, the last, checks
 * @param restart when counting begins anew
 */
public record CodedNumber(List<Part> parts, Restart restart) {
  private static final int MOST_DIGITS = 18;
  private static final int YEAR = 4;

  /** A part of a form: of the day, one that counts, a text between apostrophes, or any other. */
  private static final Pattern FORM =
      Pattern.compile("YYYY|YY|MM|DD|(0+1?|(?<![0-9])1)|'((?:[^']|'')+)'|(?:(?!YY|MM|DD|0|1|').)+");

  /** What is no plain text within a form, or might be taken for a part that counts. */
  private static final Pattern MEANT = Pattern.compile("YY|MM|DD|[0-9']");

  private static final int TWO = 2;

  /** A part of the text. */
  public sealed interface Part {
    /** Always the same; not empty. */
    record Fixed(String text) implements Part {}

    /** The year, with all its digits or the last two. */
    record Year(boolean shortened) implements Part {}

    /** The month, 01 to 12. */
    record Month() implements Part {}

    /** The day of the month, 01 to 31. */
    record Day() implements Part {}

    /** The number that counts up, with zeros before it. */
    record Counter(int digits) implements Part {}

    /** What follows from all digits before it. */
    record Check(CheckDigit by) implements Part {}
  }

  /** When counting begins anew. */
  public enum Restart {
    NEVER,
    YEARLY,
    MONTHLY
  }

  public CodedNumber {
    parts = joined(parts);
    List<Part> all = parts;
    long counters = all.stream().filter(Part.Counter.class::isInstance).count();
    if (counters != 1) {
      throw new IllegalArgumentException("A coded number has one part that counts up.");
    }
    for (Part part : all) {
      switch (part) {
        case Part.Fixed(String text) when text.isEmpty() ->
            throw new IllegalArgumentException("A fixed text has at least one character.");
        case Part.Fixed(String text)
            when text.chars().anyMatch(c -> Character.isSurrogate((char) c)) ->
            throw new IllegalArgumentException("Characters beyond U+FFFF have no place in it.");
        case Part.Counter(int digits) when digits < 1 || digits > MOST_DIGITS ->
            throw new IllegalArgumentException(
                "The part that counts has 1 to " + MOST_DIGITS + " digits.");
        case Part.Check check when check != all.getLast() ->
            throw new IllegalArgumentException("The check digit stands at the end.");
        default -> {}
      }
    }
    boolean hasYear = all.stream().anyMatch(Part.Year.class::isInstance);
    boolean hasMonth = all.stream().anyMatch(Part.Month.class::isInstance);
    if (restart != Restart.NEVER && !hasYear) {
      throw new IllegalArgumentException(
          "Numbers that begin anew are told apart by the year; add it.");
    }
    if (restart == Restart.MONTHLY && !hasMonth) {
      throw new IllegalArgumentException(
          "Numbers that begin anew each month are told apart by the month; add it.");
    }
  }

  /** Texts that stand side by side are one. */
  private static List<Part> joined(List<Part> parts) {
    var joined = new ArrayList<Part>();
    for (Part part : parts) {
      if (part instanceof Part.Fixed(String text)
          && !text.isEmpty()
          && !joined.isEmpty()
          && joined.getLast() instanceof Part.Fixed(String before)) {
        joined.set(joined.size() - 1, new Part.Fixed(before + text));
      } else {
        joined.add(part);
      }
    }
    return List.copyOf(joined);
  }

  /**
   * A number as people write its form: YYYY, YY, MM and DD are the day, zeros with or without a 1
   * behind them count, all else stands as it is, between apostrophes whatever it is.
   *
   * @param check what stands at the end
   * @throws IllegalArgumentException with the reason, where it is no such form
   */
  public static CodedNumber read(String form, Restart restart, Optional<CheckDigit> check) {
    var parts = new ArrayList<Part>();
    Matcher part = FORM.matcher(form);
    while (part.lookingAt()) {
      parts.add(part(part));
      part.region(part.end(), form.length());
    }
    if (part.regionStart() < form.length()) {
      throw new IllegalArgumentException(
          "An apostrophe begins a text and ends it; write two for one within.");
    }
    if (parts.stream().noneMatch(Part.Counter.class::isInstance)) {
      throw new IllegalArgumentException(
          "Write zeros where it counts, as in F-YYYY-0001: YYYY, YY, MM and DD are the day.");
    }
    check.ifPresent(by -> parts.add(new Part.Check(by)));
    return new CodedNumber(parts, restart);
  }

  private static Part part(MatchResult found) {
    String text = found.group();
    return switch (text) {
      case "YYYY" -> new Part.Year(false);
      case "YY" -> new Part.Year(true);
      case "MM" -> new Part.Month();
      case "DD" -> new Part.Day();
      default -> {
        if (found.group(1) != null) {
          yield new Part.Counter(text.length());
        }
        yield new Part.Fixed(found.group(2) == null ? text : found.group(2).replace("''", "'"));
      }
    };
  }

  /** Its form as {@link #read} reads it, without what checks. */
  public String form() {
    return parts.stream()
        .map(
            part ->
                switch (part) {
                  case Part.Fixed(String text) -> written(text);
                  case Part.Year(boolean shortened) -> shortened ? "YY" : "YYYY";
                  case Part.Month month -> "MM";
                  case Part.Day day -> "DD";
                  case Part.Counter(int digits) -> "0".repeat(digits - 1) + "1";
                  case Part.Check check -> "";
                })
        .collect(Collectors.joining());
  }

  private static String written(String fixed) {
    boolean plain = !MEANT.matcher(fixed).find();
    return plain ? fixed : "'" + fixed.replace("'", "''") + "'";
  }

  /** What checks, if anything does. */
  public Optional<CheckDigit> check() {
    return parts.getLast() instanceof Part.Check(CheckDigit by)
        ? Optional.of(by)
        : Optional.empty();
  }

  /** Characters of every such number. */
  public int length() {
    return parts.stream().mapToInt(CodedNumber::length).sum();
  }

  /** Characters of a part. */
  public static int length(Part part) {
    return switch (part) {
      case Part.Fixed(String text) -> text.length();
      case Part.Year(boolean shortened) -> shortened ? TWO : YEAR;
      case Part.Month month -> TWO;
      case Part.Day day -> TWO;
      case Part.Counter(int digits) -> digits;
      case Part.Check(CheckDigit by) -> by.length();
    };
  }

  /** The pattern that all such numbers have. */
  public String pattern() {
    return parts.stream()
        .map(
            part ->
                switch (part) {
                  case Part.Fixed(String text) -> PatternPart.escaped(text);
                  case Part.Month month -> "(0[1-9]|1[0-2])";
                  case Part.Day day -> "(0[1-9]|[12][0-9]|3[01])";
                  case Part.Check(CheckDigit by) -> by.pattern();
                  case Part.Year year -> "[0-9]{" + length(part) + "}";
                  case Part.Counter counter -> "[0-9]{" + length(part) + "}";
                })
        .collect(Collectors.joining());
  }

  /** The greatest number there is room for. */
  public long greatest() {
    long greatest = 0;
    for (int i = 0; i < counter().digits(); i++) {
      greatest = greatest * 10 + 9;
    }
    return greatest;
  }

  /** The part that counts. */
  public Part.Counter counter() {
    return (Part.Counter)
        parts.stream().filter(Part.Counter.class::isInstance).findFirst().orElseThrow();
  }

  /** The number of a day as a text; empty where there is no room for it. */
  public Optional<String> text(LocalDate day, long number) {
    if (number < 0 || number > greatest()) {
      return Optional.empty();
    }
    var text = new StringBuilder();
    for (Part part : parts) {
      text.append(
          switch (part) {
            case Part.Fixed(String fixed) -> fixed;
            case Part.Year(boolean shortened) ->
                shortened ? padded(day.getYear() % 100, TWO) : padded(day.getYear(), YEAR);
            case Part.Month month -> padded(day.getMonthValue(), TWO);
            case Part.Day of -> padded(day.getDayOfMonth(), TWO);
            case Part.Counter(int digits) -> padded(number, digits);
            case Part.Check(CheckDigit by) -> by.of(digits(text));
          });
    }
    return Optional.of(text.toString());
  }

  private static String padded(long number, int digits) {
    String text = String.valueOf(number);
    return "0".repeat(Math.max(0, digits - text.length())) + text;
  }

  private static String digits(CharSequence text) {
    return text.chars()
        .filter(c -> c >= '0' && c <= '9')
        .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
        .toString();
  }

  /** Which texts have the form, whatever their check digit. It is read once for many texts. */
  public Predicate<String> formed() {
    return TextPattern.of(pattern()) instanceof TextPattern.Read.Understood(TextPattern pattern)
        ? pattern::matches
        : text -> false;
  }

  /** Whether a text is such a number, its check digit right. */
  public boolean is(String text) {
    return formed().test(text) && isChecked(text);
  }

  /** Whether a text that has the form ends in the check digit that follows. */
  public boolean isChecked(String text) {
    if (!(parts.getLast() instanceof Part.Check(CheckDigit by))) {
      return true;
    }
    int body = text.length() - by.length();
    return by.of(digits(text.substring(0, body))).equals(text.substring(body));
  }

  /** The number that a text counts which has the form. */
  public long number(String text) {
    int from = start(counter());
    return Long.parseLong(text.substring(from, from + counter().digits()));
  }

  /** Where a part of the text begins, from 0. */
  public int start(Part part) {
    return parts.stream().takeWhile(other -> other != part).mapToInt(CodedNumber::length).sum();
  }

  /** The parts by which texts counted apart are told apart; none where counting never restarts. */
  public List<Part> period() {
    return parts.stream()
        .filter(
            part ->
                switch (restart) {
                  case NEVER -> false;
                  case YEARLY -> part instanceof Part.Year;
                  case MONTHLY -> part instanceof Part.Year || part instanceof Part.Month;
                })
        .toList();
  }

  private String period(String text) {
    return period().stream()
        .map(part -> text.substring(start(part), start(part) + length(part)))
        .collect(Collectors.joining());
  }

  /**
   * The one after those that are there.
   *
   * @param taken texts; those that are no such numbers do not count
   * @return empty where there is no room for another
   */
  public Optional<String> next(Stream<String> taken, LocalDate day) {
    return text(day, greatest(taken, day).orElse(0) + 1);
  }

  /** The last of those taken in the period of a day, from which all others go on. */
  public Optional<String> last(Stream<String> taken, LocalDate day) {
    OptionalLong greatest = greatest(taken, day);
    return greatest.isPresent() ? text(day, greatest.getAsLong()) : Optional.empty();
  }

  private OptionalLong greatest(Stream<String> taken, LocalDate day) {
    String now = period(text(day, 0).orElseThrow());
    return taken
        .filter(formed())
        .filter(this::isChecked)
        .filter(text -> period(text).equals(now))
        .mapToLong(this::number)
        .max();
  }

  /** The places of the digits that a check digit is made of, from 0. */
  public List<Integer> checked() {
    var places = new ArrayList<Integer>();
    for (Part part : parts) {
      int start = start(part);
      for (int i = 0; i < length(part); i++) {
        boolean digit =
            switch (part) {
              case Part.Fixed(String text) -> text.charAt(i) >= '0' && text.charAt(i) <= '9';
              case Part.Check check -> false;
              default -> true;
            };
        if (digit) {
          places.add(start + i);
        }
      }
    }
    return places;
  }
}
