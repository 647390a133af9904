package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import joiner.edit.EditRefusedException;
import joiner.entry.Intake;
import joiner.entry.KnownTrials;
import joiner.entry.Refusal;
import joiner.entry.TakingIn;
import joiner.format.DesignFolder;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.naming.Counts;
import joiner.rows.EncodedTable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Takes rows of a file into a table of a design, under all its rules. */
@Command(
    name = "enter",
    description = {
      "Take the rows of a file into the sample rows of a table, under all rules of the design. If one",
      "is refused none is taken, unless --partly. Exit code 1 if a row is refused."
    },
    mixinStandardHelpOptions = true)
final class EnterCommand implements Callable<Integer> {
  @Mixin private DesignArgument design;

  @Parameters(index = "1", paramLabel = "TABLE", description = "The table, by its name.")
  private String table;

  @Option(
      names = "--file",
      required = true,
      paramLabel = "FILE",
      description = "The rows; the columns are called as the fields, by name or label.")
  private Path file;

  @Option(
      names = "--match",
      split = ",",
      paramLabel = "FIELD",
      description =
          "Rows that are there are changed by those that have the same value in these fields.")
  private List<String> match = List.of();

  @Option(
      names = "--missing",
      defaultValue = "leave",
      paramLabel = "WHAT",
      description = "What becomes of rows that none matches: ${COMPLETION-CANDIDATES}.")
  private TakingIn.Missing missing;

  @Option(names = "--partly", description = "Take in the rows that are not refused.")
  private boolean partly;

  @Option(names = "--dry-run", description = "Only tell what would be; nothing is changed.")
  private boolean dryRun;

  @Mixin private TableArgument source;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    PrintWriter out = spec.commandLine().getOut();
    PrintWriter err = spec.commandLine().getErr();
    Draft draft = design.open(err).draft();
    Table into =
        draft
            .design()
            .tableNamed(table)
            .orElseThrow(
                () ->
                    new ParameterException(
                        spec.commandLine(), "there is no table " + table + " in the design"));
    Clock clock = Clock.systemDefaultZone();
    Intake intake;
    try {
      List<FieldId> by = TakingIn.fields(into, match).stream().map(Field::id).toList();
      intake =
          Intake.of(
              draft,
              into,
              rows(into, err),
              new Intake.How(by, missing, partly),
              new KnownTrials(),
              clock,
              new SecureRandom());
    } catch (EditRefusedException refused) {
      throw new ParameterException(spec.commandLine(), refused.getMessage());
    }
    TakingIn planned = intake.planned();
    List<Told> told = intake.refused().stream().map(refused -> told(draft, refused)).toList();
    boolean taken = !intake.trial().isRefused() && !dryRun;
    if (taken) {
      DesignFolder.save(intake.trial().after(), design.path());
    }
    if (json) {
      JsonOut.print(document(planned, told, taken), out);
    } else {
      print(into, planned, told, taken, out);
    }
    return told.isEmpty() ? ExitCode.FINE : ExitCode.ERRORS;
  }

  /**
   * A refusal as it is printed.
   *
   * @param line of the file's rows, from 1; 0 where a row is meant that was there before
   */
  private record Told(int line, String table, int row, List<String> fields, String message) {}

  private static Told told(Draft draft, Intake.Refused refused) {
    Refusal refusal = refused.refusal();
    Table of = draft.design().table(refusal.table());
    return new Told(
        refused.line(), of.name(), refusal.row(), of.namesOf(refusal.fields()), refusal.message());
  }

  private List<Map<FieldId, String>> rows(Table into, PrintWriter err)
      throws IOException, UnreadableFileException {
    EncodedTable cells = source.read(file, err).cells();
    List<Optional<FieldId>> fields =
        TakingIn.fields(into, cells.headers()).stream().map(f -> Optional.of(f.id())).toList();
    return Intake.rows(cells, fields);
  }

  private static void print(
      Table into, TakingIn planned, List<Told> told, boolean taken, PrintWriter out) {
    for (Told one : told) {
      String where = one.line > 0 ? "row " + one.line : one.table + " " + one.row;
      out.println(where + "  " + String.join(", ", one.fields) + "  " + one.message);
    }
    String what = Counts.of(planned.added(), "new row", "new rows");
    out.println(
        what
            + ", "
            + planned.updated()
            + " changed, "
            + planned.unchanged()
            + " as they are, "
            + planned.missing()
            + " not named"
            + (taken ? "; taken into " + into.label() : "; nothing was changed"));
  }

  private static Map<String, Object> document(TakingIn planned, List<Told> told, boolean taken) {
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("added", planned.added());
    document.put("updated", planned.updated());
    document.put("unchanged", planned.unchanged());
    document.put("missing", planned.missing());
    document.put("taken", taken);
    document.put(
        "refused",
        told.stream()
            .<Object>map(
                one -> {
                  Map<String, Object> refusal = new LinkedHashMap<>();
                  refusal.put("line", one.line);
                  refusal.put("table", one.table);
                  refusal.put("fields", one.fields);
                  refusal.put("message", one.message);
                  return refusal;
                })
            .toList());
    return document;
  }
}
