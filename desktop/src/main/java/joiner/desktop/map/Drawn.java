package joiner.desktop.map;

import javafx.animation.AnimationTimer;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.Canvas;
import javafx.scene.layout.Pane;

/** Something drawn on a canvas that fills it, at most once a frame. */
public abstract class Drawn extends Pane {
  private final Canvas canvas = new Canvas();
  private final MapColors colors = new MapColors(this::redraw);
  private final MapPainter painter = new MapPainter(canvas.getGraphicsContext2D(), colors);
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

  Drawn(String id, AccessibleRole role) {
    getStyleClass().add("map-view");
    setFocusTraversable(true);
    setAccessibleRole(role);
    setId(id);
    getChildren().addAll(canvas, colors.node());
  }

  /** Draws everything. */
  abstract void paint();

  /** Is told of another size. */
  abstract void resized();

  final Canvas canvas() {
    return canvas;
  }

  final MapColors colors() {
    return colors;
  }

  final MapPainter painter() {
    return painter;
  }

  @Override
  protected final void layoutChildren() {
    if (canvas.getWidth() != getWidth() || canvas.getHeight() != getHeight()) {
      canvas.setWidth(getWidth());
      canvas.setHeight(getHeight());
      resized();
      redraw();
    }
  }

  /** Has it drawn in the next frame. */
  final void redraw() {
    if (!dirty) {
      dirty = true;
      painting.start();
    }
  }

  /** Draws at once instead of in the next frame. */
  public final void paintNow() {
    if (getWidth() > 0) {
      paint();
    }
  }
}
