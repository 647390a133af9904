package joiner.expression;

import java.util.List;
import joiner.model.Noun;
import joiner.model.Table;

/**
 * The one way into the rule language: reads a text against the fields of a table. The language is a
 * part of ISO/IEC 9075-2 (search conditions and value expressions over the row's own columns).
 */
public final class RuleLanguage {
  private static final Table NO_FIELDS =
      Table.of("default", "a default", new Noun("default", "defaults"));

  private RuleLanguage() {}

  /** Reads a search condition: it must yield true, false or unknown. */
  public static Checked condition(String text, Table table) {
    return switch (value(text, table)) {
      case Checked.Sound sound when sound.kind() != Kind.BOOLEAN && sound.kind() != Kind.NULL ->
          new Checked.Faulty(
              List.of(
                  new Problem(
                      sound.tree().span(),
                      "A rule says what must be true; this is "
                          + sound.kind().words()
                          + ". Compare it with something.")));
      case Checked.Sound sound -> sound;
      case Checked.Faulty faulty -> faulty;
    };
  }

  /** Reads a value expression of any kind. */
  public static Checked value(String text, Table table) {
    try {
      return TypeCheck.check(Parser.parse(text), table);
    } catch (ParseFailure failure) {
      return new Checked.Faulty(List.of(failure.problem()));
    }
  }

  /** Reads a value expression that names no field, such as a default. */
  public static Checked constant(String text) {
    return value(text, NO_FIELDS);
  }
}
