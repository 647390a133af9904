package joiner.source;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.FiledRows;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;
import joiner.rows.TableSink;
import org.jspecify.annotations.Nullable;

/**
 * The rows of a table that stay in a file, just as they would be had they been imported. No more
 * than a line is held.
 */
public final class LinkedFile implements FiledRows {
  /** What a cell takes in memory, as a rule: a reference and a short text. */
  private static final long BYTES_A_CELL = 56;

  private final Table table;
  private final LinkedRows rows;
  private final Path path;
  private final BooleanSupplier stop;
  private List<SourceProblem> problems = List.of();
  private @Nullable Object state;

  private LinkedFile(Table table, LinkedRows rows, BooleanSupplier stop) {
    this.table = table;
    this.rows = rows;
    this.path = Path.of(rows.file());
    this.stop = stop;
  }

  /**
   * The rows of a table.
   *
   * @param stop asked often; once true a pass ends with a {@link
   *     java.util.concurrent.CancellationException}
   */
  public static LinkedFile of(Table table, LinkedRows rows, BooleanSupplier stop) {
    return new LinkedFile(table, rows, stop);
  }

  /** All rows of a design that stay in files. */
  public static Map<TableId, LinkedFile> of(Draft draft, BooleanSupplier stop) {
    Map<TableId, LinkedFile> all = new LinkedHashMap<>();
    draft
        .rows()
        .linked()
        .forEach((id, rows) -> all.put(id, of(draft.design().table(id), rows, stop)));
    return all;
  }

  /**
   * A draft that holds the rows itself which stay in files.
   *
   * @param tables those to hold the rows of
   * @throws UnreadableFileException if a file cannot be read, or holds more than memory does
   */
  public static Draft held(Draft draft, Predicate<Table> tables) throws IOException {
    Draft held = draft;
    for (Map.Entry<TableId, LinkedRows> linked : draft.rows().linked().entrySet()) {
      Table table = draft.design().table(linked.getKey());
      if (tables.test(table)) {
        Rows rows = of(table, linked.getValue(), () -> false).held();
        held = held.withRows(held.rows().without(table.id()).with(table.id(), none -> rows));
      }
    }
    return held;
  }

  /**
   * All rows, in memory.
   *
   * @throws UnreadableFileException if the file cannot be read, or holds more than memory does
   */
  public Rows held() throws IOException {
    long needed = BYTES_A_CELL * Math.max(1, table.fields().size()) * rows.count();
    if (needed > Runtime.getRuntime().maxMemory() / 2) {
      throw new UnreadableFileException(
          path,
          0,
          "its "
              + Counts.of(rows.count())
              + " rows do not fit into memory; give Joiner more of it, or leave them where they"
              + " are.");
    }
    return Rows.of(table.fieldIds(), this);
  }

  /**
   * Some of the rows.
   *
   * @param numbers which rows they are, from 1, ascending
   */
  public record Examples(Rows rows, List<Integer> numbers) {
    public Examples {
      numbers = List.copyOf(numbers);
    }
  }

  /**
   * The first rows and some others; reads no further than the last of them.
   *
   * @param first how many of the first
   * @param others numbers of others, from 1
   */
  public Examples examples(int first, Set<Integer> others) throws IOException {
    var wanted = new SomeRows(table.fieldIds(), first, others);
    try {
      scan(wanted);
    } catch (SomeRows.Enough enough) {
      return wanted.examples();
    }
    return wanted.examples();
  }

  @Override
  public List<String> headers() {
    return table.namesOf(table.fieldIds());
  }

  /** What was wrong without ending the last pass. */
  public List<SourceProblem> problems() {
    return problems;
  }

  /** The file's size and time, as they were when first asked for, stand for what it holds. */
  @Override
  public synchronized Object state() {
    if (state == null) {
      state = List.of(path, rows.separator(), rows.charset(), rows.headerLine(), stamp(path));
    }
    return state;
  }

  private static Object stamp(Path path) {
    try {
      var file = Files.readAttributes(path, BasicFileAttributes.class);
      return List.of(file.size(), file.lastModifiedTime());
    } catch (IOException e) {
      return "not there";
    }
  }

