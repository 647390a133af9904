package joiner.map;

import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import joiner.model.FieldId;

/**
 * What is drawn in one piece: a table with its name and its first fields, or an area that is
 * folded.
 *
 * @param pinned whether somebody wants it where it is
 * @param area hue of its area, -1 for none
 * @param lines the fields shown
 * @param more how many fields are not shown
 * @param caption one line in the place of fields; empty: none
 * @param ends how many lines meet it on the side where most do, if it shows its name only; else 0
 * @param width in pixels at zoom 1
 */
public record Board(
    String title,
    String remark,
    boolean pinned,
    int area,
    List<Line> lines,
    int more,
    String caption,
    int ends,
    double width) {
  static final double WIDTH = 190;
  static final double KEYS_WIDTH = 146;
  static final double BRIEF_WIDTH = 118;
  static final double AREA_WIDTH = 150;
  public static final double HEAD = 28;
  public static final double LINE = 20;
  static final double FOOT = 8;
  static final int MOST_LINES = 7;

  /** As much room as a line that ends at a board needs. */
  private static final double END = 15;

  public Board {
    lines = List.copyOf(lines);
  }

  /** What becomes of a field where a change is shown. */
  public enum Mark {
    SAME,
    COMES,
    GOES
  }

  /** One field of a board. */
  public record Line(FieldId field, String tag, String name, String type, Mark mark) {}

  /** The same with those fields marked. */
  Board marked(Predicate<FieldId> which, Mark mark) {
    List<Line> all =
        lines.stream()
            .map(l -> which.test(l.field) ? new Line(l.field, l.tag, l.name, l.type, mark) : l)
            .toList();
    return new Board(title, remark, pinned, area, all, more, caption, ends, width);
  }

  /** How high it is, in pixels at zoom 1. */
  public double height() {
    if (isNamed()) {
      return Math.max(HEAD + 2 * FOOT, ends * END + FOOT);
    }
    return caption.isEmpty() ? full() : HEAD + LINE;
  }

  /** Whether it shows nothing but its name. */
  public boolean isNamed() {
    return ends > 0;
  }

  private double full() {
    return HEAD + lines.size() * LINE + (more > 0 ? LINE - 4 : 0) + FOOT;
  }

  /** The field at so many pixels below the upper edge. */
  public Optional<FieldId> fieldAt(double y) {
    int line = (int) Math.floor((y - HEAD) / LINE);
    return line >= 0 && line < lines.size()
        ? Optional.of(lines.get(line).field())
        : Optional.empty();
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
