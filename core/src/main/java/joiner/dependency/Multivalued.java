package joiner.dependency;

/**
 * A multivalued dependency: the values of {@code to} that go with {@code from} go with it whatever
 * the other attributes are (Ronald Fagin, "Multivalued dependencies and a new normal form for
 * relational databases", 1977).
 */
public record Multivalued(AttributeSet from, AttributeSet to) {}
