package joiner.desktop.shape;

import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.stream.Stream;
import joiner.desktop.widget.Offers;
import joiner.desktop.widget.Texts;
import joiner.expression.Formula;
import joiner.meaning.DefaultReading;
import joiner.meaning.ReadyOrigins;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Origin;

/**
 * What may be meant by what is typed as the default of a field; behind “=” it is what the field is
 * worked out by.
 *
 * @param ready what can be worked out without anybody writing a formula, of what is typed
 * @param tells what an origin gives, or what is wrong with it
 * @param words an origin as people read it
 */
record DefaultOffers(
    Texts texts,
    Field field,
    Function<String, List<ReadyOrigins.Ready>> ready,
    Function<Origin, String> tells,
    Function<Origin, String> words)
    implements Offers<DefaultOffers.Given> {
  /** Begins what a field is worked out by. */
  static final String WORKED_OUT = "=";

  private static final int MOST_FROM_ELSEWHERE = 200;

  /** Where values come from that nobody types into a row. */
  sealed interface Given {
    /** Rows begin with it. */
    record Default(DefaultReading reading) implements Given {}

    /** It is the number above all that were given. */
    record NextNumber() implements Given {}

    /** It comes from elsewhere than from people. */
    record From(Origin origin) implements Given {}

    /** People enter it, where it was worked out until now. */
    record Entered() implements Given {}
  }

  @Override
  public List<Offer<Given>> of(String typed) {
    String text = typed.strip();
    if (text.startsWith(WORKED_OUT)) {
      var formula = new Formula(text.substring(1).strip());
      return formula.isBlank() ? List.of() : List.of(offer(new Origin.Computed(formula)));
    }
    Stream<Offer<Given>> first =
        !OriginsModel.isGiven(field)
            ? ofDefault(text)
            : text.isEmpty() ? Stream.of(offer(field.origin()), entered()) : Stream.empty();
    // Several words that all stand in one of these are hardly meant as a constant.
    return text.contains(" ")
        ? Stream.concat(fromElsewhere(text), first).toList()
        : Stream.concat(first, fromElsewhere(text)).toList();
  }

  /** The same without defaults. */
  Offers<Given> elsewhere() {
    return typed -> {
      boolean worked = typed.strip().startsWith(WORKED_OUT);
      Stream<Offer<Given>> now =
          typed.isBlank() && OriginsModel.isGiven(field)
              ? Stream.of(offer(field.origin()), entered())
              : Stream.empty();
      return worked ? of(typed) : Stream.concat(now, fromElsewhere(typed.strip())).toList();
    };
  }

  private Offer<Given> entered() {
    return new Offer<>(
        new Given.Entered(), texts.get("default.entered"), texts.get("default.asNow"), "");
  }

  private Offer<Given> offer(Origin origin) {
    return new Offer<>(new Given.From(origin), words.apply(origin), tells.apply(origin), "");
  }

  /** What can be carried or summed up and has all the words that are typed. */
  private Stream<Offer<Given>> fromElsewhere(String text) {
    List<String> wanted = List.of(text.toLowerCase(Locale.ROOT).split("\\s+"));
    return ready.apply(text).stream()
        .filter(
            one -> {
              String said = one.words().toLowerCase(Locale.ROOT);
              return wanted.stream().allMatch(said::contains);
            })
        .filter(one -> !one.origin().equals(field.origin()))
        .limit(MOST_FROM_ELSEWHERE)
        .map(
            one ->
                new Offer<>(
                    new Given.From(one.origin()),
                    one.words(),
                    texts.get("origin." + kind(one.origin())),
                    ""));
  }

  /** The key of what people call an origin. */
  static String kind(Origin origin) {
    return switch (origin) {
      case Origin.Typed(boolean once) -> once ? "once" : "typed";
      case Origin.Generated generated -> "generated";
      case Origin.Stamped stamped -> "stamped";
      case Origin.Copied copied -> "copied";
      case Origin.Computed computed -> computed.formula().reachesOut() ? "carried" : "computed";
      case Origin.SummedUp summed -> "summedUp";
    };
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
