package joiner.map;

import java.nio.ByteBuffer;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;

/**
 * What a layout depends on: sizes of boards, which of them stand together in a region, and where
 * lines leave and meet them, in pixels at zoom 1.
 *
 * @param brief whether the boards are small and stand close together
 * @param regions how many there are; each node is in one of them or in none
 */
record LayoutGraph(boolean brief, int regions, List<Node> nodes, List<Edge> edges) {
  LayoutGraph {
    nodes = List.copyOf(nodes);
    edges = List.copyOf(edges);
  }

  /** A graph without regions. */
  LayoutGraph(boolean brief, List<Node> nodes, List<Edge> edges) {
    this(brief, 0, nodes, edges);
  }

  /**
   * A board.
   *
   * @param region the number of the one it is in, from 0; {@link #NONE}
   * @param free whether lines may meet a side of it anywhere
   * @param wish where somebody wants it
   */
  record Node(double width, double height, int region, boolean free, Optional<Wish> wish) {
    static final int NONE = -1;

    /** A board in no region. */
    Node(double width, double height) {
      this(width, height, NONE, false, Optional.empty());
    }
  }

  /**
   * Where somebody wants the middle of a board in its region, or in the whole.
   *
   * @param across from 0, at the left, to 1
   * @param down from 0, at the top, to 1
   */
  record Wish(double across, double down) {}

  private static final Wish NO_WISH = new Wish(-1, -1);

  /**
   * A line from the right of a board to the left of another, or to the right of the same one.
   *
   * @param from number of the board, from 0
   * @param fromY below the board's upper edge
   */
  record Edge(int from, double fromY, int to, double toY) {}

  /**
   * Equal for equal graphs that are laid out in one way: SHA-256 of all numbers, in hexadecimal.
   */
  String digest() {
    var bytes = ByteBuffer.allocate(17 + 37 * nodes.size() + 24 * edges.size());
    bytes.putInt(LayoutKernel.EDITION).put((byte) (brief ? 1 : 0));
    bytes.putInt(regions).putInt(nodes.size()).putInt(edges.size());
    for (Node node : nodes) {
      Wish wish = node.wish.orElse(NO_WISH);
      bytes.putDouble(node.width).putDouble(node.height);
      bytes.putInt(node.region).put((byte) (node.free ? 1 : 0));
      bytes.putDouble(wish.across).putDouble(wish.down);
    }
    edges.forEach(e -> bytes.putInt(e.from).putDouble(e.fromY).putInt(e.to).putDouble(e.toY));
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes.array()));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java platform has SHA-256", e);
    }
  }
}
