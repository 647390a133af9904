package joiner.desktop.map;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;

/** Turns tables into boards: keys and links first, then fields until the board is full. */
final class Boards {
  private final Design design;
  private final Map<TableId, List<Relationship>> byChild;
  private final Map<AreaId, Integer> hues;

  Boards(Design design) {
    this.design = design;
    this.byChild =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    this.hues = design.areas().stream().collect(Collectors.toMap(Area::id, Area::hue));
  }

  Board of(Table table) {
    Set<FieldId> foreign = new HashSet<>();
    List<Relationship> links = byChild.getOrDefault(table.id(), List.of());
    links.forEach(r -> foreign.addAll(r.childFields()));
    var lines = new ArrayList<Board.Line>();
    table.fields().stream()
        .filter(f -> isKey(table, f) || foreign.contains(f.id()))
        .forEach(f -> lines.add(line(table, f, links)));
    table.fields().stream()
        .filter(f -> !isKey(table, f) && !foreign.contains(f.id()))
        .forEach(f -> lines.add(line(table, f, links)));
    int shown = Math.min(lines.size(), Board.MOST_LINES);
    String remark =
        switch (table.kind()) {
          case TableKind.Plain plain -> "";
          case TableKind.Lookup lookup -> "lookup";
          case TableKind.Join join -> "join table";
        };
    return new Board(
        table.id(),
        table.label(),
        remark,
        table.area().map(hues::get).orElse(-1),
        lines.subList(0, shown),
        lines.size() - shown,
        "");
  }

  /** A small board with one line in the place of the fields. */
  Board brief(Table table, MapLayout.Brief brief) {
    return new Board(
        table.id(),
        brief.title(),
        "",
        table.area().map(hues::get).orElse(-1),
        List.of(),
        0,
        brief.caption());
  }

  private static boolean isKey(Table table, Field field) {
    return table.primaryKey().contains(field.id());
  }

  private Board.Line line(Table table, Field field, List<Relationship> links) {
    boolean linked = links.stream().anyMatch(r -> r.childFields().contains(field.id()));
    String tag =
        isKey(table, field) ? "PK" : linked ? "FK" : table.isUnique(List.of(field.id())) ? "U" : "";
    String type =
        links.stream()
            .filter(r -> r.childFields().contains(field.id()))
            .findFirst()
            .map(r -> "→ " + design.table(r.parent()).name())
            .orElseGet(() -> type(field.type()));
    return new Board.Line(field.id(), tag, field.name(), type);
  }

  private static String type(FieldType type) {
    return switch (type) {
      case FieldType.Text t -> "text " + t.maxLength();
      case FieldType.LongText t -> "long text";
      case FieldType.WholeNumber t -> "number";
      case FieldType.Counter t -> "counter";
      case FieldType.Decimal t -> "decimal " + t.precision() + "." + t.scale();
      case FieldType.Money t -> "money";
      case FieldType.AnyNumber t -> "number";
      case FieldType.TrueFalse t -> "true/false";
      case FieldType.Date t -> "date";
      case FieldType.Time t -> "time";
      case FieldType.DateTime t -> "date, time";
      case FieldType.Uuid t -> "UUID";
      case FieldType.Email t -> "e-mail";
      case FieldType.WebAddress t -> "web address";
      case FieldType.Phone t -> "phone";
      case FieldType.Secret t -> "secret";
      case FieldType.FileReference t -> "file";
      case FieldType.Content t -> "stored";
      case FieldType.Choice t -> "choice of " + t.values().size();
      case FieldType.Kept t -> t.standardType();
    };
  }
}
