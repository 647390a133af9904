package joiner.desktop.map;

import java.util.Optional;
import java.util.function.Consumer;
import javafx.animation.AnimationTimer;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.Canvas;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Pane;
import joiner.desktop.work.Selection;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/**
 * The map: pan by dragging or with the arrow keys, zoom with the wheel or + and -, pick by
 * clicking.
 */
public final class MapView extends Pane {
  private static final double STEP = 60;
  private static final double NEAR = 6;

  private final Canvas canvas = new Canvas();
  private final MapColors colors = new MapColors(this::redraw);
  private final MapPainter painter = new MapPainter(canvas.getGraphicsContext2D(), colors);
  private final Consumer<Selection> picked;
  private MapLayout layout = MapLayout.EMPTY;
  private Viewport viewport = new Viewport(0, 0, 1, 0, 0);
  private Selection selection = Selection.NONE;
  private double pressedX;
  private double pressedY;
  private boolean dragged;
  private boolean fits = true;
  private boolean dirty;

  private final AnimationTimer painting =
      new AnimationTimer() {
        @Override
        public void handle(long now) {
          stop();
          dirty = false;
          paintNow();
        }
      };

  /** A map that tells what is picked. */
  public MapView(Consumer<Selection> picked) {
    this.picked = picked;
    getStyleClass().add("map-view");
    setFocusTraversable(true);
    setAccessibleRole(AccessibleRole.IMAGE_VIEW);
    setId("map");
    getChildren().addAll(canvas, colors.node());
    setOnMousePressed(this::press);
    setOnMouseDragged(this::drag);
    setOnMouseReleased(this::release);
    setOnScroll(this::scroll);
    setOnKeyPressed(this::key);
  }

  @Override
  protected void layoutChildren() {
    if (canvas.getWidth() != getWidth() || canvas.getHeight() != getHeight()) {
      canvas.setWidth(getWidth());
      canvas.setHeight(getHeight());
      viewport =
          fits
              ? Viewport.fitting(layout, getWidth(), getHeight())
              : viewport.sized(getWidth(), getHeight());
      redraw();
    }
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

  /** Draws at once instead of in the next frame. */
  public void paintNow() {
    if (getWidth() > 0) {
      painter.paint(layout, viewport, selection);
    }
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

  private void redraw() {
    if (!dirty) {
      dirty = true;
      painting.start();
    }
  }

  private void press(MouseEvent event) {
    requestFocus();
    pressedX = event.getX();
    pressedY = event.getY();
    dragged = false;
  }

  private void drag(MouseEvent event) {
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
    if (!dragged) {
      picked.accept(at(viewport.mapX(event.getX()), viewport.mapY(event.getY())));
    }
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
    switch (event.getCode()) {
      case LEFT -> pan(STEP, 0);
      case RIGHT -> pan(-STEP, 0);
      case UP -> pan(0, STEP);
      case DOWN -> pan(0, -STEP);
      case PLUS, ADD, EQUALS -> zoom(1.2);
      case MINUS, SUBTRACT -> zoom(1 / 1.2);
      case HOME -> fit();
      default -> {
        return;
      }
    }
    event.consume();
  }
}
