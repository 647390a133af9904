package joiner.change;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import joiner.rows.Rows;
import joiner.rows.Stretch;

/**
 * Which rows of a table went and which came, when its rows became others; those left stand in one
 * order in both.
 *
 * @param gone places among the rows of before
 * @param come places among the rows of after
 */
record SameRows(List<Stretch> gone, List<Stretch> come) {

  /** Log-linear in rows. */
  static SameRows of(Rows was, Rows is) {
    SameRows byId = byId(was, is);
    boolean sameOrigin = Stretch.count(byId.gone) < was.count() || was.count() == 0;
    return sameOrigin ? byId : byContent(was, is);
  }

  /**
   * By their ids, going through both sides at once: where they differ, a row that the other side
   * has nowhere went or came. Where both are on the other side too, somebody moved one: then rows
   * are told as gone and come again until both sides meet.
   */
  private static SameRows byId(Rows was, Rows is) {
    long[] before = sortedIds(was);
    long[] after = sortedIds(is);
    var gone = IntStream.builder();
    var come = IntStream.builder();
    int old = 0;
    int now = 0;
    while (old < was.count() && now < is.count()) {
      long one = was.id(old).value();
      long other = is.id(now).value();
      if (one == other) {
        old++;
        now++;
      } else if (Arrays.binarySearch(after, one) < 0 || Arrays.binarySearch(before, other) >= 0) {
        gone.add(old++);
      } else {
        come.add(now++);
      }
    }
    IntStream.range(old, was.count()).forEach(gone);
    IntStream.range(now, is.count()).forEach(come);
    return new SameRows(Stretch.of(gone.build()), Stretch.of(come.build()));
  }

  private static long[] sortedIds(Rows rows) {
    return IntStream.range(0, rows.count())
        .mapToLong(row -> rows.id(row).value())
        .sorted()
        .toArray();
  }

  /** Rows read anew, as from a changed file: by place, or what is between the same at both ends. */
  private static SameRows byContent(Rows was, Rows is) {
    if (was.count() == is.count()) {
      return new SameRows(List.of(), List.of());
    }
    int start = was.sameAtStart(is);
    int end = was.slice(start, was.count()).sameAtEnd(is.slice(start, is.count()));
    return new SameRows(
        Stretch.of(IntStream.range(start, was.count() - end)),
        Stretch.of(IntStream.range(start, is.count() - end)));
  }
}
