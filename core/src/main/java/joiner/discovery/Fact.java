package joiner.discovery;

import java.util.List;
import joiner.dependency.AttributeSet;

/**
 * Something the rows of one table show that may be true of the business, and that would split the
 * table if it is. Columns are named by place, from 0.
 */
public sealed interface Fact {
  /** Names the fact within its table, the same every time: {@code member.decides.e_mail}. */
  String id();

  /** How plausible it is, 0 to 1. */
  double score();

  /** What speaks for and against it, a sentence each. */
  List<String> reasons();

  /**
   * Rows that agree in some columns agree in another.
   *
   * @param exceptions the fewest rows that would have to go for it to hold
   */
  record Decides(
      String id,
      double score,
      List<String> reasons,
      AttributeSet determinant,
      int dependent,
      int exceptions)
      implements Fact {
    public Decides {
      reasons = List.copyOf(reasons);
    }
  }

  /**
   * Numbered columns that are one list.
   *
   * @param bases what is repeated, each with its columns in the order of their numbers
   */
  record Repeats(String id, double score, List<String> reasons, List<Base> bases) implements Fact {
    public Repeats {
      reasons = List.copyOf(reasons);
      bases = List.copyOf(bases);
    }

    /**
     * One repeated thing.
     *
     * @param label the headers without their number
     */
    public record Base(String label, List<Integer> columns) {
      public Base {
        columns = List.copyOf(columns);
      }
    }
  }

  /**
   * A column whose cells hold several values.
   *
   * @param separator between the values, exactly
   * @param counted whether every value is a number, a blank, and a thing
   */
  record HoldsSeveral(
      String id, double score, List<String> reasons, int column, String separator, boolean counted)
      implements Fact {
    public HoldsSeveral {
      reasons = List.copyOf(reasons);
    }
  }

  /** A short list of values that come again and again: rows of a table of its own. */
  record IsLookup(String id, double score, List<String> reasons, int column) implements Fact {
    public IsLookup {
      reasons = List.copyOf(reasons);
    }
  }

  /**
   * Two spellings of what may be one thing.
   *
   * @param keep the more frequent one
   * @param keepRows how many rows have it
   * @param other the other one
   * @param otherRows how many rows have that
   */
  record SameThing(
      String id,
      double score,
      List<String> reasons,
      int column,
      String keep,
      int keepRows,
      String other,
      int otherRows)
      implements Fact {
    public SameThing {
      reasons = List.copyOf(reasons);
    }
  }
}
