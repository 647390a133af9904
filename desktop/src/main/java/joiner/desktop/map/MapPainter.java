package joiner.desktop.map;

import java.util.Optional;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Paint;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;
import joiner.desktop.work.Selection;
import joiner.model.Multiplicity;

/**
 * Draws a layout. Only what is in sight is drawn; field lines only where they can be read. The ends
 * of a line are joints: a single tab for one, a comb of three fingers for many; filled means
 * required.
 */
final class MapPainter {
  /** Below this zoom a board shows its name only. */
  private static final double LINES_FROM = 0.5;

  private static final Font TITLE = Font.font("IBM Plex Sans SemiBold", 13);
  private static final Font TEXT = Font.font("IBM Plex Sans", 12);
  private static final Font SMALL = Font.font("IBM Plex Sans", 11);
  private static final Font TAG = Font.font("IBM Plex Sans SemiBold", 10);

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
    joint(points[0], points[1], -1, true, ends.parentRequired());
    double toChild = route.parent().equals(route.child()) ? -1 : 1;
    joint(points[last], points[last + 1], toChild, ends.childUnique(), ends.childRequired());
  }

  /** Draws the joint between a line's end and the board that lies in that direction. */
  private void joint(double x, double y, double direction, boolean single, boolean filled) {
    double left = direction > 0 ? x : x - 10;
    g.setLineWidth(1);
    g.setStroke(colors.ink());
    g.setFill(filled ? colors.ink() : colors.board());
    if (single) {
      piece(direction > 0 ? left + 3 : left, y - 5, 7, 10);
      return;
    }
    for (int finger = -1; finger <= 1; finger++) {
      piece(left, y - 2 + finger * 6, 10, 4);
    }
  }

  private void piece(double x, double y, double width, double height) {
    g.fillRect(x, y, width, height);
    g.strokeRect(x, y, width, height);
  }

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
    boolean readable = view.zoom() >= LINES_FROM;
    text(
        board.title(),
        readable ? TITLE : Font.font("IBM Plex Sans SemiBold", 22),
        colors.ink(),
        x + 10,
        y + (readable ? 17 : board.height() / 2),
        board.width() - (board.remark().isEmpty() ? 20 : 76));
    if (!board.caption().isEmpty()) {
      text(board.caption(), TEXT, colors.muted(), x + 10, y + 35, board.width() - 12);
    } else if (readable) {
      right(board.remark(), SMALL, x + board.width() - 10, y + 17);
      lines(board, x, y);
    }
  }

  private void lines(Board board, double x, double y) {
    double middle = y + Board.HEAD + Board.LINE / 2;
    for (Board.Line line : board.lines()) {
      text(
          line.tag(),
          TAG,
          line.tag().equals("PK") ? colors.oak() : colors.muted(),
          x + 10,
          middle,
          22);
      text(line.name(), TEXT, colors.ink(), x + 34, middle, 86);
      right(line.type(), SMALL, x + board.width() - 10, middle);
      middle += Board.LINE;
    }
    if (board.more() > 0) {
      text("and " + board.more() + " more", SMALL, colors.muted(), x + 34, middle - 2, 120);
    }
  }

  private void text(String text, Font font, Paint paint, double x, double y, double most) {
    g.setFont(font);
    g.setFill(paint);
    g.setTextAlign(TextAlignment.LEFT);
    g.fillText(shortened(text, font, most), x, y);
  }

  private void right(String text, Font font, double x, double y) {
    g.setFont(font);
    g.setFill(colors.muted());
    g.setTextAlign(TextAlignment.RIGHT);
    g.fillText(shortened(text, font, 78), x, y);
  }

  /** Cuts a text that is certainly too long; the width of a letter is taken as half its size. */
  private static String shortened(String text, Font font, double most) {
    int fits = (int) (most / (font.getSize() * 0.52));
    return text.length() <= fits ? text : text.substring(0, Math.max(1, fits - 1)) + "…";
  }
}
