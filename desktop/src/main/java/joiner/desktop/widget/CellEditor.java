package joiner.desktop.widget;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.IntConsumer;
import java.util.function.Predicate;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.TraversalDirection;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;

/**
 * A table one can type through: a cursor stands on one cell, and one text field lies over the cell
 * being typed in. The field is there before the first letter goes on its way, and it outlives the
 * cells beneath, which a table makes and drops as it likes: so no letter is lost.
 *
 * <p>The arrow keys and Tab move the cursor, over the ends of rows too; Ctrl+Tab leaves the table.
 * A letter, F2, Enter or a second click begin; Enter, Tab or leaving keep what is typed, Escape
 * does not. Ctrl+D takes what stands above.
 *
 * @param <S> what a row shows
 */
public final class CellEditor<S> extends Region {
  /**
   * A column the cursor goes to.
   *
   * @param open whether it can be changed in a row
   * @param text what it shows
   * @param change takes a text for it
   * @param deed what is done there instead of typing, if so
   * @param switches whether that is no more than a switch
   */
  private record Column<S>(
      TableColumn<S, ?> column,
      Predicate<S> open,
      Function<S, String> text,
      BiConsumer<S, String> change,
      Optional<Deed<S>> deed,
      boolean switches) {}

  /** What is done in a cell that is not typed in. */
  public interface Deed<S> {
    /**
     * Does it.
     *
     * @param cell the cell, for what opens beside it
     * @param letter the letter it began with; empty: another key
     */
    void at(Node cell, S thing, String letter);
  }

  /** The cell being typed in; the row's thing as it was when typing began. */
  private record Place<S>(int row, S thing, Column<S> column) {}

  private final TableView<S> grid;
  private final FrozenColumns<S> frozen;
  private final TextField field = new TextField();
  private final Region cursor = new Region();
  private final List<Column<S>> columns = new ArrayList<>();
  private final Runnable follow = this::followCursor;
  private Optional<Place<S>> place = Optional.empty();
  private Optional<TableColumn<S, ?>> standing = Optional.empty();
  private Optional<TableColumn<S, ?>> home = Optional.empty();
  private Optional<TableColumn<S, ?>> passedOver = Optional.empty();
  private BooleanSupplier pastEnd = () -> false;
  private Optional<Consumer<String>> pasted = Optional.empty();
  private Runnable deleted = () -> {};
  private IntConsumer moved = by -> {};

  /** Puts the grid into itself. */
  public CellEditor(TableView<S> grid) {
    this.grid = grid;
    this.frozen = new FrozenColumns<>(grid);
    field.setManaged(false);
    field.setVisible(false);
    field.getStyleClass().add("cell-editor");
    cursor.setManaged(false);
    cursor.setVisible(false);
    cursor.setMouseTransparent(true);
    cursor.getStyleClass().add("cell-cursor");
    getChildren().setAll(grid, cursor, field);
    grid.addEventHandler(KeyEvent.KEY_TYPED, this::typed);
    grid.addEventFilter(KeyEvent.KEY_PRESSED, this::pressedOnGrid);
    grid.addEventHandler(MouseEvent.MOUSE_CLICKED, this::clicked);
    grid.focusedProperty().subscribe(focused -> look(focused));
    field.addEventFilter(KeyEvent.KEY_PRESSED, this::pressedInField);
    field
        .focusedProperty()
        .subscribe(
            (was, is) -> {
              if (was && !is) {
                finish(true);
              }
            });
  }

  /**
   * Lets a column be typed in.
   *
   * @param open whether the cell of a row can be
   * @param text what typing begins with
   * @param change takes what was typed
   */
  public void type(
      TableColumn<S, ?> column,
      Predicate<S> open,
      Function<S, String> text,
      BiConsumer<S, String> change) {
    columns.add(new Column<>(column, open, text, change, Optional.empty(), false));
  }

  /**
   * Lets something be done in a column that is not typed in.
   *
   * @param open whether it can be in a row
   * @param text what the cell shows
   * @param change makes the cell show another cell's text
   */
  public void act(
      TableColumn<S, ?> column,
      Predicate<S> open,
      Function<S, String> text,
      BiConsumer<S, String> change,
      Deed<S> deed) {
    columns.add(new Column<>(column, open, text, change, Optional.of(deed), false));
  }

  /**
   * Lets a column be switched on and off with the space bar.
   *
   * @param open whether it can be in a row
   * @param text what the cell shows
   */
  public void toggle(
      TableColumn<S, ?> column, Predicate<S> open, Function<S, String> text, Consumer<S> toggle) {
    Deed<S> deed = (cell, thing, letter) -> toggle.accept(thing);
    columns.add(
        new Column<>(
            column, open, text, (thing, other) -> toggle.accept(thing), Optional.of(deed), true));
  }

