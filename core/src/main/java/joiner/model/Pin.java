package joiner.model;

/**
 * Where somebody wants the board of a table on the map: nearly there, for boards keep clear of each
 * other and of lines.
 *
 * @param across how far from the left its middle is, in thousandths of the map or of its area, 0 to
 *     1000
 * @param down how far from the top, likewise
 */
public record Pin(TableId table, int across, int down) {
  /** How many parts a side has. */
  public static final int PARTS = 1000;

  public Pin {
    if (across < 0 || across > PARTS || down < 0 || down > PARTS) {
      throw new IllegalArgumentException(
          "a board is pinned between 0 and 1000, not at " + across + ", " + down);
    }
  }

  /** The pin nearest to a place. */
  public static Pin at(TableId table, double across, double down) {
    return new Pin(table, parts(across), parts(down));
  }

  private static int parts(double part) {
    return (int) Math.round(PARTS * Math.clamp(part, 0, 1));
  }
}
