package joiner.source;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import joiner.format.UnreadableFileException;

/**
 * Reads a file of any kind Joiner knows: delimited text, xlsx, ods, JSON, XML, Data Packages. The
 * kind is told by the file's ending, and by its first bytes where those say otherwise.
 */
public final class SourceFile {
  /** Endings of the files that can be read. */
  public static final List<String> ENDINGS =
      List.of("csv", "tsv", "tab", "txt", "xlsx", "xlsm", "ods", "json", "jsonl", "ndjson", "xml");

  private SourceFile() {}

  /**
   * Reads a file into memory, each column encoded.
   *
   * @throws UnreadableFileException if nothing can be made of it; anything less is among the
   *     source's problems
   */
  public static Source read(Path file, ReadingOptions options)
      throws IOException, UnreadableFileException {
    var tables = new LoadedTables();
    var problems = new ProblemLog();
    SourceReader.Understood understood = scan(file, options, tables, problems);
    return new Source(
        String.valueOf(file.getFileName()),
        understood.found(),
        understood.headerLine() < 0 ? OptionalInt.empty() : OptionalInt.of(understood.headerLine()),
        tables.build(),
        problems.all());
  }

  /** Delimited text from so many bytes on stays where it is unless one wants it otherwise. */
  private static final long LARGE = 64L << 20;

  /** Whether the rows of a file can stay in it: it is delimited text. */
  public static boolean canStay(Path file) throws IOException {
    try {
      return Files.isRegularFile(file) && reader(file) instanceof DelimitedText;
    } catch (UnreadableFileException e) {
      return false; // Why is told when it is read.
    }
  }

  /** Whether a file is so large that its rows had better stay in it. */
  public static boolean shouldStay(Path file) throws IOException {
    return canStay(file) && Files.size(file) >= LARGE;
  }

  /**
   * Reads delimited text whose rows are to stay in it: all of it is profiled, the first rows are
   * held.
   *
   * @throws UnreadableFileException if nothing can be made of it, or it is no delimited text
   */
  public static ProfiledSource readHead(Path file, ReadingOptions options)
      throws IOException, UnreadableFileException {
    if (!Files.isRegularFile(file)) {
      throw new UnreadableFileException(file, 0, "there is no such file.");
    }
    if (!(reader(file) instanceof DelimitedText)) {
      throw new UnreadableFileException(
          file, 0, "only rows of delimited text can stay in their file; save it as CSV.");
    }
    return HeadOfFile.read(file, options);
  }

  /**
   * Reads a file through, keeping nothing of delimited text and sheets, so that memory does not
   * grow with it.
   *
   * @return the problems met
   */
  public static List<SourceProblem> scan(Path file, ReadingOptions options, TableSinks sinks)
      throws IOException, UnreadableFileException {
    var problems = new ProblemLog();
    scan(file, options, sinks, problems);
    return problems.all();
  }

  private static SourceReader.Understood scan(
      Path file, ReadingOptions options, TableSinks sinks, ProblemLog problems)
      throws IOException, UnreadableFileException {
    if (Files.isDirectory(file) && Files.isRegularFile(file.resolve("datapackage.json"))) {
      return new PackageTables().read(file, options, sinks, problems);
    }
    if (!Files.isRegularFile(file)) {
      throw new UnreadableFileException(file, 0, "there is no such file.");
    }
    var budgeted = new BudgetedSinks(sinks, file, Files.size(file), problems);
    try {
      return reader(file).read(file, options, budgeted, problems);
    } catch (BudgetedSinks.UsedUp usedUp) {
      problems.add(SourceProblem.inLine(file, 0, usedUp.getMessage()));
      return new SourceReader.Understood("read in part", -1);
    }
  }

  private static SourceReader reader(Path file) throws IOException, UnreadableFileException {
    String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
    byte[] head;
    try (var in = Files.newInputStream(file)) {
      head = in.readNBytes(4096);
    }
    if (name.equals("datapackage.json")) {
      return new PackageTables();
    }
    if (head.length > 3 && head[0] == 'P' && head[1] == 'K' && head[2] == 3) {
      return name.endsWith(".ods") ? new OpenDocumentSheets() : new ExcelWorkbook();
    }
    if (head.length > 3 && (head[0] & 0xFF) == 0xD0 && (head[1] & 0xFF) == 0xCF) {
      throw new UnreadableFileException(
          file, 0, "this is an old binary or a protected workbook; save it as xlsx, ods or CSV.");
    }
    Optional<String> other = FileKind.otherThanTables(name, head);
    if (other.isPresent()) {
      throw new UnreadableFileException(file, 0, other.get());
    }
    if (name.endsWith(".xlsx") || name.endsWith(".xlsm") || name.endsWith(".ods")) {
      throw new UnreadableFileException(
          file, 0, "this is no workbook; its beginning is not that of one. Save it anew.");
    }
    if (name.endsWith(".json") || name.endsWith(".jsonl") || name.endsWith(".ndjson")) {
      return new JsonDocument();
    }
    return name.endsWith(".xml") ? new XmlDocument() : new DelimitedText();
  }

  /**
   * Reads a block as it is pasted from a spreadsheet: cells between tabs, or any other separator.
   */
  public static Source pasted(String name, String block, ReadingOptions options)
      throws UnreadableFileException {
    return DelimitedText.pasted(name, block, options);
  }
}
