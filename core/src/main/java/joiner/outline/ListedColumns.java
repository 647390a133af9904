package joiner.outline;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import joiner.model.FieldType;

/**
 * Fields in columns, as in a spreadsheet: a line a field; headings say which is which, or cells.
 */
final class ListedColumns {
  /** What a column says. */
  private enum Role {
    LABEL,
    TYPE,
    SIZE,
    REQUIRED,
    NULLABLE,
    UNIQUE,
    KEY,
    DEFAULT,
    NOTE
  }

  private final List<List<String>> lines;
  private final Map<Role, Integer> places = new EnumMap<>(Role.class);
  private final List<String> remarks;
  private int first;

  private ListedColumns(List<List<String>> lines, List<String> remarks) {
    this.lines = lines;
    this.remarks = remarks;
  }

  /**
   * The fields of some lines.
   *
   * @param lines cells, line by line
   * @param remarks gets what was not understood
   */
  static List<OutlinedField> read(List<List<String>> lines, List<String> remarks) {
    var columns = new ListedColumns(lines, remarks);
    if (!columns.headed()) {
      columns.guess();
    }
    return columns.fields();
  }

  /** Whether the first line of some cells is one of headings. */
  static boolean isHeading(List<String> cells) {
    long known = cells.stream().filter(cell -> role(cell).isPresent()).count();
    return known >= 2
        && cells.stream().anyMatch(cell -> role(cell).equals(Optional.of(Role.LABEL)));
  }

  private static Optional<Role> role(String heading) {
    return Optional.ofNullable(
        switch (heading.strip().toLowerCase(Locale.ROOT)) {
          case "label", "name", "field", "column", "field name", "column name", "attribute" ->
              Role.LABEL;
          case "type", "data type", "datatype", "kind" -> Role.TYPE;
          case "size", "length", "precision", "max length", "width" -> Role.SIZE;
          case "required", "mandatory", "not null" -> Role.REQUIRED;
          case "nullable", "null", "optional", "null?" -> Role.NULLABLE;
          case "unique" -> Role.UNIQUE;
          case "key", "pk", "primary key" -> Role.KEY;
          case "default", "default value" -> Role.DEFAULT;
          case "note", "notes", "description", "comment", "remark", "remarks" -> Role.NOTE;
          default -> null;
        });
  }

  private boolean headed() {
    if (!isHeading(lines.getFirst())) {
      return false;
    }
    first = 1;
    List<String> cells = lines.getFirst();
    for (int i = 0; i < cells.size(); i++) {
      Optional<Role> role = role(cells.get(i));
      if (role.isPresent()) {
        places.putIfAbsent(role.get(), i);
      } else if (!cells.get(i).isBlank()) {
        remarks.add("The column “" + cells.get(i).strip() + "” was not understood and left out.");
      }
    }
    return true;
  }

  private void guess() {
    int width = lines.stream().mapToInt(List::size).max().orElse(0);
    var free = new ArrayList<Integer>();
    for (int i = 0; i < width; i++) {
      free.add(i);
    }
    take(Role.TYPE, free, cell -> TypeText.read(cell).isPresent());
    take(Role.SIZE, free, cell -> cell.matches("\\d+([.,]\\d+)?"));
    take(Role.REQUIRED, free, cell -> truth(cell).isPresent());
    take(Role.UNIQUE, free, cell -> truth(cell).isPresent());
    if (!free.isEmpty()) {
      places.put(Role.LABEL, free.removeFirst());
    } else { // All looked like types or numbers; then names do.
      places.clear();
      places.put(Role.LABEL, 0);
      return;
    }
    if (!free.isEmpty()) {
      places.put(Role.NOTE, free.removeLast());
    }
    free.forEach(place -> remarks.add("What column " + (place + 1) + " says was not understood."));
  }

  /** The first column most of whose cells are such, and one at least. */
  private void take(Role role, List<Integer> free, Predicate<String> fits) {
    for (Integer place : free) {
      List<String> cells =
          lines.stream().map(line -> cell(line, place)).filter(cell -> !cell.isEmpty()).toList();
      long fitting = cells.stream().filter(fits).count();
      boolean lone = place == 0 && role != Role.TYPE;
      if (!lone && fitting > 0 && fitting * 10 >= cells.size() * 7L) {
        places.put(role, place);
        free.remove(place);
        return;
      }
    }
  }

  private static String cell(List<String> line, int place) {
    return place < line.size() ? line.get(place).strip() : "";
  }

  private String cell(List<String> line, Role role) {
    return Optional.ofNullable(places.get(role)).map(place -> cell(line, place)).orElse("");
  }

  private List<OutlinedField> fields() {
    var fields = new ArrayList<OutlinedField>();
    for (List<String> line : lines.subList(first, lines.size())) {
      String label = cell(line, Role.LABEL);
      if (label.isEmpty()) {
        if (line.stream().anyMatch(cell -> !cell.isBlank())) {
          remarks.add("A line without a label was left out: " + String.join(" ", line).strip());
        }
        continue;
      }
      fields.add(field(label, line));
    }
    return fields;
  }

  private OutlinedField field(String label, List<String> line) {
    OutlinedField field =
        OutlinedField.of(label)
            .withRequired(
                is(line, Role.REQUIRED)
                    || places.containsKey(Role.NULLABLE) && !is(line, Role.NULLABLE))
            .withUnique(is(line, Role.UNIQUE))
            .withKey(is(line, Role.KEY) || cell(line, Role.KEY).equalsIgnoreCase("pk"))
            .withDefault(cell(line, Role.DEFAULT))
            .withNote(cell(line, Role.NOTE));
    String said = cell(line, Role.TYPE);
    if (said.startsWith("→") || said.startsWith("->")) {
      return field.referringTo(said.replaceFirst("^(→|->)\\s*", ""));
    }
    Optional<FieldType> type =
        said.isEmpty() ? Optional.empty() : TypeText.read(said, cell(line, Role.SIZE));
    if (!said.isEmpty() && type.isEmpty()) {
      remarks.add("“" + said + "” of " + label + " is no type that is known.");
    }
    return type.map(field::withType).orElse(field);
  }

  private boolean is(List<String> line, Role role) {
    return truth(cell(line, role)).orElse(false);
  }

  private static Optional<Boolean> truth(String cell) {
    return switch (cell.toLowerCase(Locale.ROOT)) {
      case "yes", "y", "x", "✓", "✔", "●", "true", "required", "mandatory", "not null", "unique" ->
          Optional.of(true);
      case "no", "n", "false", "optional", "null", "-", "–" -> Optional.of(false);
      default -> Optional.empty();
    };
  }
}
