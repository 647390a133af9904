package joiner.expression;

/** One word, sign or literal of an expression's text. */
record Token(Type type, String text, Place place) {
  enum Type {
    WORD,
    QUOTED_NAME,
    STRING,
    NUMBER,
    SIGN,
    END
  }

  boolean isWord(String word) {
    return type == Type.WORD && text.equalsIgnoreCase(word);
  }

  boolean isSign(String sign) {
    return type == Type.SIGN && text.equals(sign);
  }

  /** As it is named in messages. */
  String shown() {
    return type == Type.END ? "the end" : "“" + text + "”";
  }
}
