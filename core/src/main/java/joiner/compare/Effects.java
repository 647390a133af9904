package joiner.compare;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import joiner.change.Change;
import joiner.change.Changes;
import joiner.change.Heading;
import joiner.meaning.Draft;
import joiner.model.Area;
import joiner.model.AreaId;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Question;
import joiner.model.QuestionId;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.Counts;
import joiner.rows.LinkedRows;
import joiner.rows.Rows;

/**
 * Tells what leads from one draft to another in sentences, with the risk of each. Things are the
 * same ones if they have the same id. Nothing is told only of equal drafts.
 */
public final class Effects {
  private final Draft before;
  private final Draft after;
  private final List<Effect> effects = new ArrayList<>();

  /** Cells that changed, counted before they are told. */
  private final Map<TableId, Long> cells = new LinkedHashMap<>();

  /** Rows that went and that came, likewise. */
  private final Map<TableId, RowCounts> rows = new LinkedHashMap<>();

  private record RowCounts(int gone, int came) {
    RowCounts and(RowCounts other) {
      return new RowCounts(gone + other.gone, came + other.came);
    }
  }

  private Effects(Draft before, Draft after) {
    this.before = before;
    this.after = after;
  }

  /** What leads from one draft to another. */
  public static List<Effect> between(Draft before, Draft after) {
    var effects = new Effects(before, after);
    Changes.between(before, after).list().forEach(effects::tell);
    effects.rows.forEach(effects::tellRows);
    effects.cells.forEach(effects::tellCells);
    return List.copyOf(effects.effects);
  }

  private void tell(Change change) {
    switch (change) {
      case Change.HeadingChanged(Heading old, Heading now) -> heading(old, now);
      case Change.TableAdded(Table table, int place) -> added(table);
      case Change.TableRemoved(Table table, int place) -> removed(table);
      case Change.TableChanged(TableId table, var old, var now) ->
          effects.addAll(TableEffects.of(before, after, table, old, now));
      case Change.FieldAdded(TableId table, Field field, int place) -> added(table, field);
      case Change.FieldRemoved(TableId table, Field field, int place) -> removed(table, field);
      case Change.FieldChanged(TableId table, Field old, Field now) ->
          effects.addAll(FieldEffects.of(before.design().table(table), old, now));
      case Change.RelationshipAdded(Relationship r, int place) -> added(r);
      case Change.RelationshipRemoved(Relationship r, int place) -> removed(r);
      case Change.RelationshipChanged(Relationship old, Relationship now) -> changed(old, now);
      case Change.TablesOrdered order -> order(Optional.empty(), "The tables stand");
      case Change.FieldsOrdered(TableId table, var old, var now) -> {
        Table known = before.design().table(table);
        order(Optional.of(known.name()), "The fields of " + known.label() + " stand");
      }
      case Change.RelationshipsOrdered order -> order(Optional.empty(), "The relationships stand");
      case Change.RowsAdded(TableId table, var places, Rows rows) ->
          this.rows.merge(table, new RowCounts(0, rows.count()), RowCounts::and);
      case Change.RowsRemoved(TableId table, var places, Rows rows) ->
          this.rows.merge(table, new RowCounts(rows.count(), 0), RowCounts::and);
      case Change.CellChanged cell -> cells.merge(cell.table(), 1L, Long::sum);
      case Change.ColumnChanged(TableId table, FieldId field, Rows old, Rows now) -> {
        if (before.design().table(table).hasField(field)
            && after.design().find(table).filter(t -> t.hasField(field)).isPresent()) {
          cells.merge(table, differing(field, old, now), Long::sum);
        }
      }
      case Change.LinkChanged(TableId table, var old, var now) -> link(table, old, now);
    }
  }

  /** A file of a table that comes or goes is told with it, and one that lost a field with that. */
  private void link(TableId id, Optional<LinkedRows> old, Optional<LinkedRows> now) {
    Optional<Table> table = before.design().find(id);
    boolean sameFile = old.map(LinkedRows::file).equals(now.map(LinkedRows::file));
    if (table.isEmpty() || after.design().find(id).isEmpty() || sameFile) {
      return;
    }
    add(
        Effect.Kind.ROWS_CHANGED,
        table.get().name(),
        Optional.empty(),
        Risk.NONE,
        now.map(link -> "The rows of " + table.get().label() + " stay in " + link.file() + ".")
            .orElseGet(
                () ->
                    "The rows of "
                        + table.get().label()
                        + " are no longer those in "
                        + old.orElseThrow().file()
                        + "."));
  }

