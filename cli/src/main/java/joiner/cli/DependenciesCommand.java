package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import joiner.dependency.AttributeSet;
import joiner.discovery.DependencySearch;
import joiner.discovery.FoundDependencies;
import joiner.discovery.FoundDependency;
import joiner.discovery.FoundMultivalued;
import joiner.discovery.MultivaluedSearch;
import joiner.format.UnreadableFileException;
import joiner.rows.EncodedTable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Finds the keys and functional dependencies of a file's rows. */
@Command(
    name = "dependencies",
    description = "Find all minimal keys and functional dependencies of the rows of a file.",
    mixinStandardHelpOptions = true)
final class DependenciesCommand implements Callable<Integer> {
  @Parameters(paramLabel = "FILE", description = "A file with one table.")
  private Path file;

  @Mixin private TableArgument tables;

  @Option(
      names = "--max-error",
      paramLabel = "G3",
      defaultValue = "0",
      description = "Share of rows that may contradict, 0 to 1; 0 as usual.")
  private double maxError;

  @Option(
      names = "--max-determinant",
      paramLabel = "N",
      description = "Look for no determinant and no key of more columns.")
  private Integer maxDeterminant;

  @Option(
      names = "--null-equals",
      paramLabel = "true|false",
      arity = "1",
      defaultValue = "true",
      description = "Whether two empty cells count as the same value; true as usual.")
  private boolean nullEquals;

  @Option(
      names = "--time-limit",
      paramLabel = "SECONDS",
      defaultValue = "600",
      description = "Stop searching after that time with what was found; 600 as usual.")
  private double timeLimit;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    if (!(maxError >= 0 && maxError <= 1)) {
      throw new ParameterException(
          spec.commandLine(), "--max-error is a share from 0 to 1, not " + maxError);
    }
    if (maxDeterminant != null && maxDeterminant < 0) {
      throw new ParameterException(
          spec.commandLine(), "--max-determinant is 0 or more, not " + maxDeterminant);
    }
    PrintWriter err = spec.commandLine().getErr();
    EncodedTable table = tables.read(file, err).cells();
    long end = System.nanoTime() + (long) (timeLimit * 1e9);
    BooleanSupplier stop = () -> System.nanoTime() - end > 0;
    var search =
        new DependencySearch(
            nullEquals, maxDeterminant == null ? Integer.MAX_VALUE : maxDeterminant, stop);
    FoundDependencies found =
        maxError == 0 ? search.exact(table) : search.approximate(table, maxError);
    if (!found.complete()) {
      err.println("joiner: a limit ended the search; there may be more than is shown.");
    }
    List<FoundMultivalued> multivalued =
        maxError == 0 ? MultivaluedSearch.of(table, stop) : List.of();
    PrintWriter out = spec.commandLine().getOut();
    if (json) {
      JsonOut.print(document(table, found, multivalued), out);
    } else {
      print(table, found, out);
      multivalued.forEach(m -> out.println("  " + words(table, m)));
    }
    return ExitCode.FINE;
  }

  private static Map<String, Object> document(
      EncodedTable table, FoundDependencies found, List<FoundMultivalued> multivalued) {
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("rows", found.rows());
    document.put("columns", table.headers());
    document.put(
        "dependencies", found.dependencies().stream().map(d -> document(table, found, d)).toList());
    document.put("keys", found.keys().stream().map(key -> names(table, key)).toList());
    document.put("complete", found.complete());
    document.put(
        "multivalued",
        multivalued.stream()
            .map(
                m ->
                    Map.of(
                        "determinant",
                        names(table, m.determinant()),
                        "blocks",
                        m.blocks().stream().map(block -> names(table, block)).toList()))
            .toList());
    return document;
  }

  private static Map<String, Object> document(
      EncodedTable table, FoundDependencies found, FoundDependency dependency) {
    Map<String, Object> item = new LinkedHashMap<>();
    item.put("determinant", names(table, dependency.determinant()));
    item.put("dependent", table.headers().get(dependency.dependent()));
    item.put("error", dependency.error(found.rows()));
    return item;
  }

  private static String words(EncodedTable table, FoundMultivalued found) {
    return String.join(", ", names(table, found.determinant()))
        + " ↠ "
        + found.blocks().stream()
            .map(block -> String.join(", ", names(table, block)))
            .collect(Collectors.joining(" | "));
  }

  private static List<String> names(EncodedTable table, AttributeSet columns) {
    return columns.places().mapToObj(table.headers()::get).toList();
  }

  private static void print(EncodedTable table, FoundDependencies found, PrintWriter out) {
    out.println(
        found.rows()
            + " rows, "
            + found.dependencies().size()
            + " dependencies, "
            + found.keys().size()
            + " keys");
    for (FoundDependency dependency : found.dependencies()) {
      out.println(
          "  "
              + String.join(", ", names(table, dependency.determinant()))
              + " → "
              + table.headers().get(dependency.dependent())
              + (dependency.exceptions() > 0
                  ? " (but for " + dependency.exceptions() + " rows)"
                  : ""));
    }
    found.keys().forEach(key -> out.println("  key: " + String.join(", ", names(table, key))));
  }
}
