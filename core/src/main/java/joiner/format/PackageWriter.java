package joiner.format;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;

/**
 * Writes a design with its rows as the files of a Data Package. Rows are written in the form their
 * resource states; where that has no way to say a value, the descriptor changes with the rows.
 */
final class PackageWriter {
  /** Begins the key under which a design keeps a resource that is no table. */
  static final String RESOURCE = "resource:";

  private static final Path ANY_FOLDER = Path.of("package").toAbsolutePath();

  private final Draft draft;
  private final Design design;
  private final Previous previous;
  private final Map<String, byte[]> files = new LinkedHashMap<>();
  private final List<Written> tables = new ArrayList<>();
  private final Set<String> claimed = new HashSet<>();

  /**
   * A table as its resource says it.
   *
   * @param table with the properties its resource keeps
   * @param paths of its rows
   * @param link where they stay if not there
   */
  private record Written(Table table, List<String> paths, Optional<Json> link) {
    Written(Table table, List<String> paths) {
      this(table, paths, Optional.empty());
    }
  }

  /** What stands in the folder now. */
  interface Previous {
    /** An empty folder. */
    Previous NOTHING = path -> Optional.empty();

    /** The folder itself. */
    default Path folder() {
      return ANY_FOLDER;
    }

    /** The content of a file, if it is there. */
    Optional<byte[]> content(String path) throws IOException;

    /** Whether there is a file that is none of the design's. */
    default boolean isOthers(String path) {
      return false;
    }

    /** For a table whose rows stand in several files, how many rows each held; else empty. */
    default List<Integer> parts(TableId table) {
      return List.of();
    }

    /** Whether the rows of that table are known to stand there as they are now. */
    default boolean holds(Table table, Rows rows, List<String> paths) {
      return false;
    }
  }

  private PackageWriter(Draft draft, Previous previous) {
    this.draft = draft;
    this.design = draft.design();
    this.previous = previous;
  }

  /**
   * What a save writes.
   *
   * @param files path below the folder → content; files that are right as they stand are left out
   * @param rowPaths for each table where its rows stand
   */
  record Package(Map<String, byte[]> files, Map<TableId, List<String>> rowPaths) {}

  static Package write(Draft draft, Previous previous) throws IOException {
    return new PackageWriter(draft, previous).write();
  }

  private Package write() throws IOException {
    Set<String> others = otherPaths(design.extras());
    Map<String, String> keepers = new HashMap<>();
    design.tables().forEach(t -> RowPaths.kept(t).forEach(path -> keepers.put(path, t.name())));
    Map<String, String> usual =
        RowPaths.usual(
            design.tables().stream().map(Table::name).toList(),
            (name, path) ->
                others.contains(path)
                    || !keepers.getOrDefault(path, name).equals(name)
                    || previous.isOthers(path));
    files.put(DataPackage.FILE, new byte[0]); // Stands first; its content is known last.
    for (Table table : design.tables()) {
      Rows rows = draft.rows().of(table.id());
      tables.add(table(table, rows, usual.get(table.name())));
    }
    files.put(DataPackage.FILE, JsonText.document(document()).getBytes(StandardCharsets.UTF_8));
    Map<TableId, List<String>> paths = new LinkedHashMap<>();
    tables.forEach(written -> paths.put(written.table().id(), written.paths()));
    return new Package(files, paths);
  }

  private Written table(Table table, Rows rows, String usual) throws IOException {
    if (table.fields().isEmpty()) {
      return new Written(table, List.of());
    }
    Optional<LinkedRows> link = draft.rows().link(table.id());
    if (link.isPresent()) {
      var links = new LinkJson(previous.folder(), Path.of(DataPackage.FILE));
      return new Written(table, List.of(), Optional.of(links.write(link.get(), table)));
    }
    List<String> kept = RowPaths.kept(table);
    List<String> paths = kept.isEmpty() ? List.of(usual) : kept;
    boolean ours =
        paths.stream()
            .allMatch(
                path ->
                    RowPaths.isReadable(path, table)
                        && RowPaths.ofRows(ANY_FOLDER, path).isPresent()
                        && claimed.add(path)); // Two tables never share a file they are saved in.
    if (!ours && rows.count() == 0) {
      return new Written(table, paths); // Rows elsewhere, which were not read, stay where they are.
    }
    if (ours && (previous.holds(table, rows, paths) || inItsForm(table, rows, paths))) {
      return new Written(table, paths);
    }
    Table plain = RowsForm.withoutForm(table);
    files.put(usual, CsvText.own(plain, rows));
    return new Written(plain, List.of(usual));
  }

