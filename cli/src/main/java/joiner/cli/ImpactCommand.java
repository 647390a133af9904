package joiner.cli;

import java.io.IOException;
import java.time.Clock;
import java.util.Optional;
import java.util.concurrent.Callable;
import joiner.compare.Impact;
import joiner.edit.Edit;
import joiner.edit.RemoveField;
import joiner.edit.RemoveTable;
import joiner.format.UnreadableFileException;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.Table;
import joiner.naming.Counts;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Tells what a removal would take along. */
@Command(
    name = "impact",
    description = "Tell what removing a table or a field would do. Nothing is changed.",
    mixinStandardHelpOptions = true)
final class ImpactCommand implements Callable<Integer> {
  @Mixin private DesignArgument design;

  @Option(
      names = "--remove",
      required = true,
      paramLabel = "TABLE[.FIELD]",
      description = "The table or field, by its name in the database.")
  private String removed;

  @Option(names = "--json", description = "Print one JSON document and nothing else.")
  private boolean json;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    var draft = design.open(spec.commandLine().getErr()).draft();
    Impact impact = Impact.of(removal(draft.design()), draft, Clock.systemDefaultZone());
    var out = spec.commandLine().getOut();
    EffectsOut.print(impact.effects(), json, out);
    if (!json) {
      out.println(Counts.of(impact.kept(), "row", "rows") + " of the tables it touches stay");
    }
    return ExitCode.FINE;
  }

  /** A table's name may hold a dot itself, so all ways to read the name are tried. */
  private Edit removal(Design of) {
    Optional<Table> whole = of.tableNamed(removed);
    if (whole.isPresent()) {
      return new RemoveTable(whole.get().id(), whole.get().label());
    }
    for (int dot = removed.indexOf('.'); dot >= 0; dot = removed.indexOf('.', dot + 1)) {
      Optional<Table> table = of.tableNamed(removed.substring(0, dot));
      String name = removed.substring(dot + 1);
      Optional<Field> field = table.flatMap(t -> t.fieldNamed(name));
      if (field.isPresent()) {
        return new RemoveField(table.get().id(), field.get().id(), field.get().label());
      }
    }
    throw new ParameterException(
        spec.commandLine(),
        "the design has no table and no field "
            + removed
            + "; its tables are "
            + String.join(", ", of.tables().stream().map(Table::name).toList()));
  }
}
