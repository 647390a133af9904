package joiner.desktop.map;

import java.util.Optional;
import javafx.scene.AccessibleRole;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import joiner.desktop.work.Selection;
import joiner.map.Board;
import joiner.map.MapLayout;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/**
 * The map: pan by dragging the paper, zoom with the wheel or + and -, pick by clicking or walk with
 * the arrow keys; a board dragged to another relates the two, as does R, and Enter at the other.
 */
public final class MapView extends Drawn {
  private static final double STEP = 60;
  private static final double NEAR = 6;

  private final Deeds deeds;
  private Optional<End> from = Optional.empty();
  private double towardsX;
  private double towardsY;
  private MapLayout layout = MapLayout.EMPTY;
  private Viewport viewport = new Viewport(0, 0, 1, 0, 0);
  private Selection selection = Selection.NONE;
  private double pressedX;
  private double pressedY;
  private boolean dragged;
  private boolean fits = true;

  /** Whether the first of two boards was taken by a key. */
  private boolean isPickingOther;

  /**
   * An end of a relationship that is to be.
   *
   * @param field the one that was pointed at; empty for the table as a whole
   */
  public record End(TableId table, Optional<FieldId> field) {}

  /** What is done on a map. */
  public interface Deeds {
    /** Chooses something. */
    void pick(Selection selection);

    /** Opens a table. */
    default void open(TableId table) {}

    /** Whether two boards can be related here. */
    default boolean relates() {
      return false;
    }

    /** Relates two boards, from the one dragged to the one it was let go on. */
    default void relate(End from, End to) {}

    /** Tells that the first of two boards is taken; the other is to be picked. */
    default void relating(TableId from) {}
  }

  /** A map that tells what is done on it. */
  public MapView(Deeds deeds) {
    super("map", AccessibleRole.IMAGE_VIEW);
    this.deeds = deeds;
    setOnMousePressed(this::press);
    setOnMouseDragged(this::drag);
    setOnMouseReleased(this::release);
    setOnScroll(this::scroll);
    setOnKeyPressed(this::key);
  }

  @Override
  void resized() {
    viewport =
        fits
            ? Viewport.fitting(layout, getWidth(), getHeight())
            : viewport.sized(getWidth(), getHeight());
  }

  /** Shows another layout, as a whole. */
  public void show(MapLayout other) {
    layout = other;
    fits = true;
    viewport = Viewport.fitting(layout, getWidth(), getHeight());
    setAccessibleText(
        "Map of "
            + layout.boards().size()
            + " tables and "
            + layout.routes().size()
            + " relationships");
    redraw();
  }

  /** Marks what is chosen. */
  public void mark(Selection chosen) {
    selection = chosen;
    redraw();
  }

  /** The layout shown. */
  public MapLayout layoutShown() {
    return layout;
  }

  /** Moves the map by that many pixels. */
  public void pan(double dx, double dy) {
    fits = false;
    viewport = viewport.moved(dx, dy);
    redraw();
  }

  /** Shows everything. */
  public void fit() {
    show(layout);
  }

  @Override
  void paint() {
    painter().paint(layout, viewport, selection);
    from.map(end -> layout.boards().get(end.table()))
        .filter(board -> dragged)
        .ifPresent(board -> painter().band(board, viewport, towardsX, towardsY));
  }

  /** Middle of a table's board in this node's coordinates, if the table is shown. */
  public Optional<javafx.geometry.Point2D> middleOf(TableId table) {
    return Optional.ofNullable(layout.boards().get(table))
        .map(
            placed ->
                new javafx.geometry.Point2D(
                    (placed.x() + placed.board().width() / 2) * viewport.zoom() + viewport.x(),
                    (placed.y() + Board.HEAD / 2) * viewport.zoom() + viewport.y()));
  }

  /** Brings a table into sight if it is out of it. */
  public void reveal(TableId table) {
    middleOf(table)
        .filter(
            at ->
                at.getX() < 0 || at.getX() > getWidth() || at.getY() < 0 || at.getY() > getHeight())
        .ifPresent(at -> pan(getWidth() / 2 - at.getX(), getHeight() / 2 - at.getY()));
  }

  private void press(MouseEvent event) {
    requestFocus();
    pressedX = event.getX();
    pressedY = event.getY();
    dragged = false;
    if (!isPickingOther) {
      from = deeds.relates() ? end(event) : Optional.empty();
    }
  }

  /** The board under the mouse, and the field if there is one. */
  private Optional<End> end(MouseEvent event) {
    double x = viewport.mapX(event.getX());
    double y = viewport.mapY(event.getY());
    return layout.boards().values().stream()
        .filter(placed -> placed.holds(x, y))
        .findFirst()
        .map(placed -> new End(placed.board().id(), placed.board().fieldAt(y - placed.y())));
  }

