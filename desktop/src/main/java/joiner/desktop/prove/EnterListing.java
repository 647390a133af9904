package joiner.desktop.prove;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import joiner.desktop.prove.EnterFound.Held;
import joiner.desktop.prove.EnterFound.Listed;
import joiner.desktop.prove.EnterFound.Row;
import joiner.desktop.work.Progress;
import joiner.desktop.work.RowOrder;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Value;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.ParentRows;
import joiner.meaning.RowLabels;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Listing;
import joiner.model.Listing.By;
import joiner.model.Relationship;
import joiner.model.RelationshipId;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;

/**
 * Lists the rows of a table, off the window's thread: in order, sieved, with what is told of each.
 */
final class EnterListing {
  /** Which rows, and how they are listed. */
  record Of(Draft draft, TableId table, String condition, List<By> order) {
    boolean isAs(Of other) {
      return draft == other.draft
          && table.equals(other.table)
          && condition.equals(other.condition)
          && order.equals(other.order);
    }
  }

  private static final int STRETCH = 1_000;
  private static final int MOST_HELD = 500;

  private final Of of;
  private final Clock clock;
  private final Progress progress;
  private final Draft draft;
  private final Table table;
  private final FormulaRows values;
  private final Evaluator evaluator;

  EnterListing(Of of, Clock clock, Progress progress) {
    this.of = of;
    this.clock = clock;
    this.progress = progress;
    this.draft = of.draft;
    this.table = draft.design().table(of.table);
    this.values = new FormulaRows(draft, clock);
    this.evaluator = new Evaluator(clock);
  }

  Listed listed() {
    Map<RelationshipId, ParentRows> parents = parents();
    Rows shown = workedOut(draft.rows().of(of.table));
    Checked condition = condition();
    var labels = new RowLabels(draft.meaning().of(of.table), values, clock);
    List<FieldId> fields =
        table.fields().stream()
            .filter(field -> field.type().kind() != Kind.BYTES)
            .map(Field::id)
            .toList();
    var rows = new ArrayList<Row>();
    for (int row : inOrder(shown, parents)) {
      if (row % STRETCH == 0 && progress.stopped()) {
        break;
      }
      if (isMet(condition, row)) {
        String label = labels.of(row);
        rows.add(new Row(shown.id(row), row, label, searched(label, shown, row, fields)));
      }
    }
    return new Listed(
        draft,
        of.table,
        shown,
        List.copyOf(rows),
        parents,
        held(shown, parents),
        condition instanceof Checked.Faulty(var problems)
            ? Optional.of(problems.getFirst().message())
            : Optional.empty());
  }

  /** With what is worked out in those of the listed fields where nobody enters it. */
  private Rows workedOut(Rows rows) {
    TableMeaning meaning = draft.meaning().of(of.table);
    Listing listing = table.listing();
    Set<FieldId> wanted = new LinkedHashSet<>(listing.columns());
    wanted.addAll(listing.filters());
    of.order.forEach(by -> wanted.add(by.field()));
    Rows all = rows;
    for (FieldId field : wanted) {
      if (meaning.computed(field).orElse(null) instanceof Checked.Sound sound) {
        var texts = new ArrayList<Optional<String>>(rows.count());
        for (int row = 0; row < rows.count(); row++) {
          texts.add(value(sound.tree(), row).map(Evaluator::show));
        }
        all = all.withColumn(field, texts);
      }
    }
    return all;
  }

  private Optional<Value> value(Expression tree, int row) {
    try {
      return Optional.of(evaluator.evaluate(tree, values.row(of.table, row)))
          .filter(value -> value != Value.NULL);
    } catch (EvaluationException e) {
      return Optional.empty(); // The audit says what is wrong there.
    }
  }

  private Checked condition() {
    TableMeaning meaning = draft.meaning().of(of.table);
    Formula formula = new Formula(of.condition.isBlank() ? "TRUE" : of.condition);
    return meaning.written(formula.condition(meaning.scope()));
  }

