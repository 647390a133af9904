package joiner.source;

import java.util.List;
import java.util.OptionalInt;
import joiner.naming.NamingPolicy;

/**
 * A file as it was read.
 *
 * @param name the file's name
 * @param found how it was understood, in words: “comma, UTF-8”, “3 sheets”
 * @param headerLine the line the column names stand in, from 1, 0 for none; empty where lines mean
 *     nothing
 * @param tables its tables; a repeating section follows the table it repeats in
 * @param problems what was not as it should be
 */
public record Source(
    String name,
    String found,
    OptionalInt headerLine,
    List<SourceTable> tables,
    List<SourceProblem> problems) {
  public Source {
    tables = List.copyOf(tables);
    problems = List.copyOf(problems);
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
