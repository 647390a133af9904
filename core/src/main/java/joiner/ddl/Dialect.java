package joiner.ddl;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.SqlText;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.naming.IdentifierRules;

/**
 * What one engine says differently. Each difference is a method with a name; nothing else is asked.
 */
public abstract class Dialect {

  /** The word used on the command line. */
  public abstract String id();

  /** What the engine allows as names. */
  public abstract IdentifierRules identifiers();

  /** The engine's name for people. */
  public final String engine() {
    return identifiers().engine();
  }

  /** A type in the engine's spelling. */
  abstract String type(FieldType type);

  /** Writes expressions in the engine's spelling. */
  abstract SqlText text();

  /**
   * Whether a table may refer to one that is created later, and needs no ALTER to close a circle.
   */
  abstract boolean refersAhead();

  /** Statements before everything else. */
  abstract List<String> opening();

  /** Statements after everything else. */
  abstract List<String> closing();

  /** How a column that counts up is written, without its name; empty if this one cannot count. */
  abstract Optional<String> counter(Table table, Field field, FieldType.Counter type);

  /** Whether a column that counts up is declared the primary key by that. */
  abstract boolean countsAsKey();

  /** How many decimals of a second a column of that type keeps. */
  abstract int decimalsOfSeconds(FieldType type);

  /** Makes a counter go on above a number; empty if the engine does so by itself. */
  abstract Optional<String> restart(String table, String column, long next);

  /** A condition that keeps values of the type, where the engine does not by itself. */
  abstract Optional<String> typeCheck(String column, FieldType type);

  /** A condition that a text matches a regular expression as a whole. */
  abstract String matches(String column, String pattern);

  /** A comment on a table; empty if the engine keeps none. */
  abstract Optional<String> tableComment(String table, String text);

  /** A comment on a column; empty if the engine keeps none. */
  abstract Optional<String> columnComment(String table, String column, String text);

  /** Whether the column definition takes the default in brackets. */
  abstract String defaultClause(String expression, boolean literal);

  /** What the engine loses of a type, if anything. */
  Optional<String> typeLoss(FieldType type) {
    return Optional.empty();
  }

  final String name(String name) {
    return identifiers().quote(name);
  }

  final String names(List<String> names) {
    return String.join(", ", names.stream().map(this::name).toList());
  }

  final String literal(Value value) {
    return text()
        .write(
            new Expression.Literal(
                value, joiner.expression.Kind.NULL, joiner.expression.Place.NOWHERE));
  }

  /** A quoted text. */
  static String quoted(String text) {
    return "'" + text.replace("'", "''") + "'";
  }

  /** How the engine keeps a rule. */
  public final Support support(Checked.Sound rule) {
    return attempt(rule, sound -> text().write(sound.tree())) instanceof Attempt.Failed failed
        ? new Support.Impossible(failed.reason())
        : new Support.Native();
  }

  /** A rule in the engine's spelling; empty where the engine cannot express it. */
  public final Optional<String> written(Checked.Sound rule) {
    return attempt(rule, sound -> text().write(sound.tree())) instanceof Attempt.Written written
        ? Optional.of(written.sql())
        : Optional.empty();
  }

  sealed interface Attempt {
    record Written(String sql) implements Attempt {}

    record Failed(String reason) implements Attempt {}
  }

  static <T> Attempt attempt(T subject, Function<T, String> writer) {
    try {
      return new Attempt.Written(writer.apply(subject));
    } catch (InexpressibleException e) {
      return new Attempt.Failed(e.getMessage());
    }
  }
}
