package joiner.map;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What a map keeps to, whatever the design. */
class MapLayoutTest {
  /** A line may touch the border of the board it ends at, and lies beside others by less. */
  private static final double BORDER = 0.5;

  private static Set<TableId> all(Design design) {
    return design.tables().stream().map(Table::id).collect(Collectors.toSet());
  }

  private static MapLayout layout(Design design, Detail detail) {
    Coordinates at = LayoutKernel.layOut(MapLayout.graph(design, all(design), detail));
    return MapLayout.placed(design, all(design), detail, at);
  }

  @ParameterizedTest
  @EnumSource(Detail.class)
  void boardsDoNotOverlapAndNoLineRunsThroughOne(Detail detail) {
    for (long seed : Tries.of(40).toArray()) {
      MapLayout layout = layout(RandomLinks.draft(seed, 1 + (int) (seed & 3)).design(), detail);
      List<MapLayout.Placed> boards = List.copyOf(layout.boards().values());
      for (int i = 0; i < boards.size(); i++) {
        for (int j = i + 1; j < boards.size(); j++) {
          assertThat(overlap(boards.get(i), boards.get(j)))
              .as("%s and %s, seed %d", boards.get(i), boards.get(j), seed)
              .isFalse();
        }
        for (MapLayout.Route route : layout.routes().values()) {
          assertThat(crosses(route.points(), boards.get(i)))
              .as("%s through %s, seed %d", route.id(), boards.get(i), seed)
              .isFalse();
        }
      }
    }
  }

  @ParameterizedTest
  @EnumSource(Detail.class)
  void theSameDesignGivesTheSamePicture(Detail detail) {
    for (long seed : Tries.of(10).toArray()) {
      Design design = RandomLinks.draft(seed, 3).design();
      LayoutGraph graph = MapLayout.graph(design, all(design), detail);
      Coordinates one = LayoutKernel.layOut(graph);
      Coordinates other = LayoutKernel.layOut(graph);
      assertThat(one.boards()).usingRecursiveComparison().isEqualTo(other.boards());
      assertThat(one.lines()).usingRecursiveComparison().isEqualTo(other.lines());
    }
  }

  private static boolean overlap(MapLayout.Placed one, MapLayout.Placed other) {
    return one.x() < other.x() + other.board().width()
        && other.x() < one.x() + one.board().width()
        && one.y() < other.y() + other.board().height()
        && other.y() < one.y() + one.board().height();
  }

  /** Whether a line of straight pieces goes through the inside of a board. */
  private static boolean crosses(double[] points, MapLayout.Placed placed) {
    double left = placed.x() + BORDER;
    double right = placed.x() + placed.board().width() - BORDER;
    double top = placed.y() + BORDER;
    double bottom = placed.y() + placed.board().height() - BORDER;
    for (int i = 0; i + 3 < points.length; i += 2) {
      boolean beside =
          Math.max(points[i], points[i + 2]) <= left
              || Math.min(points[i], points[i + 2]) >= right
              || Math.max(points[i + 1], points[i + 3]) <= top
              || Math.min(points[i + 1], points[i + 3]) >= bottom;
      if (!beside) {
        return true;
      }
    }
    return false;
  }
}
