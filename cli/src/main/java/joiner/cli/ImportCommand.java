package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import joiner.database.LiveDesign;
import joiner.database.Progress;
import joiner.database.TargetRefusedException;
import joiner.database.WholeSchema;
import joiner.edit.AddDesign;
import joiner.engine.Dialect;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.meaning.TypeWords;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.Table;
import joiner.naming.NamingPolicy;
import joiner.rows.SampleRows;
import joiner.source.ImportOptions;
import joiner.source.ProfiledSource;
import joiner.source.Source;
import joiner.source.SourceImport;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Turns files and databases into tables of a design. */
@Command(
    name = "import",
    description = {
      "Read files, scripts or a database and add their tables with the rows to a design, which is made if it is not there.",
      "Nothing is changed in the database. What is not understood is told."
    },
    footer = "The password comes from JOINER_PASSWORD or a prompt.",
    mixinStandardHelpOptions = true)
final class ImportCommand implements Callable<Integer> {
  @Parameters(
      paramLabel = "FILE",
      arity = "1..*",
      description =
          "CSV, TSV, xlsx, ods, JSON, XML, datapackage.json, a script of SQL, or a JDBC URL.")
  private List<String> files;

  @Mixin private LiveArgument live;

  @Option(
      names = "--dialect",
      converter = EngineWord.class,
      completionCandidates = EngineWord.class,
      description =
          "The engine a script of SQL is for: ${COMPLETION-CANDIDATES}; found by looking as usual.")
  private Optional<Dialect> dialect;

  @Option(
      names = "--rows",
      paramLabel = "N",
      defaultValue = "" + LiveDesign.USUAL_ROWS,
      description = "How many rows of each table of a database to take at most.")
  private int rowsAtMost;

  @Option(
      names = "--out",
      required = true,
      paramLabel = "DESIGN",
      description = "The design folder to write.")
  private Path out;

  @Mixin private SourceArgument sources;

  @Option(
      names = "--definition-only",
      description = "Take the tables and fields, without the rows.")
  private boolean definitionOnly;

  @Option(
      names = "--link",
      description =
          "Leave the rows of delimited text in their file, which is read whenever they are wanted.")
  private boolean link;

  @Option(
      names = "--first-number",
      paramLabel = "N",
      defaultValue = "1",
      description = "Where generated keys begin; 1 as usual.")
  private long firstNumber;

  @Option(
      names = "--skip",
      split = ",",
      paramLabel = "COLUMN",
      description = "Columns to leave out, by their name in the file.")
  private List<String> skipped = List.of();

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException, TargetRefusedException {
    var added = new ArrayList<Map<String, Object>>();
    try (DesignInHand hand = DesignInHand.take(out)) {
      Draft draft = hand.found().orElseGet(() -> empty(out));
      for (String file : files) {
        draft =
            LiveArgument.isLive(file)
                ? withDatabase(draft, file, added)
                : WholeSchema.is(Path.of(file))
                    ? withSchema(draft, Path.of(file), added)
                    : withFile(draft, file, added);
      }
      hand.save(draft);
    }
    report(added, spec.commandLine().getOut());
    return ExitCode.FINE;
  }

  private Draft withFile(Draft draft, String file, List<Map<String, Object>> added)
      throws IOException, UnreadableFileException {
    PrintWriter err = spec.commandLine().getErr();
    ProfiledSource source =
        link
            ? sources.readHead(Path.of(file), err)
            : ProfiledSource.of(sources.read(Path.of(file), err));
    SourceImport wanted = SourceImport.of(source, draft.design(), options(source.source()));
    wanted.tables().forEach(table -> added.add(document(table.table(), table.rowCount())));
    return wanted.edit().apply(draft);
  }

  private Draft withDatabase(Draft draft, String url, List<Map<String, Object>> added)
      throws TargetRefusedException {
    LiveDesign read =
        LiveDesign.read(
            live.target(url),
            draft.design().title(),
            definitionOnly ? 0 : rowsAtMost,
            Progress.NONE);
    return with(draft, read.draft(), read.notices(), added);
  }

  private Draft withSchema(Draft draft, Path file, List<Map<String, Object>> added)
      throws IOException, TargetRefusedException {
    WholeSchema schema =
        WholeSchema.read(
            file, draft.design().title(), dialect, definitionOnly ? 0 : rowsAtMost, Progress.NONE);
    Draft read = schema.draft();
    return with(
        draft,
        definitionOnly ? new Draft(read.design(), SampleRows.NONE) : read,
        schema.notices(),
        added);
  }

  private Draft with(
      Draft draft, Draft read, List<String> notices, List<Map<String, Object>> added) {
    DesignArgument.note(notices, spec.commandLine().getErr());
    for (Table table : read.design().tables()) {
      added.add(document(table, read.rows().of(table.id()).count()));
    }
    return new AddDesign(read).apply(draft);
  }

  private ImportOptions options(Source source) {
    Map<Integer, Set<Integer>> places = new LinkedHashMap<>();
    for (int table = 0; table < source.tables().size(); table++) {
      List<String> headers = source.tables().get(table).cells().headers();
      places.put(
          table,
          IntStream.range(0, headers.size())
              .filter(column -> skipped.contains(headers.get(column)))
              .boxed()
              .collect(Collectors.toSet()));
    }
    return new ImportOptions(!definitionOnly, firstNumber, "", places);
  }

  static Draft empty(Path out) {
    Path folder = DesignFolder.folderOf(out);
    String title = NamingPolicy.labelFor(String.valueOf(folder.getFileName()).replace('-', ' '));
    return new Draft(
        Design.empty(NamingPolicy.nameFor(title).replace('_', '-'), title), SampleRows.NONE);
  }

  private static Map<String, Object> document(Table table, int rows) {
    var fields = new ArrayList<Map<String, Object>>();
    for (Field field : table.fields()) {
      Map<String, Object> item = new LinkedHashMap<>();
      item.put("name", field.name());
      item.put("type", TypeWords.of(field.type()));
      item.put("required", field.required());
      fields.add(item);
    }
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("table", table.name());
    document.put("rows", rows);
    document.put("fields", fields);
    return document;
  }

  private void report(List<Map<String, Object>> added, PrintWriter screen) throws IOException {
    if (json) {
      JsonOut.print(Map.of("tables", added), screen);
    } else {
      added.forEach(
          t -> screen.println("added " + t.get("table") + " with " + t.get("rows") + " rows"));
    }
  }
}
