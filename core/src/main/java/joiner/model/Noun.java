package joiner.model;

/**
 * What one row and several rows of a table are called.
 *
 * @param singular as in "each member"
 * @param plural as in "many members"
 */
public record Noun(String singular, String plural) {}