  @Override
  public Object identity(FieldId field) {
    Optional<LinkedRows.Numbered> counter =
        rows.numbered().filter(numbered -> numbered.field().equals(field));
    return List.of(state(), counter, rows.column(field));
  }

  /**
   * Goes through the rows.
   *
   * @throws UnreadableFileException if the file is not there, or no longer holds the columns
   */
  @Override
  public void scan(TableSink sink) throws IOException {
    if (!Files.isRegularFile(path)) {
      throw new UnreadableFileException(
          path, 0, "there is no such file; put it back, or say where it is now.");
    }
    var options =
        ReadingOptions.DETECT
            .withSeparator(rows.separator().charAt(0))
            .withCharset(Charset.forName(rows.charset()))
            .withHeaderLine(rows.headerLine())
            .stoppedBy(stop);
    var log = new ProblemLog();
    var filled = new Filled(sink);
    DelimitedText.again(path, options, filled, log);
    filled.requireColumns();
    problems = log.all();
  }

  /** The fields on their way out of the columns. */
  private final class Filled implements TableSinks, TableSink {
    private final TableSink sink;
    private final int[] places;
    private final List<String> headers = new ArrayList<>();

    /** For each column of the file the field it fills. */
    private @Nullable ColumnReading[] readings = new ColumnReading[0];

    private final List<LinkedRows.Column> missing = new ArrayList<>(rows.columns());
    private final int counter;
    private long next;
    private boolean begun;

    Filled(TableSink sink) {
      this.sink = sink;
      this.places = headers().stream().mapToInt(sink::column).toArray();
      this.counter =
          rows.numbered().map(c -> places[table.fieldIds().indexOf(c.field())]).orElse(-1);
      this.next = rows.numbered().map(LinkedRows.Numbered::first).orElse(0L);
    }

    @Override
    public TableSink table(String name) {
      return this;
    }

    @Override
    public SectionSink section(String name, TableSink parent) {
      throw new IllegalStateException("delimited text has no sections");
    }

    @Override
    public void restart() {
      throw new IllegalStateException("the encoding is known");
    }

    @Override
    public int column(String header) {
      int place = headers.size();
      headers.add(header);
      readings = Arrays.copyOf(readings, place + 1);
      taking(place, header).ifPresent(column -> fill(place, column));
      return place;
    }

    private Optional<LinkedRows.Column> taking(int place, String header) {
      return missing.stream()
          .filter(column -> column.place() == place && column.header().equals(header))
          .findFirst();
    }

    private void fill(int place, LinkedRows.Column column) {
      missing.remove(column);
      int to = places[table.fieldIds().indexOf(column.field())];
      readings[place] = new ColumnReading(column, to, readings[place]);
    }

    /** Columns that moved are found by their names; one that nobody has ends the pass. */
    void requireColumns() throws UnreadableFileException {
      for (LinkedRows.Column column : List.copyOf(missing)) {
        int place = headers.indexOf(column.header());
        boolean unnamed = column.header().equals("Column " + (column.place() + 1));
        if (place >= 0) {
          fill(place, column);
        } else if (!unnamed) {
          throw new UnreadableFileException(
              path,
              rows.headerLine(),
              "the column “"
                  + column.header()
                  + "”, which "
                  + table.field(column.field()).label()
                  + " is read from, is not there any more; the columns are "
                  + String.join(", ", headers)
                  + ".");
        }
      }
    }

    private void begin() {
      begun = true;
      try {
        requireColumns();
      } catch (UnreadableFileException e) {
        throw new UncheckedIOException(e);
      }
    }

    @Override
    public void cell(int column, String text) {
      cell(column, text.toCharArray(), 0, text.length());
    }

    @Override
    public void cell(int column, char[] chars, int offset, int length) {
      if (!begun) {
        begin();
      }
      for (ColumnReading reading = readings[column]; reading != null; reading = reading.other()) {
        reading.put(sink, chars, offset, length);
      }
    }

    @Override
    public void endRow(long line) {
      if (!begun) {
        begin();
      }
      if (counter >= 0) {
        sink.cell(counter, String.valueOf(next++));
      }
      sink.endRow(line);
    }
  }
}
