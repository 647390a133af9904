package joiner.desktop.map;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import joiner.map.MapLayout;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is in sight of the map. */
class ViewportTest {
  private static MapLayout layout(double width, double height) {
    return new MapLayout(
        Map.of(), List.of(), List.of(), Map.of(), List.of(), Map.of(), width, height);
  }

  /** However large the map and however small the window, all of it is in sight. */
  @ParameterizedTest
  @CsvSource({"500, 300", "4000, 20000", "90000, 60000", "1280, 800"})
  void theWholeMapIsInSight(double width, double height) {
    Viewport fitting = Viewport.fitting(layout(width, height), 756, 695);
    assertThat(fitting.zoom()).isLessThanOrEqualTo(1);
    assertThat(fitting.x() + width * fitting.zoom()).isLessThanOrEqualTo(756 + 1e-6);
    assertThat(fitting.y() + height * fitting.zoom()).isLessThanOrEqualTo(695 + 1e-6);
    assertThat(fitting.mapX(fitting.x())).isEqualTo(0, within(1e-9));
  }

  @Test
  void zoomingOutByHandEndsWhereTheMapIsSmall() {
    Viewport small = Viewport.fitting(layout(500, 300), 756, 695);
    for (int i = 0; i < 100; i++) {
      small = small.zoomed(0.8, 10, 10);
    }
    assertThat(small.zoom()).isEqualTo(Viewport.SMALLEST);
    Viewport large = Viewport.fitting(layout(90_000, 60_000), 756, 695);
    assertThat(large.zoomed(0.5, 0, 0).zoom()).as("no further than whole").isEqualTo(large.zoom());
    assertThat(large.zoomed(1000, 0, 0).zoom()).isEqualTo(Viewport.LARGEST);
  }

  @Test
  void aWindowWithoutSizeYetCanBeZoomed() {
    Viewport none = Viewport.fitting(layout(500, 300), 0, 0);
    assertThat(none.zoomed(2, 0, 0).zoom()).isPositive().isFinite();
  }

  @Test
  void whatIsUnderThePointerStaysThere() {
    Viewport fitting = Viewport.fitting(layout(4000, 3000), 756, 695);
    Viewport near = fitting.zoomed(3, 200, 100);
    assertThat(near.mapX(200)).isEqualTo(fitting.mapX(200), within(1e-9));
  }
}
