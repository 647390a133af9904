package joiner.desktop.map;

import java.util.Optional;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Paint;
import javafx.scene.text.TextAlignment;
import joiner.desktop.work.Selection;
import joiner.model.Multiplicity;

/**
 * Draws a layout. Only what is in sight is drawn, and letters are never smaller than can be read:
 * types go first, then fields, and names stay. The ends of a line are joints: a single tab for one,
 * a comb of three fingers for many; filled means required.
 */
final class MapPainter {
  private static final Letters BOLD = new Letters("IBM Plex Sans SemiBold");
  private static final Letters PLAIN = new Letters("IBM Plex Sans");

  private final GraphicsContext g;
  private final MapColors colors;

  MapPainter(GraphicsContext g, MapColors colors) {
    this.g = g;
    this.colors = colors;
  }

  void paint(MapLayout layout, Viewport view, Selection selection) {
    g.setTransform(1, 0, 0, 1, 0, 0);
    g.setFill(colors.paper());
    g.fillRect(0, 0, view.width(), view.height());
    g.setTransform(view.zoom(), 0, 0, view.zoom(), view.x(), view.y());
    g.setTextBaseline(VPos.CENTER);
    for (MapLayout.Route route : layout.routes().values()) {
      if (!touches(route, selection) && view.shows(route)) {
        route(route, colors.muted(), 1);
      }
    }
    for (MapLayout.Route route : layout.routes().values()) {
      if (touches(route, selection) && view.shows(route)) {
        boolean chosen = selection.relationship().equals(Optional.of(route.id()));
        route(route, colors.spruce(), chosen ? 2.4 : 1.6);
      }
    }
    for (MapLayout.Placed placed : layout.boards().values()) {
      if (view.shows(placed)) {
        board(placed, view, selection.table().equals(Optional.of(placed.board().id())));
      }
    }
  }

  /** A line from a board to where the mouse is. */
  void band(MapLayout.Placed from, Viewport view, double x, double y) {
    g.setTransform(view.zoom(), 0, 0, view.zoom(), view.x(), view.y());
    g.setStroke(colors.spruce());
    g.setLineWidth(2 / view.zoom());
    g.strokeRect(from.x(), from.y(), from.board().width(), from.board().height());
    double middleX = from.x() + from.board().width() / 2;
    double startX = x > middleX ? from.x() + from.board().width() : from.x();
    double startY = Math.clamp(y, from.y(), from.y() + from.board().height());
    g.strokeLine(startX, startY, x, y);
    double dot = 4 / view.zoom();
    g.setFill(colors.spruce());
    g.fillOval(x - dot, y - dot, 2 * dot, 2 * dot);
  }

  private static boolean touches(MapLayout.Route route, Selection selection) {
    return selection.relationship().isPresent()
        ? selection.relationship().get().equals(route.id())
        : selection
            .table()
            .filter(t -> t.equals(route.parent()) || t.equals(route.child()))
            .isPresent();
  }

  private void route(MapLayout.Route route, Paint paint, double width) {
    double[] points = route.points();
    if (points.length < 4) {
      return;
    }
    g.setStroke(paint);
    g.setLineWidth(width);
    g.beginPath();
    g.moveTo(points[0], points[1]);
    for (int i = 2; i < points.length; i += 2) {
      g.lineTo(points[i], points[i + 1]);
    }
    g.stroke();
    Multiplicity ends = route.ends();
    int last = points.length - 2;
    Joints.draw(g, colors, points[0], points[1], -1, true, ends.parentRequired());
    double toChild = route.parent().equals(route.child()) ? -1 : 1;
    Joints.draw(
        g,
        colors,
        points[last],
        points[last + 1],
        toChild,
        ends.childUnique(),
        ends.childRequired());
  }