  /** Forgets which columns there are, when others take their place. */
  public void forgetColumns() {
    finish(true);
    columns.clear();
    standing = Optional.empty();
  }

  /** After Enter one goes on in that column of the next row, rather than in the same. */
  public void homeIs(TableColumn<S, ?> column) {
    home = Optional.of(column);
  }

  /** Tab passes over that column, which is seldom changed; the arrow keys do not. */
  public void passOver(TableColumn<S, ?> column) {
    passedOver = Optional.of(column);
  }

  /** Makes another row when one goes on past the last; says whether there is one. */
  public void whenPastEnd(BooleanSupplier more) {
    pastEnd = more;
  }

  /** Takes a text of several lines or cells that is pasted where one is typed. */
  public void whenSeveralPasted(Consumer<String> taker) {
    pasted = Optional.of(taker);
  }

  /** What Delete does. */
  public void whenDeleted(Runnable deed) {
    deleted = deed;
  }

  /** What Alt with the arrow up (−1) or down (1) does. */
  public void whenMoved(IntConsumer deed) {
    moved = deed;
  }

  /** Puts the cursor into a column of the row that is chosen. */
  public void standIn(TableColumn<S, ?> column) {
    standing = Optional.of(column);
    requestLayout();
  }

  private Optional<Column<S>> open(S thing, TableColumn<?, ?> wanted) {
    return columns.stream()
        .filter(column -> column.column() == wanted)
        .filter(column -> column.open().test(thing))
        .findFirst();
  }

  private void typed(KeyEvent event) {
    String letter = event.getCharacter();
    boolean printable = !letter.isBlank() && letter.chars().noneMatch(Character::isISOControl);
    boolean plain = !event.isControlDown() && !event.isAltDown() && !event.isMetaDown();
    if (printable && plain && begin(letter)) {
      event.consume();
    }
  }

  private void pressedOnGrid(KeyEvent event) {
    boolean alone = !event.isShortcutDown() && !event.isAltDown() && !event.isMetaDown();
    boolean taken =
        switch (event.getCode()) {
          case F2 -> alone && begin("");
          case ENTER -> alone && !event.isShiftDown() && (goDownFromSwitch() || begin(""));
          case SPACE -> alone && act();
          case LEFT -> alone && !event.isShiftDown() && go(-1, false);
          case RIGHT -> alone && !event.isShiftDown() && go(1, false);
          case TAB ->
              alone
                  ? go(event.isShiftDown() ? -1 : 1, true)
                  : event.isShortcutDown() && leave(event.isShiftDown());
          case D -> event.isShortcutDown() && takeAbove();
          case DELETE -> alone && done(deleted);
          case UP -> event.isAltDown() && done(() -> moved.accept(-1));
          case DOWN -> event.isAltDown() && done(() -> moved.accept(1));
          default -> false;
        };
    if (taken) {
      event.consume();
    }
  }

  private boolean leave(boolean back) {
    return grid.requestFocusTraversal(back ? TraversalDirection.PREVIOUS : TraversalDirection.NEXT);
  }

  private static boolean done(Runnable deed) {
    deed.run();
    return true;
  }

  /** The cell the cursor stands on: of the row that has the focus. */
  private Optional<Place<S>> underCursor() {
    int row = grid.getFocusModel().getFocusedIndex();
    if (row < 0 || row >= grid.getItems().size()) {
      return Optional.empty();
    }
    S thing = grid.getItems().get(row);
    return standing
        .flatMap(column -> open(thing, column))
        .or(() -> columns.stream().filter(column -> column.open().test(thing)).findFirst())
        .map(column -> new Place<>(row, thing, column));
  }

  /** Begins where the cursor stands. */
  private boolean begin(String letter) {
    Optional<Place<S>> at =
        underCursor().filter(here -> letter.isEmpty() || !here.column().switches());
    at.ifPresent(here -> begin(here, letter));
    return at.isPresent();
  }

  private void begin(Place<S> at, String letter) {
    finish(true);
    standing = Optional.of(at.column().column());
    grid.scrollTo(at.row());
    grid.layout();
    if (at.column().deed().isPresent()) {
      cell(at).ifPresent(cell -> at.column().deed().get().at(cell, at.thing(), letter));
      return;
    }
    place = Optional.of(at);
    field.setText(letter.isEmpty() ? at.column().text().apply(at.thing()) : letter);
    field.setAccessibleText(at.column().column().getText());
    lie();
    field.setVisible(true);
    field.requestFocus();
    if (letter.isEmpty()) {
      field.selectAll();
    } else {
      field.end();
    }
  }

