package joiner.map;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Pin;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.model.TableKind;
import joiner.naming.Counts;

/** Turns tables into boards: keys and links first, then fields until the board is full. */
final class Boards {
  private final Design design;
  private final BiPredicate<TableId, FieldId> told;
  private final Detail detail;
  private final Map<TableId, Long> byParent;
  private final Map<TableId, List<Relationship>> byChild;
  private final Map<AreaId, Integer> hues;
  private final Set<TableId> pinned;

  /**
   * Boards of a design.
   *
   * @param told fields that are shown in any case
   */
  Boards(Design design, BiPredicate<TableId, FieldId> told, Detail detail) {
    this.detail = detail;
    this.byParent =
        design.relationships().stream()
            .collect(Collectors.groupingBy(Relationship::parent, Collectors.counting()));
    this.design = design;
    this.pinned = design.pins().stream().map(Pin::table).collect(Collectors.toSet());
    this.told = told;
    this.byChild =
        design.relationships().stream().collect(Collectors.groupingBy(Relationship::child));
    this.hues = design.areas().stream().collect(Collectors.toMap(Area::id, Area::hue));
  }

  Board of(Table table) {
    Set<FieldId> foreign = new HashSet<>();
    List<Relationship> links = byChild.getOrDefault(table.id(), List.of());
    links.forEach(r -> foreign.addAll(r.childFields()));
    var lines = new ArrayList<Board.Line>();
    Predicate<Field> first =
        f -> isKey(table, f) || foreign.contains(f.id()) || told.test(table.id(), f.id());
    table.fields().stream().filter(first).forEach(f -> lines.add(line(table, f, links)));
    table.fields().stream().filter(first.negate()).forEach(f -> lines.add(line(table, f, links)));
    int keys = (int) table.fields().stream().filter(first).count();
    int shown =
        switch (detail) {
          case FIELDS -> Math.min(lines.size(), Board.MOST_LINES);
          case KEYS -> Math.min(lines.size(), Math.max(1, keys));
          case NAMES -> 0;
        };
    String remark =
        switch (table.kind()) {
          case TableKind.Plain plain -> "";
          case TableKind.Lookup lookup -> "lookup";
          case TableKind.Join join -> "join table";
        };
    return new Board(
        table.label(),
        remark,
        pinned.contains(table.id()),
        table.area().map(hues::get).orElse(-1),
        lines.subList(0, shown),
        detail == Detail.NAMES ? 0 : lines.size() - shown,
        "",
        detail == Detail.NAMES ? ends(table, links) : 0,
        switch (detail) {
          case FIELDS -> Board.WIDTH;
          case KEYS -> Board.KEYS_WIDTH;
          case NAMES -> Board.BRIEF_WIDTH;
        });
  }

  /** A small board with one line in the place of the fields. */
  Board brief(Table table, MapLayout.Brief brief) {
    return brief(brief.title(), brief.caption(), table.area(), Board.BRIEF_WIDTH);
  }

  /** A table where others refer to it, told by what they say of it. */
  Board standIn(Table table, String roles) {
    return brief(table.label(), roles, table.area(), Board.KEYS_WIDTH);
  }

  /** An area that is folded. */
  Board folded(Area area, int tables) {
    String caption = Counts.of(tables, "table", "tables");
    return brief(area.name(), caption, Optional.of(area.id()), Board.AREA_WIDTH);
  }

  private Board brief(String title, String caption, Optional<AreaId> area, double width) {
    int hue = area.map(hues::get).orElse(-1);
    return new Board(title, "", false, hue, List.of(), 0, caption, 0, width);
  }

  /** Self references leave and meet a board on one side. */
  private int ends(Table table, List<Relationship> up) {
    long own = up.stream().filter(Relationship::isSelfReference).count();
    long right = byParent.getOrDefault(table.id(), 0L) + own;
    return (int) Math.max(1, Math.max(right, up.size() - own));
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
    return new Board.Line(field.id(), tag, field.name(), type, Board.Mark.SAME);
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
