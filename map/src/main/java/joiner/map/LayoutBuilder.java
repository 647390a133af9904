package joiner.map;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.BiPredicate;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.FieldId;
import joiner.model.Multiplicity;
import joiner.model.Pin;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;

/** Makes boards and lines of what is shown of a design, has them laid out, and puts them there. */
final class LayoutBuilder {
  private final Design design;
  private final Scope scope;
  private final boolean close;
  private final Boards drawn;
  private final Map<Spot, Board> boards = new LinkedHashMap<>();
  private final Map<Spot, Integer> numbers = new HashMap<>();
  private final Map<AreaId, Integer> regions = new LinkedHashMap<>();
  private final Map<TableId, LayoutGraph.Wish> wishes = new HashMap<>();
  private final List<Line> lines;

  /** A line between two boards, for one relationship or, at a folded area, for several. */
  private record Line(Spot parent, Spot child, List<Relationship> all) {
    boolean isBundle() {
      return parent instanceof Spot.OfArea || child instanceof Spot.OfArea;
    }
  }

  /**
   * What is shown.
   *
   * @param briefs tables of which a small board is shown
   * @param told fields that are shown in any case
   */
  LayoutBuilder(
      Design design,
      Scope shown,
      Map<TableId, MapLayout.Brief> briefs,
      BiPredicate<TableId, FieldId> told,
      Detail detail) {
    this.design = design;
    this.scope = shown.in(design);
    this.drawn = new Boards(design, told, detail);
    Map<AreaId, Integer> sizes = new HashMap<>();
    for (Table table : design.tables()) {
      if (!scope.tables().contains(table.id())) {
        continue;
      }
      if (scope.isFolded(table)) {
        sizes.merge(table.area().orElseThrow(), 1, Integer::sum);
      } else {
        MapLayout.Brief brief = briefs.get(table.id());
        Board board = brief == null ? drawn.of(table) : drawn.brief(table, brief);
        add(new Spot.OfTable(table.id()), board, scope.regionOf(table));
      }
    }
    for (Area area : design.areas()) {
      if (sizes.containsKey(area.id())) {
        Board board = drawn.folded(area, sizes.get(area.id()));
        add(new Spot.OfArea(area.id()), board, Optional.empty());
      }
    }
    for (Pin pin : design.pins()) {
      double side = Pin.PARTS;
      wishes.put(pin.table(), new LayoutGraph.Wish(pin.across() / side, pin.down() / side));
    }
    this.lines = lines();
    this.close =
        !briefs.isEmpty()
            || boards.values().stream().anyMatch(Board::isNamed)
            || boards.keySet().stream().noneMatch(Spot.OfTable.class::isInstance);
  }

  /** Everything that is to be shown, told so much of. */
  LayoutBuilder(Design design, Scope scope, Detail detail) {
    this(design, scope, Map.of(), (table, field) -> false, detail);
  }

  private void add(Spot spot, Board board, Optional<AreaId> region) {
    numbers.put(spot, boards.size());
    boards.put(spot, board);
    region.ifPresent(area -> regions.putIfAbsent(area, regions.size()));
  }

  /** One line for each relationship, or for all between two boards where one is an area. */
  private List<Line> lines() {
    var all = new ArrayList<Line>();
    Map<List<Spot>, Line> bundles = new LinkedHashMap<>();
    Map<Spot.StandIn, TreeSet<String>> roles = new LinkedHashMap<>();
    for (Relationship r : design.relationships()) {
      Optional<Spot> child = spotOf(r.child());
      Optional<Spot> parent = spotOf(r.parent());
      boolean inOneArea = child.equals(parent) && child.orElse(null) instanceof Spot.OfArea;
      if (child.isEmpty() || parent.isEmpty() || inOneArea) {
        continue;
      }
      Optional<Spot.StandIn> standIn = standIn(r);
      standIn.ifPresent(s -> roles.computeIfAbsent(s, x -> new TreeSet<>()).add(r.childRole()));
      Spot from = standIn.<Spot>map(s -> s).orElse(parent.get());
      var line = new Line(from, child.get(), new ArrayList<>(List.of(r)));
      if (line.isBundle()) {
        Line before = bundles.putIfAbsent(List.of(line.parent, line.child), line);
        if (before != null) {
          before.all.add(r);
          continue;
        }
      }
      all.add(line);
    }
    roles.forEach(
        (spot, words) ->
            add(
                spot,
                drawn.standIn(design.table(spot.table()), String.join(", ", words)),
                Optional.of(spot.area())));
    return all;
  }

