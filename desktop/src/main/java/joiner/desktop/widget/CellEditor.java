package joiner.desktop.widget;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.function.Predicate;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;

/**
 * A table with one text field that lies over the cell being typed in. The field is there before the
 * first letter goes on its way, and it outlives the cells beneath, which a table makes and drops as
 * it likes: so no letter is lost. A letter, F2, Enter or a second click begin; Enter, Tab or
 * leaving keep what is typed, Escape does not; Tab goes on to the next cell.
 *
 * @param <S> what a row shows
 */
public final class CellEditor<S> extends Region {
  private record Typed<S>(
      TableColumn<S, ?> column,
      Predicate<S> open,
      Function<S, String> text,
      BiConsumer<S, String> change) {}

  /** The cell being typed in; the row's thing as it was when typing began. */
  private record Place<S>(int row, S thing, Typed<S> column) {}

  private final TableView<S> grid;
  private final TextField field = new TextField();
  private final List<Typed<S>> columns = new ArrayList<>();
  private Optional<Place<S>> place = Optional.empty();

  /** Puts the grid into itself. */
  public CellEditor(TableView<S> grid) {
    this.grid = grid;
    field.setManaged(false);
    field.setVisible(false);
    field.getStyleClass().add("cell-editor");
    getChildren().setAll(grid, field);
    grid.addEventHandler(KeyEvent.KEY_TYPED, this::typed);
    grid.addEventFilter(KeyEvent.KEY_PRESSED, this::pressedOnGrid);
    grid.addEventHandler(MouseEvent.MOUSE_CLICKED, this::clicked);
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
    columns.add(new Typed<>(column, open, text, change));
  }

  /** Forgets which columns can be typed in, when others take their place. */
  public void forgetColumns() {
    finish(true);
    columns.clear();
  }

  private Optional<Typed<S>> open(S thing, Optional<? extends TableColumn<?, ?>> wanted) {
    return columns.stream()
        .filter(column -> wanted.isEmpty() || wanted.get() == column.column())
        .filter(column -> column.open().test(thing))
        .findFirst();
  }

  private void typed(KeyEvent event) {
    String letter = event.getCharacter();
    boolean printable = !letter.isBlank() && letter.chars().noneMatch(Character::isISOControl);
    boolean plain = !event.isControlDown() && !event.isAltDown() && !event.isMetaDown();
    if (printable && plain && begin()) {
      field.setText(letter);
      field.end();
      event.consume();
    }
  }

  private void pressedOnGrid(KeyEvent event) {
    boolean begins = event.getCode() == KeyCode.F2 || event.getCode() == KeyCode.ENTER;
    if (begins && !event.isShortcutDown() && begin()) {
      event.consume();
    }
  }

  /** Begins in the first cell of the focused row that can be typed in. */
  private boolean begin() {
    int row = grid.getFocusModel().getFocusedIndex();
    if (row < 0 || row >= grid.getItems().size()) {
      return false;
    }
    S thing = grid.getItems().get(row);
    Optional<Typed<S>> column = open(thing, Optional.empty());
    column.ifPresent(found -> begin(row, thing, found));
    return column.isPresent();
  }

  private void begin(int row, S thing, Typed<S> column) {
    finish(true);
    place = Optional.of(new Place<>(row, thing, column));
    field.setText(column.text().apply(thing));
    field.setAccessibleText(column.column().getText());
    grid.scrollTo(row);
    grid.layout();
    lie();
    field.setVisible(true);
    field.requestFocus();
    field.selectAll();
  }

  private void clicked(MouseEvent event) {
    cellAt(event.getTarget())
        .filter(cell -> event.getClickCount() == 2 || isPrompt(cell))
        .ifPresent(
            cell -> {
              int row = cell.getIndex();
              if (row >= 0 && row < grid.getItems().size()) {
                S thing = grid.getItems().get(row);
                open(thing, Optional.of(cell.getTableColumn()))
                    .ifPresent(column -> begin(row, thing, column));
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
    if (event.getCode() == KeyCode.ESCAPE) {
      finish(false);
      grid.requestFocus();
      event.consume();
    } else if (event.getCode() == KeyCode.ENTER) {
      grid.requestFocus(); // Leaving keeps what is typed.
      event.consume();
    } else if (event.getCode() == KeyCode.TAB) {
      Optional<Place<S>> from = place;
      grid.requestFocus();
      from.ifPresent(here -> goOn(here, event.isShiftDown()));
      event.consume();
    }
  }

  /** To the next cell that can be typed in, or the one before, over the ends of rows. */
  private void goOn(Place<S> from, boolean back) {
    int count = columns.size();
    int at = from.row() * count + columns.indexOf(from.column()) + (back ? -1 : 1);
    while (at >= 0 && at < grid.getItems().size() * count) {
      S thing = grid.getItems().get(at / count);
      Typed<S> column = columns.get(at % count);
      if (column.open().test(thing)) {
        grid.getSelectionModel().clearAndSelect(at / count);
        begin(at / count, thing, column);
        return;
      }
      at += back ? -1 : 1;
    }
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
    for (Node node : grid.lookupAll(".table-cell")) {
      if (node instanceof TableCell<?, ?> cell
          && cell.getTableColumn() == at.column().column()
          && cell.getIndex() == at.row()
          && cell.getTableRow() != null
          && cell.getTableRow().isVisible()) {
        return Optional.of(sceneToLocal(cell.localToScene(cell.getLayoutBounds())));
      }
    }
    return Optional.empty();
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
