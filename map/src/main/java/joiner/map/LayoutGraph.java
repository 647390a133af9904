package joiner.map;

import java.nio.ByteBuffer;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;

/**
 * What a layout depends on: sizes of boards and where lines leave and meet them, in pixels at zoom
 * 1.
 *
 * @param brief whether the boards are small and stand close together
 */
record LayoutGraph(boolean brief, List<Node> nodes, List<Edge> edges) {
  LayoutGraph {
    nodes = List.copyOf(nodes);
    edges = List.copyOf(edges);
  }

  /** A board. */
  record Node(double width, double height) {}

  /**
   * A line from the right of a board to the left of another, or to the right of the same one.
   *
   * @param from number of the board, from 0
   * @param fromY below the board's upper edge
   */
  record Edge(int from, double fromY, int to, double toY) {}

  /** Equal for equal graphs: SHA-256 of all numbers, in hexadecimal. */
  String digest() {
    var bytes = ByteBuffer.allocate(9 + 16 * nodes.size() + 24 * edges.size());
    bytes.put((byte) (brief ? 1 : 0)).putInt(nodes.size()).putInt(edges.size());
    nodes.forEach(node -> bytes.putDouble(node.width).putDouble(node.height));
    edges.forEach(e -> bytes.putInt(e.from).putDouble(e.fromY).putInt(e.to).putDouble(e.toY));
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes.array()));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java platform has SHA-256", e);
    }
  }
}
