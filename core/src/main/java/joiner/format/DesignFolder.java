package joiner.format;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.model.Area;
import joiner.model.Design;
import joiner.model.Extras;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Draft;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * Reads and saves designs as folders that are valid Data Packages (<a
 * href="https://datapackage.org">version 2</a>). A package that knows nothing of Joiner is read
 * too; what is not understood is kept and named.
 */
public final class DesignFolder {
  private DesignFolder() {}

  /**
   * What reading gave.
   *
   * @param draft the design and its rows
   * @param notices what was kept without being understood, a sentence each
   */
  public record Opened(Draft draft, List<String> notices) {
    public Opened {
      notices = List.copyOf(notices);
    }
  }

  /** The folder meant by a path: itself, or the one its {@code datapackage.json} stands in. */
  public static Path folderOf(Path path) {
    Path absolute = path.toAbsolutePath().normalize();
    return absolute.endsWith(DataPackage.FILE) ? absolute.getParent() : absolute;
  }

  /** Reads the design in a folder with its rows. */
  public static Opened open(Path path) throws IOException, UnreadableFileException {
    return open(path, Optional.empty());
  }

  /**
   * Reads the design in a folder, with rows from the CSV files {@code <table>.csv} of another one.
   */
  public static Opened open(Path path, Optional<Path> data)
      throws IOException, UnreadableFileException {
    Path folder = folderOf(path);
    if (data.isPresent() && !Files.isDirectory(data.get())) {
      throw new UnreadableFileException(
          data.get(), 0, "there is no such folder; --data names a folder of CSV files.");
    }
    var save = new SafeSave(folder);
    Path shown = folder.resolve(DataPackage.FILE);
    if (!Files.isRegularFile(save.current(DataPackage.FILE))) {
      throw new UnreadableFileException(
          shown,
          0,
          "there is no design here; name a folder that holds a " + DataPackage.FILE + ".");
    }
    return new Reader(folder, save, shown, data)
        .read(JsonFile.read(save.current(DataPackage.FILE), shown));
  }

  /** Properties of the standard that describe and do not constrain; keeping them is using them. */
  private static final Set<String> METADATA =
      Set.of(
          "path",
          "dialect",
          "encoding",
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

  /** Reads one package. */
  private static final class Reader {
    private final Path folder;
    private final SafeSave save;
    private final Path file;
    private final Optional<Path> data;
    private final List<String> notices = new ArrayList<>();
    private final Map<String, Table> tables = new LinkedHashMap<>();
    private final Map<String, TableJson.Read> reads = new LinkedHashMap<>();
    private final Map<String, String> kept = new LinkedHashMap<>();

    Reader(Path folder, SafeSave save, Path file, Optional<Path> data) {
      this.folder = folder;
      this.save = save;
      this.file = file;
      this.data = data;
    }

    Opened read(Json json) throws IOException, UnreadableFileException {
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
      Design design = design(top, more);
      SampleRows rows = rows();
      return new Opened(new Draft(design, rows), notices);
    }

    private void resource(Json json) throws UnreadableFileException {
      var resource = new Members(json, file, "a resource");
      boolean described =
          json instanceof Json.Obj object
              && object.get("schema").filter(Json.Obj.class::isInstance).isPresent();
      if (!described) {
        String name = resource.text("name");
        kept.put("resource:" + name, JsonText.line(json));
        notices.add("The resource " + name + " has no table schema; it is kept as it is.");
        return;
      }
      TableJson.Read read = TableJson.read(resource, file);
      if (tables.put(read.table().name(), read.table()) != null) {
        throw resource.problem(
            "there are two resources named “" + read.table().name() + "”; rename one.");
      }
      reads.put(read.table().name(), read);
      name(read.table().extras(), "table " + read.table().name());
      read.table()
          .fields()
          .forEach(
              field -> name(field.extras(), "field " + read.table().name() + "." + field.name()));
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
          relationships.add(RelationshipJson.read(foreign, read.table(), tables, file));
        }
      }
      String name =
          top.optionalText("name")
              .filter(n -> !n.isBlank())
              .orElse(String.valueOf(folder.getFileName()));
      String title = top.optionalText("title").orElse(joiner.naming.NamingPolicy.labelFor(name));
      String description = top.text("description");
      List<Area> areas = areas(more);
      top.any("$schema");
      Map<String, String> extras = new LinkedHashMap<>(top.rest().byProperty());
      more.rest()
          .byProperty()
          .forEach((key, value) -> extras.put(DataPackage.MORE + "/" + key, value));
      name(new Extras(extras), "the package");
      extras.putAll(kept);
      try {
        return Design.of(
            name, title, description, areas, tables.values(), relationships, new Extras(extras));
      } catch (IllegalArgumentException e) {
        throw top.problem(e.getMessage() + ".");
      }
    }

