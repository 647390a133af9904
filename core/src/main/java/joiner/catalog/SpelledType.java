package joiner.catalog;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The name of a type as it is spelled, taken apart.
 *
 * @param name in lower case, without what stands in brackets
 * @param numbers in the first brackets; none where there are none
 */
public record SpelledType(String name, List<Integer> numbers) {
  /** A name, numbers in brackets with the unit of a length, and what else belongs to the name. */
  private static final Pattern FORM =
      Pattern.compile(
          "([^(]*)(?:\\(([\\d, ]{1,40})(?: (?:char|byte))?\\))?\\s*([^(]*)(?:\\(\\d\\))?");

  public SpelledType {
    numbers = List.copyOf(numbers);
  }

  /** Takes a spelling apart; empty where it has another form. */
  public static Optional<SpelledType> of(String spelled) {
    String plain =
        spelled
            .strip()
            .toLowerCase(Locale.ROOT)
            .replaceAll("\\(\\s*max\\s*\\)", " max")
            .replaceAll("\\s+", " ");
    Matcher parts = FORM.matcher(plain);
    if (!parts.matches()) {
      return Optional.empty();
    }
    var numbers = new ArrayList<Integer>();
    if (parts.group(2) != null) {
      for (String number : parts.group(2).strip().split("[, ]+")) {
        if (number.length() > 9) {
          return Optional.empty();
        }
        numbers.add(Integer.valueOf(number));
      }
    }
    String name = (parts.group(1).strip() + " " + parts.group(3).strip()).strip();
    return Optional.of(new SpelledType(name, numbers));
  }
}