  /** Does what is done in a cell that is not typed in. */
  private boolean act() {
    Optional<Place<S>> at = underCursor().filter(here -> here.column().deed().isPresent());
    at.ifPresent(here -> begin(here, ""));
    return at.isPresent();
  }

  /** Gives the cell what the one above it shows. */
  private boolean takeAbove() {
    underCursor()
        .filter(at -> at.row() > 0)
        .ifPresent(
            at -> {
              S above = grid.getItems().get(at.row() - 1);
              String text = at.column().text().apply(above);
              if (!text.equals(at.column().text().apply(at.thing()))) {
                at.column().change().accept(at.thing(), text);
              }
            });
    return true;
  }

  /** Empties the cell the cursor stands on. */
  public void clear() {
    underCursor()
        .filter(at -> !at.column().text().apply(at.thing()).isEmpty())
        .ifPresent(at -> at.column().change().accept(at.thing(), ""));
  }

  private void clicked(MouseEvent event) {
    cellAt(event.getTarget())
        .filter(cell -> cell.getIndex() >= 0 && cell.getIndex() < grid.getItems().size())
        .ifPresent(
            cell -> {
              S thing = grid.getItems().get(cell.getIndex());
              Optional<Column<S>> column = open(thing, cell.getTableColumn());
              column.ifPresent(found -> standIn(found.column()));
              if (event.getClickCount() == 2 || isPrompt(cell)) {
                column
                    .filter(found -> found.deed().isEmpty())
                    .ifPresent(found -> begin(new Place<>(cell.getIndex(), thing, found), ""));
              }
            });
  }

  private static boolean isPrompt(TableCell<?, ?> cell) {
    return cell.getStyleClass().contains("prompt");
  }

  private static Optional<TableCell<?, ?>> cellAt(Object target) {
    Node node = target instanceof Node found ? found : null;
    while (node != null && !(node instanceof TableCell<?, ?>)) {
      node = node.getParent();
    }
    return Optional.ofNullable((TableCell<?, ?>) node);
  }

  private void pressedInField(KeyEvent event) {
    boolean paste = event.isShortcutDown() && event.getCode() == KeyCode.V;
    Optional<String> several =
        Optional.ofNullable(paste ? Clipboard.getSystemClipboard().getString() : null)
            .filter(text -> text.strip().matches("(?s).*[\\n\\t].*"));
    if (pasted.isPresent() && several.isPresent()) {
      finish(false); // In one cell lines and cells would run together.
      grid.requestFocus();
      pasted.get().accept(several.get());
      event.consume();
    } else if (event.getCode() == KeyCode.ESCAPE) {
      finish(false);
      grid.requestFocus();
      event.consume();
    } else if (event.getCode() == KeyCode.ENTER) {
      Optional<Place<S>> from = place;
      grid.requestFocus(); // Leaving keeps what is typed.
      from.ifPresent(this::goDown);
      event.consume();
    } else if (event.getCode() == KeyCode.TAB) {
      Optional<Place<S>> from = place;
      grid.requestFocus();
      from.ifPresent(here -> go(here.row(), here.column(), event.isShiftDown() ? -1 : 1, true));
      event.consume();
    }
  }

  private boolean goDownFromSwitch() {
    Optional<Place<S>> at = underCursor().filter(here -> here.column().switches());
    at.ifPresent(this::goDown);
    return at.isPresent();
  }

  /** To the row below, unless what was typed has moved on already. */
  private void goDown(Place<S> from) {
    standing = Optional.of(home.orElse(from.column().column()));
    int next = from.row() + 1;
    if (grid.getFocusModel().getFocusedIndex() == from.row() && next < grid.getItems().size()) {
      grid.getSelectionModel().clearAndSelect(next);
      grid.scrollTo(Math.max(0, next - 3));
    }
    requestLayout();
  }

  /** Goes on from the cell of the cursor to the next one, as Tab does in what is typed. */
  public void goOn() {
    go(1, true);
  }

  private boolean go(int by, boolean overEnds) {
    Optional<Place<S>> at = underCursor();
    return at.isPresent() && go(at.get().row(), at.get().column(), by, overEnds);
  }

