package joiner.format;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Kit;
import joiner.model.Pin;
import joiner.model.Question;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.NamingPolicy;
import joiner.rows.LinkedRows;
import joiner.rows.RowSource;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/** Reads one Data Package as a design with its rows. */
final class PackageReader {
  /** Properties of the standard that describe and do not constrain; keeping them is using them. */
  private static final Set<String> METADATA =
      Set.of(
          "path",
          "example",
          "rdfType",
          "bytes",
          "hash",
          "profile",
          "$schema",
          "homepage",
          "version",
          "created",
          "keywords",
          "image",
          "contributors",
          "sources",
          "licenses",
          "id");

  private final Path folder;
  private final SafeSave save;
  private final Path file;
  private final Optional<Path> data;
  private final Map<String, Fingerprint> prints = new LinkedHashMap<>();
  private final Set<String> missing = new LinkedHashSet<>();
  private final List<String> notices = new ArrayList<>();
  private final Map<String, Table> tables = new LinkedHashMap<>();
  private final Map<String, TableJson.Read> reads = new LinkedHashMap<>();
  private final Map<String, String> kept = new LinkedHashMap<>();
  private final Map<TableId, List<Integer>> partsOf = new LinkedHashMap<>();
  private final Map<TableId, RowSource> sources = new LinkedHashMap<>();

  /**
   * A reader of the package in a folder.
   *
   * @param data another folder whose files hold the rows instead; those are not read, but found
   */
  PackageReader(Path folder, SafeSave save, Optional<Path> data) {
    this.folder = folder;
    this.save = save;
    this.file = folder.resolve(DataPackage.FILE);
    this.data = data;
  }

  /** Reads the package with its rows. */
  DesignFolder.Opened read() throws IOException, UnreadableFileException {
    if (save.holdsForeignSave()) {
      notices.add(
          "The folder came with an unfinished save of somebody else, hidden in .joiner-saved; it was"
              + " not used, and the next save puts it aside.");
    }
    Design design = readDescriptor();
    SampleRows rows = rows();
    design.tables().forEach(table -> secrets(table, rows));
    return new DesignFolder.Opened(new Draft(design, rows), notices);
  }

  private Design readDescriptor() throws IOException, UnreadableFileException {
    Path descriptor = save.current(DataPackage.FILE);
    if (!Files.isRegularFile(descriptor)) {
      throw new UnreadableFileException(
          file, 0, "there is no design here; name a folder that holds a " + DataPackage.FILE + ".");
    }
    prints.put(DataPackage.FILE, Fingerprint.of(descriptor));
    return read(JsonFile.read(descriptor, file));
  }

  /** The files of the package that were read, as they were then. */
  Map<String, Fingerprint> prints() {
    return prints;
  }

  /** Whether what was read still stands, so that it was one state and no mixture of two. */
  boolean isOneState() {
    return prints.entrySet().stream()
            .allMatch(print -> print.getValue().stillStands(save.current(print.getKey())))
        && missing.stream().noneMatch(path -> Files.isRegularFile(save.current(path)));
  }

  /** For each table the paths of its rows in this folder, in the order of the package. */
  Map<TableId, List<String>> paths() {
    Map<TableId, List<String>> paths = new LinkedHashMap<>();
    for (TableJson.Read read : reads.values()) {
      List<String> own =
          read.paths().stream()
              .filter(path -> RowPaths.isReadable(path, read.table()))
              .filter(path -> RowPaths.ofRows(folder, path).isPresent())
              .toList();
      paths.put(read.table().id(), own);
    }
    return paths;
  }

  private Design read(Json json) throws UnreadableFileException {
    var top = new Members(json, file, "a Data Package");
    Members more = top.object(DataPackage.MORE);
    int version = more.number("version").orElse(DataPackage.VERSION);
    if (version > DataPackage.VERSION) {
      throw more.problem(
          "the design was saved by a newer Joiner (format "
              + version
              + "); update Joiner to open it.");
    }
    if (top.any("resources").isEmpty()) {
      throw top.problem("“resources” is missing, so this is no Data Package.");
    }
    for (Json resource : top.list("resources")) {
      resource(resource);
    }
    forgetUsualPaths();
    return design(top, more);
  }

