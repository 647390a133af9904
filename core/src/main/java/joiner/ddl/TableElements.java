package joiner.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import joiner.catalog.CatalogIndex;
import joiner.catalog.Check;
import joiner.catalog.ForeignKey;
import joiner.catalog.Generated;
import joiner.catalog.Key;
import joiner.catalog.SqlExpression;
import joiner.catalog.SqlType;
import joiner.ddl.TableDraft.ColumnDraft;
import joiner.ddl.Tokens.NotUnderstoodException;
import joiner.model.ReferentialAction;

/** Reads what stands between the brackets of CREATE TABLE, or behind ADD of ALTER TABLE. */
final class TableElements {
  /** All of an expression that is cast to a type. */
  private static final Pattern CAST =
      Pattern.compile("(?is)CAST\\s*\\(\\s*(.*)\\sAS\\s+([^()]+(?:\\([^()]*\\))?)\\s*\\)");

  /** What may stand behind the type of a column, so that a type or a default ends before it. */
  private static final List<String> ATTRIBUTES =
      List.of(
          "NOT",
          "NULL",
          "DEFAULT",
          "PRIMARY",
          "UNIQUE",
          "CHECK",
          "REFERENCES",
          "GENERATED",
          "AUTO_INCREMENT",
          "AUTOINCREMENT",
          "IDENTITY",
          "COMMENT",
          "COLLATE",
          "CONSTRAINT",
          "ON",
          "CHARACTER",
          "KEY",
          "AS",
          "ENABLE",
          "INVISIBLE",
          "VISIBLE");

  /** What else an element may begin with that is no column. */
  private static final List<String> NO_COLUMNS =
      List.of("EXCLUDE", "LIKE", "PERIOD", "FULLTEXT", "SPATIAL", "INHERITS");

  private final TableDraft table;
  private final ScriptTypes types;
  private final List<String> unread = new ArrayList<>();

  TableElements(TableDraft table, ScriptTypes types) {
    this.table = table;
    this.types = types;
  }

  /** What was left out of elements that were otherwise understood. */
  List<String> unread() {
    return unread;
  }

  void read(Tokens element) throws NotUnderstoodException {
    if (!constraint(element)) {
      column(element);
    }
  }

  private boolean constraint(Tokens element) throws NotUnderstoodException {
    String name = "";
    if (element.takes("CONSTRAINT")) {
      name = element.name();
    }
    if (element.takes("PRIMARY", "KEY")) {
      skipWords(element, "CLUSTERED", "NONCLUSTERED", "USING", "BTREE");
      table.primaryKey = Optional.of(new Key(name, columns(element)));
      return true;
    }
    if (element.sees("UNIQUE")) {
      element.takes("UNIQUE");
      skipWords(element, "KEY", "INDEX", "CLUSTERED", "NONCLUSTERED");
      name = !element.sees("(") ? element.name() : name;
      table.uniqueKeys.add(new Key(name, columns(element)));
      return true;
    }
    if (element.takes("FOREIGN", "KEY")) {
      name = !element.sees("(") ? element.name() : name;
      List<String> columns = element.names();
      element.expect("REFERENCES");
      reference(name, columns, element);
      return true;
    }
    if (element.sees("CHECK", "(")) {
      element.takes("CHECK");
      table.checks.add(new Check(name, SqlExpression.found(element.brackets().rest())));
      return true;
    }
    boolean index = element.sees("KEY") || element.sees("INDEX");
    if (name.isEmpty() && index && isIndex(element)) {
      return true;
    }
    if (!name.isEmpty()) {
      throw new NotUnderstoodException();
    }
    return false;
  }

  /** {@code KEY name (columns)}, as MariaDB has it; a column may be called so too. */
  private boolean isIndex(Tokens element) {
    int place = element.place();
    try {
      boolean quoted = element.next().text().startsWith("\"");
      String name = element.sees("(") ? "" : element.name();
      CatalogIndex index = IndexParts.plain(name, element);
      if (!quoted && table.columns.keySet().containsAll(index.columns())) {
        table.indexes.add(index);
        return true;
      }
    } catch (NotUnderstoodException e) {
      // Then it is a column of that name.
    }
    element.back(place);
    return false;
  }

  private static void skipWords(Tokens element, String... words) {
    boolean any = true;
    while (any) {
      any = false;
      for (String word : words) {
        any |= element.takes(word);
      }
    }
  }

  /** Columns of a key; lengths of their beginnings, which MariaDB knows, are not understood. */
  private List<String> columns(Tokens element) throws NotUnderstoodException {
    List<String> columns = element.names();
    if (!table.columns.keySet().containsAll(columns)) {
      throw new NotUnderstoodException();
    }
    return columns;
  }

  private void reference(String name, List<String> columns, Tokens element)
      throws NotUnderstoodException {
    String parent = element.name();
    List<String> parentColumns = element.sees("(") ? element.names() : List.of();
    ReferentialAction onDelete = ReferentialAction.NO_ACTION;
    ReferentialAction onUpdate = ReferentialAction.NO_ACTION;
    boolean more = true;
    while (more) {
      if (element.takes("ON", "DELETE")) {
        onDelete = action(element);
      } else if (element.takes("ON", "UPDATE")) {
        onUpdate = action(element);
      } else {
        more =
            element.takes("DEFERRABLE")
                || element.takes("INITIALLY", "DEFERRED")
                || element.takes("NOT", "DEFERRABLE")
                || element.takes("INITIALLY", "IMMEDIATE");
      }
    }
    table.foreignKeys.add(
        new ForeignKey(name, columns, parent, parentColumns, onDelete, onUpdate, false));
  }

