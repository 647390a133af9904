package joiner.rows;

import java.util.ArrayList;
import java.util.List;
import java.util.PrimitiveIterator;
import java.util.stream.IntStream;

/**
 * Rows that follow one another.
 *
 * @param first place of the first of them, from 0
 * @param count how many there are, at least one
 */
public record Stretch(int first, int count) {
  public Stretch {
    if (first < 0 || count < 1) {
      throw new IllegalArgumentException(count + " rows from " + first);
    }
  }

  /** The place after the last of them. */
  public int end() {
    return first + count;
  }

  /** Those places, ascending and each once, as few stretches. */
  public static List<Stretch> of(IntStream places) {
    var stretches = new ArrayList<Stretch>();
    int first = 0;
    int count = 0;
    for (PrimitiveIterator.OfInt all = places.iterator(); all.hasNext(); ) {
      int place = all.nextInt();
      if (count > 0 && place == first + count) {
        count++;
        continue;
      }
      if (count > 0) {
        stretches.add(new Stretch(first, count));
      }
      first = place;
      count = 1;
    }
    if (count > 0) {
      stretches.add(new Stretch(first, count));
    }
    return List.copyOf(stretches);
  }

  /** How many rows there are in all of them. */
  public static int count(List<Stretch> stretches) {
    return stretches.stream().mapToInt(Stretch::count).sum();
  }

  /** Whether they lie in order, none over another, and none beyond so many rows. */
  public static boolean fit(List<Stretch> stretches, int rows) {
    int end = 0;
    for (Stretch stretch : stretches) {
      if (stretch.first < end) {
        return false;
      }
      end = stretch.end();
    }
    return end <= rows;
  }
}
