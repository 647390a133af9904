package joiner.format;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import joiner.model.Field;
import joiner.model.Table;
import joiner.rows.Rows;

/** Rows that stand in the package itself: a list of objects, or of lists below a header list. */
final class InlineRows {
  private InlineRows() {}

  static Rows read(Json data, Table table, Path file) throws UnreadableFileException {
    if (!(data instanceof Json.Arr array)) {
      throw new UnreadableFileException(
          file,
          data.line(),
          "inline “data” of a table is a list of rows, not " + data.kind() + ".");
    }
    var builder = new Rows.Builder(table.fields().stream().map(Field::id).toList());
    List<String> header = table.fields().stream().map(Field::name).toList();
    for (Json item : array.items()) {
      switch (item) {
        case Json.Obj row -> object(row, table, builder);
        case Json.Arr row when item == array.items().getFirst() ->
            header = row.items().stream().map(InlineRows::text).map(t -> t.orElse("")).toList();
        case Json.Arr row -> list(row, header, table, builder);
        case Json.Text t -> throw noRow(file, item);
        case Json.Num t -> throw noRow(file, item);
        case Json.Bool t -> throw noRow(file, item);
        case Json.Null t -> throw noRow(file, item);
      }
    }
    return builder.build();
  }

  private static UnreadableFileException noRow(Path file, Json item) {
    return new UnreadableFileException(
        file, item.line(), "a row is an object or a list, not " + item.kind() + ".");
  }

  private static void object(Json.Obj row, Table table, Rows.Builder builder) {
    for (int i = 0; i < table.fields().size(); i++) {
      cell(builder, i, row.get(table.fields().get(i).name()).flatMap(InlineRows::text));
    }
    builder.endRow();
  }

  private static void list(Json.Arr row, List<String> header, Table table, Rows.Builder builder) {
    for (int i = 0; i < table.fields().size(); i++) {
      int place = header.indexOf(table.fields().get(i).name());
      Optional<String> cell =
          place < 0 || place >= row.items().size()
              ? Optional.empty()
              : text(row.items().get(place));
      cell(builder, i, cell);
    }
    builder.endRow();
  }

  private static void cell(Rows.Builder builder, int field, Optional<String> cell) {
    cell.ifPresent(text -> builder.cell(field, text));
  }

  private static Optional<String> text(Json value) {
    return switch (value) {
      case Json.Text t -> Optional.of(t.text());
      case Json.Num n -> Optional.of(n.text());
      case Json.Bool b -> Optional.of(String.valueOf(b.value()));
      case Json.Null n -> Optional.empty();
      case Json.Obj o -> Optional.of(JsonText.line(o));
      case Json.Arr a -> Optional.of(JsonText.line(a));
    };
  }
}
