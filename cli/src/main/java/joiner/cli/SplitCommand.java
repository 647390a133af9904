package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import joiner.discovery.Contradiction;
import joiner.discovery.Fact;
import joiner.discovery.FactSearch;
import joiner.edit.EditRefusedException;
import joiner.format.UnreadableFileException;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.source.ImportOptions;
import joiner.source.ProfiledSource;
import joiner.source.Source;
import joiner.source.SourceImport;
import joiner.split.Split;
import joiner.split.SplitChoices;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Splits a file into normalized tables by the facts its rows show. */
@Command(
    name = "split",
    description = {
      "Split a file into normalized tables by the facts its rows show, and write the design with its rows.",
      "Facts that rows contradict and merges of spellings are taken only when they are named."
    },
    mixinStandardHelpOptions = true)
final class SplitCommand implements Callable<Integer> {
  @Parameters(paramLabel = "FILE", description = "The file to split.")
  private Path file;

  @Mixin private TableArgument tables;

  @Option(
      names = "--out",
      required = true,
      paramLabel = "DESIGN",
      description = "The design folder to write; tables are added if it is there.")
  private Path out;

  @Option(
      names = "--accept",
      split = ",",
      paramLabel = "ID",
      description = "The facts that are true, by their ids.")
  private List<String> accepted;

  @Option(
      names = "--accept-above",
      paramLabel = "SCORE",
      description = "Take facts with a score from there on, 0 to 1; 0.5 as usual.")
  private Double acceptAbove;