  /** The board that a table is seen as. */
  private Optional<Spot> spotOf(TableId id) {
    Spot own = new Spot.OfTable(id);
    if (numbers.containsKey(own)) {
      return Optional.of(own);
    }
    return design
        .table(id)
        .area()
        .<Spot>map(Spot.OfArea::new)
        .filter(spot -> scope.tables().contains(id) && numbers.containsKey(spot));
  }

  /** Who stands in for a table of another region. */
  private Optional<Spot.StandIn> standIn(Relationship r) {
    if (scope.areas() != Scope.Areas.STAND_INS) {
      return Optional.empty();
    }
    Optional<AreaId> here = scope.regionOf(design.table(r.child()));
    Optional<AreaId> there = scope.regionOf(design.table(r.parent()));
    return here.isEmpty() || there.isEmpty() || here.equals(there)
        ? Optional.empty()
        : Optional.of(new Spot.StandIn(r.parent(), here.get()));
  }

  MapLayout build() {
    return placed(KeptLayouts.of(graph()));
  }

  /** Everything where it was laid out. */
  MapLayout placed(Coordinates at) {
    Map<TableId, MapLayout.Placed> tables = new LinkedHashMap<>();
    var others = new ArrayList<MapLayout.Placed>();
    boards.forEach(
        (spot, board) -> {
          double[] corner = at.boards().get(numbers.get(spot));
          var placed = new MapLayout.Placed(spot, board, corner[0], corner[1]);
          if (spot instanceof Spot.OfTable(TableId table)) {
            tables.put(table, placed);
          } else {
            others.add(placed);
          }
        });
    Map<RelationshipId, MapLayout.Route> routes = new LinkedHashMap<>();
    var bundles = new ArrayList<MapLayout.Bundle>();
    for (int i = 0; i < lines.size(); i++) {
      Line line = lines.get(i);
      double[] points = at.lines().get(i);
      if (line.isBundle()) {
        List<RelationshipId> ids = line.all.stream().map(Relationship::id).toList();
        bundles.add(new MapLayout.Bundle(line.parent, line.child, ids, points));
      } else {
        Relationship r = line.all.getFirst();
        Multiplicity ends = Multiplicity.of(design, r);
        routes.put(r.id(), new MapLayout.Route(r.id(), r.parent(), r.child(), points, ends));
      }
    }
    return new MapLayout(
        tables, others, regions(at), routes, bundles, folded(), at.width(), at.height());
  }

  private List<MapLayout.Region> regions(Coordinates at) {
    var placed = new ArrayList<MapLayout.Region>();
    for (Area area : design.areas()) {
      Optional.ofNullable(regions.get(area.id()))
          .map(at.regions()::get)
          .ifPresent(
              c ->
                  placed.add(
                      new MapLayout.Region(
                          area.id(),
                          area.name(),
                          area.hue(),
                          c[0],
                          c[1],
                          c[2] - c[0],
                          c[3] - c[1])));
    }
    return placed;
  }

  private Map<TableId, AreaId> folded() {
    Map<TableId, AreaId> folded = new LinkedHashMap<>();
    design.tables().stream()
        .filter(table -> scope.tables().contains(table.id()) && scope.isFolded(table))
        .forEach(table -> folded.put(table.id(), table.area().orElseThrow()));
    return folded;
  }

  /** What the layout depends on. */
  LayoutGraph graph() {
    List<LayoutGraph.Node> nodes =
        boards.entrySet().stream().map(e -> node(e.getKey(), e.getValue())).toList();
    List<LayoutGraph.Edge> edges = lines.stream().map(this::edge).toList();
    return new LayoutGraph(close, regions.size(), nodes, edges);
  }

  private LayoutGraph.Node node(Spot spot, Board board) {
    Optional<AreaId> region =
        switch (spot) {
          case Spot.OfTable(TableId table) -> scope.regionOf(design.table(table));
          case Spot.OfArea area -> Optional.empty();
          case Spot.StandIn standIn -> Optional.of(standIn.area());
        };
    boolean free = spot instanceof Spot.OfArea;
    int number = region.map(regions::get).orElse(LayoutGraph.Node.NONE);
    Optional<LayoutGraph.Wish> wish =
        spot instanceof Spot.OfTable(TableId table)
            ? Optional.ofNullable(wishes.get(table))
            : Optional.empty();
    return new LayoutGraph.Node(board.width(), board.height(), number, free, wish);
  }

  private LayoutGraph.Edge edge(Line line) {
    Relationship first = line.all.getFirst();
    return new LayoutGraph.Edge(
        numbers.get(line.parent),
        boards.get(line.parent).middleOf(first.parentFields().getFirst()),
        numbers.get(line.child),
        boards.get(line.child).middleOf(first.childFields().getFirst()));
  }
}
