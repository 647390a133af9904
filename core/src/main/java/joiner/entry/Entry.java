package joiner.entry;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.random.RandomGenerator;
import joiner.edit.EnterRows;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.NewRow;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.EnteredText;
import joiner.rows.RowId;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/**
 * Plans how rows are entered: what nobody types is filled in, as a database does it, and rows below
 * another get its key. Belongs to one thread.
 */
public final class Entry {
  private final Draft draft;
  private final Clock clock;
  private final RandomGenerator chance;
  private final FormulaRows there;
  private final List<EnterRows.One> planned = new ArrayList<>();

  /** The row of each table from which it is counted on. */
  private final Map<TableId, Rows> last = new HashMap<>();

  private final Map<TableId, NewRow> made = new HashMap<>();

  /** Entries into the rows of a draft. */
  public Entry(Draft draft, Clock clock, RandomGenerator chance) {
    this.draft = draft;
    this.clock = clock;
    this.chance = chance;
    this.there = new FormulaRows(draft, clock);
  }

  /**
   * The edit that enters a row with all below it.
   *
   * @param what which row, as people call it
   */
  public EnterRows of(String what, Entered entered) {
    return of(what, List.of(entered));
  }

  /** The edit that enters several rows, each with all below it. */
  public EnterRows of(String what, List<Entered> all) {
    planned.clear();
    last.clear();
    all.forEach(entered -> plan(entered, Map.of()));
    return new EnterRows(what, List.copyOf(planned), Map.of());
  }

  private void plan(Entered entered, Map<FieldId, Optional<String>> referring) {
    Map<FieldId, Optional<String>> cells =
        entered.row().isEmpty() ? added(entered, referring) : changed(entered);
    if (entered.row().isEmpty() || !cells.isEmpty()) {
      planned.add(new EnterRows.One(entered.table(), entered.row(), cells));
    }
    entered
        .details()
        .forEach(
            (over, rows) -> {
              Map<FieldId, Optional<String>> key = key(over, entered, cells);
              rows.forEach(row -> plan(row, row.row().isEmpty() ? key : Map.of()));
            });
  }

  private NewRow made(TableId table) {
    return made.computeIfAbsent(table, id -> new NewRow(draft.meaning().of(id), clock, chance));
  }

  private Map<FieldId, Optional<String>> added(
      Entered entered, Map<FieldId, Optional<String>> referring) {
    TableId table = entered.table();
    NewRow made = made(table);
    Rows before = last.computeIfAbsent(table, id -> made.last(draft.rows().of(id)));
    Map<FieldId, Optional<String>> cells = new LinkedHashMap<>();
    made.made(before).forEach((field, text) -> cells.put(field, Optional.of(text)));
    cells.putAll(referring);
    cells.putAll(typed(entered));
    copy(table, cells);
    Map<FieldId, String> texts = new LinkedHashMap<>();
    cells.forEach((field, text) -> text.ifPresent(t -> texts.put(field, t)));
    last.put(table, made.last(before.withRow(texts)));
    return cells;
  }

  private Map<FieldId, Optional<String>> changed(Entered entered) {
    Map<FieldId, Optional<String>> cells = typed(entered);
    if (!cells.isEmpty()) {
      made(entered.table())
          .changed()
          .forEach((field, text) -> cells.putIfAbsent(field, Optional.of(text)));
    }
    return cells;
  }

  private Map<FieldId, Optional<String>> typed(Entered entered) {
    Table table = draft.design().table(entered.table());
    Map<FieldId, Optional<String>> cells = new LinkedHashMap<>();
    entered
        .cells()
        .forEach(
            (field, text) ->
                cells.put(
                    field,
                    Optional.of(EnteredText.of(table.field(field), text))
                        .filter(t -> !t.isBlank())));
    return cells;
  }

  /** What a row below refers to it by. */
  private Map<FieldId, Optional<String>> key(
      RelationshipId over, Entered parent, Map<FieldId, Optional<String>> cells) {
    Relationship r = draft.design().relationship(over);
    Map<FieldId, Optional<String>> key = new LinkedHashMap<>();
    for (int i = 0; i < r.childFields().size(); i++) {
      FieldId field = r.parentFields().get(i);
      Optional<String> text =
          cells.containsKey(field) ? cells.get(field) : cell(parent.table(), parent.row(), field);
      key.put(r.childFields().get(i), text);
    }
    return key;
  }

  private Optional<String> cell(TableId table, Optional<RowId> row, FieldId field) {
    Rows rows = draft.rows().of(table);
    OptionalInt place = row.map(rows::place).orElse(OptionalInt.empty());
    return place.isPresent() ? rows.cell(place.getAsInt(), field) : Optional.empty();
  }

  /** What is taken over from a row it refers to when it is made, unless somebody typed it. */
  private void copy(TableId id, Map<FieldId, Optional<String>> cells) {
    Table table = draft.design().table(id);
    for (Field field : table.fields()) {
      boolean empty = cells.getOrDefault(field.id(), Optional.empty()).isEmpty();
      if (empty && field.origin() instanceof Origin.Copied copied) {
        draft
            .meaning()
            .of(table)
            .far(copied.formula())
            .flatMap(far -> far(table, far, cells))
            .ifPresent(text -> cells.put(field.id(), Optional.of(text)));
      }
    }
  }

  private Optional<String> far(Table table, FarField far, Map<FieldId, Optional<String>> cells) {
    try {
      Value value =
          there
              .row(
                  field ->
                      ValueReader.valueOrNull(
                          cells.getOrDefault(field, Optional.empty()), table.field(field).type()))
              .apply(far);
      return value == Value.NULL ? Optional.empty() : Optional.of(Evaluator.show(value));
    } catch (EvaluationException e) {
      return Optional.empty(); // The row it refers to has no such value either.
    }
  }
}
