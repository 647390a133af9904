package joiner.expression;

import java.util.ArrayList;
import java.util.List;

/** Cuts an expression's text into tokens; linear in its length. */
final class Lexer {
  private final String text;
  private int at;

  private Lexer(String text) {
    this.text = text;
  }

  /** All tokens of the text, the last of type END. */
  static List<Token> tokens(String text) {
    var lexer = new Lexer(text);
    var tokens = new ArrayList<Token>();
    Token token;
    do {
      token = lexer.next();
      tokens.add(token);
    } while (token.type() != Token.Type.END);
    return tokens;
  }

  private Token next() {
    while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
      at++;
    }
    if (at == text.length()) {
      return new Token(Token.Type.END, "", Place.at(at, at));
    }
    char c = text.charAt(at);
    if (c == '\'') {
      return quoted('\'', Token.Type.STRING, "text", "'");
    }
    if (c == '"') {
      return quoted('"', Token.Type.QUOTED_NAME, "field name", "\"");
    }
    if (isDigit(c) || (c == '.' && at + 1 < text.length() && isDigit(text.charAt(at + 1)))) {
      return number();
    }
    if (Character.isLetter(c) || c == '_') {
      return word();
    }
    if (c == ':' && at + 1 < text.length() && Character.isLetter(text.charAt(at + 1))) {
      return word(); // The name of a value that is filled in later.
    }
    return sign();
  }

  private Token quoted(char quote, Token.Type type, String what, String shown) {
    int start = at;
    var content = new StringBuilder();
    at++;
    while (true) {
      if (at == text.length()) {
        throw new ParseFailure(
            Place.at(start, at),
            "The " + what + " that begins here is never closed; end it with " + shown + ".");
      }
      char c = text.charAt(at++);
      if (c == quote) {
        if (at == text.length() || text.charAt(at) != quote) {
          return new Token(type, content.toString(), Place.at(start, at));
        }
        at++;
      }
      content.append(c);
    }
  }

  private Token number() {
    int start = at;
    digits();
    if (at < text.length() && text.charAt(at) == '.') {
      at++;
      digits();
    }
    if (at < text.length() && (text.charAt(at) == 'e' || text.charAt(at) == 'E')) {
      at++;
      if (at < text.length() && (text.charAt(at) == '+' || text.charAt(at) == '-')) {
        at++;
      }
      digits();
    }
    String found = text.substring(start, at);
    if (!Character.isDigit(found.charAt(found.length() - 1)) && !found.endsWith(".")) {
      throw new ParseFailure(
          Place.at(start, at), "The number “" + found + "” breaks off; finish it.");
    }
    return new Token(Token.Type.NUMBER, found, Place.at(start, at));
  }

  private void digits() {
    while (at < text.length() && isDigit(text.charAt(at))) {
      at++;
    }
  }

  private static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  private Token word() {
    int start = at++;
    while (at < text.length()
        && (Character.isLetterOrDigit(text.charAt(at)) || text.charAt(at) == '_')) {
      at++;
    }
    return new Token(Token.Type.WORD, text.substring(start, at), Place.at(start, at));
  }

  private Token sign() {
    for (String sign :
        List.of(
            "<>", "<=", ">=", "||", "!=", "=", "<", ">", "+", "-", "*", "/", "(", ")", ",", ".")) {
      if (text.startsWith(sign, at)) {
        at += sign.length();
        if (sign.equals("!=")) {
          throw new ParseFailure(Place.at(at - 2, at), "SQL writes “not equal” as <>.");
        }
        return new Token(Token.Type.SIGN, sign, Place.at(at - sign.length(), at));
      }
    }
    String character = Character.toString(text.codePointAt(at));
    throw new ParseFailure(
        Place.at(at, at + character.length()),
        "The character “" + character + "” has no meaning here; remove it.");
  }
}
