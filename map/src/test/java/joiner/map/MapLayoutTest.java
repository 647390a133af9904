package joiner.map;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.Pottery;
import joiner.RandomLinks;
import joiner.Tries;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Pin;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What a map keeps to, whatever the design. */
class MapLayoutTest {
  /** A line may touch the border of the board it ends at, and lies beside others by less. */
  private static final double BORDER = 0.5;

  private static Set<TableId> all(Design design) {
    return design.tables().stream().map(Table::id).collect(Collectors.toSet());
  }

  private static MapLayout layout(Design design, Scope scope, Detail detail) {
    var builder = new LayoutBuilder(design, scope, detail);
    return builder.placed(LayoutKernel.layOut(builder.graph()));
  }

  @ParameterizedTest
  @EnumSource(Detail.class)
  void boardsDoNotOverlapAndNoLineRunsThroughOne(Detail detail) {
    for (long seed : Tries.of(40).toArray()) {
      var random = new Random(seed);
      Design design = inAreas(RandomLinks.draft(seed, 1 + (int) (seed & 3)).design(), random);
      for (Scope scope : scopes(design, random)) {
        check(design, scope, layout(design, scope, detail), "seed " + seed + ", " + scope);
      }
    }
  }

  /** Boards that are pinned anywhere, even on one place, keep to the same. */
  @ParameterizedTest
  @EnumSource(Detail.class)
  void pinnedBoardsDoNotOverlapEither(Detail detail) {
    for (long seed : Tries.of(40).toArray()) {
      var random = new Random(seed);
      Design plain = inAreas(RandomLinks.draft(seed, 1 + (int) (seed & 3)).design(), random);
      List<Pin> pins =
          plain.tables().stream()
              .filter(table -> random.nextInt(3) == 0)
              .map(table -> Pin.at(table.id(), random.nextDouble(), random.nextInt(3) / 2.0))
              .toList();
      Design design = plain.withPins(pins);
      for (Scope scope : scopes(design, random)) {
        check(design, scope, layout(design, scope, detail), "pinned, seed " + seed + ", " + scope);
      }
    }
  }

  @Test
  void aPinnedBoardStandsWhereItIsWanted() {
    Design demo = Pottery.demo().design();
    TableId kiln = new TableId("kiln");
    for (Scope scope : List.of(Scope.all(demo), Scope.all(demo).with(Scope.Areas.REGIONS))) {
      double free = across(layout(demo, scope, Detail.KEYS), kiln);
      Design pinned = demo.withPins(List.of(new Pin(kiln, 1000, 1000)));
      assertThat(free).isLessThan(0.5);
      assertThat(across(layout(pinned, scope, Detail.KEYS), kiln)).isGreaterThan(0.8);
    }
  }

  /** How far across the map, or its region, the right of a board is. */
  private static double across(MapLayout layout, TableId table) {
    MapLayout.Placed at = layout.boards().get(table);
    return layout.pin(table, at.x() + at.board().width(), at.y()).across() / (double) Pin.PARTS;
  }

  /** Each table in one of three areas, or in none. */
  private static Design inAreas(Design design, Random random) {
    List<Area> areas = List.of(new Area("clay", 0), new Area("fire", 1), new Area("glass", 2));
    Design inAreas = design.withAreas(areas);
    for (Table table : design.tables()) {
      int area = random.nextInt(4);
      if (area < 3) {
        inAreas = inAreas.withTable(table.id(), t -> t.withArea(Optional.of(areas.get(area).id())));
      }
    }
    return inAreas;
  }

  private static List<Scope> scopes(Design design, Random random) {
    Scope all = Scope.of(all(design));
    Set<AreaId> folded =
        design.areas().stream()
            .map(Area::id)
            .filter(area -> random.nextInt(3) == 0)
            .collect(Collectors.toSet());
    return List.of(
        all,
        all.with(Scope.Areas.REGIONS),
        all.with(Scope.Areas.REGIONS).withFolded(folded),
        all.with(Scope.Areas.STAND_INS).withFolded(folded));
  }

  private static void check(Design design, Scope scope, MapLayout layout, String as) {
    List<MapLayout.Placed> boards = layout.everything().toList();
    List<double[]> lines =
        Stream.concat(
                layout.routes().values().stream().map(MapLayout.Route::points),
                layout.bundles().stream().map(MapLayout.Bundle::points))
            .toList();
    for (int i = 0; i < boards.size(); i++) {
      MapLayout.Placed board = boards.get(i);
      for (int j = i + 1; j < boards.size(); j++) {
        assertThat(overlap(board, boards.get(j)))
            .as("%s and %s, %s", board, boards.get(j), as)
            .isFalse();
      }
      assertThat(lines).as("lines through %s, %s", board, as).noneMatch(l -> crosses(l, board));
      for (MapLayout.Region region : layout.regions()) {
        boolean isOfIt = areaOf(design, board).equals(Optional.of(region.area()));
        assertThat(region.holds(board.x() + 1, board.y() + 1))
            .as("%s in the region %s, %s", board, region.name(), as)
            .isEqualTo(isOfIt);
      }
    }
    everyTableAndRelationshipIsThere(design, scope, layout, as);
  }

  /** The area a board stands in; none for that of a folded one. */
  private static Optional<AreaId> areaOf(Design design, MapLayout.Placed board) {
    return switch (board.spot()) {
      case Spot.OfTable(TableId table) -> design.table(table).area();
      case Spot.StandIn standIn -> Optional.of(standIn.area());
      case Spot.OfArea area -> Optional.empty();
    };
  }

  private static void everyTableAndRelationshipIsThere(
      Design design, Scope scope, MapLayout layout, String as) {
    assertThat(all(design)).as(as).allMatch(table -> layout.placeOf(table).isPresent());
    Set<RelationshipId> drawn = new HashSet<>(layout.routes().keySet());
    layout.bundles().forEach(bundle -> drawn.addAll(bundle.all()));
    List<RelationshipId> expected =
        design.relationships().stream()
            .filter(
                r -> {
                  Optional<AreaId> child = design.table(r.child()).area();
                  boolean within = child.equals(design.table(r.parent()).area());
                  return !(within && child.filter(scope.folded()::contains).isPresent());
                })
            .map(Relationship::id)
            .toList();
    assertThat(drawn).as(as).containsExactlyInAnyOrderElementsOf(expected);
  }

  @ParameterizedTest
  @EnumSource(Detail.class)
  void theSameDesignGivesTheSamePicture(Detail detail) {
    for (long seed : Tries.of(10).toArray()) {
      Design design = RandomLinks.draft(seed, 3).design();
      Scope scope = scopes(design, new Random(seed)).getLast();
      LayoutGraph graph = new LayoutBuilder(design, scope, detail).graph();
      Coordinates one = LayoutKernel.layOut(graph);
      Coordinates other = LayoutKernel.layOut(graph);
      assertThat(one.boards()).usingRecursiveComparison().isEqualTo(other.boards());
      assertThat(one.lines()).usingRecursiveComparison().isEqualTo(other.lines());
      assertThat(one.regions()).usingRecursiveComparison().isEqualTo(other.regions());
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