  private static long differing(FieldId field, Rows old, Rows now) {
    long count = 0;
    for (int row = 0; row < old.count(); row++) {
      count += old.cell(row, field).equals(now.cell(row, field)) ? 0 : 1;
    }
    return count;
  }

  private void add(
      Effect.Kind kind, String table, Optional<String> field, Risk risk, String message) {
    effects.add(new Effect(kind, Optional.of(table), field, risk, message));
  }

  private static void questions(List<Question> old, List<Question> now, List<String> others) {
    Map<QuestionId, Question> before = new LinkedHashMap<>();
    old.forEach(question -> before.put(question.id(), question));
    for (Question question : now) {
      Question was = before.remove(question.id());
      if (was == null) {
        others.add("keeps the question " + question.label());
      } else if (!was.equals(question)) {
        others.add("asks something else in the question " + question.label());
      }
    }
    before.values().forEach(gone -> others.add("lets the question " + gone.label() + " go"));
  }

  private void heading(Heading old, Heading now) {
    var others = new ArrayList<String>();
    if (!old.title().equals(now.title())) {
      others.add("is called " + now.title() + ", before " + old.title());
    }
    if (!old.name().equals(now.name())) {
      others.add("is named " + now.name() + " in files and databases, before " + old.name());
    }
    areas(old, now, others);
    if (!old.kits().equals(now.kits())) {
      others.add("has other kits of fields");
    }
    if (!old.pins().equals(now.pins())) {
      others.add("has other boards pinned on its map");
    }
    questions(old.questions(), now.questions(), others);
    if (!old.description().equals(now.description())) {
      others.add("has another note");
    }
    if (!old.extras().equals(now.extras())) {
      others.add("has other properties that Joiner keeps for others");
    }
    for (String other : others) {
      effects.add(
          new Effect(
              Effect.Kind.DESIGN_CHANGED,
              Optional.empty(),
              Optional.empty(),
              Risk.NONE,
              "The design " + other + "."));
    }
  }

  private static void areas(Heading old, Heading now, List<String> others) {
    Map<AreaId, String> names = new HashMap<>();
    old.areas().forEach(area -> names.put(area.id(), area.name()));
    boolean renamed = false;
    for (Area area : now.areas()) {
      String before = names.getOrDefault(area.id(), area.name());
      if (!before.equals(area.name())) {
        renamed = true;
        others.add("calls the area " + before + " now " + area.name());
      }
    }
    if (!old.areas().equals(now.areas()) && !renamed) {
      others.add("has other areas");
    }
  }

  private void added(Table table) {
    add(
        Effect.Kind.TABLE_ADDED,
        table.name(),
        Optional.empty(),
        Risk.ADDS,
        "The table " + table.label() + " is added" + with(after, table) + ".");
  }

  private void removed(Table table) {
    add(
        Effect.Kind.TABLE_REMOVED,
        table.name(),
        Optional.empty(),
        Risk.LOSES,
        "The table " + table.label() + " is removed" + with(before, table) + ".");
  }

  private void added(Relationship r) {
    String message = " is added: " + says(after, r);
    relationship(Effect.Kind.RELATIONSHIP_ADDED, Risk.REFUSES, after, r, message);
  }

  private void removed(Relationship r) {
    String message = " is removed: " + says(before, r);
    relationship(Effect.Kind.RELATIONSHIP_REMOVED, Risk.NONE, before, r, message);
  }

  private static String with(Draft draft, Table table) {
    return ", with "
        + Counts.of(table.fields().size(), "field", "fields")
        + " and "
        + draft
            .rows()
            .link(table.id())
            .map(link -> "the rows in " + link.fileName())
            .orElseGet(() -> Counts.of(draft.rows().of(table.id()).count(), "row", "rows"));
  }

  private void added(TableId id, Field field) {
    Table table = after.design().table(id);
    boolean filled = field.defaultValue().isPresent() || !table.isRequired(field.id());
    add(
        Effect.Kind.FIELD_ADDED,
        table.name(),
        Optional.of(field.name()),
        filled ? Risk.ADDS : Risk.REFUSES,
        table.label()
            + " gets the field "
            + field.label()
            + (filled ? "." : ", which is required and has no default for rows that are there."));
  }

