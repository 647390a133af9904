package joiner.catalog;

import java.util.Optional;

/**
 * By what rows of a table exclude each other where a key cannot say it: a unique index of some of
 * them, or a constraint that compares otherwise than by being equal.
 *
 * @param isIndex whether it is an index, not a constraint
 * @param needs the statement that brings the engine what it takes, if it takes anything
 * @param definition the statement that makes it, in the engine's spelling
 */
public record Exclusion(
    String name, String table, boolean isIndex, Optional<String> needs, String definition) {}
