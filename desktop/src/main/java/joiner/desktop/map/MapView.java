package joiner.desktop.map;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.scene.AccessibleRole;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import joiner.desktop.work.Selection;
import joiner.map.Board;
import joiner.map.MapDrawing;
import joiner.map.MapLayout;
import joiner.map.Spot;
import joiner.model.AreaId;
import joiner.model.FieldId;
import joiner.model.Pin;
import joiner.model.RelationshipId;
import joiner.model.TableId;

/**
 * The map: pan by dragging the paper, zoom with the wheel or + and -, pick by clicking or walk with
 * the arrow keys; a board dragged to another relates the two, as does R, and Enter at the other; W
 * asks for the ways to another. With Ctrl a board is moved and pinned, P pins it or lets it go, F
 * folds its area, H takes it off.
 */
public final class MapView extends Drawn {
  private static final double STEP = 60;
  private static final double NEAR = 6;

  /** How far a board is moved by a key at least. */
  private static final double LEAST_STEP = 40;

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

  /** Whether the board that is dragged is to be pinned where it is let go. */
  private boolean moves;

  private boolean fits = true;

  /** What the other of two boards is to be picked for, where a key took the first. */
  private Optional<Purpose> picking = Optional.empty();

  private Set<TableId> found = Set.of();

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
    default void picking(TableId from, Purpose purpose) {}

    /** Shows only what leads from one table to the other. */
    default void ways(TableId from, TableId to) {}

    /** Folds an area to one board, or unfolds it. */
    default void fold(AreaId area, boolean folds) {}

    /** Folds the area of a table, or unfolds it. */
    default void foldOrUnfold(TableId table) {}

    /** Wants a board at a place of the map. */
    default void pin(TableId table, Pin at) {}

    /** Wants a board wherever it falls, if it is pinned. */
    default boolean unpin(TableId table) {
      return false;
    }

