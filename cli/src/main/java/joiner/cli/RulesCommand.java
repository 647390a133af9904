package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import joiner.ddl.Keeping;
import joiner.ddl.Lowered;
import joiner.engine.Dialect;
import joiner.engine.Dialects;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.reasoning.Note;
import joiner.reasoning.Reasoner;
import joiner.reasoning.Understood;
import joiner.reasoning.Witness;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Says what the rules of a design mean together. */
@Command(
    name = "rules",
    description = {
      "Say what the rules of a design do: whether rows can pass and can fail, which rules say the",
      "same or contradict each other, with rows that show it. Exit code 1 if a rule lets no row",
      "pass or contradicts others."
    },
    mixinStandardHelpOptions = true)
final class RulesCommand implements Callable<Integer> {
  @Mixin private DesignArgument design;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Option(
      names = "--patience",
      defaultValue = "1000",
      paramLabel = "MS",
      description = "How long one question may take, in milliseconds; 1000 as usual.")
  private long patience;

  @Spec private CommandSpec spec;

  /** A rule of a table, and what is known of it. */
  private record Said(Table table, Understood understood) {}

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    PrintWriter out = spec.commandLine().getOut();
    Draft draft = design.open(spec.commandLine().getErr()).draft();
    var all = new ArrayList<Said>();
    try (var reasoner =
        new Reasoner(Clock.systemDefaultZone(), Duration.ofMillis(Math.max(1, patience)))) {
      for (Table table : draft.design().tables()) {
        reasoner
            .rules(draft.meaning().of(table))
            .forEach(understood -> all.add(new Said(table, understood)));
      }
    }
    if (json) {
      List<Object> rules = all.stream().<Object>map(said -> document(draft, said)).toList();
      JsonOut.print(Map.of("rules", rules), out);
    } else {
      all.forEach(said -> print(said, out));
      out.println(all.size() + " rules");
    }
    boolean wrong = all.stream().anyMatch(said -> said.understood.verdict().isWrong());
    return wrong ? ExitCode.ERRORS : ExitCode.FINE;
  }

  private static void print(Said said, PrintWriter out) {
    Understood understood = said.understood;
    String by =
        understood.by().isEmpty()
            ? ""
            : understood.by().stream()
                .map(Rule::label)
                .collect(Collectors.joining(", ", " (", ")"));
    out.println(
        understood.verdict().id()
            + by
            + "  "
            + said.table.label()
            + "  "
            + understood.rule().label());
    print("passes", understood.passes(), out);
    print("fails", understood.fails(), out);
    understood.notes().forEach(note -> out.println("    " + note.words()));
  }

  private static void print(String what, List<Witness> rows, PrintWriter out) {
    for (Witness row : rows) {
      String values =
          row.texts().entrySet().stream()
              .map(e -> e.getKey() + " " + (e.getValue().isEmpty() ? "empty" : e.getValue()))
              .collect(Collectors.joining(" · "));
      out.println("    " + what + "  " + values);
    }
  }

  private static Map<String, Object> document(Draft draft, Said said) {
    Understood understood = said.understood;
    Map<String, Object> rule = new LinkedHashMap<>();
    rule.put("table", said.table.name());
    rule.put("rule", understood.rule().name());
    rule.put("verdict", understood.verdict().id());
    rule.put("by", understood.by().stream().map(Rule::name).toList());
    rule.put("passes", understood.passes().stream().map(Witness::texts).toList());
    rule.put("fails", understood.fails().stream().map(Witness::texts).toList());
    rule.put("notes", understood.notes().stream().map(Note::words).toList());
    Map<String, String> kept = new LinkedHashMap<>();
    for (Dialect dialect : Dialects.ALL) {
      kept.put(dialect.id(), keeping(draft, said, dialect).by().words());
    }
    rule.put("kept", kept);
    return rule;
  }

  private static Keeping keeping(Draft draft, Said said, Dialect dialect) {
    return draft.meaning().of(said.table).ruled().stream()
        .filter(ruled -> ruled.rule().equals(said.understood.rule()))
        .map(ruled -> Lowered.keeping(draft, said.table.id(), ruled, dialect))
        .findFirst()
        .orElseThrow();
  }
}
