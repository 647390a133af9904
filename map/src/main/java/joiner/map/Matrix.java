package joiner.map;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.ddl.TableOrder;
import joiner.model.Design;
import joiner.model.Multiplicity;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import org.jgrapht.alg.connectivity.KosarajuStrongConnectivityInspector;
import org.jgrapht.graph.DirectedPseudograph;

/**
 * Who refers to whom: a row of the matrix refers to the columns. Tables stand in an order in which
 * their rows can be loaded, so that what refers ahead or in a circle is seen above the diagonal.
 *
 * @param tables in the order of loading
 * @param cells what ties a row to a column, by {@link #key}
 * @param circles tables that refer to each other in a circle: the first and the last of each
 */
public record Matrix(
    List<Table> tables,
    Map<Long, List<Tie>> cells,
    Map<TableId, Integer> places,
    List<int[]> circles) {
  public Matrix {
    tables = List.copyOf(tables);
    cells = Map.copyOf(cells);
    places = Map.copyOf(places);
    circles = List.copyOf(circles);
  }

  /** Nothing. */
  public static final Matrix EMPTY = new Matrix(List.of(), Map.of(), Map.of(), List.of());

  /** A relationship with how many rows stand at its ends. */
  public record Tie(Relationship relationship, Multiplicity ends) {}

  /** The matrix of a design; linear in tables and relationships but for putting them in order. */
  public static Matrix of(Design design) {
    List<Set<TableId>> strong = strong(design);
    List<Table> tables = inOrder(design, strong);
    Map<TableId, Integer> places = new HashMap<>();
    tables.forEach(table -> places.put(table.id(), places.size()));
    Map<Long, List<Tie>> cells = new HashMap<>();
    for (Relationship r : design.relationships()) {
      cells
          .computeIfAbsent(
              key(places.get(r.child()), places.get(r.parent())), k -> new ArrayList<>())
          .add(new Tie(r, Multiplicity.of(design, r)));
    }
    return new Matrix(tables, cells, places, circles(strong, places));
  }

  /** The order of loading, in which tables of a circle stand together. */
  private static List<Table> inOrder(Design design, List<Set<TableId>> strong) {
    List<Table> loaded = TableOrder.of(design).tables();
    Map<TableId, Integer> first = new HashMap<>();
    loaded.forEach(table -> first.put(table.id(), first.size()));
    Map<TableId, Integer> together = new HashMap<>(first);
    for (Set<TableId> circle : strong) {
      int least = circle.stream().mapToInt(first::get).min().orElseThrow();
      circle.forEach(table -> together.put(table, least));
    }
    return loaded.stream()
        .sorted(
            Comparator.comparing((Table table) -> together.get(table.id()))
                .thenComparing(table -> first.get(table.id())))
        .toList();
  }

  private static List<Set<TableId>> strong(Design design) {
    var graph = new DirectedPseudograph<TableId, Relationship>(Relationship.class);
    design.tables().forEach(table -> graph.addVertex(table.id()));
    for (Relationship r : design.relationships()) {
      if (!r.isSelfReference()) {
        graph.addEdge(r.child(), r.parent(), r);
      }
    }
    return new KosarajuStrongConnectivityInspector<>(graph)
        .stronglyConnectedSets().stream().filter(set -> set.size() > 1).toList();
  }

  private static List<int[]> circles(List<Set<TableId>> strong, Map<TableId, Integer> places) {
    return strong.stream()
        .map(
            circle -> {
              var all = circle.stream().mapToInt(places::get).summaryStatistics();
              return new int[] {all.getMin(), all.getMax()};
            })
        .toList();
  }

  /** Row and column as one number. */
  static long key(int row, int column) {
    return ((long) row << 32) | column;
  }

  /** What ties a row to a column. */
  public List<Tie> at(int row, int column) {
    return cells.getOrDefault(key(row, column), List.of());
  }

  /** The place of a table. */
  public Optional<Integer> place(TableId table) {
    return Optional.ofNullable(places.get(table));
  }
}
