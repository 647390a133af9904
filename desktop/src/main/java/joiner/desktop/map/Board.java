package joiner.desktop.map;

import java.util.List;
import joiner.model.FieldId;
import joiner.model.TableId;

/**
 * A table as it is drawn: a board with its name and its first fields.
 *
 * @param area hue of its area, -1 for none
 * @param lines the fields shown
 * @param more how many fields are not shown
 * @param caption one line in the place of fields; empty: none
 */
record Board(
    TableId id, String title, String remark, int area, List<Line> lines, int more, String caption) {
  private static final double WIDTH = 190;
  private static final double BRIEF_WIDTH = 118;
  static final double HEAD = 28;
  static final double LINE = 20;
  static final double FOOT = 8;
  static final int MOST_LINES = 7;

  Board {
    lines = List.copyOf(lines);
  }

  /** One field of a board. */
  record Line(FieldId field, String tag, String name, String type) {}

  double width() {
    return caption.isEmpty() ? WIDTH : BRIEF_WIDTH;
  }

  double height() {
    return caption.isEmpty() ? full() : HEAD + LINE;
  }

  private double full() {
    return HEAD + lines.size() * LINE + (more > 0 ? LINE - 4 : 0) + FOOT;
  }

  /** Middle of a field's line, from the top of the board; fields not shown meet at the foot. */
  double middleOf(FieldId field) {
    for (int i = 0; i < lines.size(); i++) {
      if (lines.get(i).field().equals(field)) {
        return HEAD + i * LINE + LINE / 2;
      }
    }
    return height() - FOOT - LINE / 2 + 2;
  }
}
