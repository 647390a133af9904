package joiner.shape;

import com.ibm.icu.text.UnicodeSet;
import java.util.Arrays;
import java.util.Optional;

/** The kinds of characters by which people say what a text looks like. */
public enum PartKind {
  DIGIT("digit", "[0-9]"),
  CAPITAL("capital", "[A-Z]"),
  SMALL("small letter", "[a-z]"),
  LETTER("letter", "[A-Za-z]"),
  LETTER_OR_DIGIT("letter or digit", "[0-9A-Za-z]"),
  CAPITAL_OR_DIGIT("capital or digit", "[0-9A-Z]"),
  BLANK("blank", "[\\ ]"),
  ANY("character", "[^\\n]");

  private final String words;
  private final UnicodeSet set;

  PartKind(String words, String set) {
    this.words = words;
    this.set = new UnicodeSet(set).freeze();
  }

  /** What one of them is called. */
  public String words() {
    return words;
  }

  UnicodeSet set() {
    return set;
  }

  /** How it is written in an expression. */
  String expression() {
    return switch (this) {
      case DIGIT -> "[0-9]";
      case CAPITAL -> "[A-Z]";
      case SMALL -> "[a-z]";
      case LETTER -> "[A-Za-z]";
      case LETTER_OR_DIGIT -> "[0-9A-Za-z]";
      case CAPITAL_OR_DIGIT -> "[0-9A-Z]";
      case BLANK -> " ";
      case ANY -> ".";
    };
  }

  static Optional<PartKind> of(UnicodeSet set) {
    return Arrays.stream(values()).filter(kind -> kind.set.equals(set)).findFirst();
  }
}
