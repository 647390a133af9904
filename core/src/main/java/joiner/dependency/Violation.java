package joiner.dependency;

/**
 * A dependency that keeps a table from a normal form.
 *
 * @param form the form it breaks
 * @param dependency the dependency
 * @param why a sentence over the attributes' names
 */
public record Violation(NormalForm form, Dependency dependency, String why) {}
