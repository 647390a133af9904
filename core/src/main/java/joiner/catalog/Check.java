package joiner.catalog;

/** A condition on each row, false for none. */
public record Check(String name, SqlExpression condition) {}
