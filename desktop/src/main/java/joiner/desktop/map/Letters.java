package joiner.desktop.map;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import javafx.scene.text.Font;
import javafx.scene.text.Text;

/** Fonts of the map in any size, and how wide texts are in them. */
final class Letters {
  private static final int MOST_MEASURED = 20_000;
  private static final double MEASURED_AT = 100;

  private final String family;
  private final Map<Double, Font> fonts = new HashMap<>();
  private final Text measured = new Text();
  private final Map<String, Double> widths =
      new LinkedHashMap<>(256, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Double> eldest) {
          return size() > MOST_MEASURED;
        }
      };

  Letters(String family) {
    this.family = family;
    measured.setFont(Font.font(family, MEASURED_AT));
  }

  /** The font in a size; few sizes are in use at a time. */
  Font font(double size) {
    if (fonts.size() > 64) {
      fonts.clear(); // Every step of a zoom has its own.
    }
    return fonts.computeIfAbsent(size, s -> Font.font(family, s));
  }

  /** How wide a text is in a size. */
  double width(String text, double size) {
    return size
        / MEASURED_AT
        * widths.computeIfAbsent(
            text,
            t -> {
              measured.setText(t);
              return measured.getLayoutBounds().getWidth();
            });
  }
}
