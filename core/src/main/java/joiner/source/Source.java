package joiner.source;

import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.naming.NamingPolicy;
import joiner.rows.LinkedRows;

/**
 * A file as it was read.
 *
 * @param name the file's name
 * @param found how it was understood, in words: “comma, UTF-8”, “3 sheets”
 * @param headerLine the line the column names stand in, from 1, 0 for none; empty where lines mean
 *     nothing
 * @param tables its tables; a repeating section follows the table it repeats in
 * @param problems what was not as it should be
 * @param whole of delimited text of which only the first rows are held what tells how to read all
 */
public record Source(
    String name,
    String found,
    OptionalInt headerLine,
    List<SourceTable> tables,
    List<SourceProblem> problems,
    Optional<Whole> whole) {
  public Source {
    tables = List.copyOf(tables);
    problems = List.copyOf(problems);
  }

  /** A source all of whose rows are held. */
  public Source(
      String name,
      String found,
      OptionalInt headerLine,
      List<SourceTable> tables,
      List<SourceProblem> problems) {
    this(name, found, headerLine, tables, problems, Optional.empty());
  }

  /**
   * A file whose rows stay where they are.
   *
   * @param headerLine from 1; 0: none
   * @param rows how many there are
   */
  public record Whole(Path file, char separator, Charset charset, int headerLine, int rows) {
    /** Its rows as those of a table. */
    LinkedRows link(List<LinkedRows.Column> columns, Optional<LinkedRows.Numbered> numbered) {
      return new LinkedRows(
          file.toString(),
          String.valueOf(separator),
          charset.name(),
          headerLine,
          columns,
          numbered,
          rows);
    }
  }

  /** What it is about, as a label: the file's name without its ending. */
  public String label() {
    return NamingPolicy.labelFor(NamingPolicy.nameFor(stem(name)));
  }

  /** The file's name without its ending. */
  static String stem(String fileName) {
    int dot = fileName.lastIndexOf('.');
    return dot > 0 ? fileName.substring(0, dot) : fileName;
  }
}
