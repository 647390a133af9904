package joiner.ddl;

import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import joiner.ddl.Tokens.NotUnderstoodException;
import joiner.model.FieldType;
import joiner.rows.StoredFile;
import org.jspecify.annotations.Nullable;

/** Reads values that scripts insert, as the texts they are kept as. */
final class ScriptValues {
  /** Stands before bytes written to the base 16. */
  private static final String HEX = "\\x";

  private ScriptValues() {}

  /** A row of literals; a row with anything else is not understood. */
  static Map<String, String> row(List<String> columns, List<Tokens> values, boolean escapes)
      throws NotUnderstoodException {
    if (values.size() != columns.size()) {
      throw new NotUnderstoodException();
    }
    Map<String, String> row = new LinkedHashMap<>();
    for (int i = 0; i < columns.size(); i++) {
      String value = value(values.get(i), escapes);
      if (value != null) {
        row.put(columns.get(i), value);
      }
    }
    return row;
  }

  private static @Nullable String value(Tokens tokens, boolean escapes)
      throws NotUnderstoodException {
    String value = isText(tokens) ? joined(tokens, escapes) : literal(tokens, escapes);
    while (tokens.takes("::")) {
      tokens.name();
    }
    if (!tokens.isOver()) {
      throw new NotUnderstoodException();
    }
    return value;
  }

  /** Texts in quotes with a sign between that joins them; line breaks may stand by their number. */
  static String joined(Tokens tokens) throws NotUnderstoodException {
    return joined(tokens, false);
  }

  private static String joined(Tokens tokens, boolean escapes) throws NotUnderstoodException {
    var joined = new StringBuilder();
    do {
      if (!isText(tokens)) {
        throw new NotUnderstoodException();
      }
      joined.append(literal(tokens, escapes));
    } while (tokens.takes("+") || tokens.takes("||"));
    return joined.toString();
  }

  private static boolean isText(Tokens tokens) {
    return tokens.seesText()
        || tokens.sees("TO_CLOB", "(")
        || tokens.sees("NCHAR", "(")
        || tokens.sees("CHAR", "(")
        || tokens.sees("CHR", "(");
  }

  private static @Nullable String literal(Tokens tokens, boolean escapes)
      throws NotUnderstoodException {
    if (tokens.takes("NULL") || tokens.takes("DEFAULT")) {
      return null;
    }
    if (tokens.takes("CAST")) {
      return cast(tokens.brackets(), escapes);
    }
    if (tokens.sees("(") || tokens.takes("TO_CLOB")) {
      return value(tokens.brackets(), escapes);
    }
    if (tokens.takes("NCHAR") || tokens.takes("CHAR") || tokens.takes("CHR")) {
      return character(tokens.brackets().next());
    }
    if (tokens.takes("TO_BLOB")) {
      return value(tokens.brackets(), escapes);
    }
    if (tokens.takes("HEXTORAW") || tokens.takes("FROM_HEX") || tokens.takes("UNHEX")) {
      return HEX + text(tokens.brackets(), escapes);
    }
    if (tokens.takes("INTERVAL")) {
      String time = text(tokens, escapes);
      tokens.expect("HOUR", "TO", "SECOND");
      return time;
    }
    if (tokens.takes("TIMESTAMP", "WITH", "TIME", "ZONE") || tokens.takes("TIMESTAMP")) {
      return text(tokens, escapes);
    }
    if (tokens.takes("DATE") || tokens.takes("TIME")) {
      return text(tokens, escapes);
    }
    if (tokens.takes("-")) {
      return "-" + tokens.next().text();
    }
    SqlToken token = tokens.next();
    if (token.isText()) {
      boolean bytes = token.text().startsWith("X'") || token.text().startsWith("x'");
      return (bytes ? HEX : "") + unescaped(token, escapes);
    }
    if (token.is("TRUE") || token.is("FALSE")) {
      return token.text().toLowerCase(Locale.ROOT);
    }
    if (Character.isDigit(token.text().charAt(0)) || token.text().startsWith(".")) {
      return token.text();
    }
    throw new NotUnderstoodException();
  }

  private static String character(SqlToken number) throws NotUnderstoodException {
    if (!number.text().matches("\\d{1,5}")) {
      throw new NotUnderstoodException();
    }
    return Character.toString(Integer.parseInt(number.text()));
  }

  /** A value in the form of a field's type, where engines have another for it. */
  static String inForm(String value, FieldType type) {
    return switch (type) {
      case FieldType.TrueFalse t ->
          switch (value.toLowerCase(Locale.ROOT)) {
            case "1", "t" -> "true";
            case "0", "f" -> "false";
            default -> value;
          };
      case FieldType.DateTime t -> moment(value);
      case FieldType.Content t -> file(value);
      default -> value;
    };
  }

  /** Bytes are written in digits to the base 16, behind a mark; here they stand in Base64. */
  private static String file(String value) {
    String digits = value.replaceFirst("^(?:\\\\x|0[xX])", "");
    boolean bytes = digits.length() < value.length() && digits.matches("(?:[0-9a-fA-F]{2})*");
    return bytes ? StoredFile.cell(HexFormat.of().parseHex(digits)) : value;
  }

  private static @Nullable String cast(Tokens inner, boolean escapes)
      throws NotUnderstoodException {
    String value = literal(inner, escapes);
    inner.expect("AS");
    return value;
  }

  private static String text(Tokens tokens, boolean escapes) throws NotUnderstoodException {
    return unescaped(tokens.next(), escapes);
  }

  /** ISO 8601 has a T between date and time, and minutes in an offset. */
  private static String moment(String text) {
    return text.replaceFirst("^(\\d{4}-\\d\\d-\\d\\d) ", "$1T")
        .replaceFirst(" ([+-]\\d\\d(?::\\d\\d)?)$", "$1")
        .replaceFirst("([+-]\\d\\d)$", "$1:00");
  }

  private static String unescaped(SqlToken token, boolean escapes) throws NotUnderstoodException {
    String text = TableElements.text(token);
    if (!escapes || text.indexOf('\\') < 0) {
      return text;
    }
    var plain = new StringBuilder();
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c == '\\' && i + 1 < text.length()) {
        c = text.charAt(++i);
        plain.append(c == 'n' ? '\n' : c == 'r' ? '\r' : c == 't' ? '\t' : c == '0' ? '\0' : c);
      } else {
        plain.append(c);
      }
    }
    return plain.toString();
  }

  /** A line of a block of rows as PostgreSQL writes it (its manual, COPY, text format). */
  static Map<String, String> copied(List<String> columns, String line)
      throws NotUnderstoodException {
    String[] cells = line.split("\t", -1);
    if (cells.length != columns.size()) {
      throw new NotUnderstoodException();
    }
    Map<String, String> row = new LinkedHashMap<>();
    for (int i = 0; i < cells.length; i++) {
      if (!cells[i].equals("\\N")) {
        row.put(columns.get(i), unescapedCell(cells[i]));
      }
    }
    return row;
  }

  private static String unescapedCell(String cell) {
    var plain = new StringBuilder();
    for (int i = 0; i < cell.length(); i++) {
      char c = cell.charAt(i);
      if (c == '\\' && i + 1 < cell.length()) {
        c = cell.charAt(++i);
        plain.append(
            switch (c) {
              case 'n' -> '\n';
              case 'r' -> '\r';
              case 't' -> '\t';
              case 'b' -> '\b';
              case 'f' -> '\f';
              case 'v' -> '\u000b';
              default -> c;
            });
      } else {
        plain.append(c);
      }
    }
    return plain.toString();
  }
}