  private boolean isMet(Checked condition, int row) {
    return !(condition instanceof Checked.Sound sound)
        || value(sound.tree(), row).filter(Value.TRUE::equals).isPresent();
  }

  private List<Integer> inOrder(Rows shown, Map<RelationshipId, ParentRows> parents) {
    Map<FieldId, ParentRows> byField = new HashMap<>();
    for (Field field : table.fields()) {
      ParentRows.reference(draft, of.table, field.id())
          .ifPresent(over -> byField.put(field.id(), parents.get(over.id())));
    }
    return RowOrder.AS_ENTERED
        .withSorts(of.order)
        .of(shown, table.fields(), byField, () -> !progress.stopped());
  }

  /** All texts of a row, in small letters. */
  private static String searched(String label, Rows rows, int row, List<FieldId> fields) {
    var all = new StringBuilder(label);
    for (FieldId field : fields) {
      rows.cell(row, field).ifPresent(text -> all.append('\n').append(text));
    }
    return all.toString().toLowerCase(Locale.ROOT);
  }

  /** The rows that the table's rows and those below them may refer to. */
  private Map<RelationshipId, ParentRows> parents() {
    Set<Relationship> all = new LinkedHashSet<>(draft.design().parentsOf(of.table));
    for (Relationship down : draft.design().childrenOf(of.table)) {
      all.addAll(draft.design().parentsOf(down.child()));
    }
    Map<RelationshipId, ParentRows> parents = new HashMap<>();
    all.forEach(over -> parents.put(over.id(), ParentRows.of(draft, over, clock)));
    return parents;
  }

  private Map<FieldId, List<Held>> held(Rows rows, Map<RelationshipId, ParentRows> parents) {
    Map<FieldId, List<Held>> held = new HashMap<>();
    for (FieldId field : table.listing().filters()) {
      Map<String, Integer> counts = new TreeMap<>();
      Map<String, Integer> places = new HashMap<>();
      for (int row = 0; row < rows.count(); row++) {
        String text = rows.cell(row, field).orElse("");
        counts.merge(text, 1, Integer::sum);
        places.putIfAbsent(text, row);
      }
      held.put(
          field,
          counts.entrySet().stream()
              .sorted(Map.Entry.<String, Integer>comparingByValue().reversed())
              .limit(MOST_HELD)
              .map(
                  e ->
                      new Held(
                          e.getKey(),
                          text(parents, draft, of.table, rows, places.get(e.getKey()), field),
                          e.getValue()))
              .toList());
    }
    return held;
  }

  /** What stands in a cell, as people read it. */
  static String text(
      Map<RelationshipId, ParentRows> parents,
      Draft draft,
      TableId table,
      Rows rows,
      int place,
      FieldId field) {
    Optional<String> cell = place < rows.count() ? rows.cell(place, field) : Optional.empty();
    return cell.flatMap(
            text ->
                ParentRows.reference(draft, table, field)
                    .flatMap(over -> Optional.ofNullable(parents.get(over.id())))
                    .flatMap(of -> of.find(text))
                    .map(ParentRows.Parent::label))
        .or(() -> cell.filter(text -> isMoment(draft, table, field)).map(EnterListing::moment))
        .or(() -> cell)
        .orElse("");
  }

  /** As people write it; seconds only where there are some. */
  private static String moment(String text) {
    String spaced = text.replace('T', ' ');
    boolean whole = spaced.length() == "2026-03-14 18:05:00".length() && spaced.endsWith(":00");
    return whole ? spaced.substring(0, spaced.length() - ":00".length()) : spaced;
  }

  private static boolean isMoment(Draft draft, TableId table, FieldId field) {
    return draft
        .design()
        .find(table)
        .filter(t -> t.hasField(field))
        .map(t -> t.field(field).type().kind())
        .filter(Kind::isDayWithTime)
        .isPresent();
  }
}
