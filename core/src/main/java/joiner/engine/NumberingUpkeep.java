package joiner.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.catalog.Sequence;
import joiner.catalog.Trigger;
import joiner.shape.CheckDigit;
import joiner.shape.CodedNumber;
import joiner.shape.CodedNumber.Part;
import joiner.shape.TextPattern;

/** Upkeep of an engine for which there are triggers that number rows, too. */
public abstract class NumberingUpkeep extends Upkeep {
  NumberingUpkeep(Dialect dialect) {
    super(dialect);
  }

  /**
   * A column whose rows are numbered.
   *
   * @param numbers the table of the last numbers, as {@link Sequence} says
   */
  public record Numbered(String table, String column, String numbers, CodedNumber form) {}

  /** The triggers that number new rows. */
  public abstract List<Trigger> numbering(String name, Numbered numbered);

  final String full(Numbered numbered) {
    return text(
        "no number is left for "
            + numbered.column()
            + " of "
            + numbered.table()
            + "; its counter has "
            + numbered.form().counter().digits()
            + " digits");
  }

  /** Texts, one behind the other. */
  String joined(List<String> texts) {
    return String.join(" || ", texts);
  }

  /** A number as a text with zeros before it. */
  abstract String padded(String number, int digits);

  /** A part of the present day, as a text. */
  abstract String today(Part part);

  /** A text as a whole number. */
  String whole(String text) {
    return "CAST(" + text + " AS integer)";
  }

  static String cut(String text, int start, int length) {
    return "SUBSTR(" + text + ", " + (start + 1) + ", " + length + ")";
  }

  /** The period of today, in which numbers are counted. */
  final String period(CodedNumber form) {
    List<String> parts = form.period().stream().map(this::today).toList();
    return parts.isEmpty() ? text("") : joined(parts);
  }

  /** The period of a text that has the form. */
  final String period(CodedNumber form, String text) {
    List<String> parts =
        form.period().stream()
            .map(part -> cut(text, form.start(part), CodedNumber.length(part)))
            .toList();
    return parts.isEmpty() ? text("") : joined(parts);
  }

  /** The number of a text that has the form. */
  final String counted(CodedNumber form, String text) {
    return whole(cut(text, form.start(form.counter()), form.counter().digits()));
  }

  /** The text of a number, today, without its check digit. */
  final String numbered(CodedNumber form, String number) {
    return joined(
        form.parts().stream()
            .flatMap(
                part ->
                    switch (part) {
                      case Part.Fixed(String text) -> Stream.of(text(text));
                      case Part.Counter(int digits) -> Stream.of(padded(number, digits));
                      case Part.Check check -> Stream.<String>empty();
                      default -> Stream.of(today(part));
                    })
            .toList());
  }

  /** The check digit of a text that lacks it yet; empty where the form has none. */
  final Optional<String> check(CodedNumber form, String text) {
    if (!(form.parts().getLast() instanceof Part.Check(CheckDigit by))) {
      return Optional.empty();
    }
    List<Integer> places = form.checked();
    List<Integer> weights = by.weights(places.size());
    var sum = new ArrayList<String>();
    for (int i = 0; i < places.size(); i++) {
      String digit = whole(cut(text, places.get(i), 1));
      int weight = weights.get(i);
      boolean doubled = by == CheckDigit.LUHN && weight == 2;
      sum.add(
          doubled
              ? "CASE WHEN " + digit + " > 4 THEN 2 * " + digit + " - 9 ELSE 2 * " + digit + " END"
              : weight + " * " + digit);
    }
    String rest = "((" + String.join(" + ", sum) + ") % " + by.modulus() + ")";
    return Optional.of(
        switch (by) {
          case LUHN -> padded("((10 - " + rest + ") % 10)", 1);
          case MOD_11_2 ->
              "CASE WHEN "
                  + rest
                  + " = 2 THEN 'X' ELSE "
                  + padded("((12 - " + rest + ") % 11)", 1)
                  + " END";
          case MOD_97_10 -> padded("(98 - " + rest + ")", 2);
        });
  }

  /**
   * The condition that a column of the changed row has the form, for engines that know patterns.
   */
  final String formed(String column, String operator, PatternText.Flavour flavour, Numbered of) {
    String whole =
        switch (TextPattern.of(of.form().pattern())) {
          case TextPattern.Read.Understood(TextPattern pattern) ->
              PatternText.whole(pattern.tree(), flavour, "^", "$");
          case TextPattern.Read.Refused refused ->
              throw new IllegalStateException(refused.why()); // Its own pattern is understood.
        };
    return column + " " + operator + " " + text(whole);
  }

  /** Which rows of a table have numbers of the form, as far as the engine can tell. */
  abstract String areFormed(Numbered numbered);

  /** The statement that brings the numbers that rows have into the table of the last numbers. */
  public final String soFar(Numbered numbered) {
    String column = name(numbered.column());
    String period = period(numbered.form(), column);
    return "INSERT INTO "
        + numbersOf(numbered)
        + " SELECT "
        + period
        + ", MAX("
        + counted(numbered.form(), column)
        + ") FROM "
        + name(numbered.table())
        + " WHERE "
        + areFormed(numbered)
        // Without periods all rows are one group, of which there may be none.
        + (numbered.form().period().isEmpty() ? " HAVING COUNT(*) > 0" : " GROUP BY " + period);
  }

  final String numbersOf(Numbered numbered) {
    return name(numbered.numbers()) + " (" + names(List.of(Sequence.PERIOD, Sequence.LAST)) + ")";
  }

  final String last() {
    return name(Sequence.LAST);
  }
}
