package joiner.joining;

import java.util.List;
import java.util.Optional;
import joiner.expression.Value;

/**
 * What a question comes to.
 *
 * @param lines the values of the columns, line by line, in the order asked for
 * @param cut whether there are more lines than were asked for
 * @param repeated which columns count rows more than once, where that makes a difference
 * @param leftOut which rows no line shows, for want of a match
 */
public record Answer(
    Bound bound,
    List<List<Value>> lines,
    boolean cut,
    List<Repeated> repeated,
    List<LeftOut> leftOut) {
  public Answer {
    lines = List.copyOf(lines);
    repeated = List.copyOf(repeated);
    leftOut = List.copyOf(leftOut);
  }

  /**
   * A column that counts rows more than once.
   *
   * @param column its place among the columns
   * @param most how often one row is counted in one line, at most
   * @param lines in how many lines what it says is not what it would say if each counted once
   * @param example the place of the line where rows are repeated most
   * @param says what it says there
   * @param means what it would say there if each row counted once
   */
  public record Repeated(
      int column, int most, int lines, List<Value> example, Value says, Value means) {}

  /**
   * Rows that no line shows because nothing matches them.
   *
   * @param role whose rows
   * @param without the role of which they have no row
   * @param rows how many
   */
  public record LeftOut(int role, int without, int rows) {}

  /** What a column says of repetition. */
  public Optional<Repeated> repeated(int column) {
    return repeated.stream().filter(r -> r.column() == column).findFirst();
  }
}
