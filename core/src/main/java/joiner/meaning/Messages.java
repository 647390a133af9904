package joiner.meaning;

import java.util.List;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.model.Field;
import joiner.model.Table;

/** Messages of rules, which may name fields in braces: “{started_at} is too early.” */
public final class Messages {
  private static final Pattern NAMED = Pattern.compile("\\{([^{}]+)\\}");

  private Messages() {}

  /** The names in a message that are none of a field, in their order. */
  public static List<String> unknown(String message, Table table) {
    return NAMED
        .matcher(message)
        .results()
        .map(found -> found.group(1).strip())
        .filter(name -> table.fieldNamed(name).isEmpty())
        .distinct()
        .toList();
  }

  /**
   * A message with something in the place of each field; other braces stay.
   *
   * @param words for a field
   */
  public static String filled(String message, Table table, Function<Field, String> words) {
    return NAMED
        .matcher(message)
        .replaceAll(
            found ->
                Matcher.quoteReplacement(
                    table.fieldNamed(found.group(1).strip()).map(words).orElse(found.group())));
  }

  /** A message where no row is at hand: fields by their labels. */
  public static String labelled(String message, Table table) {
    return filled(message, table, Field::label);
  }
}
