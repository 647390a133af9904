package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import joiner.finding.DesignChecks;
import joiner.finding.Finding;
import joiner.finding.RuleSense;
import joiner.finding.Severity;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.reasoning.Reasoner;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Runs the design checks. */
@Command(
    name = "check",
    description = "Check a design and print its findings. Exit code 1 if one of them is an error.",
    mixinStandardHelpOptions = true)
final class CheckCommand implements Callable<Integer> {
  @Mixin private DesignArgument design;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  private static final Duration PATIENCE = Duration.ofMillis(400);

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    PrintWriter out = spec.commandLine().getOut();
    var draft = design.open(spec.commandLine().getErr()).draft();
    List<Finding> findings = new ArrayList<>(DesignChecks.run(draft));
    findings.addAll(ofRules(draft));
    findings.sort(Comparator.comparing(Finding::severity));
    Map<String, Integer> counts = counts(findings);
    if (json) {
      JsonOut.print(document(draft.design(), findings, counts), out);
    } else {
      findings.forEach(
          finding ->
              out.println(
                  finding.severity().id() + "  " + finding.id() + "  " + finding.message()));
      out.println(
          counts.get("error")
              + " errors, "
              + counts.get("warning")
              + " warnings, "
              + counts.get("advice")
              + " to consider");
    }
    return counts.get("error") > 0 ? ExitCode.ERRORS : ExitCode.FINE;
  }

  /** What a solver says of the rules; it is loaded only where there are any. */
  private static List<Finding> ofRules(Draft draft) {
    if (!RuleSense.hasRules(draft)) {
      return List.of();
    }
    try (var reasoner = new Reasoner(Clock.systemDefaultZone(), PATIENCE)) {
      return draft.design().tables().stream()
          .flatMap(table -> RuleSense.of(draft.meaning().of(table), reasoner).stream())
          .toList();
    }
  }

  private static Map<String, Integer> counts(List<Finding> findings) {
    Map<String, Integer> counts = new LinkedHashMap<>();
    for (Severity severity : Severity.values()) {
      counts.put(
          severity.id(), (int) findings.stream().filter(f -> f.severity() == severity).count());
    }
    return counts;
  }

  private static Map<String, Object> document(
      Design design, List<Finding> findings, Map<String, Integer> counts) {
    var list = new ArrayList<Map<String, Object>>();
    for (Finding finding : findings) {
      var table = design.table(finding.table());
      Map<String, Object> item = new LinkedHashMap<>();
      item.put("id", finding.id());
      item.put("severity", finding.severity().id());
      item.put("table", table.name());
      item.put("field", JsonOut.orNull(finding.field().map(field -> table.field(field).name())));
      item.put("message", finding.message());
      list.add(item);
    }
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("findings", list);
    document.put("counts", counts);
    return document;
  }
}