  private void resource(Json json) throws UnreadableFileException {
    var resource = new Members(json, file, "a resource");
    boolean described =
        json instanceof Json.Obj object
            && object.get("schema").filter(Json.Obj.class::isInstance).isPresent();
    if (!described) {
      String name = resource.text("name");
      kept.put(PackageWriter.RESOURCE + name, JsonText.line(json));
      notices.add("The resource " + name + " has no table schema; it is kept as it is.");
      return;
    }
    TableJson.Read read = TableJson.read(resource, file);
    if (tables.put(read.table().name(), read.table()) != null) {
      throw resource.problem(
          "there are two resources named “" + read.table().name() + "”; rename one.");
    }
    reads.put(read.table().name(), read);
    name(RowsForm.withoutForm(read.table()).extras(), "table " + read.table().name());
    for (Field field : read.table().fields()) {
      Extras unused = CellForm.withoutForms(field.extras());
      name(unused, "field " + read.table().name() + "." + field.name());
    }
  }

  /** A path that is the usual one is no property to keep: it follows the table's name. */
  private void forgetUsualPaths() {
    Map<String, String> owners = new LinkedHashMap<>();
    reads.forEach((name, read) -> read.paths().forEach(path -> owners.put(path, name)));
    Set<String> others = PackageWriter.otherPaths(new Extras(kept));
    RowPaths.usual(
            tables.keySet(),
            (name, path) ->
                others.contains(path)
                    || (owners.containsKey(path) ? !owners.get(path).equals(name) : isThere(path)))
        .forEach(
            (name, usual) -> {
              Table table = tables.get(name);
              if (RowPaths.kept(table).equals(List.of(usual))) {
                Map<String, String> extras = new LinkedHashMap<>(table.extras().byProperty());
                extras.remove("path");
                tables.put(name, table.withExtras(new Extras(extras)));
              }
            });
  }

  private boolean isThere(String path) {
    return RowPaths.inside(folder, path)
        .filter(place -> Files.exists(place, LinkOption.NOFOLLOW_LINKS))
        .isPresent();
  }

  private void name(Extras extras, String where) {
    Set<String> properties = new LinkedHashSet<>(extras.byProperty().keySet());
    properties.removeAll(METADATA);
    if (!properties.isEmpty()) {
      notices.add("Kept but not used in " + where + ": " + String.join(", ", properties) + ".");
    }
  }

  private Design design(Members top, Members more) throws UnreadableFileException {
    var relationships = new ArrayList<Relationship>();
    for (TableJson.Read read : reads.values()) {
      for (Json foreign : read.foreignKeys()) {
        Relationship r = RelationshipJson.read(foreign, read.table(), tables, file);
        name(r.extras(), "relationship " + r.name());
        relationships.add(r);
      }
    }
    String name =
        top.optionalText("name")
            .filter(n -> !n.isBlank())
            .orElse(String.valueOf(folder.getFileName()));
    String title = top.optionalText("title").orElse(NamingPolicy.labelFor(name));
    String description = top.text("description");
    List<Area> areas = areas(more);
    List<Kit> kits = KitJson.read(more, file);
    List<Pin> pins = PinJson.read(more, tables, file);
    List<Question> questions = QuestionJson.read(more, tables, file);
    top.any("$schema");
    Map<String, String> extras = new LinkedHashMap<>(top.rest().byProperty());
    more.rest()
        .byProperty()
        .forEach((key, value) -> extras.put(DataPackage.MORE + "/" + key, value));
    name(new Extras(extras), "the package");
    extras.putAll(kept);
    try {
      return Design.of(
              name, title, description, areas, inAreas(areas), relationships, new Extras(extras))
          .withKits(kits)
          .withPins(pins)
          .withQuestions(questions);
    } catch (IllegalArgumentException e) {
      throw top.problem(e.getMessage() + ".");
    }
  }

  /** The tables name areas; those that are listed have ids, others come to the list. */
  private List<Table> inAreas(List<Area> areas) {
    Map<String, AreaId> ids = new HashMap<>();
    areas.forEach(area -> ids.put(area.name(), area.id()));
    var all = new ArrayList<Table>();
    for (Table table : tables.values()) {
      Optional<String> name = table.area().map(AreaId::value);
      if (name.isPresent() && !ids.containsKey(name.get())) {
        Area area = Area.named(areas, name.get());
        areas.add(area);
        ids.put(area.name(), area.id());
      }
      all.add(table.withArea(name.map(ids::get)));
    }
    return all;
  }

  private List<Area> areas(Members more) throws UnreadableFileException {
    var areas = new ArrayList<Area>();
    for (Json json : more.list("areas")) {
      var area = new Members(json, file, "an area");
      areas.add(
          new Area(
              new AreaId(area.optionalText("id").orElse(area.text("name"))),
              area.text("name"),
              Math.floorMod(area.number("hue").orElse(areas.size()), Area.HUES)));
    }
    return areas;
  }

