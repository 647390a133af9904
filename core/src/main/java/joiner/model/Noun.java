package joiner.model;

import java.util.Locale;
import joiner.naming.NamingPolicy;

/**
 * What one row and several rows of a table are called.
 *
 * @param singular as in "each member"
 * @param plural as in "many members"
 */
public record Noun(String singular, String plural) {
  /** What rows of a table of that label are called, as long as nobody says otherwise. */
  public static Noun ofLabel(String label) {
    String singular = NamingPolicy.singular(label.toLowerCase(Locale.ROOT));
    return new Noun(singular, NamingPolicy.plural(singular));
  }

  /** The singular with its article: "a member", "an enrolment". */
  public String indefinite() {
    boolean vowel = !singular.isEmpty() && "aeiouAEIOU".indexOf(singular.charAt(0)) >= 0;
    return (vowel ? "an " : "a ") + singular;
  }
}
