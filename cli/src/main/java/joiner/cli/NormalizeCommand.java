package joiner.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.BooleanSupplier;
import joiner.dependency.AttributeSet;
import joiner.dependency.CandidateKeys;
import joiner.dependency.Decomposition;
import joiner.dependency.Dependency;
import joiner.dependency.Derivation;
import joiner.dependency.FourthNormalForm;
import joiner.dependency.Multivalued;
import joiner.dependency.NormalForm;
import joiner.dependency.Scheme;
import joiner.dependency.SchemeText;
import joiner.dependency.Violation;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Answers questions of normalization about attributes and dependencies, without any data. */
@Command(
    name = "normalize",
    description =
        "Find keys, normal form, violations, a minimal cover and a decomposition of attributes with functional dependencies.",
    mixinStandardHelpOptions = true)
final class NormalizeCommand implements Callable<Integer> {
  @Option(names = "--attributes", required = true, description = "The attributes, like \"A,B,C\".")
  private String attributes;

  @Option(
      names = "--dependencies",
      required = true,
      description = "The dependencies, like \"A,B->C; C->A\"; multivalued ones like \"A->>B\".")
  private String dependencies;

  @Option(
      names = "--to",
      defaultValue = "3nf",
      description = "The form to decompose into: 3nf (as usual), bcnf or 4nf.")
  private String to;

  @Option(
      names = "--time-limit",
      paramLabel = "SECONDS",
      defaultValue = "60",
      description = "Look for candidate keys no longer than that; 60 as usual.")
  private double timeLimit;

  @Option(
      names = "--implies",
      description = "A dependency to derive from the others, like \"A->D\".")
  private String implies;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException {
    if (!List.of("3nf", "bcnf", "4nf").contains(to)) {
      throw new ParameterException(spec.commandLine(), "--to is 3nf, bcnf or 4nf, not " + to);
    }
    Map<String, Object> document;
    try {
      Scheme scheme = SchemeText.read(attributes, dependencies);
      document = document(scheme, SchemeText.multivalued(scheme, dependencies));
      if (implies != null) {
        document.put("implied", implied(scheme, SchemeText.dependency(scheme, implies)));
      }
    } catch (IllegalArgumentException e) {
      throw new ParameterException(spec.commandLine(), e.getMessage(), e);
    }
    PrintWriter out = spec.commandLine().getOut();
    if (json) {
      JsonOut.print(document, out);
    } else {
      document.forEach((name, value) -> out.println(name + ": " + value));
    }
    return ExitCode.FINE;
  }

  private static Map<String, Object> implied(Scheme scheme, Dependency dependency) {
    Map<String, Object> implied = sides(scheme, dependency);
    Optional<Derivation> derivation = scheme.derive(dependency);
    implied.put("holds", derivation.isPresent());
    implied.put(
        "derivation",
        derivation.stream()
            .flatMap(d -> d.steps().stream())
            .map(step -> sides(scheme, step))
            .toList());
    return implied;
  }

  private Map<String, Object> document(Scheme scheme, List<Multivalued> multivalued) {
    long end = System.nanoTime() + (long) (timeLimit * 1e9);
    BooleanSupplier stop = () -> System.nanoTime() - end > 0;
    CandidateKeys keys = scheme.candidateKeys(stop);
    if (!keys.complete()) {
      spec.commandLine()
          .getErr()
          .println("joiner: the time was up; there may be more keys and prime attributes.");
    }
    var fourth = new FourthNormalForm(scheme, multivalued);
    List<Violation> violations = new ArrayList<>(scheme.violations(keys));
    violations.addAll(fourth.violations());
    boolean reached = violations.isEmpty() && !multivalued.isEmpty();
    Decomposition parts =
        switch (to) {
          case "bcnf" -> scheme.boyceCodd();
          case "4nf" -> fourth.decomposition();
          default -> scheme.synthesis(keys);
        };
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("candidateKeys", keys.keys().stream().map(scheme::names).toList());
    document.put("prime", scheme.names(scheme.prime(keys)));
    document.put(
        "normalForm", reached ? NormalForm.FOURTH.words() : scheme.normalForm(violations).words());
    document.put("cover", scheme.minimalCover().stream().map(d -> sides(scheme, d)).toList());
    document.put("violations", violations.stream().map(v -> violation(scheme, v)).toList());
    var tables = new ArrayList<Map<String, Object>>();
    for (AttributeSet part : parts.parts()) {
      Map<String, Object> table = new LinkedHashMap<>();
      table.put("attributes", scheme.names(part));
      table.put("keys", scheme.keysOf(part, stop).stream().map(scheme::names).toList());
      tables.add(table);
    }
    document.put("tables", tables);
    document.put("complete", keys.complete());
    document.put("lossless", parts.lossless());
    document.put("lost", parts.lost().stream().map(d -> sides(scheme, d)).toList());
    return document;
  }

  private static Map<String, Object> violation(Scheme scheme, Violation violation) {
    Map<String, Object> item = new LinkedHashMap<>();
    item.put("form", violation.form().words());
    item.putAll(sides(scheme, violation.dependency()));
    item.put("why", violation.why());
    return item;
  }

  private static Map<String, Object> sides(Scheme scheme, Dependency dependency) {
    Map<String, Object> sides = new LinkedHashMap<>();
    sides.put("from", scheme.names(dependency.from()));
    sides.put("to", scheme.names(dependency.to()));
    return sides;
  }
}