    private List<Area> areas(Members more) throws UnreadableFileException {
      var areas = new ArrayList<Area>();
      for (Json json : more.list("areas")) {
        var area = new Members(json, file, "an area");
        areas.add(
            new Area(
                area.text("name"),
                Math.floorMod(area.number("hue").orElse(areas.size()), Area.HUES)));
      }
      for (Table table : tables.values()) {
        boolean known =
            table.area().isEmpty()
                || areas.stream().anyMatch(area -> area.name().equals(table.area()));
        if (!known) {
          areas.add(new Area(table.area(), areas.size() % Area.HUES));
        }
      }
      return areas;
    }

    private SampleRows rows() throws IOException, UnreadableFileException {
      Map<TableId, Rows> rows = new LinkedHashMap<>();
      for (TableJson.Read read : reads.values()) {
        rows.put(read.table().id(), data.isPresent() ? given(read, data.get()) : own(read));
      }
      return new SampleRows(rows);
    }

    /**
     * The table's file in another folder: by the table's name, or by the path the design gives it.
     */
    private Rows given(TableJson.Read read, Path from) throws IOException, UnreadableFileException {
      Table table = read.table();
      var candidates = new ArrayList<Path>(List.of(from.resolve(table.name() + ".csv")));
      for (String path : read.paths()) {
        candidates.add(from.resolve(String.valueOf(Path.of(path).getFileName())));
        candidates.add(from.resolve(Path.of(path)));
      }
      Optional<Path> csv = candidates.stream().filter(Files::isRegularFile).findFirst();
      if (csv.isEmpty()) {
        notices.add(
            "There is no " + candidates.getFirst() + "; " + table.label() + " has no rows.");
        return Rows.NONE;
      }
      var dialect = Dialect.of(read.dialect(), file);
      return CsvRows.read(
          csv.get(), csv.get(), table, dialect.separator(), dialect.header(), dialect.charset());
    }