  private void removed(TableId id, Field field) {
    Table table = before.design().table(id);
    Rows rows = before.rows().of(id);
    long values = 0;
    for (int row = 0; row < rows.count(); row++) {
      values += rows.cell(row, field.id()).isPresent() ? 1 : 0;
    }
    add(
        Effect.Kind.FIELD_REMOVED,
        table.name(),
        Optional.of(field.name()),
        Risk.LOSES,
        table.label()
            + " loses the field "
            + field.label()
            + before
                .rows()
                .link(id)
                .flatMap(link -> link.column(field.id()).map(column -> link.fileName()))
                .map(name -> "; its values stay in " + name + ".")
                .orElse(" with " + Counts.of(values, "value", "values") + "."));
  }

  private static String says(Draft draft, Relationship r) {
    return draft.design().table(r.child()).noun().singular()
        + " "
        + r.childRole()
        + " "
        + draft.design().table(r.parent()).noun().singular()
        + ".";
  }

  private void relationship(
      Effect.Kind kind, Risk risk, Draft draft, Relationship r, String message) {
    Table child = draft.design().table(r.child());
    add(
        kind,
        child.name(),
        Optional.of(child.field(r.childFields().getFirst()).name()),
        risk,
        "The relationship " + r.name() + message);
  }

  private void changed(Relationship old, Relationship now) {
    boolean otherEnds =
        !old.child().equals(now.child())
            || !old.childFields().equals(now.childFields())
            || !old.parent().equals(now.parent())
            || !old.parentFields().equals(now.parentFields());
    var others = new ArrayList<String>();
    differ(others, old.name(), now.name(), "is named " + now.name());
    if (otherEnds) {
      others.add("ties other fields");
    }
    differ(
        others,
        old.childRole() + "\n" + old.parentRole(),
        now.childRole() + "\n" + now.parentRole(),
        "reads: " + says(after, now).replaceFirst("\\.$", ""));
    differ(
        others,
        old.parentNeedsChild(),
        now.parentNeedsChild(),
        now.parentNeedsChild()
            ? "says that each parent row has one or more child rows"
            : "lets a parent row have no child row");
    differ(others, old.onDelete(), now.onDelete(), "does " + now.onDelete().sql() + " on a delete");
    differ(
        others,
        old.onUpdate(),
        now.onUpdate(),
        "does " + now.onUpdate().sql() + " on a change of the key");
    differ(others, old.picking(), now.picking(), "offers its rows in another way");
    differ(others, old.extras(), now.extras(), "has other properties that Joiner keeps for others");
    relationship(
        Effect.Kind.RELATIONSHIP_CHANGED,
        otherEnds ? Risk.REFUSES : Risk.NONE,
        before,
        old,
        " " + String.join(", ", others) + ".");
  }

  private static void differ(List<String> others, Object old, Object now, String says) {
    if (!Objects.equals(old, now)) {
      others.add(says);
    }
  }

  private void order(Optional<String> table, String what) {
    effects.add(
        new Effect(
            Effect.Kind.ORDER_CHANGED,
            table,
            Optional.empty(),
            Risk.NONE,
            what + " in another order."));
  }

  /** Rows of a table that comes or goes are told with it. */
  private void tellRows(TableId id, RowCounts counts) {
    int gone = counts.gone;
    int came = counts.came;
    Optional<Table> old = before.design().find(id);
    Optional<Table> now = after.design().find(id);
    if (old.isEmpty() || now.isEmpty()) {
      return;
    }
    String says =
        gone == 0
            ? " gets " + Counts.of(came, "row", "rows") + "."
            : " loses "
                + Counts.of(gone, "row", "rows")
                + (came == 0 ? "." : " and gets " + Counts.of(came) + " others.");
    add(
        Effect.Kind.ROWS_CHANGED,
        old.get().name(),
        Optional.empty(),
        gone == 0 ? Risk.ADDS : Risk.LOSES,
        old.get().label() + says);
  }

  private void tellCells(TableId id, long count) {
    Table table = before.design().table(id);
    add(
        Effect.Kind.ROWS_CHANGED,
        table.name(),
        Optional.empty(),
        Risk.REWRITES,
        table.label()
            + ": "
            + Counts.of(count, "cell holds another value", "cells hold other values")
            + ".");
  }
}