  private void secrets(Table table, SampleRows rows) {
    for (Field field : table.fields()) {
      if (field.type() instanceof FieldType.Secret && rows.has(table.id(), field.id())) {
        notices.add(
            field.label()
                + " of "
                + table.label()
                + " is secret: its values were not taken in, and the next save leaves them out of"
                + " the file.");
      }
    }
  }

  private SampleRows rows() throws IOException, UnreadableFileException {
    Map<TableId, Rows> rows = new LinkedHashMap<>();
    Map<TableId, LinkedRows> linked = new LinkedHashMap<>();
    var links = new LinkJson(folder, file);
    for (TableJson.Read read : reads.values()) {
      Table table = tables.get(read.table().name());
      if (!table.fields().isEmpty()) {
        if (data.isEmpty() && read.link().isPresent()) {
          linked.put(table.id(), links.read(read.link().get(), table));
          continue;
        }
        if (data.isPresent()) {
          given(table, read, data.get());
        } else {
          rows.put(table.id(), own(table, read));
        }
      }
    }
    return new SampleRows(rows, linked);
  }

  /** What is told so far; more comes while rows of the other folder go by. */
  List<String> notices() {
    return notices;
  }

  /** The rows in the other folder, where there are any. */
  Map<TableId, RowSource> sources() {
    return sources;
  }

  /**
   * The table's file in another folder: by the table's name, or by the path the design gives it.
   */
  private void given(Table table, TableJson.Read read, Path from) throws UnreadableFileException {
    var candidates = new ArrayList<String>(List.of(table.name() + ".csv"));
    for (String path : read.paths()) {
      candidates.add(path.substring(path.lastIndexOf('/') + 1));
      candidates.add(path);
    }
    Optional<Path> csv =
        candidates.stream()
            .map(path -> RowPaths.inside(from, path))
            .flatMap(Optional::stream)
            .filter(Files::isRegularFile)
            .findFirst();
    if (csv.isEmpty()) {
      notices.add(
          "There is no "
              + from.resolve(candidates.getFirst())
              + "; "
              + table.label()
              + " has no rows.");
      return;
    }
    sources.put(table.id(), file(csv.get(), csv.get(), table));
  }

  private Rows own(Table table, TableJson.Read read) throws IOException, UnreadableFileException {
    if (read.inline().isPresent()) {
      return InlineRows.read(read.inline().get(), table, file);
    }
    Rows rows = Rows.NONE;
    for (String path : read.paths()) {
      Optional<Rows> part = part(path, table);
      if (part.isPresent()) {
        partsOf.computeIfAbsent(table.id(), id -> new ArrayList<>()).add(part.get().count());
        rows = rows == Rows.NONE ? part.get() : rows.followedBy(part.get(), table.fieldIds());
      }
    }
    return rows;
  }

  /**
   * The rows of one file of a table; empty where it is not there or none to read, which is told.
   */
  private Optional<Rows> part(String path, Table table)
      throws IOException, UnreadableFileException {
    if (path.contains("://") || !RowPaths.isReadable(path, table)) {
      notices.add(
          "The rows of "
              + table.label()
              + " stand in "
              + path
              + ", which is no delimited text of this folder; they were not read.");
      return Optional.empty();
    }
    if (RowPaths.ofRows(folder, path).isEmpty()) {
      throw new UnreadableFileException(
          file,
          0,
          "rows cannot stand in “"
              + path
              + "”: it leaves the package folder, which the standard forbids, or is no file for"
              + " rows; move them into a file inside.");
    }
    Path csv = save.current(path);
    if (!Files.isRegularFile(csv)) {
      missing.add(path);
      notices.add(
          "The file "
              + folder.resolve(path)
              + " is missing, so "
              + table.label()
              + " opens without its rows; restore the file from a copy if it should have some.");
      return Optional.empty();
    }
    prints.put(path, Fingerprint.of(csv));
    return Optional.of(file(csv, folder.resolve(path), table).rows());
  }

  private RowsFile file(Path csv, Path shownAs, Table table) throws UnreadableFileException {
    RowsForm form = RowsForm.of(table, shownAs.toString(), file);
    return new RowsFile(() -> Files.newInputStream(csv), shownAs, table, form, notices::add);
  }

  /** For tables whose rows stand in several files, how many rows each holds. */
  Map<TableId, List<Integer>> parts() {
    return partsOf;
  }
}
