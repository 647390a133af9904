package joiner.source;

import java.util.Optional;

/**
 * Looks through the text of a sheet of Office Open XML for cells that lie beyond the last column a
 * sheet has, XFD (ECMA-376): whoever makes room for one such cell needs gigabytes.
 */
final class CellReach {
  private static final String BEFORE = " r=\"";

  private int matched;
  private final StringBuilder letters = new StringBuilder();
  private Optional<String> beyond = Optional.empty();

  /** The column of the first such cell. */
  Optional<String> beyond() {
    return beyond;
  }

  /** Looks at the next bytes. */
  void see(byte[] bytes, int length) {
    for (int i = 0; i < length && beyond.isEmpty(); i++) {
      see((char) (bytes[i] & 0xFF));
    }
  }

  private void see(char c) {
    if (matched == BEFORE.length()) {
      if (c >= 'A' && c <= 'Z') {
        letters.append(c);
        if (column() > BudgetedSinks.MOST_COLUMNS) {
          beyond = Optional.of(letters.toString());
        }
        return;
      }
      letters.setLength(0);
      matched = 0;
    }
    if (c == BEFORE.charAt(matched)) {
      matched++;
    } else {
      matched = Character.isWhitespace(c) ? 1 : 0;
    }
  }

  private long column() {
    long column = 0;
    for (int i = 0; i < letters.length(); i++) {
      column = column * 26 + letters.charAt(i) - 'A' + 1;
    }
    return column;
  }
}