  /** What is drawn of a board depends on how large it is in the window: never smaller letters. */
  private void board(MapLayout.Placed placed, Viewport view, boolean chosen) {
    Board board = placed.board();
    double x = placed.x();
    double y = placed.y();
    g.setFill(colors.board());
    g.fillRect(x, y, board.width(), board.height());
    g.setFill(colors.area(board.area()));
    g.fillRect(x, y, board.width(), 4);
    g.setStroke(chosen ? colors.spruce() : colors.line());
    g.setLineWidth(chosen ? 2 : 1);
    g.strokeRect(x, y, board.width(), board.height());
    double pixel = 1 / view.zoom();
    boolean lines = Board.LINE >= Letters.LEAST * pixel;
    if (!board.caption().isEmpty()) {
      left(BOLD, board.title(), 13, colors.ink(), x + 10, y + 17, board.width() - 20);
      left(PLAIN, board.caption(), 12, colors.muted(), x + 10, y + 35, board.width() - 12);
    } else if (lines && !board.isNamed()) {
      double size = Math.max(13, Letters.LEAST * pixel);
      double small = Math.max(Letters.LEAST, Letters.LEAST * pixel);
      double remark = board.remark().isEmpty() ? 0 : PLAIN.width(board.remark(), small);
      boolean roomy = BOLD.width(board.title(), size) + remark + 28 <= board.width() && remark > 0;
      left(
          BOLD,
          board.title(),
          size,
          colors.ink(),
          x + 10,
          y + 17,
          board.width() - (roomy ? remark + 26 : 13));
      if (roomy) {
        right(board.remark(), small, x + board.width() - 10, y + 17, remark + 1);
      }
      lines(board, x, y, pixel);
    } else {
      named(board, x, y, pixel);
    }
  }

  /** The name alone, on two lines if it must be, as far as it is not cut to nothing. */
  private void named(Board board, double x, double y, double pixel) {
    double size = (Letters.LEAST + 1) * pixel;
    double most = board.width() - 8 * pixel;
    double middle = y + board.height() / 2 + 2;
    if (board.height() < size) {
      return; // The board is a mark of where a table lies; its name would cover others.
    }
    String title = board.title();
    int blank = title.indexOf(' ');
    boolean two = blank > 0 && BOLD.width(title, size) > most && board.height() > 2.2 * size;
    if (two) {
      String first = title.substring(0, blank);
      left(BOLD, first, size, colors.ink(), x + 5 * pixel, middle - size * 0.6, most);
      left(
          BOLD,
          title.substring(blank + 1),
          size,
          colors.ink(),
          x + 5 * pixel,
          middle + size * 0.6,
          most);
    } else {
      left(BOLD, title, size, colors.ink(), x + 5 * pixel, middle, most);
    }
  }

  private void lines(Board board, double x, double y, double pixel) {
    double plain = Math.max(12, Letters.LEAST * pixel);
    double small = Math.max(Letters.LEAST, Letters.LEAST * pixel);
    double middle = y + Board.HEAD + Board.LINE / 2;
    double tag = 10 + 1.8 * small;
    double room = board.width() - tag - 4;
    for (Board.Line line : board.lines()) {
      Paint of = line.tag().equals("PK") ? colors.oak() : colors.muted();
      left(BOLD, line.tag(), small, of, x + 10, middle, 1.8 * small);
      Paint paint =
          switch (line.mark()) {
            case SAME -> colors.ink();
            case COMES -> colors.spruce();
            case GOES -> colors.brick();
          };
      double name = left(PLAIN, line.name(), plain, paint, x + tag, middle, room);
      if (line.mark() == Board.Mark.GOES) {
        g.setStroke(paint);
        g.setLineWidth(pixel);
        g.strokeLine(x + tag, middle, x + tag + name, middle);
      }
      double left = room - name - small;
      if (left >= Math.min(PLAIN.width(line.type(), small), 5 * small)) {
        right(line.type(), small, x + board.width() - 10, middle, left);
      }
      middle += Board.LINE;
    }
    if (board.more() > 0) {
      String more = "and " + board.more() + " more";
      left(PLAIN, more, small, colors.muted(), x + tag, middle - 2, board.width() - tag - 4);
    }
  }

  /** Writes from the left, and tells how wide it became. */
  private double left(
      Letters letters, String text, double size, Paint paint, double x, double y, double most) {
    String fits = letters.fitting(text, size, most);
    g.setFont(letters.font(size));
    g.setFill(paint);
    g.setTextAlign(TextAlignment.LEFT);
    g.fillText(fits, x, y);
    return letters.width(fits, size);
  }

  private void right(String text, double size, double x, double y, double most) {
    g.setFont(PLAIN.font(size));
    g.setFill(colors.muted());
    g.setTextAlign(TextAlignment.RIGHT);
    g.fillText(PLAIN.fitting(text, size, most), x, y);
  }
}