  private void drag(MouseEvent event) {
    if (from.isPresent() && !isPickingOther) {
      dragged = dragged || Math.hypot(event.getX() - pressedX, event.getY() - pressedY) > 4;
      towardsX = viewport.mapX(event.getX());
      towardsY = viewport.mapY(event.getY());
      redraw();
      return;
    }
    double dx = event.getX() - pressedX;
    double dy = event.getY() - pressedY;
    if (dragged || Math.hypot(dx, dy) > 4) {
      dragged = true;
      pan(dx, dy);
      pressedX = event.getX();
      pressedY = event.getY();
    }
  }

  private void release(MouseEvent event) {
    Optional<End> start = from;
    Optional<End> to = end(event);
    boolean taken = isPickingOther && !dragged || dragged && start.isPresent();
    boolean pulled = dragged;
    if (taken || !isPickingOther) {
      endRelating();
    }
    if (taken && start.isPresent() && to.isPresent()) {
      deeds.relate(start.get(), to.get());
    } else if (!pulled) {
      deeds.pick(at(viewport.mapX(event.getX()), viewport.mapY(event.getY())));
    }
  }

  private void endRelating() {
    from = Optional.empty();
    isPickingOther = false;
    dragged = false;
    redraw();
  }

  private Selection at(double x, double y) {
    for (MapLayout.Placed placed : layout.boards().values()) {
      if (placed.holds(x, y)) {
        return Selection.of(placed.board().id());
      }
    }
    for (MapLayout.Route route : layout.routes().values()) {
      if (distance(route.points(), x, y) <= NEAR / viewport.zoom()) {
        RelationshipId id = route.id();
        return Selection.of(route.child(), id);
      }
    }
    return Selection.NONE;
  }

  /** Distance from a place to a line made of straight pieces. */
  private static double distance(double[] points, double x, double y) {
    double least = Double.MAX_VALUE;
    for (int i = 0; i + 3 < points.length; i += 2) {
      double nearestX =
          Math.clamp(x, Math.min(points[i], points[i + 2]), Math.max(points[i], points[i + 2]));
      double nearestY =
          Math.clamp(
              y, Math.min(points[i + 1], points[i + 3]), Math.max(points[i + 1], points[i + 3]));
      least = Math.min(least, Math.hypot(x - nearestX, y - nearestY));
    }
    return least;
  }

  private void scroll(ScrollEvent event) {
    zoom(Math.exp(event.getDeltaY() * 0.002), event.getX(), event.getY());
  }

  /** Makes the map larger or smaller around its middle. */
  public void zoom(double factor) {
    zoom(factor, getWidth() / 2, getHeight() / 2);
  }

  private void zoom(double factor, double x, double y) {
    fits = false;
    viewport = viewport.zoomed(factor, x, y);
    redraw();
  }

  private void key(KeyEvent event) {
    if (event.isControlDown() || event.isAltDown() || event.isMetaDown()) {
      return;
    }
    boolean pans = event.isShiftDown();
    switch (event.getCode()) {
      case LEFT -> go(pans, STEP, 0, Walk.Way.LEFT);
      case RIGHT -> go(pans, -STEP, 0, Walk.Way.RIGHT);
      case UP -> go(pans, 0, STEP, Walk.Way.UP);
      case DOWN -> go(pans, 0, -STEP, Walk.Way.DOWN);
      case PLUS, ADD, EQUALS -> zoom(1.2);
      case MINUS, SUBTRACT -> zoom(1 / 1.2);
      case HOME, DIGIT0, NUMPAD0 -> fit();
      case ENTER -> enter();
      case R -> relateFromHere();
      case ESCAPE -> {
        if (!isPickingOther) {
          return;
        }
        endRelating();
      }
      default -> {
        return;
      }
    }
    event.consume();
  }

  private void go(boolean pans, double dx, double dy, Walk.Way way) {
    if (pans) {
      pan(dx, dy);
      return;
    }
    Walk.from(layout, selection.table(), way).ifPresent(table -> deeds.pick(Selection.of(table)));
  }

  private void enter() {
    Optional<TableId> here = selection.table().filter(layout.boards()::containsKey);
    Optional<End> start = from.filter(end -> isPickingOther);
    if (start.isPresent() && here.isPresent()) {
      endRelating();
      deeds.relate(start.get(), new End(here.get(), Optional.empty()));
    } else {
      here.ifPresent(deeds::open);
    }
  }

  private void relateFromHere() {
    Optional<TableId> here = selection.table().filter(layout.boards()::containsKey);
    if (deeds.relates() && here.isPresent()) {
      from = Optional.of(new End(here.get(), Optional.empty()));
      isPickingOther = true;
      deeds.relating(here.get());
    }
  }
}
