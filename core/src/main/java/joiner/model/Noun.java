package joiner.model;

/**
 * What one row and several rows of a table are called.
 *
 * @param singular as in "each member"
 * @param plural as in "many members"
 */
public record Noun(String singular, String plural) {
  /** The singular with its article: "a member", "an enrolment". */
  public String indefinite() {
    boolean vowel = !singular.isEmpty() && "aeiouAEIOU".indexOf(singular.charAt(0)) >= 0;
    return (vowel ? "an " : "a ") + singular;
  }
}