  /** Writes the rows in the form the table keeps; false where that form cannot say them. */
  private boolean inItsForm(Table table, Rows rows, List<String> paths) throws IOException {
    Map<String, byte[]> written = new LinkedHashMap<>();
    List<Integer> parts = previous.parts(table.id());
    int from = 0;
    for (int i = 0; i < paths.size(); i++) {
      String path = paths.get(i);
      int held = i < parts.size() ? parts.get(i) : i == 0 ? rows.count() : 0;
      int to = i == paths.size() - 1 ? rows.count() : Math.min(from + held, rows.count());
      Optional<byte[]> content = part(table, rows, path, from, to);
      if (content.isEmpty()) {
        return false;
      }
      written.put(path, content.get());
      from = to;
    }
    files.putAll(written);
    return true;
  }

  private Optional<byte[]> part(Table table, Rows rows, String path, int from, int to)
      throws IOException {
    RowsForm form;
    try {
      form = RowsForm.of(table, path, Path.of(DataPackage.FILE));
    } catch (UnreadableFileException e) {
      return Optional.empty(); // A form that was changed to one that makes no sense says nothing.
    }
    byte[] before = previous.content(path).orElse(new byte[0]);
    Optional<byte[]> content =
        new CsvText(table, form, CsvText.Habits.of(CsvText.beginning(before, form)))
            .write(rows, from, to);
    if (before.length > 0 && says(before, table, form, rows.slice(from, to))) {
      return Optional.of(before);
    }
    boolean sure = form.dialect().isUsual();
    return content.filter(bytes -> sure || says(bytes, table, form, rows.slice(from, to)));
  }

  /** Whether a file says those rows, however it spells them. */
  private static boolean says(byte[] content, Table table, RowsForm form, Rows rows) {
    try {
      Path shownAs = Path.of("rows");
      RowsFile.Content bytes = () -> new ByteArrayInputStream(content);
      return new RowsFile(bytes, shownAs, table, form, notice -> {}).rows().equals(rows);
    } catch (IOException e) {
      return false; // What cannot be read does not say them.
    }
  }

  /** Paths that resources name which are no tables. */
  static Set<String> otherPaths(Extras extras) {
    var paths = new HashSet<String>();
    extras
        .byProperty()
        .forEach(
            (property, text) -> {
              if (property.startsWith(RESOURCE)
                  && ExtrasJson.parse(text) instanceof Json.Obj resource) {
                resource.get("path").ifPresent(path -> paths.addAll(RowPaths.of(path)));
              }
            });
    return paths;
  }

  private static Json area(Area area) {
    Json.Obj json = new Json.Obj().put("name", area.name()).put("hue", area.hue());
    return area.id().value().equals(area.name()) ? json : json.put("id", area.id().value());
  }

  private Json document() {
    var top = new Json.Obj();
    top.put("$schema", DataPackage.SCHEMA).put("name", design.name()).put("title", design.title());
    top.putIfAny("description", design.description());
    var more = new Json.Obj().put("version", DataPackage.VERSION);
    if (!design.areas().isEmpty()) {
      more.put(
          "areas",
          new Json.Arr(design.areas().stream().<Json>map(PackageWriter::area).toList(), 0));
    }
    KitJson.write(design.kits(), more);
    PinJson.write(design, more);
    QuestionJson.write(design, more);
    Map<TableId, List<Relationship>> foreign =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    var resources = new ArrayList<Json>();
    for (Written written : tables) {
      Table table = written.table();
      resources.add(
          TableJson.write(
              design,
              table,
              written.paths(),
              written.link(),
              foreign.getOrDefault(table.id(), List.of())));
    }
    Map<String, String> own = new LinkedHashMap<>(design.extras().byProperty());
    design
        .extras()
        .byProperty()
        .forEach(
            (property, text) -> {
              if (property.startsWith(RESOURCE)) {
                resources.add(ExtrasJson.parse(text));
                own.remove(property);
              }
            });
    ExtrasJson.write(new Extras(own), top, Map.of(DataPackage.MORE, more));
    return top.put(DataPackage.MORE, more).put("resources", new Json.Arr(resources, 0));
  }
}
