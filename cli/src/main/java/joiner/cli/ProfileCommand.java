package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import joiner.discovery.ColumnProfile;
import joiner.format.UnreadableFileException;
import joiner.meaning.TypeWords;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.source.SourceProblem;
import joiner.source.TableProfile;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Says what the columns of files show. */
@Command(
    name = "profile",
    description =
        "Show for each column of files its type, length, blanks, different values, least and greatest value.",
    mixinStandardHelpOptions = true)
final class ProfileCommand implements Callable<Integer> {
  @Parameters(
      paramLabel = "FILE",
      arity = "1..*",
      description = "CSV, TSV, xlsx, ods, JSON, XML or datapackage.json.")
  private List<Path> files;

  @Mixin private SourceArgument sources;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    var documents = new ArrayList<Map<String, Object>>();
    var problems = new ArrayList<SourceProblem>();
    for (Path file : files) {
      TableProfile.OfFile profile = TableProfile.scan(file, sources.options());
      problems.addAll(profile.problems());
      for (TableProfile table : profile.tables()) {
        String name = String.valueOf(file.getFileName());
        documents.add(
            document(profile.tables().size() == 1 ? name : name + "/" + table.name(), table));
      }
    }
    PrintWriter out = spec.commandLine().getOut();
    if (json) {
      JsonOut.print(Map.of("sources", documents), out);
    } else {
      documents.forEach(document -> print(document, out));
    }
    SourceArgument.tell(problems, spec.commandLine().getErr());
    return ExitCode.FINE;
  }

  private static Map<String, Object> document(String source, TableProfile table) {
    Set<String> taken = new HashSet<>();
    var columns = new ArrayList<Map<String, Object>>();
    for (ColumnProfile column : table.columns()) {
      Field field = column.field(taken);
      taken.add(field.name());
      columns.add(document(column, field));
    }
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("source", source);
    document.put("rows", table.rows());
    document.put("columns", columns);
    return document;
  }

  private static Map<String, Object> document(ColumnProfile column, Field field) {
    boolean empty = column.rows() == column.blank();
    Map<String, Object> item = new LinkedHashMap<>();
    item.put("name", column.header());
    item.put("field", field.name());
    item.put("type", TypeWords.kind(column.type()));
    item.put(
        "length",
        column.type() instanceof FieldType.Sized sized ? sized.maxLength() : JsonOut.None.NONE);
    item.put("blank", column.blank());
    item.put("distinct", column.distinct());
    item.put("min", empty ? JsonOut.None.NONE : column.min());
    item.put("max", empty ? JsonOut.None.NONE : column.max());
    item.put("required", field.required());
    item.put("unique", column.unique());
    item.put("shortest", column.shortest());
    item.put("longest", column.longest());
    item.put("form", column.form().words());
    item.put("agreeing", column.agreeing());
    item.put(
        "disagreeing",
        column.disagreeing().stream().map(d -> Map.of("row", d.row(), "value", d.text())).toList());
    item.put("notes", column.notes().stream().sorted().map(ProfileCommand::words).toList());
    item.put("exact", column.exact());
    return item;
  }

  private static String words(ColumnProfile.Note note) {
    return note.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  private static void print(Map<String, Object> document, PrintWriter out) {
    out.println(document.get("source") + ": " + document.get("rows") + " rows");
    for (Object each : (List<?>) document.get("columns")) {
      var column = (Map<?, ?>) each;
      Object length = column.get("length");
      out.printf(
          Locale.ROOT,
          "  %-24s %-16s %s different, %s blank, %s … %s%s%n",
          column.get("name"),
          column.get("type") + (length instanceof Integer ? " " + length : ""),
          column.get("distinct"),
          column.get("blank"),
          column.get("min"),
          column.get("max"),
          Boolean.TRUE.equals(column.get("unique")) ? ", unique" : "");
    }
  }
}