  /** To the next cell that can be changed, or the one before; over the ends of rows if wanted. */
  private boolean go(int row, Column<S> from, int by, boolean overEnds) {
    List<Column<S>> shown = shown();
    int count = shown.size();
    int at = row * count + shown.indexOf(from) + by;
    while (at >= 0 && at < grid.getItems().size() * count) {
      if (!overEnds && at / count != row) {
        return true;
      }
      Column<S> column = shown.get(at % count);
      boolean passed = overEnds && passedOver.equals(Optional.of(column.column()));
      boolean seen = column.column().isVisible();
      if (seen && !passed && column.open().test(grid.getItems().get(at / count))) {
        stand(at / count, column);
        return true;
      }
      at += by;
    }
    if (overEnds && by > 0 && pastEnd.getAsBoolean()) {
      stand(grid.getItems().size() - 1, shown.getFirst());
      return true;
    }
    return !overEnds;
  }

  /** The columns as they stand in the grid, whatever was moved there. */
  private List<Column<S>> shown() {
    List<TableColumn<S, ?>> order = grid.getColumns();
    return columns.stream()
        .sorted(Comparator.comparing(column -> order.indexOf(column.column())))
        .toList();
  }

  /** The columns that stay in sight while one scrolls sideways. */
  public FrozenColumns<S> frozen() {
    return frozen;
  }

  private void stand(int row, Column<S> column) {
    standing = Optional.of(column.column());
    if (grid.getFocusModel().getFocusedIndex() != row) {
      grid.getSelectionModel().clearAndSelect(row);
      grid.scrollTo(Math.max(0, row - 3));
    }
    frozen.reveal(column.column());
    requestLayout();
  }

  /** Ends typing; what is typed counts where it is kept and differs. */
  private void finish(boolean keep) {
    Optional<Place<S>> ended = place;
    place = Optional.empty(); // First, for the change may bring the focus back here.
    field.setVisible(false);
    if (keep && ended.isPresent()) {
      Place<S> here = ended.get();
      if (!field.getText().equals(here.column().text().apply(here.thing()))) {
        here.column().change().accept(here.thing(), field.getText());
      }
    }
  }

  /** Lays the field over its cell, as far as the cell is there. */
  private void lie() {
    place
        .flatMap(this::bounds)
        .ifPresent(
            bounds ->
                field.resizeRelocate(
                    bounds.getMinX(),
                    bounds.getMinY(),
                    Math.max(bounds.getWidth(), 90),
                    bounds.getHeight()));
  }

  private Optional<Bounds> bounds(Place<S> at) {
    return cell(at).map(cell -> sceneToLocal(cell.localToScene(cell.getLayoutBounds())));
  }

  private Optional<Node> cell(Place<S> at) {
    for (Node node : grid.lookupAll(".table-cell")) {
      if (node instanceof TableCell<?, ?> cell
          && cell.getTableColumn() == at.column().column()
          && cell.getIndex() == at.row()
          && cell.getTableRow() != null
          && cell.getTableRow().isVisible()) {
        return Optional.of(cell);
      }
    }
    return Optional.empty();
  }

  /** While the grid has the focus, the cursor is laid anew after each layout. */
  private void look(boolean focused) {
    Scene scene = getScene();
    if (scene != null) {
      scene.removePostLayoutPulseListener(follow);
      if (focused) {
        scene.addPostLayoutPulseListener(follow);
      }
    }
    followCursor();
  }

  /** Lays the cursor over its cell where that is in sight. */
  private void followCursor() {
    Optional<Bounds> at =
        grid.isFocused()
            ? underCursor().flatMap(this::bounds).filter(this::isInSight)
            : Optional.empty();
    cursor.setVisible(at.isPresent());
    at.ifPresent(
        bounds ->
            cursor.resizeRelocate(
                bounds.getMinX() - 1,
                bounds.getMinY() - 1,
                bounds.getWidth() + 1,
                bounds.getHeight() + 1));
  }

  private boolean isInSight(Bounds cell) {
    Node head = grid.lookup(".column-header-background");
    double top = head == null ? 0 : head.getBoundsInParent().getMaxY();
    return cell.getMinY() >= top - 1
        && cell.getMaxY() <= getHeight() + 1
        && cell.getMinX() >= -1
        && cell.getMaxX() <= getWidth() + 1;
  }

  @Override
  protected void layoutChildren() {
    grid.resizeRelocate(0, 0, getWidth(), getHeight());
    if (place.isPresent()) {
      grid.layout();
      lie();
    }
  }

  @Override
  protected double computePrefHeight(double width) {
    return grid.prefHeight(width);
  }

  @Override
  protected double computeMinHeight(double width) {
    return grid.minHeight(width);
  }

  @Override
  protected double computeMaxHeight(double width) {
    return grid.maxHeight(width);
  }

  @Override
  protected double computePrefWidth(double height) {
    return grid.prefWidth(height);
  }
}
