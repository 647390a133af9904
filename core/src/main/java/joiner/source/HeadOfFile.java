package joiner.source;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.format.UnreadableFileException;
import joiner.rows.TableSink;

/** Reads delimited text through once: profiles all of it, and holds the first rows. */
final class HeadOfFile implements TableSinks {
  /** So many rows are held. */
  static final int ROWS = 10_000;

  private final ProfiledTables all;
  private LoadedTables first = new LoadedTables();
  private boolean restarted;

  private HeadOfFile(ProfiledTables all) {
    this.all = all;
  }

  static ProfiledSource read(Path file, ReadingOptions options)
      throws IOException, UnreadableFileException {
    try (var all = new ProfiledTables()) {
      var head = new HeadOfFile(all);
      var problems = new ProblemLog();
      SourceReader.Understood found = new DelimitedText().read(file, options, head, problems);
      TableProfile profile = all.profiles().getFirst();
      TextShape shape =
          TextShape.of(file, head.restarted ? options.withCharset(TextShape.WINDOWS) : options);
      var whole =
          new Source.Whole(
              file.toAbsolutePath().normalize(),
              shape.separator(),
              shape.charset(),
              shape.headerLine(),
              Math.toIntExact(profile.rows()));
      return new ProfiledSource(
          new Source(
              String.valueOf(file.getFileName()),
              found.found(),
              OptionalInt.of(found.headerLine()),
              head.first.build(),
              problems.all(),
              Optional.of(whole)),
          List.of(profile.columns()));
    }
  }

  @Override
  public TableSink table(String name) {
    return new Both(all.table(name), first.table(name));
  }

  @Override
  public SectionSink section(String name, TableSink parent) {
    throw new IllegalStateException("delimited text has no sections");
  }

  @Override
  public void restart() {
    restarted = true;
    all.restart();
    first = new LoadedTables();
  }

  /** A row goes to the profile, and to the first rows while they are few. */
  private static final class Both implements TableSink {
    private final TableSink profiled;
    private final TableSink held;
    private int rows;

    Both(TableSink profiled, TableSink held) {
      this.profiled = profiled;
      this.held = held;
    }

    @Override
    public int column(String header) {
      held.column(header);
      return profiled.column(header);
    }

    @Override
    public void cell(int column, String text) {
      profiled.cell(column, text);
      if (rows < ROWS) {
        held.cell(column, text);
      }
    }

    @Override
    public void cell(int column, char[] chars, int offset, int length) {
      if (rows < ROWS) {
        held.cell(column, new String(chars, offset, length));
      }
      profiled.cell(column, chars, offset, length);
    }

    @Override
    public void endRow(long line) {
      if (rows < ROWS) {
        held.endRow(line);
      }
      rows++;
      profiled.endRow(line);
    }
  }
}
