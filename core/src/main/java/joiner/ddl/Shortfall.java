package joiner.ddl;

import joiner.model.TableId;

/**
 * A part of the design that a target cannot express.
 *
 * @param table the table it belongs to
 * @param subject what it is, as "the pattern of Email"
 * @param reason why it cannot be said and what follows, as a sentence
 */
public record Shortfall(TableId table, String subject, String reason) {}
