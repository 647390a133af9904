package joiner.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import joiner.format.UnreadableFileException;
import joiner.map.Detail;
import joiner.map.MapLayout;
import joiner.map.MapPicture;
import joiner.map.Neighbours;
import joiner.map.PictureTheme;
import joiner.map.Scope;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Table;
import joiner.model.TableId;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Draws the map of a design. */
@Command(
    name = "map",
    description = {
      "Draw the map of a design into a file: SVG, PDF or PNG, as its name ends.",
      "Texts in SVG and PDF are texts."
    },
    mixinStandardHelpOptions = true)
final class MapCommand implements Callable<Integer> {
  @Mixin private DesignArgument design;

  @Option(
      names = "--out",
      required = true,
      paramLabel = "FILE",
      description = "The file; it ends in .svg, .pdf or .png.")
  private Path file;

  @Option(names = "--area", paramLabel = "NAME", description = "Only the tables of this area.")
  private Optional<String> area;

  @Option(names = "--around", paramLabel = "TABLE", description = "Only what leads to this table.")
  private Optional<String> around;

  @Option(
      names = "--steps",
      defaultValue = "1",
      paramLabel = "N",
      description = "Over how many relationships, with --around; 1 as usual.")
  private int steps;

  @Option(
      names = "--detail",
      defaultValue = "fields",
      description = "What is told of each table: fields (as usual), keys or names.")
  private Detail detail;

  @Option(
      names = "--areas",
      defaultValue = "regions",
      description =
          "How areas are told apart: regions (as usual), stand_ins for what they refer to"
              + " elsewhere, or mixed.")
  private Scope.Areas areas;

  @Option(names = "--folded", description = "Each area as one board.")
  private boolean folded;

  @Option(names = "--theme", defaultValue = "light", description = "light (as usual) or dark.")
  private PictureTheme theme;

  @Spec private CommandSpec spec;

  @Override
  public Integer call() throws IOException, UnreadableFileException {
    System.setProperty("java.awt.headless", "true"); // A picture needs no display.
    MapPicture.Format format =
        MapPicture.Format.of(file)
            .orElseThrow(() -> wrong(file + " ends in none of .svg, .pdf and .png"));
    Design drawn = design.open(spec.commandLine().getErr()).draft().design();
    Set<TableId> tables = tables(drawn);
    Scope scope = new Scope(tables, areas, folded ? allAreas(drawn) : Set.of());
    MapLayout layout = MapLayout.of(drawn, scope, detail);
    new MapPicture(layout, theme, drawn.title()).write(file, format);
    spec.commandLine()
        .getOut()
        .println(
            layout.tables()
                + " tables and "
                + layout.relationships()
                + " relationships in "
                + file);
    return ExitCode.FINE;
  }

  private static Set<AreaId> allAreas(Design drawn) {
    return drawn.areas().stream().map(Area::id).collect(Collectors.toSet());
  }

  private Set<TableId> tables(Design drawn) {
    Set<TableId> tables = new HashSet<>(drawn.tables().stream().map(Table::id).toList());
    around.ifPresent(
        name -> {
          Table middle =
              drawn
                  .tableNamed(name)
                  .orElseThrow(
                      () ->
                          wrong(
                              "there is no table "
                                  + name
                                  + "; the tables are "
                                  + String.join(
                                      ", ", drawn.tables().stream().map(Table::name).toList())));
          tables.retainAll(Neighbours.of(drawn, middle.id(), steps));
        });
    area.ifPresent(
        name -> {
          Area of =
              drawn.areas().stream()
                  .filter(one -> one.name().equalsIgnoreCase(name))
                  .findFirst()
                  .orElseThrow(
                      () ->
                          wrong(
                              "there is no area "
                                  + name
                                  + "; the areas are "
                                  + String.join(
                                      ", ", drawn.areas().stream().map(Area::name).toList())));
          tables.removeIf(table -> !drawn.table(table).area().equals(Optional.of(of.id())));
        });
    return tables;
  }

  private ParameterException wrong(String message) {
    return new ParameterException(spec.commandLine(), message);
  }
}
