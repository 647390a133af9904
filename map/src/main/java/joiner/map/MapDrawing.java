package joiner.map;

import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import joiner.model.AreaId;
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

  private final Emphasis emphasis;

  /**
   * What stands out.
   *
   * @param table one, with its lines
   * @param relationship one instead
   * @param found tables that are looked for
   */
  public record Emphasis(
      Optional<TableId> table, Optional<RelationshipId> relationship, Set<TableId> found) {
    public Emphasis {
      found = Set.copyOf(found);
    }

    /** Nothing. */
    public static final Emphasis NONE = new Emphasis(Optional.empty(), Optional.empty(), Set.of());
  }

  /**
   * A drawing.
   *
   * @param zoom pixels of the picture per pixel of the map
   */
  public MapDrawing(Pen pen, double zoom, Emphasis emphasis) {
    this.pen = pen;
    this.pixel = 1 / zoom;
    this.emphasis = emphasis;
  }

  /** Draws what is in sight of a layout. */
  public void draw(
      MapLayout layout, Predicate<MapLayout.Placed> boards, Predicate<double[]> lines) {
    layout.regions().forEach(this::region);
    Optional<Spot> chosen = emphasis.table.flatMap(layout::placeOf).map(MapLayout.Placed::spot);
    Set<Spot> found =
        emphasis.found.stream()
            .flatMap(one -> layout.placeOf(one).stream())
            .map(MapLayout.Placed::spot)
            .collect(Collectors.toSet());
    for (MapLayout.Bundle bundle : layout.bundles()) {
      if (lines.test(bundle.points())) {
        bundle(bundle, chosen);
      }
    }
    for (MapLayout.Route route : layout.routes().values()) {
      if (!standsOut(route) && lines.test(route.points())) {
        route(route, Ink.MUTED, 1);
      }
    }
    for (MapLayout.Route route : layout.routes().values()) {
      if (standsOut(route) && lines.test(route.points())) {
        route(route, Ink.SPRUCE, emphasis.relationship.equals(Optional.of(route.id())) ? 2.4 : 1.6);
      }
    }
    layout.everything().filter(boards).forEach(placed -> board(placed, chosen, found));
    layout.regions().forEach(this::nameOf);
  }

  private void region(MapLayout.Region region) {
    Ink hue = Ink.area(region.hue());
    pen.tint(hue, region.x(), region.y(), region.width(), region.height());
    pen.frame(hue, pixel, region.x(), region.y(), region.width(), region.height());
  }

  /** The name of an area on its rim; across it where its boards are too small for their names. */
  private void nameOf(MapLayout.Region region) {
    double size = size(13);
    double most = region.width() - 20;
    if (size <= LayoutKernel.REGION_HEAD - 4) {
      double y = region.y() + LayoutKernel.REGION_HEAD / 2;
      left(true, region.name(), size, Ink.area(region.hue()), region.x() + 12, y, most);
    } else if (region.height() >= 1.4 * size) {
      double larger = Math.min(1.6 * size, region.height() / 1.4);
      double width = Math.min(most, pen.width(true, larger, region.name()) + larger);
      double middle = region.y() + region.height() / 2;
      double x = region.x() + (region.width() - width) / 2;
      pen.fill(Ink.PAPER, x, middle - 0.7 * larger, width, 1.4 * larger);
      left(true, region.name(), larger, Ink.TEXT, x + larger / 2, middle, width);
    }
  }

  private void bundle(MapLayout.Bundle bundle, Optional<Spot> chosen) {
    double[] points = bundle.points();
    if (points.length < 4) {
      return;
    }
    boolean standsOut =
        emphasis.relationship.isPresent()
            ? bundle.all().contains(emphasis.relationship.get())
            : chosen.filter(c -> c.equals(bundle.parent()) || c.equals(bundle.child())).isPresent();
    Ink ink = standsOut ? Ink.SPRUCE : Ink.MUTED;
    int count = bundle.all().size();
    pen.line(ink, standsOut ? 2.4 : Math.min(4, 1 + count / 4.0), points);
    String words = String.valueOf(count);
    double size = size(11);
    double width = pen.width(false, size, words);
    int last = points.length - 2;
    double x = points[last] - width - 8;
    pen.fill(Ink.PAPER, x - 2, points[last + 1] - size / 2, width + 4, size);
    pen.text(ink, false, size, x, points[last + 1], words);
  }

  private boolean standsOut(MapLayout.Route route) {
    return emphasis.relationship.isPresent()
        ? emphasis.relationship.get().equals(route.id())
        : emphasis
            .table
            .filter(t -> t.equals(route.parent()) || t.equals(route.child()))
            .isPresent();
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
  private void board(MapLayout.Placed placed, Optional<Spot> spot, Set<Spot> found) {
    Board board = placed.board();
    boolean elsewhere = placed.spot() instanceof Spot.StandIn;
    boolean chosen =
        spot.equals(Optional.of(placed.spot()))
            || placed.spot() instanceof Spot.StandIn(TableId of, AreaId in)
                && emphasis.table.equals(Optional.of(of));
    double x = placed.x();
    double y = placed.y();
    if (placed.spot() instanceof Spot.OfArea) {
      for (double behind : new double[] {6, 3}) {
        pen.fill(Ink.BOARD, x + behind, y + behind, board.width(), board.height());
        pen.frame(Ink.LINE, 1, x + behind, y + behind, board.width(), board.height());
      }
    }
    pen.fill(elsewhere ? Ink.PAPER : Ink.BOARD, x, y, board.width(), board.height());
    pen.fill(Ink.area(board.area()), x, y, board.width(), 4);
    if (board.pinned()) {
      double side = 7 * Math.max(1, pixel);
      pen.fill(Ink.OAK, x + board.width() - side, y, side, side);
    }
    boolean isFound = found.contains(placed.spot());
    Ink frame = chosen ? Ink.SPRUCE : isFound ? Ink.OAK : Ink.LINE;
    pen.frame(frame, chosen || isFound ? 2 : 1, x, y, board.width(), board.height());
    if (isFound) {
      pen.frame(Ink.OAK, 2 * pixel, x - 4, y - 4, board.width() + 8, board.height() + 8);
    }
    boolean lines = Board.LINE >= LEAST * pixel;
    if (!board.caption().isEmpty() && !lines) {
      named(board, x, y);
    } else if (!board.caption().isEmpty()) {
      double most = board.width() - 14;
      left(true, board.title(), size(13), Ink.TEXT, x + 10, y + 15, most);
      left(false, board.caption(), size(11.5), Ink.MUTED, x + 10, y + 35, most);
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