  private static ReferentialAction action(Tokens element) throws NotUnderstoodException {
    for (ReferentialAction action : ReferentialAction.values()) {
      if (element.takes(action.sql().split(" "))) {
        return action;
      }
    }
    throw new NotUnderstoodException();
  }

  private void column(Tokens element) throws NotUnderstoodException {
    if (NO_COLUMNS.stream().anyMatch(element::sees)) {
      throw new NotUnderstoodException();
    }
    String name = element.name();
    String spelled = element.isOver() ? "" : typeText(element);
    boolean serial = spelled.toLowerCase(Locale.ROOT).endsWith("serial");
    SqlType type = types.understand(spelled);
    var column = new ColumnDraft(type);
    column.counts = serial;
    table.columns.put(name, column);
    while (!element.isOver()) {
      attribute(name, column, element);
    }
  }

  /** A column may have no type; one may begin with CHARACTER, which else begins CHARACTER SET. */
  private static String typeText(Tokens element) throws NotUnderstoodException {
    boolean none = !element.sees("CHARACTER") && ATTRIBUTES.stream().anyMatch(element::sees);
    return none ? "" : element.textUntil(ATTRIBUTES);
  }

  private void attribute(String name, ColumnDraft column, Tokens element)
      throws NotUnderstoodException {
    String constraint = element.takes("CONSTRAINT") ? element.name() : "";
    if (element.takes("NOT", "NULL")) {
      column.required = true;
    } else if (element.takes("NULL")) {
      column.required = false;
    } else if (element.takes("DEFAULT")) {
      defaultOf(column, element.textUntil(ATTRIBUTES));
    } else if (element.takes("PRIMARY", "KEY")) {
      table.primaryKey = Optional.of(new Key(constraint, List.of(name)));
    } else if (element.takes("UNIQUE")) {
      element.takes("KEY");
      table.uniqueKeys.add(new Key(constraint, List.of(name)));
    } else if (element.sees("CHECK", "(")) {
      element.takes("CHECK");
      table.checks.add(new Check(constraint, SqlExpression.found(element.brackets().rest())));
    } else if (element.takes("REFERENCES")) {
      reference(constraint, List.of(name), element);
    } else if (counts(element)) {
      column.counts = true;
    } else if (element.takes("GENERATED", "ALWAYS", "AS")) {
      generated(column, element);
    } else if (element.sees("AS", "(")) {
      element.takes("AS");
      generated(column, element);
    } else if (element.takes("COMMENT")) {
      column.comment = text(element.next());
    } else if (element.takes("COLLATE")) {
      element.name();
    } else if (element.takes("CHARACTER", "SET")) {
      element.name();
    } else if (element.takes("ENABLE") || element.takes("VISIBLE")) {
      return; // As it is anyway.
    } else if (element.takes("ON", "UPDATE")) {
      unread.add("ON UPDATE of " + name + ": " + element.textUntil(ATTRIBUTES));
    } else {
      throw new NotUnderstoodException();
    }
  }

  private void generated(ColumnDraft column, Tokens element) throws NotUnderstoodException {
    String sql = element.brackets().rest();
    Matcher cast = CAST.matcher(sql);
    if (column.type.equals(types.understand("")) && cast.matches()) {
      column.type = types.understand(cast.group(2)); // It has no type but that of its expression.
      sql = cast.group(1);
    }
    boolean stored = element.takes("STORED") || element.takes("PERSISTED");
    element.takes("VIRTUAL");
    column.generated = Optional.of(new Generated(sql, stored));
  }

  /** The ways to say that a column counts up. */
  private static boolean counts(Tokens element) throws NotUnderstoodException {
    boolean counts =
        element.takes("AUTO_INCREMENT")
            || element.takes("AUTOINCREMENT")
            || element.takes("IDENTITY")
            || element.takes("GENERATED", "ALWAYS", "AS", "IDENTITY")
            || element.takes("GENERATED", "BY", "DEFAULT", "AS", "IDENTITY")
            || element.takes("GENERATED", "BY", "DEFAULT", "ON", "NULL", "AS", "IDENTITY");
    if (counts && element.sees("(")) {
      element.brackets(); // Where it begins.
    }
    return counts;
  }

  /** A default that takes the next number of a sequence counts. */
  static void defaultOf(ColumnDraft column, String sql) {
    if (sql.toLowerCase(Locale.ROOT).startsWith("nextval(")) {
      column.counts = true;
    } else if (!sql.equalsIgnoreCase("NULL")) {
      column.defaultValue = Optional.of(SqlExpression.found(sql));
    }
  }

  static String text(SqlToken token) throws NotUnderstoodException {
    if (!token.isText()) {
      throw new NotUnderstoodException();
    }
    int open = token.text().indexOf('\'');
    return token.text().substring(open + 1, token.text().length() - 1).replace("''", "'");
  }
}
