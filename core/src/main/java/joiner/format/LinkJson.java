package joiner.format;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Table;
import joiner.rows.LinkedRows;
import joiner.rows.ValueForm;

/**
 * Rows that stay in a file as {@code rowsIn} of a resource. The standard lets rows stand in the
 * package's own folder only, so the resource itself has none. A file beside the folder or below
 * that is named from the folder on, so that both can be moved together; any other by its absolute
 * path.
 */
final class LinkJson {
  static final String PROPERTY = "rowsIn";

  private final Path folder;
  private final Path file;

  /**
   * Reads and writes links of the design in a folder.
   *
   * @param file named in errors
   */
  LinkJson(Path folder, Path file) {
    this.folder = folder.toAbsolutePath().normalize();
    this.file = file;
  }

  Json write(LinkedRows rows, Table table) {
    var columns = new Json.Obj();
    for (LinkedRows.Column column : rows.columns()) {
      var json = new Json.Obj().put("column", column.place() + 1).put("header", column.header());
      if (column.form() != ValueForm.TEXT) {
        json.put("form", word(column.form()));
      }
      if (!column.replaced().isEmpty()) {
        var texts = new Json.Obj();
        column.replaced().forEach(texts::put);
        json.put("replaced", texts);
      }
      columns.put(table.field(column.field()).name(), json);
    }
    var json =
        new Json.Obj()
            .put("file", named(rows.file()))
            .put("separator", rows.separator())
            .put("encoding", rows.charset())
            .put("headerLine", rows.headerLine())
            .put("columns", columns);
    rows.numbered()
        .ifPresent(
            counter ->
                json.put(
                    "numbered",
                    new Json.Obj()
                        .put("field", table.field(counter.field()).name())
                        .put("first", new Json.Num(String.valueOf(counter.first()), 0))));
    return json.put("count", rows.count());
  }

  private static String word(ValueForm form) {
    return form.name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  /** Where the file is, from the folder on if it is beside or below. */
  private String named(String absolute) {
    Path path = Path.of(absolute);
    Path around = folder.getParent();
    boolean near = around != null && around.getNameCount() > 0 && path.startsWith(around);
    return near ? folder.relativize(path).toString().replace('\\', '/') : absolute;
  }

  /** Where the rows of a table stay. */
  LinkedRows read(Json json, Table table) throws UnreadableFileException {
    var link = new Members(json, file, PROPERTY);
    Map<String, FieldId> ids = new LinkedHashMap<>();
    for (Field field : table.fields()) {
      ids.put(field.name(), field.id());
    }
    var columns = new ArrayList<LinkedRows.Column>();
    Set<FieldId> filled = new HashSet<>();
    if (link.any("columns").orElse(new Json.Obj()) instanceof Json.Obj object) {
      for (Map.Entry<String, Json> entry : object.members().entrySet()) {
        FieldId field = TableJson.ids(link, "columns", List.of(entry.getKey()), ids).getFirst();
        filled.add(field);
        columns.add(column(new Members(entry.getValue(), file, "a column"), field));
      }
    } else {
      throw link.problem("“columns” names the fields and the columns that fill them.");
    }
    Members counter = link.object("numbered");
    Optional<String> numbered = counter.optionalText("field");
    Optional<LinkedRows.Numbered> numbers = Optional.empty();
    if (numbered.isPresent()) {
      FieldId field = TableJson.ids(counter, "numbered", List.of(numbered.get()), ids).getFirst();
      if (!filled.add(field)) {
        throw counter.problem("the field “" + numbered.get() + "” is filled by a column already.");
      }
      numbers = Optional.of(new LinkedRows.Numbered(field, counter.longNumber("first").orElse(1L)));
    }
    String separator = link.optionalText("separator").orElse(",");
    if (separator.length() != 1) {
      throw link.problem("“separator” is one character.");
    }
    return new LinkedRows(
        place(link),
        separator,
        charset(link),
        Math.max(0, link.number("headerLine").orElse(1)),
        columns,
        numbers,
        Math.max(0, link.number("count").orElse(0)));
  }

  private LinkedRows.Column column(Members column, FieldId field) throws UnreadableFileException {
    Optional<String> word = column.optionalText("form");
    Optional<ValueForm> form =
        ValueForm.all().stream()
            .filter(known -> word(known).equals(word.orElse(word(ValueForm.TEXT))))
            .findFirst();
    if (form.isEmpty()) {
      throw column.problem("“form” is no way to write values: “" + word.orElse("") + "”.");
    }
    Map<String, String> replaced = new LinkedHashMap<>();
    if (column.any("replaced").orElse(new Json.Obj()) instanceof Json.Obj texts) {
      for (Map.Entry<String, Json> text : texts.members().entrySet()) {
        if (!(text.getValue() instanceof Json.Text other)) {
          throw column.wrong("replaced", text.getValue(), "texts");
        }
        replaced.put(text.getKey(), other.text());
      }
    }
    return new LinkedRows.Column(
        field,
        Math.max(1, column.number("column").orElse(1)) - 1,
        column.text("header"),
        form.get(),
        replaced);
  }

  private String place(Members link) throws UnreadableFileException {
    String name =
        link.optionalText("file")
            .filter(text -> !text.isBlank())
            .orElseThrow(() -> link.problem("“file” is missing: the file that has the rows."));
    try {
      Path named = folder.resolve(name).normalize();
      Path moved = folder.resolveSibling(String.valueOf(named.getFileName()));
      return (!Files.exists(named) && Files.isRegularFile(moved) ? moved : named).toString();
    } catch (InvalidPathException e) {
      throw link.problem("“file” is no path: " + name + ".");
    }
  }

  private static String charset(Members link) throws UnreadableFileException {
    String name = link.optionalText("encoding").orElse("UTF-8");
    try {
      return Charset.forName(name).name();
    } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
      throw link.problem("“encoding” is none that is known: " + name + ".");
    }
  }
}
