package joiner.outline;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import joiner.edit.TypeChoice;
import joiner.expression.Formula;
import joiner.meaning.TypeWords;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.MediaType;
import joiner.model.Table;

/** Fields as a block of cells under headings, which a spreadsheet and {@link Outline} read. */
public final class FieldText {
  private static final String HEADINGS =
      String.join("\t", "Label", "Type", "Size", "Required", "Unique", "Key", "Default", "Note");

  private FieldText() {}

  /** Fields of a table of the design, a line each, in the order given. */
  public static String write(Design design, Table table, List<Field> fields) {
    return Stream.concat(
            Stream.of(HEADINGS), fields.stream().map(field -> line(design, table, field)))
        .collect(Collectors.joining("\n", "", "\n"));
  }

  private static String line(Design design, Table table, Field field) {
    String type =
        design.parentsOf(table.id()).stream()
            .filter(r -> r.childFields().equals(List.of(field.id())))
            .map(r -> "→ " + design.table(r.parent()).label())
            .findFirst()
            .orElseGet(() -> words(field.type()));
    boolean listed = field.type() instanceof FieldType.Choice || type.startsWith("→");
    return Stream.of(
            field.label().isBlank() ? field.name() : field.label(),
            type,
            listed ? "" : TypeChoice.sizeOf(field.type()),
            field.required() ? "yes" : "",
            isUnique(table, field) ? "yes" : "",
            table.primaryKey().contains(field.id()) ? "yes" : "",
            field.defaultValue().map(Formula::text).orElse(""),
            field.description())
        .map(cell -> cell.replaceAll("\\s+", " "))
        .collect(Collectors.joining("\t"));
  }

  /** Whether it is unique by itself; what is the primary key need not be said to be. */
  private static boolean isUnique(Table table, Field field) {
    List<FieldId> alone = List.of(field.id());
    return table.uniqueKeys().stream().anyMatch(key -> key.fields().equals(alone));
  }

  private static String words(FieldType type) {
    return switch (type) {
      case FieldType.DateTime(boolean zoned) when zoned -> "date, time, zone";
      case FieldType.Choice choice when !choice.entries().isEmpty() ->
          "choice (" + String.join(", ", choice.values()) + ")";
      case FieldType.Content(var media, int most) when !media.isEmpty() ->
          "stored file ("
              + media.stream().map(MediaType::ending).collect(Collectors.joining(", "))
              + ")";
      default -> TypeWords.kind(type);
    };
  }
}