  @Option(
      names = "--settle",
      paramLabel = "majority",
      description = "Settle contradictions by the value most rows have.")
  private String settle;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    requireSense();
    PrintWriter err = spec.commandLine().getErr();
    Source source = tables.source(file, err);
    int place = tables.place(file, source);
    ProfiledSource profiled = ProfiledSource.of(source);
    FactSearch search =
        FactSearch.of(
            source.tables().get(place).cells(), profiled.profiles().get(place), () -> false);
    Set<Fact> taken = taken(search);
    try (DesignInHand hand = DesignInHand.take(out)) {
      return split(search, taken, profiled, place, hand);
    }
  }

  private int split(
      FactSearch search, Set<Fact> taken, ProfiledSource profiled, int place, DesignInHand hand)
      throws IOException, UnreadableFileException {
    PrintWriter err = spec.commandLine().getErr();
    Draft draft = hand.found().orElseGet(() -> ImportCommand.empty(out));
    SourceImport imported =
        SourceImport.of(
            profiled, draft.design(), ImportOptions.ALL.into(profiled.source().label()));
    draft = imported.edit().apply(draft);
    SourceImport.Imported table = imported.tables().get(place);
    Map<Integer, FieldId> columns = table.columns();
    SplitChoices choices =
        SplitChoices.of(taken, column -> Optional.ofNullable(columns.get(column)));
    Split split;
    try {
      split = settled(draft, table.table(), choices);
    } catch (EditRefusedException e) {
      err.println("joiner: " + e.getMessage());
      return ExitCode.ERRORS;
    }
    if (split.after().isEmpty()) {
      split.open().forEach(open -> tell(open, table.table(), err));
      return ExitCode.ERRORS;
    }
    hand.save(split.after().get());
    report(search, taken, split);
    return ExitCode.FINE;
  }

  private void requireSense() {
    if (accepted != null && acceptAbove != null) {
      throw new ParameterException(
          spec.commandLine(), "--accept names facts, --accept-above takes many; give one of them");
    }
    if (settle != null && !settle.equals("majority")) {
      throw new ParameterException(spec.commandLine(), "--settle is majority, not " + settle);
    }
  }

  /** The facts accepted; what rows contradict and merges only by name. */
  private Set<Fact> taken(FactSearch search) {
    if (accepted == null) {
      double above = acceptAbove == null ? FactSearch.PLAUSIBLE : acceptAbove;
      return search.facts().stream()
          .filter(fact -> fact.score() >= above && (settle != null || isSafe(fact)))
          .filter(fact -> !(fact instanceof Fact.SameThing))
          .collect(Collectors.toCollection(LinkedHashSet::new));
    }
    var taken = new LinkedHashSet<Fact>();
    for (String id : accepted) {
      taken.add(
          search.facts().stream()
              .filter(fact -> fact.id().equals(id.strip()))
              .findFirst()
              .orElseThrow(
                  () ->
                      new ParameterException(
                          spec.commandLine(),
                          "there is no fact “"
                              + id
                              + "”; the facts are "
                              + search.facts().stream()
                                  .map(Fact::id)
                                  .collect(Collectors.joining(", ")))));
    }
    return taken;
  }

  private static boolean isSafe(Fact fact) {
    return !(fact instanceof Fact.Decides decides) || decides.exceptions() == 0;
  }

  private Split settled(Draft draft, Table table, SplitChoices choices) {
    Split split = Split.of(draft, table.id(), choices);
    if (settle == null || split.open().isEmpty()) {
      return split;
    }
    SplitChoices settled = choices;
    for (Split.Open open : split.open()) {
      for (Contradiction contradiction : open.contradictions()) {
        settled =
            settled.settling(
                new SplitChoices.Settlement(
                    open.decision(),
                    contradiction.determinant(),
                    contradiction.values().getFirst().text()));
      }
    }
    return Split.of(draft, table.id(), settled);
  }

  private static void tell(Split.Open open, Table table, PrintWriter err) {
    String decides = String.join(", ", table.labelsOf(open.decision().determinant()));
    String decided = table.field(open.decision().decided()).label();
    for (Contradiction contradiction : open.contradictions()) {
      err.println(
          "joiner: "
              + decides
              + " should decide "
              + decided
              + ", but "
              + String.join(", ", contradiction.determinant())
              + " has "
              + contradiction.values().stream()
                  .map(v -> v.text() + " (" + v.rows().size() + " rows)")
                  .collect(Collectors.joining(" and "))
              + "; settle it with --settle majority, mend the file, or leave the fact out.");
    }
  }

  private void report(FactSearch search, Set<Fact> taken, Split split) throws IOException {
    PrintWriter screen = spec.commandLine().getOut();
    Split.Proof proof = split.proof().orElseThrow();
    if (json) {
      Map<String, Object> document = new LinkedHashMap<>();
      document.put(
          "facts", search.facts().stream().map(f -> document(f, taken.contains(f))).toList());
      document.put("tables", split.parts().stream().map(p -> document(p, split)).toList());
      document.put("cellsBefore", split.cellsBefore());
      document.put("cellsAfter", split.cellsAfter());
      document.put("changedCells", split.changedCells());
      document.put("rejoined", proof.differing() == 0);
      document.put("lossless", proof.lossless());
      JsonOut.print(document, screen);
      return;
    }
    for (Fact fact : search.facts()) {
      screen.printf(
          java.util.Locale.ROOT,
          "%s %.2f %s (%s)%n",
          taken.contains(fact) ? "✓" : " ",
          fact.score(),
          fact.id(),
          String.join("; ", fact.reasons()));
    }
    for (Split.Part part : split.parts()) {
      screen.println(part.label() + ": " + part.rows() + " rows, " + part.fields() + " fields");
    }
    screen.println(
        split.cellsBefore()
            + " cells become "
            + split.cellsAfter()
            + "; joined again they "
            + (proof.holds()
                ? "give back the same " + proof.rows() + " rows"
                : "differ in " + proof.differing() + " cells"));
  }

  private static Map<String, Object> document(Fact fact, boolean taken) {
    Map<String, Object> item = new LinkedHashMap<>();
    item.put("id", fact.id());
    item.put("score", Math.round(fact.score() * 1000) / 1000.0);
    item.put("accepted", taken);
    item.put("reasons", new ArrayList<>(fact.reasons()));
    return item;
  }

  private static Map<String, Object> document(Split.Part part, Split split) {
    Map<String, Object> item = new LinkedHashMap<>();
    item.put("table", split.after().orElseThrow().design().table(part.table()).name());
    item.put("rows", part.rows());
    item.put("fields", part.fields());
    return item;
  }
}