    private Rows own(TableJson.Read read) throws IOException, UnreadableFileException {
      if (read.inline().isPresent()) {
        return InlineRows.read(read.inline().get(), read.table(), file);
      }
      if (read.paths().isEmpty()) {
        return Rows.NONE;
      }
      if (read.paths().size() > 1 || read.paths().getFirst().contains("://")) {
        notices.add(
            "The rows of "
                + read.table().name()
                + " are not in one file of this folder; they were not read.");
        return Rows.NONE;
      }
      Path relative = Path.of(read.paths().getFirst());
      if (relative.isAbsolute()
          || folder.resolve(relative).normalize().startsWith(folder) == false) {
        throw new UnreadableFileException(
            file,
            0,
            "the path “"
                + relative
                + "” leaves the package folder, which the standard forbids; move the file inside.");
      }
      Path csv = save.current(relative.toString());
      if (!Files.isRegularFile(csv)) {
        if (!relative.toString().equals(DataPackage.pathOf(read.table().name()))) {
          throw new UnreadableFileException(
              folder.resolve(relative),
              0,
              "the file is missing; restore it or remove its resource.");
        }
        return Rows.NONE;
      }
      var dialect = Dialect.of(read.dialect(), file);
      return CsvRows.read(
          csv,
          folder.resolve(relative),
          read.table(),
          dialect.separator(),
          dialect.header(),
          dialect.charset());
    }
  }

  /** The parts of a Table Dialect that are understood. */
  private record Dialect(char separator, boolean header, Charset charset) {
    static Dialect of(Extras extras, Path file) throws UnreadableFileException {
      char separator = ',';
      boolean header = true;
      String json = extras.byProperty().get("dialect");
      if (json != null && ExtrasJson.parse(json) instanceof Json.Obj object) {
        var members = new Members(object, file, "dialect");
        separator =
            members
                .optionalText("delimiter")
                .filter(d -> d.length() == 1)
                .map(d -> d.charAt(0))
                .orElse(',');
        header =
            members
                .any("header")
                .map(value -> !(value instanceof Json.Bool bool) || bool.value())
                .orElse(true);
      }
      return new Dialect(separator, header, charset(extras, file));
    }

    private static Charset charset(Extras extras, Path file) throws UnreadableFileException {
      String json = extras.byProperty().get("encoding");
      String name =
          json != null && ExtrasJson.parse(json) instanceof Json.Text text ? text.text() : "utf-8";
      try {
        return Charset.forName(name);
      } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
        throw new UnreadableFileException(
            file, 0, "the encoding “" + name + "” is not known; use utf-8.");
      }
    }
  }

  /**
   * Saves a design with its rows into a folder, which is made if it is not there. A kill at any
   * moment leaves the old or the new design. Files that are none of the design's stay untouched.
   */
  public static void save(Draft draft, Path path) throws IOException {
    Path folder = folderOf(path);
    Files.createDirectories(folder);
    new SafeSave(folder).save(files(draft));
  }

  /** The files of a design: path below its folder → text. */
  static Map<String, String> files(Draft draft) {
    Map<String, String> files = new LinkedHashMap<>();
    files.put(DataPackage.FILE, JsonText.document(document(draft.design())));
    for (Table table : draft.design().tables()) {
      files.put(pathOf(table), CsvRows.write(table, draft.rows().of(table.id())));
    }
    return files;
  }

  private static String pathOf(Table table) {
    String path = table.extras().byProperty().get("path");
    return path != null
            && ExtrasJson.parse(path) instanceof Json.Text text
            && !text.text().contains("://")
        ? text.text()
        : DataPackage.pathOf(table.name());
  }

  private static Json document(Design design) {
    var top = new Json.Obj();
    top.put("$schema", DataPackage.SCHEMA).put("name", design.name()).put("title", design.title());
    top.putIfAny("description", design.description());
    var more = new Json.Obj().put("version", DataPackage.VERSION);
    if (!design.areas().isEmpty()) {
      more.put(
          "areas",
          new Json.Arr(
              design.areas().stream()
                  .<Json>map(a -> new Json.Obj().put("name", a.name()).put("hue", a.hue()))
                  .toList(),
              0));
    }
    Map<TableId, List<Relationship>> foreign =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    var resources = new ArrayList<Json>();
    design
        .tables()
        .forEach(
            t ->
                resources.add(TableJson.write(design, t, foreign.getOrDefault(t.id(), List.of()))));
    Map<String, String> own = new LinkedHashMap<>(design.extras().byProperty());
    design
        .extras()
        .byProperty()
        .forEach(
            (property, text) -> {
              if (property.startsWith("resource:")) {
                resources.add(ExtrasJson.parse(text));
                own.remove(property);
              }
            });
    ExtrasJson.write(new Extras(own), top, Map.of(DataPackage.MORE, more));
    return top.put(DataPackage.MORE, more).put("resources", new Json.Arr(resources, 0));
  }
}
