package joiner.desktop.widget;

import java.util.List;
import javafx.beans.binding.Bindings;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.css.PseudoClass;
import javafx.geometry.Orientation;
import javafx.scene.Node;
import javafx.scene.control.ScrollBar;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableColumnBase;
import javafx.scene.control.TableView;
import javafx.scene.control.skin.TableColumnHeader;
import org.jspecify.annotations.Nullable;

/**
 * Keeps the first columns of a table in sight while one scrolls sideways: their cells move along
 * with the window onto the table, above the others. A grid makes no cell but those of its cell
 * factories, so those hand their cells over here.
 *
 * @param <S> what a row shows
 */
public final class FrozenColumns<S> {
  private static final PseudoClass FROZEN = PseudoClass.getPseudoClass("frozen");
  private static final double ABOVE_OTHERS = -1;

  /** No more of a table than this part stays in sight. */
  private static final double MOST = 0.6;

  private final TableView<S> grid;
  private final DoubleProperty shift = new SimpleDoubleProperty();
  private final IntegerProperty frozen = new SimpleIntegerProperty();
  private int wanted;
  private @Nullable ScrollBar bar;

  /** No column of that grid is frozen yet. */
  public FrozenColumns(TableView<S> grid) {
    this.grid = grid;
    grid.widthProperty().subscribe(width -> freeze(wanted));
  }

  /** Freezes so many of the first columns, or as many as leave room for others. */
  public void freeze(int first) {
    wanted = first;
    double width = 0;
    int fits = 0;
    List<TableColumn<S, ?>> columns = grid.getVisibleLeafColumns();
    while (fits < Math.min(first, columns.size())
        && width + columns.get(fits).getWidth() <= grid.getWidth() * MOST) {
      width += columns.get(fits).getWidth();
      fits++;
    }
    frozen.set(fits);
    if (fits > 0) {
      WhenLaidOut.run(grid, this::follow);
    }
  }

  /** Lets a cell of the grid stay where its column is frozen. */
  public void hold(TableCell<S, ?> cell) {
    cell.translateXProperty()
        .bind(
            Bindings.createDoubleBinding(
                () -> isFrozen(cell.getTableColumn()) ? shift.get() : 0,
                shift,
                frozen,
                cell.tableColumnProperty()));
    cell.translateXProperty().subscribe(x -> raise(cell, x.doubleValue() > 0));
  }

  /** Scrolls sideways as far as a column needs to be seen beside those that are frozen. */
  public void reveal(TableColumn<S, ?> column) {
    if (isFrozen(column)) {
      return;
    }
    ScrollBar at = bar;
    if (frozen.get() == 0 || at == null) {
      grid.scrollToColumn(column);
      return;
    }
    double left = 0;
    double kept = 0;
    for (TableColumn<S, ?> other : grid.getVisibleLeafColumns()) {
      if (other == column) {
        break;
      }
      left += other.getWidth();
      kept += isFrozen(other) ? other.getWidth() : 0;
    }
    double first = left - kept; // So far it is scrolled where it begins beside the frozen ones.
    double last = Math.min(first, left + column.getWidth() - at.getWidth());
    double value = Math.min(first, Math.max(last, at.getValue()));
    at.setValue(Math.clamp(value, at.getMin(), Math.max(at.getMin(), at.getMax())));
  }

  private boolean isFrozen(TableColumnBase<?, ?> column) {
    int place =
        column instanceof TableColumn<?, ?> of ? grid.getVisibleLeafColumns().indexOf(of) : -1;
    return place >= 0 && place < frozen.get();
  }

  /** The bar and the headings are there only after the first layout. */
  private void follow() {
    if (bar == null) {
      for (Node node : grid.lookupAll(".scroll-bar")) {
        if (node instanceof ScrollBar found && found.getOrientation() == Orientation.HORIZONTAL) {
          bar = found;
          shift.bind(
              Bindings.createDoubleBinding(
                  () -> found.isVisible() ? found.getValue() : 0,
                  found.valueProperty(),
                  found.visibleProperty()));
          shift.subscribe(value -> headings());
        }
      }
    }
    headings();
  }

  private void headings() {
    for (Node node : grid.lookupAll(".column-header")) {
      if (node instanceof TableColumnHeader header && header.getTableColumn() != null) {
        double x = isFrozen(header.getTableColumn()) ? shift.get() : 0;
        header.setTranslateX(x);
        raise(header, x > 0);
      }
    }
  }

  private static void raise(Node node, boolean above) {
    node.setViewOrder(above ? ABOVE_OTHERS : 0);
    node.pseudoClassStateChanged(FROZEN, above);
  }
}
