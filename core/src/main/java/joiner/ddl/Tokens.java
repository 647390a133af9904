package joiner.ddl;

import java.util.ArrayList;
import java.util.List;

/** A part of a statement that is read from left to right. */
final class Tokens {
  private final String sql;
  private final List<SqlToken> list;
  private int at;

  Tokens(String sql, List<SqlToken> list) {
    this.sql = sql;
    this.list = list;
  }

  boolean isOver() {
    return at >= list.size();
  }

  /** Whether the next tokens are those words or signs. */
  boolean sees(String... words) {
    for (int i = 0; i < words.length; i++) {
      if (at + i >= list.size() || !list.get(at + i).is(words[i])) {
        return false;
      }
    }
    return true;
  }

  /** Goes behind those words or signs, if they are next. */
  boolean takes(String... words) {
    boolean there = sees(words);
    at += there ? words.length : 0;
    return there;
  }

  /** Where the reading is, to go back to. */
  int place() {
    return at;
  }

  /** Goes back to a place. */
  void back(int place) {
    at = place;
  }

  /** Goes behind those words or fails. */
  void expect(String... words) throws NotUnderstoodException {
    if (!takes(words)) {
      throw new NotUnderstoodException();
    }
  }

  SqlToken next() throws NotUnderstoodException {
    if (isOver()) {
      throw new NotUnderstoodException();
    }
    return list.get(at++);
  }

  /** Whether a text in quotes is next. */
  boolean seesText() {
    return !isOver() && list.get(at).isText();
  }

  /** A name; of one with a schema or database before it the last part. */
  String name() throws NotUnderstoodException {
    SqlToken name = next();
    if (!name.isName()) {
      throw new NotUnderstoodException();
    }
    while (takes(".")) {
      name = next();
    }
    return name.name();
  }

  /** What stands in the brackets that open next. */
  Tokens brackets() throws NotUnderstoodException {
    if (!sees("(")) {
      throw new NotUnderstoodException();
    }
    int close = SqlToken.closing(list, SqlToken::text, at);
    if (close == at || !list.get(close).is(")")) {
      throw new NotUnderstoodException();
    }
    var inner = new Tokens(sql, list.subList(at + 1, close));
    at = close + 1;
    return inner;
  }

  /** The parts between commas that stand in no brackets. */
  List<Tokens> parts() {
    var parts = new ArrayList<Tokens>();
    int depth = 0;
    int start = at;
    for (int i = at; i < list.size(); i++) {
      SqlToken token = list.get(i);
      depth += SqlToken.depthOf(token.text());
      if (depth == 0 && token.is(",")) {
        parts.add(new Tokens(sql, list.subList(start, i)));
        start = i + 1;
      }
    }
    parts.add(new Tokens(sql, list.subList(start, list.size())));
    return parts;
  }

  /** Names in brackets; anything that is no plain name fails. */
  List<String> names() throws NotUnderstoodException {
    var names = new ArrayList<String>();
    for (Tokens part : brackets().parts()) {
      names.add(part.name());
      part.takes("ASC");
      if (!part.isOver()) {
        throw new NotUnderstoodException();
      }
    }
    return names;
  }

  /** The text up to one of those words at this depth, or to the end. */
  String textUntil(List<String> words) throws NotUnderstoodException {
    int first = at;
    int depth = 0;
    while (!isOver()) {
      SqlToken token = list.get(at);
      depth += SqlToken.depthOf(token.text());
      if (depth == 0 && at > first && words.stream().anyMatch(token::is)) {
        break;
      }
      at++;
    }
    if (first == at) {
      throw new NotUnderstoodException();
    }
    return sql.substring(list.get(first).start(), list.get(at - 1).end());
  }

  /** All that is left, as it stands in the script. */
  String rest() {
    return isOver() ? "" : sql.substring(list.get(at).start(), list.getLast().end());
  }

  /** The whole of it, as it stands in the script. */
  String whole() {
    return list.isEmpty()
        ? ""
        : sql.substring(list.getFirst().start(), list.getLast().end()).replaceAll("\\s+", " ");
  }

  /** Where in the script it begins. */
  int start() {
    return list.isEmpty() ? 0 : list.getFirst().start();
  }

  /** Something stands where something else was expected. */
  static final class NotUnderstoodException extends Exception {
    private static final long serialVersionUID = 1;
  }
}
