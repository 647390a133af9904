package joiner.model;

/** Which question of a design; stays the same for its whole life. */
public record QuestionId(String value) {}
