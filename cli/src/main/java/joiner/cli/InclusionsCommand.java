package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import joiner.discovery.FoundInclusion;
import joiner.discovery.InclusionSearch;
import joiner.format.UnreadableFileException;
import joiner.rows.EncodedTable;
import joiner.source.SourceTable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Finds which columns hold only values of which others. */
@Command(
    name = "inclusions",
    description =
        "Find which columns of files hold only values of which others: relationships that may be there.",
    mixinStandardHelpOptions = true)
final class InclusionsCommand implements Callable<Integer> {
  @Parameters(paramLabel = "FILE", arity = "1..*", description = "The files to search together.")
  private List<Path> files;

  @Mixin private SourceArgument sources;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    var tables = new ArrayList<EncodedTable>();
    for (Path file : files) {
      sources.read(file, spec.commandLine().getErr()).tables().stream()
          .map(SourceTable::cells)
          .forEach(tables::add);
    }
    var documents = new ArrayList<Map<String, Object>>();
    for (FoundInclusion found : InclusionSearch.usual().search(tables)) {
      documents.add(document(found, tables));
    }
    PrintWriter out = spec.commandLine().getOut();
    if (json) {
      JsonOut.print(Map.of("inclusions", documents), out);
    } else {
      documents.forEach(document -> print(document, out));
    }
    return ExitCode.FINE;
  }

  private static Map<String, Object> document(FoundInclusion found, List<EncodedTable> tables) {
    Map<String, Object> item = new LinkedHashMap<>();
    item.put("from", name(tables.get(found.fromTable()), found.from()));
    item.put("in", name(tables.get(found.inTable()), found.in()));
    item.put("rows", found.rows());
    item.put("missing", found.missing());
    item.put("orphans", found.orphans());
    item.put("compared", found.as().name().toLowerCase(Locale.ROOT));
    item.put("key", found.key());
    return item;
  }

  private static String name(EncodedTable table, List<Integer> columns) {
    List<String> headers = columns.stream().map(table.headers()::get).toList();
    return table.name()
        + "."
        + (headers.size() == 1 ? headers.getFirst() : "(" + String.join(", ", headers) + ")");
  }

  private static void print(Map<String, Object> item, PrintWriter out) {
    long rows = (Long) item.get("rows");
    long missing = (Long) item.get("missing");
    out.println(
        item.get("from")
            + " in "
            + item.get("in")
            + ": "
            + (rows - missing)
            + " of "
            + rows
            + " rows"
            + (missing > 0 ? "; orphans: " + item.get("orphans") : "")
            + (item.get("compared").equals("exact") ? "" : " (" + item.get("compared") + ")"));
  }
}
