package joiner.source;

import java.io.IOException;
import java.nio.file.Path;
import joiner.format.UnreadableFileException;

/** Reads one kind of file. */
interface SourceReader {
  /**
   * Reads a file.
   *
   * @param sinks gives the place each table's rows go to
   * @param problems takes what is wrong without ending the reading
   * @return how the file was understood
   * @throws UnreadableFileException if nothing can be made of it
   */
  Understood read(Path file, ReadingOptions options, TableSinks sinks, ProblemLog problems)
      throws IOException, UnreadableFileException;

  /**
   * How a file was understood.
   *
   * @param found in words
   * @param headerLine from 1, 0 for none; −1 where lines mean nothing
   */
  record Understood(String found, int headerLine) {}
}
