package joiner.desktop.widget;

import java.util.Optional;
import javafx.scene.shape.Rectangle;
import joiner.model.Hue;

/** A small square in one of the muted hues; hollow where there is none. */
public final class HueMark {
  private static final double SIDE = 10;

  private HueMark() {}

  /** A square of that hue. */
  public static Rectangle of(Optional<Hue> hue) {
    var square = new Rectangle(SIDE, SIDE);
    square.getStyleClass().add(hue.map(h -> "area-" + h.ordinal()).orElse("area-none"));
    return square;
  }
}
