package joiner.desktop.shape;

import java.util.Optional;
import javafx.scene.control.TableCell;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.Region;
import joiner.desktop.widget.Parts;

/** What a field holds as a small bar of filled, unfit and empty cells, with a few words. */
final class RowsCell<S> extends TableCell<S, RowsCell.Bar> {
  private static final double WIDTH = 42;
  private static final double HEIGHT = 7;

  /**
   * What a cell shows.
   *
   * @param filled what part of the rows holds something, 0 to 1; what is wrong is within
   * @param unfit what part of them has something to mend
   */
  record Bar(double filled, double unfit, String words) {
    /** The bar of so many rows; empty where there are none. */
    static Optional<Bar> of(long rows, long filled, long bad, String words) {
      return rows == 0
          ? Optional.empty()
          : Optional.of(new Bar((double) filled / rows, Math.min(1, (double) bad / rows), words));
    }
  }

  @Override
  protected void updateItem(Bar bar, boolean empty) {
    super.updateItem(bar, empty);
    setText(null);
    if (empty || bar == null) {
      setGraphic(null);
      setTooltip(null);
      setAccessibleText(null);
      return;
    }
    setTooltip(new Tooltip(bar.words())); // It may be longer than there is room.
    double bad = bar.unfit() > 0 ? Math.max(3, WIDTH * bar.unfit()) : 0;
    double good = Math.max(0, WIDTH * bar.filled() - bad);
    var strip =
        Parts.row(
            0,
            part("held-good", good),
            part("held-bad", bad),
            part("held-none", WIDTH - good - bad));
    strip.setMinWidth(WIDTH);
    var words = Parts.shortened(bar.words(), "small", bar.unfit() > 0 ? "brick" : "muted");
    setGraphic(Parts.row(8, strip, words));
    setAccessibleText(bar.words());
  }

  private static Region part(String style, double width) {
    var part = new Region();
    part.getStyleClass().add(style);
    part.setMinSize(width, HEIGHT);
    part.setMaxSize(width, HEIGHT);
    return part;
  }
}