    /** Takes a table off the map. */
    default void hide(TableId table) {}
  }

  /** What two boards are picked for, one after the other. */
  public enum Purpose {
    RELATE,
    WAYS
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
        "Map of " + layout.tables() + " tables and " + layout.relationships() + " relationships");
    redraw();
  }

  /** Marks what is chosen. */
  public void mark(Selection chosen) {
    selection = chosen;
    redraw();
  }

  /** Marks tables that are looked for, and brings the first into sight. */
  public void find(List<TableId> tables) {
    found = Set.copyOf(tables);
    tables.stream().findFirst().ifPresent(this::reveal);
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
    var emphasis = new MapDrawing.Emphasis(selection.table(), selection.relationship(), found);
    painter().paint(layout, viewport, emphasis);
    from.map(end -> layout.boards().get(end.table()))
        .filter(board -> dragged)
        .ifPresent(board -> painter().band(board, viewport, towardsX, towardsY));
  }

  /** Middle of a table's board in this node's coordinates, if the table is shown. */
  public Optional<javafx.geometry.Point2D> middleOf(TableId table) {
    return layout
        .placeOf(table)
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
    moves = event.isControlDown();
    if (picking.isEmpty()) {
      from = deeds.relates() ? end(event) : Optional.empty();
    }
  }

  /** The board under the mouse, and the field if there is one. */
  private Optional<End> end(MouseEvent event) {
    double x = viewport.mapX(event.getX());
    double y = viewport.mapY(event.getY());
    return boardAt(x, y)
        .flatMap(
            placed ->
                placed
                    .spot()
                    .asTable()
                    .map(table -> new End(table, placed.board().fieldAt(y - placed.y()))));
  }

  private Optional<MapLayout.Placed> boardAt(double x, double y) {
    return layout.everything().filter(placed -> placed.holds(x, y)).findFirst();
  }

  private void drag(MouseEvent event) {
    if (from.isPresent() && picking.isEmpty()) {
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
    Purpose purpose = picking.orElse(Purpose.RELATE);
    boolean taken = picking.isPresent() && !dragged || dragged && start.isPresent();
    boolean pulled = dragged;
    if (taken || picking.isEmpty()) {
      endPicking();
    }
    if (pulled && moves && start.isPresent()) {
      pinAt(start.get().table(), viewport.mapX(event.getX()), viewport.mapY(event.getY()));
    } else if (taken && start.isPresent() && to.isPresent()) {
      picked(purpose, start.get(), to.get());
    } else if (!pulled) {
      click(viewport.mapX(event.getX()), viewport.mapY(event.getY()));
    }
  }

  private void picked(Purpose purpose, End start, End to) {
    switch (purpose) {
      case RELATE -> deeds.relate(start, to);
      case WAYS -> deeds.ways(start.table(), to.table());
    }
  }

  private void click(double x, double y) {
    Optional<Spot> spot = boardAt(x, y).map(MapLayout.Placed::spot);
    Optional<AreaId> head =
        layout.regions().stream()
            .filter(region -> region.isHeadAt(x, y))
            .map(MapLayout.Region::area)
            .findFirst();
    if (spot.orElse(null) instanceof Spot.OfArea(AreaId folded)) {
      deeds.fold(folded, false);
    } else if (spot.isEmpty() && head.isPresent()) {
      deeds.fold(head.get(), true);
    } else {
      deeds.pick(spot.flatMap(Spot::asTable).map(Selection::of).orElseGet(() -> lineAt(x, y)));
    }
  }

  private void endPicking() {
    from = Optional.empty();
    picking = Optional.empty();
    dragged = false;
    redraw();
  }

  private Selection lineAt(double x, double y) {
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
    if (event.isControlDown() && !event.isAltDown()) {
      movePinned(event);
      return;
    }
    if (event.isAltDown() || event.isMetaDown()) {
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
      case R -> pickOther(Purpose.RELATE);
      case W -> pickOther(Purpose.WAYS);
      case P -> pinHere();
      case F -> here().ifPresent(deeds::foldOrUnfold);
      case H -> selection.table().filter(layout.boards()::containsKey).ifPresent(deeds::hide);
      case ESCAPE -> {
        if (picking.isEmpty()) {
          return;
        }
        endPicking();
      }
      default -> {
        return;
      }
    }
    event.consume();
  }

  /** With Ctrl the arrows move the chosen board, which is pinned then. */
  private void movePinned(KeyEvent event) {
    double dx = event.getCode() == KeyCode.LEFT ? -1 : event.getCode() == KeyCode.RIGHT ? 1 : 0;
    double dy = event.getCode() == KeyCode.UP ? -1 : event.getCode() == KeyCode.DOWN ? 1 : 0;
    if (dx != 0 || dy != 0) {
      shown()
          .ifPresent(
              board -> {
                pinMoved(board, dx, dy);
                event.consume();
              });
    }
  }

  /** The board of the chosen table, where it has one of its own. */
  private Optional<MapLayout.Placed> shown() {
    return selection.table().map(layout.boards()::get);
  }

  /** Pins the board of the chosen table so many of its sizes from where it is. */
  private void pinMoved(MapLayout.Placed placed, double dx, double dy) {
    Board size = placed.board();
    pinAt(
        selection.table().orElseThrow(),
        placed.x() + size.width() / 2 + dx * size.width() * 1.5,
        placed.y() + size.height() / 2 + dy * (size.height() + LEAST_STEP));
  }

  private void pinAt(TableId table, double x, double y) {
    if (layout.boards().containsKey(table)) {
      deeds.pin(table, layout.pin(table, x, y));
    }
  }

  /** Pins the chosen board where it is, or lets it go. */
  private void pinHere() {
    shown()
        .filter(board -> !deeds.unpin(selection.table().orElseThrow()))
        .ifPresent(board -> pinMoved(board, 0, 0));
  }

  private void go(boolean pans, double dx, double dy, Walk.Way way) {
    if (pans) {
      pan(dx, dy);
      return;
    }
    Walk.from(layout, selection.table(), way).ifPresent(table -> deeds.pick(Selection.of(table)));
  }

  private void enter() {
    Optional<TableId> here = here();
    Optional<End> start = from.filter(end -> picking.isPresent());
    if (start.isPresent() && here.isPresent()) {
      Purpose purpose = picking.orElseThrow();
      endPicking();
      picked(purpose, start.get(), new End(here.get(), Optional.empty()));
    } else {
      here.ifPresent(deeds::open);
    }
  }

  /** The chosen table, if it is on the map. */
  private Optional<TableId> here() {
    return selection.table().filter(table -> layout.placeOf(table).isPresent());
  }

  /** Takes the chosen table as the first of two. */
  public void pickOther(Purpose purpose) {
    Optional<TableId> here = here();
    if (deeds.relates() && here.isPresent()) {
      from = Optional.of(new End(here.get(), Optional.empty()));
      picking = Optional.of(purpose);
      deeds.picking(here.get(), purpose);
    }
  }
}
