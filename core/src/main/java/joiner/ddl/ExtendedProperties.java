package joiner.ddl;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import joiner.ddl.TableDraft.ColumnDraft;
import joiner.ddl.Tokens.NotUnderstoodException;
import org.jspecify.annotations.Nullable;

/**
 * Descriptions as scripts for SQL Server give them: extended properties of a known name, set by a
 * procedure whose arguments may be named, and may be variables.
 */
final class ExtendedProperties {
  private static final List<String> ARGUMENTS =
      List.of(
          "name",
          "value",
          "level0type",
          "level0name",
          "level1type",
          "level1name",
          "level2type",
          "level2name");

  private final Map<String, TableDraft> tables;

  /** Texts of variables; other ones have no entry. */
  private final Map<String, String> variables = new HashMap<>();

  /** Reads descriptions of those tables, by their names in any case. */
  ExtendedProperties(Map<String, TableDraft> tables) {
    this.tables = tables;
  }

  /** What stands behind DECLARE. A variable that holds no text says nothing here. */
  void declare(Tokens tokens) throws NotUnderstoodException {
    for (Tokens part : tokens.parts()) {
      String variable = variable(part);
      while (!part.isOver() && !part.takes("=")) {
        part.next(); // Its type.
      }
      if (!part.isOver() && part.seesText()) {
        variables.put(variable, ScriptValues.joined(part));
      }
    }
  }

  private static String variable(Tokens tokens) throws NotUnderstoodException {
    tokens.expect("@");
    return tokens.next().text().toLowerCase(Locale.ROOT);
  }

  /** What stands behind EXEC. */
  void execute(Tokens tokens) throws NotUnderstoodException {
    if (!tokens.name().equalsIgnoreCase("sp_addextendedproperty")) {
      throw new NotUnderstoodException();
    }
    Map<String, String> arguments = arguments(tokens);
    TableDraft table = tables.get(arguments.getOrDefault("level1name", ""));
    String text = arguments.get("value");
    if (!"MS_Description".equals(arguments.get("name")) || table == null || text == null) {
      throw new NotUnderstoodException();
    }
    String column = arguments.get("level2name");
    if (column == null) {
      table.comment = text;
      return;
    }
    ColumnDraft described = table.columns.get(column);
    if (described == null) {
      throw new NotUnderstoodException();
    }
    described.comment = text;
  }

  private Map<String, String> arguments(Tokens tokens) throws NotUnderstoodException {
    Map<String, String> arguments = new HashMap<>();
    List<Tokens> parts = tokens.parts();
    for (int i = 0; i < parts.size(); i++) {
      Tokens part = parts.get(i);
      String name = i < ARGUMENTS.size() ? ARGUMENTS.get(i) : "";
      int start = part.place();
      if (part.takes("@")) {
        String word = part.next().text().toLowerCase(Locale.ROOT);
        if (part.takes("=")) {
          name = word;
        } else {
          part.back(start);
        }
      }
      String value = value(part);
      if (value != null) {
        arguments.put(name, value);
      }
    }
    return arguments;
  }

  private @Nullable String value(Tokens tokens) throws NotUnderstoodException {
    if (tokens.sees("@")) {
      return variables.get(variable(tokens));
    }
    return tokens.takes("NULL") ? null : ScriptValues.joined(tokens);
  }
}
