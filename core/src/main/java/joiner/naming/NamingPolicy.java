package joiner.naming;

import com.ibm.icu.text.Transliterator;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import org.atteo.evo.inflector.English;

/**
 * Derives names from labels: lower case, words joined by underscores, ASCII letters and digits
 * only.
 */
public final class NamingPolicy {
  private static final Pattern ASCII = Pattern.compile("\\p{ASCII}*");

  /** Words whose plural is none of the rules. */
  private static final List<String> IRREGULAR =
      List.of("person", "man", "woman", "child", "foot", "tooth", "mouse", "goose", "criterion");

  private NamingPolicy() {}

  /** Spells other scripts in plain Latin letters; loaded when a label needs it. */
  private static final class Latin {
    static final Transliterator SPELLING =
        Transliterator.getInstance("NFKC; Any-Latin; Latin-ASCII; NFKD; [:Mn:] Remove");
  }

  /**
   * The name for a label: "Date joined" gives {@code date_joined}, "Глазурь" {@code glazur}. A
   * label without letters or digits gives {@code field}; one that begins with a digit gets an
   * underscore in front.
   */
  public static String nameFor(String label) {
    String plain = ASCII.matcher(label).matches() ? label : Latin.SPELLING.transliterate(label);
    String words = plain.replaceAll("(?<=[a-z])(?=[A-Z])", "_").toLowerCase(Locale.ROOT);
    String name =
        words.replaceAll("['’]", "").replaceAll("[^a-z0-9]+", "_").replaceAll("^_+|_+$", "");
    if (name.isEmpty()) {
      return "field";
    }
    return Character.isDigit(name.charAt(0)) ? "_" + name : name;
  }

  /** A label people can read for a name: {@code date_joined} gives "Date joined". */
  public static String labelFor(String name) {
    String words = name.replaceAll("(?<=[a-z])(?=[A-Z])", " ").replace('_', ' ').strip();
    return words.isEmpty() ? name : Character.toUpperCase(words.charAt(0)) + words.substring(1);
  }

  /** The name itself, or with the first free number behind it if it is taken. */
  public static String free(String name, Collection<String> taken) {
    String candidate = name;
    for (int number = 2; taken.contains(candidate); number++) {
      candidate = name + "_" + number;
    }
    return candidate;
  }

  /** The name of a field that refers to a key: the key's, with its table's in front if missing. */
  public static String referenceTo(String table, String key) {
    return key.contains(table) ? key : table + "_" + key;
  }

  /** A noun, or a name that ends in one, without its usual English plural ending; a guess. */
  public static String singular(String plural) {
    int last = Math.max(plural.lastIndexOf('_'), plural.lastIndexOf(' ')) + 1;
    String word = plural.substring(last);
    for (String irregular : IRREGULAR) {
      if (pluralOf(irregular).equals(word)) {
        return plural.substring(0, plural.length() - word.length()) + irregular;
      }
    }
    if (plural.length() < 4
        || plural.matches(".*(ss|us|is|news|series)")
        || pluralOf(word).equals(word)) {
      return plural;
    }
    if (plural.endsWith("ies") && plural.length() > 4) {
      return plural.substring(0, plural.length() - 3) + "y";
    }
    if (plural.matches(".*(sses|xes|zzes|ches|shes)")) {
      return plural.substring(0, plural.length() - 2);
    }
    return plural.endsWith("s") ? plural.substring(0, plural.length() - 1) : plural;
  }

  /** The usual English plural of a noun; a guess that people can overwrite. */
  public static String plural(String singular) {
    int last = Math.max(singular.lastIndexOf(' '), singular.lastIndexOf('_')) + 1;
    String word = singular.substring(last);
    return word.isEmpty() ? singular + "s" : singular.substring(0, last) + pluralOf(word);
  }

  /** The library knows "persons" only, which nobody calls a list of people. */
  private static String pluralOf(String word) {
    return word.equals("person") ? "people" : English.plural(word);
  }
}
