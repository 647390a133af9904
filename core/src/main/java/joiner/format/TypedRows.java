package joiner.format;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import joiner.entry.Entered;
import joiner.meaning.Draft;
import joiner.model.FieldId;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.RowId;
import joiner.rows.Rows;

/**
 * What was typed into forms of the design in a folder and not saved yet, kept beside the user's
 * settings, so that it is there again when the design is opened the next time. A row that was being
 * changed is known by its primary key, without one by all it holds. One thread at a time.
 */
public final class TypedRows {
  private static final String ROWS = "rows";
  private static final String TABLE = "table";
  private static final String WAS = "was";
  private static final String CELLS = "cells";
  private static final String BELOW = "below";
  private static final String OVER = "over";

  private final Path file;

  private TypedRows(Path file) {
    this.file = file;
  }

  /** That of the design in a folder. */
  public static TypedRows of(Path folder) {
    String path = DesignFolder.folderOf(folder).toString();
    return new TypedRows(Places.typed().resolve(Fingerprint.digestOf(path) + ".json"));
  }

  /**
   * What was kept, as far as its tables and fields are there still. A row that was being changed
   * and is gone becomes a new one, so that nothing typed is lost.
   */
  public List<Entered> read(Draft present) throws IOException {
    try {
      String text = Files.readString(file, StandardCharsets.UTF_8);
      var members = new Members(JsonFile.parse(text, file), file, "typed rows");
      return rows(members.list(ROWS), present, Optional.empty());
    } catch (NoSuchFileException e) {
      return List.of();
    } catch (UnreadableFileException e) {
      Files.move(file, Places.aside(file), StandardCopyOption.REPLACE_EXISTING); // Not lost.
      return List.of();
    }
  }

  private List<Entered> rows(List<Json> all, Draft present, Optional<TableId> of)
      throws UnreadableFileException {
    var rows = new ArrayList<Entered>();
    for (Json json : all) {
      var row = new Members(json, file, "a typed row");
      TableId id = of.orElse(new TableId(row.text(TABLE)));
      Optional<Table> table = present.design().find(id);
      if (table.isPresent()) {
        rows.add(row(row, table.get(), present));
      }
    }
    return rows;
  }

  private Entered row(Members row, Table table, Draft present) throws UnreadableFileException {
    Map<RelationshipId, List<Entered>> details = new LinkedHashMap<>();
    for (Json json : row.list(BELOW)) {
      var below = new Members(json, file, "rows below another");
      var over = new RelationshipId(below.text(OVER));
      if (present.design().find(over).isPresent()) {
        TableId child = present.design().relationship(over).child();
        details.put(over, rows(below.list(ROWS), present, Optional.of(child)));
      }
    }
    Map<FieldId, String> cells = cells(row, CELLS);
    cells.keySet().removeIf(field -> !table.hasField(field));
    return new Entered(table.id(), there(row, table, present), cells, details);
  }

  private Optional<RowId> there(Members row, Table table, Draft present)
      throws UnreadableFileException {
    Map<FieldId, String> was = cells(row, WAS);
    Rows rows = present.rows().of(table.id());
    OptionalInt place =
        was.isEmpty()
            ? OptionalInt.empty()
            : IntStream.range(0, rows.count())
                .filter(
                    r ->
                        was.entrySet().stream()
                            .allMatch(
                                cell ->
                                    rows.cell(r, cell.getKey()).orElse("").equals(cell.getValue())))
                .findFirst();
    return place.isPresent() ? Optional.of(rows.id(place.getAsInt())) : Optional.empty();
  }

  private Map<FieldId, String> cells(Members row, String name) throws UnreadableFileException {
    Map<FieldId, String> cells = new LinkedHashMap<>();
    if (row.any(name).orElse(null) instanceof Json.Obj found) {
      for (Map.Entry<String, Json> cell : found.members().entrySet()) {
        if (!(cell.getValue() instanceof Json.Text(String text, int line))) {
          throw row.problem("A cell is a text.");
        }
        cells.put(new FieldId(cell.getKey()), text);
      }
    }
    return cells;
  }

  /** Keeps what is typed in place of what was kept before. */
  public void keep(Draft present, List<Entered> typed) throws IOException {
    if (typed.isEmpty()) {
      Files.deleteIfExists(file);
      return;
    }
    var document = new Json.Obj();
    document.put(ROWS, new Json.Arr(typed.stream().map(row -> json(row, present)).toList(), 0));
    Path aside = Places.aside(file);
    Files.writeString(aside, JsonText.line(document), StandardCharsets.UTF_8);
    Files.move(aside, file, StandardCopyOption.REPLACE_EXISTING);
  }

  private static Json json(Entered row, Draft present) {
    Json.Obj json = new Json.Obj().put(TABLE, row.table().value());
    row.row().ifPresent(id -> json.put(WAS, was(row.table(), id, present)));
    json.put(CELLS, cells(row.cells()));
    var below = new ArrayList<Json>();
    row.details()
        .forEach(
            (over, rows) ->
                below.add(
                    new Json.Obj()
                        .put(OVER, over.value())
                        .put(
                            ROWS,
                            new Json.Arr(rows.stream().map(r -> json(r, present)).toList(), 0))));
    if (!below.isEmpty()) {
      json.put(BELOW, new Json.Arr(below, 0));
    }
    return json;
  }

  private static Json.Obj was(TableId id, RowId row, Draft present) {
    Table table = present.design().table(id);
    Rows rows = present.rows().of(id);
    List<FieldId> key = table.primaryKey().isEmpty() ? table.fieldIds() : table.primaryKey();
    Map<FieldId, String> was = new LinkedHashMap<>();
    OptionalInt place = rows.place(row);
    if (place.isPresent()) {
      key.forEach(field -> was.put(field, rows.cell(place.getAsInt(), field).orElse("")));
    }
    return cells(was);
  }

  private static Json.Obj cells(Map<FieldId, String> cells) {
    var json = new Json.Obj();
    cells.forEach((field, text) -> json.put(field.value(), text));
    return json;
  }
}
