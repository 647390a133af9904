package joiner.edit;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.edit.Relate.Side;
import joiner.edit.Relate.Types;
import joiner.model.Design;
import joiner.model.Quantity;
import joiner.model.ReferentialAction;
import joiner.model.Table;

/**
 * Reads a sentence that ties two tables: "member makes many pieces", "each piece has one glaze".
 */
public final class RelateSentence {
  /** Number words, longer ones first where one begins another. */
  private static final List<Map.Entry<String, Quantity>> QUANTITIES =
      List.of(
          Map.entry("any number of", Quantity.ANY_NUMBER),
          Map.entry("one or many", Quantity.ONE_OR_MANY),
          Map.entry("one or more", Quantity.ONE_OR_MANY),
          Map.entry("at least one", Quantity.ONE_OR_MANY),
          Map.entry("exactly one", Quantity.EXACTLY_ONE),
          Map.entry("at most one", Quantity.AT_MOST_ONE),
          Map.entry("several", Quantity.ANY_NUMBER),
          Map.entry("many", Quantity.ANY_NUMBER),
          Map.entry("one", Quantity.EXACTLY_ONE),
          Map.entry("an", Quantity.EXACTLY_ONE),
          Map.entry("a", Quantity.EXACTLY_ONE));

  private RelateSentence() {}

  /** A table as it is called somewhere. */
  private record Called(Table table, String words, boolean plural) {}

  /**
   * What a sentence comes to.
   *
   * @return empty unless it begins with a table, ends with one, and has a verb between
   */
  public static Optional<Relate> read(Design design, String sentence) {
    String said =
        sentence
            .strip()
            .toLowerCase(Locale.ROOT)
            .replaceFirst("\\.$", "")
            .replaceFirst("^(each|every|a|an)\\s+", "");
    List<Called> all =
        design.tables().stream()
            .flatMap(RelateSentence::calls)
            .sorted(Comparator.comparing((Called called) -> called.words().length()).reversed())
            .toList();
    Optional<Called> one =
        all.stream().filter(called -> said.startsWith(called.words() + " ")).findFirst();
    Optional<Called> other =
        all.stream().filter(called -> said.endsWith(" " + called.words())).findFirst();
    if (one.isEmpty() || other.isEmpty()) {
      return Optional.empty();
    }
    int begin = one.get().words().length() + 1;
    int end = said.length() - other.get().words().length() - 1;
    return begin < end
        ? between(one.get(), other.get(), said.substring(begin, end).strip())
        : Optional.empty();
  }

  private static Stream<Called> calls(Table table) {
    return Stream.of(
            new Called(table, table.noun().singular(), false),
            new Called(table, table.noun().plural(), true),
            new Called(table, table.label(), false),
            new Called(table, table.name(), false))
        .map(called -> new Called(table, called.words().toLowerCase(Locale.ROOT), called.plural()))
        .filter(called -> !called.words().isBlank());
  }

  private static Optional<Relate> between(Called one, Called other, String middle) {
    Optional<Map.Entry<String, Quantity>> told =
        QUANTITIES.stream()
            .filter(word -> (" " + middle).endsWith(" " + word.getKey()))
            .findFirst();
    String verb =
        told.map(word -> middle.substring(0, middle.length() - word.getKey().length()))
            .orElse(middle)
            .strip();
    if (verb.isEmpty()) {
      return Optional.empty();
    }
    Quantity quantity =
        told.map(Map.Entry::getValue)
            .orElse(other.plural() ? Quantity.ANY_NUMBER : Quantity.EXACTLY_ONE);
    boolean many = quantity.isPlural();
    return Optional.of(
        new Relate(
            Side.of(one.table(), verb, quantity),
            Side.of(
                other.table(),
                many ? "belongs to" : "has",
                many ? Quantity.AT_MOST_ONE : Quantity.ANY_NUMBER),
            List.of(),
            List.of(),
            ReferentialAction.NO_ACTION,
            Types.OF_KEY));
  }
}
