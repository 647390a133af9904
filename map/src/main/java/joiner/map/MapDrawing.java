package joiner.map;

import java.util.Optional;
import java.util.function.Predicate;
import joiner.model.Multiplicity;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/**
 * Draws a layout. Only what is in sight is drawn, and letters are never smaller than can be read:
 * types go first, then fields, and names stay. The ends of lines are {@link Joints}.
 */
public final class MapDrawing {
  private static final double LEAST = MapLayout.LEAST_LETTERS;

  private final Pen pen;

  /** How large a pixel of the picture is on the map. */
  private final double pixel;

  private final Optional<TableId> table;
  private final Optional<RelationshipId> relationship;

  /**
   * A drawing.
   *
   * @param zoom pixels of the picture per pixel of the map
   * @param table that stands out, with its lines
   * @param relationship that stands out instead
   */
  public MapDrawing(
      Pen pen, double zoom, Optional<TableId> table, Optional<RelationshipId> relationship) {
    this.pen = pen;
    this.pixel = 1 / zoom;
    this.table = table;
    this.relationship = relationship;
  }

  /** Draws what is in sight of a layout. */
  public void draw(
      MapLayout layout, Predicate<MapLayout.Placed> boards, Predicate<MapLayout.Route> routes) {
    for (MapLayout.Route route : layout.routes().values()) {
      if (!standsOut(route) && routes.test(route)) {
        route(route, Ink.MUTED, 1);
      }
    }
    for (MapLayout.Route route : layout.routes().values()) {
      if (standsOut(route) && routes.test(route)) {
        route(route, Ink.SPRUCE, relationship.equals(Optional.of(route.id())) ? 2.4 : 1.6);
      }
    }
    for (MapLayout.Placed placed : layout.boards().values()) {
      if (boards.test(placed)) {
        board(placed);
      }
    }
  }

  private boolean standsOut(MapLayout.Route route) {
    return relationship.isPresent()
        ? relationship.get().equals(route.id())
        : table.filter(t -> t.equals(route.parent()) || t.equals(route.child())).isPresent();
  }

  private void route(MapLayout.Route route, Ink ink, double thick) {
    double[] points = route.points();
    if (points.length < 4) {
      return;
    }
    pen.line(ink, thick, points);
    Multiplicity ends = route.ends();
    int last = points.length - 2;
    Joints.draw(pen, points[0], points[1], -1, true, ends.parentRequired());
    double toChild = route.parent().equals(route.child()) ? -1 : 1;
    Joints.draw(
        pen, points[last], points[last + 1], toChild, ends.childUnique(), ends.childRequired());
  }

  /** What is drawn of a board depends on how large it is: never smaller letters. */
  private void board(MapLayout.Placed placed) {
    Board board = placed.board();
    boolean chosen = table.equals(Optional.of(board.id()));
    double x = placed.x();
    double y = placed.y();
    pen.fill(Ink.BOARD, x, y, board.width(), board.height());
    pen.fill(Ink.area(board.area()), x, y, board.width(), 4);
    pen.frame(chosen ? Ink.SPRUCE : Ink.LINE, chosen ? 2 : 1, x, y, board.width(), board.height());
    boolean lines = Board.LINE >= LEAST * pixel;
    if (!board.caption().isEmpty()) {
      left(true, board.title(), 13, Ink.TEXT, x + 10, y + 17, board.width() - 20);
      left(false, board.caption(), 12, Ink.MUTED, x + 10, y + 35, board.width() - 12);
    } else if (lines && !board.isNamed()) {
      head(board, x, y);
      lines(board, x, y);
    } else {
      named(board, x, y);
    }
  }

  private double size(double usual) {
    return Math.max(usual, LEAST * pixel);
  }

  private void head(Board board, double x, double y) {
    double remark = board.remark().isEmpty() ? 0 : pen.width(false, size(11), board.remark());
    boolean roomy =
        remark > 0 && pen.width(true, size(13), board.title()) + remark + 28 <= board.width();
    double most = board.width() - (roomy ? remark + 26 : 13);
    left(true, board.title(), size(13), Ink.TEXT, x + 10, y + 17, most);
    if (roomy) {
      right(board.remark(), x + board.width() - 10, y + 17, remark + 1);
    }
  }

  /** The name alone, on two lines if it must be, as far as it is not cut to nothing. */
  private void named(Board board, double x, double y) {
    double size = (LEAST + 1) * pixel;
    double most = board.width() - 8 * pixel;
    double middle = y + board.height() / 2 + 2;
    if (board.height() < size) {
      return; // The board is a mark of where a table lies; its name would cover others.
    }
    String title = board.title();
    int blank = title.indexOf(' ');
    boolean two = blank > 0 && pen.width(true, size, title) > most && board.height() > 2.2 * size;
    double begin = x + 5 * pixel;
    if (two) {
      double apart = size * 0.6;
      left(true, title.substring(0, blank), size, Ink.TEXT, begin, middle - apart, most);
      left(true, title.substring(blank + 1), size, Ink.TEXT, begin, middle + apart, most);
    } else {
      left(true, title, size, Ink.TEXT, begin, middle, most);
    }
  }

  private void lines(Board board, double x, double y) {
    double small = size(11);
    double middle = y + Board.HEAD + Board.LINE / 2;
    double tag = 10 + 1.8 * small;
    double room = board.width() - tag - 4;
    for (Board.Line line : board.lines()) {
      Ink of = line.tag().equals("PK") ? Ink.OAK : Ink.MUTED;
      left(true, line.tag(), small, of, x + 10, middle, 1.8 * small);
      Ink ink =
          switch (line.mark()) {
            case SAME -> Ink.TEXT;
            case COMES -> Ink.SPRUCE;
            case GOES -> Ink.BRICK;
          };
      double name = left(false, line.name(), size(12), ink, x + tag, middle, room);
      if (line.mark() == Board.Mark.GOES) {
        pen.line(ink, pixel, x + tag, middle, x + tag + name, middle);
      }
      double rest = room - name - small;
      if (rest >= Math.min(pen.width(false, small, line.type()), 5 * small)) {
        right(line.type(), x + board.width() - 10, middle, rest);
      }
      middle += Board.LINE;
    }
    if (board.more() > 0) {
      String more = "and " + board.more() + " more";
      left(false, more, small, Ink.MUTED, x + tag, middle - 2, room);
    }
  }

  /** Writes from the left, and tells how wide it became. */
  private double left(
      boolean bold, String text, double size, Ink ink, double x, double y, double most) {
    String fits = fitting(pen, bold, size, text, most);
    pen.text(ink, bold, size, x, y, fits);
    return pen.width(bold, size, fits);
  }

  private void right(String text, double x, double y, double most) {
    double size = size(11);
    String fits = fitting(pen, false, size, text, most);
    pen.text(Ink.MUTED, false, size, x - pen.width(false, size, fits), y, fits);
  }

  /** The text, or as much of its beginning as fits, with an ellipsis. */
  public static String fitting(Pen pen, boolean bold, double size, String text, double most) {
    if (pen.width(bold, size, text) <= most) {
      return text;
    }
    int low = 0;
    int high = text.length();
    while (low < high) {
      int middle = (low + high + 1) / 2;
      if (pen.width(bold, size, text.substring(0, middle) + "…") <= most) {
        low = middle;
      } else {
        high = middle - 1;
      }
    }
    return low == 0 ? "" : text.substring(0, low) + "…";
  }
}
