package joiner.desktop.shape;

import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.stream.Stream;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.expression.Formula;
import joiner.meaning.DefaultReading;
import joiner.model.Field;
import joiner.model.FieldType;

/**
 * What may be meant by what is typed as the default of a field; behind “=” it is what the field is
 * worked out by.
 *
 * @param tells what a formula gives, or what is wrong with it
 */
record DefaultOffers(Texts texts, Field field, Function<Formula, String> tells)
    implements Offers<DefaultOffers.Given> {
  /** Begins what a field is worked out by. */
  static final String WORKED_OUT = "=";

  /** Where values come from that nobody types into a row. */
  sealed interface Given {
    /** Rows begin with it. */
    record Default(DefaultReading reading) implements Given {}

    /** It is the number above all that were given. */
    record NextNumber() implements Given {}

    /** It is worked out. */
    record WorkedOut(Formula formula) implements Given {}

    /** People enter it, where it was worked out until now. */
    record Entered() implements Given {}
  }

  @Override
  public List<Offer<Given>> of(String typed) {
    String text = typed.strip();
    if (text.startsWith(WORKED_OUT)) {
      var formula = new Formula(text.substring(1).strip());
      return formula.isBlank()
          ? List.of()
          : List.of(
              new Offer<>(
                  new Given.WorkedOut(formula),
                  WORKED_OUT + " " + formula.text(),
                  tells.apply(formula),
                  ""));
    }
    return field.isComputed() ? ofComputed(text) : ofDefault(text).toList();
  }

  private List<Offer<Given>> ofComputed(String text) {
    return text.isEmpty()
        ? List.of(
            now(),
            new Offer<>(
                new Given.Entered(), texts.get("default.entered"), texts.get("default.asNow"), ""))
        : List.of();
  }

  private Offer<Given> now() {
    Formula formula = field.origin().workedOutBy().orElseThrow();
    return new Offer<>(
        new Given.WorkedOut(formula), WORKED_OUT + " " + formula.text(), tells.apply(formula), "");
  }

  private Stream<Offer<Given>> ofDefault(String text) {
    String next = texts.get("default.next");
    boolean counts =
        field.type() instanceof FieldType.WholeNumber
            && next.contains(text.toLowerCase(Locale.ROOT));
    Stream<Offer<Given>> read = DefaultReading.of(field, text).stream().map(this::offer);
    return counts
        ? Stream.concat(
            read,
            Stream.of(new Offer<>(new Given.NextNumber(), next, texts.get("default.counter"), "")))
        : read;
  }

  private Offer<Given> offer(DefaultReading reading) {
    String sort = reading.sort().name().toLowerCase(Locale.ROOT);
    String words = reading.words().isEmpty() ? texts.get("default.none") : reading.words();
    return new Offer<>(new Given.Default(reading), words, texts.get("default." + sort), "");
  }
}
