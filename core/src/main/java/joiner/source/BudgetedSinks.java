package joiner.source;

import java.nio.file.Path;
import java.util.concurrent.CancellationException;
import joiner.rows.TableSink;

/**
 * What one file may cost, whatever it says: columns, cells with the empty ones between them, length
 * of one text, time. Up to that everything is kept; what goes beyond is left out and told.
 */
final class BudgetedSinks implements TableSinks {
  /** The widest a sheet can be (ECMA-376); more columns than any database table has. */
  static final int MOST_COLUMNS = 16_384;

  /** Cells, the empty ones included, that are always allowed. */
  private static final long CELLS = 20_000_000;

  /** Longest text of a cell, in characters. */
  private static final int CELL_LENGTH = 16 << 20;

  /** Longest name of a column, in characters. */
  static final int HEADER_LENGTH = 1_000;

  private static final long NANOS = 15_000_000_000L;
  private static final long NANOS_PER_BYTE = 1_000;

  private final TableSinks sinks;
  private final Path file;
  private final ProblemLog problems;
  private final long mostCells;
  private final long end;
  private long finished;
  private int columns;
  private boolean columnsTold;
  private boolean lengthTold;
  private boolean headerTold;

  /**
   * A budget.
   *
   * @param bytes size of the file; a longer one may cost more
   */
  BudgetedSinks(TableSinks sinks, Path file, long bytes, ProblemLog problems) {
    this.sinks = sinks;
    this.file = file;
    this.problems = problems;
    this.mostCells = Math.max(CELLS, 2 * bytes);
    this.end = System.nanoTime() + NANOS + NANOS_PER_BYTE * bytes;
  }

  /** The budget is used up; what was read before stays. */
  static final class UsedUp extends CancellationException {
    private static final long serialVersionUID = 1L;

    UsedUp(String what) {
      super(what);
    }
  }

  @Override
  public TableSink table(String name) {
    return new Budgeted(sinks.table(name));
  }

  @Override
  public SectionSink section(String name, TableSink parent) {
    return new BudgetedSection(sinks.section(name, ((Budgeted) parent).sink));
  }

  @Override
  public void restart() {
    columns = 0;
    finished = 0;
    sinks.restart();
  }

  private void tell(long line, String message) {
    problems.add(SourceProblem.inLine(file, line, message));
  }

  private class Budgeted implements TableSink {
    private final TableSink sink;
    private int own;
    private int asked;
    private long rows;

    Budgeted(TableSink sink) {
      this.sink = sink;
    }

    @Override
    public int column(String header) {
      if (columns == MOST_COLUMNS) {
        if (!columnsTold) {
          columnsTold = true;
          tell(
              0,
              "there are more than "
                  + MOST_COLUMNS
                  + " columns; those after them were left out. Keep only the columns you need.");
        }
      } else {
        columns++;
        own++;
        sink.column(shortened(header));
      }
      return asked++;
    }

    private String shortened(String header) {
      if (header.length() <= HEADER_LENGTH) {
        return header;
      }
      if (!headerTold) {
        headerTold = true;
        tell(0, "a column's name has " + header.length() + " characters; it was cut short.");
      }
      return header.substring(0, HEADER_LENGTH) + "…";
    }

    @Override
    public void cell(int column, String text) {
      if (column < own) {
        boolean fits = fits(text.length());
        sink.cell(column, fits ? text : text.substring(0, CELL_LENGTH));
      }
    }

    @Override
    public void cell(int column, char[] chars, int offset, int length) {
      if (column < own) {
        sink.cell(column, chars, offset, fits(length) ? length : CELL_LENGTH);
      }
    }

    private boolean fits(int length) {
      if (length > CELL_LENGTH && !lengthTold) {
        lengthTold = true;
        tell(0, "a cell has " + length + " characters; it was cut after " + CELL_LENGTH + ".");
      }
      return length <= CELL_LENGTH;
    }

    @Override
    public void endRow(long line) {
      sink.endRow(line);
      rows++;
      finished += own;
      if (finished > mostCells) {
        throw new UsedUp(
            "the file spreads over more than "
                + mostCells
                + " cells, most of them empty; the rows after this one were left out. Delete the"
                + " empty columns.");
      }
      if ((rows & 0x3F) == 0 && System.nanoTime() > end) {
        throw new UsedUp(
            "reading took too long for a file of this size; the rows after this one were left out."
                + " Save it anew, or in parts.");
      }
    }
  }

  private final class BudgetedSection extends Budgeted implements SectionSink {
    private final SectionSink section;

    BudgetedSection(SectionSink section) {
      super(section);
      this.section = section;
    }

    @Override
    public void belongsTo(int parentRow) {
      section.belongsTo(parentRow);
    }
  }
}
