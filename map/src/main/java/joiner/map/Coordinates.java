package joiner.map;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;

/**
 * Where the parts of a {@link LayoutGraph} stand, in pixels at zoom 1.
 *
 * @param boards x and y of each board's upper left corner
 * @param lines x and y of each line's corners in turn
 * @param regions x and y of each region's upper left and lower right corner
 */
record Coordinates(
    double width,
    double height,
    List<double[]> boards,
    List<double[]> lines,
    List<double[]> regions) {
  Coordinates {
    boards = List.copyOf(boards);
    lines = List.copyOf(lines);
    regions = List.copyOf(regions);
  }

  void write(DataOutputStream out) throws IOException {
    out.writeDouble(width);
    out.writeDouble(height);
    List<List<double[]>> parts =
        regions.isEmpty() ? List.of(boards, lines) : List.of(boards, lines, regions);
    for (List<double[]> all : parts) {
      out.writeInt(all.size());
      for (double[] points : all) {
        out.writeInt(points.length);
        for (double point : points) {
          out.writeDouble(point);
        }
      }
    }
  }

  /**
   * What {@link #write} wrote.
   *
   * @throws IOException if it is of another graph or no coordinates at all
   */
  static Coordinates read(DataInputStream in, LayoutGraph graph) throws IOException {
    double width = in.readDouble();
    double height = in.readDouble();
    return new Coordinates(
        width,
        height,
        all(in, graph.nodes().size()),
        all(in, graph.edges().size()),
        graph.regions() == 0 ? List.of() : all(in, graph.regions()));
  }

  private static List<double[]> all(DataInputStream in, int expected) throws IOException {
    if (in.readInt() != expected) {
      throw new IOException("the layout of another graph");
    }
    var all = new double[expected][];
    for (int i = 0; i < expected; i++) {
      int length = in.readInt();
      if (length < 2 || length > 10_000 || length % 2 != 0) {
        throw new IOException("no corners: " + length);
      }
      all[i] = new double[length];
      for (int j = 0; j < length; j++) {
        all[i][j] = in.readDouble();
      }
    }
    return Arrays.asList(all);
  }
}
