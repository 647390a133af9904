package joiner.entry;

import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import joiner.audit.Violation;
import joiner.expression.Value;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.meaning.FormulaRows;
import joiner.meaning.Messages;
import joiner.meaning.RowLabels;
import joiner.meaning.WorkedOut;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Relationship;
import joiner.model.Rule;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.naming.WordList;
import joiner.rows.ReadValue;
import joiner.rows.Rows;
import joiner.rows.ValueReader;

/** Why one row is refused, as whoever typed it reads it. */
final class RefusalWords {
  private final Draft after;
  private final Clock clock;
  private final FormulaRows values;
  private final Map<TableId, WorkedOut> workedOut = new HashMap<>();
  private final Map<TableId, RowLabels> labels = new HashMap<>();

  /** For each key that somebody repeats the first row that has it. */
  private final Map<Key, Map<List<Value>, Integer>> firsts = new HashMap<>();

  private record Key(TableId table, List<FieldId> fields) {}

  RefusalWords(Draft after, Clock clock) {
    this.after = after;
    this.clock = clock;
    this.values = new FormulaRows(after, clock);
  }

  /**
   * What is wrong with a row.
   *
   * @param row its place, from 0
   */
  String of(Violation violation, int row) {
    Table table = after.design().table(violation.table());
    List<Field> fields = violation.fields().stream().map(table::field).toList();
    String labels = WordList.and(fields.stream().map(Field::label).toList());
    String held = held(table, fields, row);
    return switch (violation.kind()) {
      case MISSING_REQUIRED -> labels + " is required.";
      case WRONG_TYPE -> unfit(table, fields.getFirst(), row).orElse(violation.message());
      case ORPHAN -> orphan(violation, table, held);
      case DUPLICATE_KEY -> duplicate(table, fields, labels, held, row);
      case TOO_LONG, NOT_IN_LIST, RULE -> demanded(violation, table, fields, row);
      case CHILDLESS, COMPUTED -> violation.message();
    };
  }

  private String held(Table table, List<Field> fields, int row) {
    return String.join(
        " · ", fields.stream().map(field -> cell(table, field, row).orElse("")).toList());
  }

  private Optional<String> cell(Table table, Field field, int row) {
    Rows rows = after.rows().of(table.id());
    return field.isComputed()
        ? workedOut
            .computeIfAbsent(table.id(), id -> new WorkedOut(after, table, values, clock))
            .cell(rows, row, field.id())
        : rows.cell(row, field.id());
  }

  private Optional<String> unfit(Table table, Field field, int row) {
    return cell(table, field, row)
        .filter(text -> ValueReader.read(text, field.type()) instanceof ReadValue.Unfit)
        .map(
            text ->
                field.label()
                    + " holds “"
                    + text
                    + "”; "
                    + ((ReadValue.Unfit) ValueReader.read(text, field.type())).expected()
                    + " is expected.");
  }

  private String orphan(Violation violation, Table table, String held) {
    return after.design().parentsOf(table.id()).stream()
        .filter(r -> r.name().equals(violation.constraint()))
        .findFirst()
        .map(Relationship::parent)
        .map(after.design()::table)
        .map(parent -> "There is no " + parent.noun().singular() + " “" + held + "”.")
        .orElse(violation.message());
  }

  private String duplicate(Table table, List<Field> fields, String called, String held, int row) {
    var key = new Key(table.id(), fields.stream().map(Field::id).toList());
    List<Value> tuple =
        key.fields.stream().map(field -> values.of(table.id()).value(field, row)).toList();
    Integer first = firsts.computeIfAbsent(key, this::firsts).get(tuple);
    String other = first == null || first == row ? "" : ": " + label(table, first);
    return called + " “" + held + "” is taken by another " + table.noun().singular() + other + ".";
  }

  private Map<List<Value>, Integer> firsts(Key key) {
    Map<List<Value>, Integer> firsts = new HashMap<>();
    List<Optional<List<Value>>> tuples = values.of(key.table).tuples(key.fields);
    for (int row = 0; row < tuples.size(); row++) {
      int place = row;
      tuples.get(row).ifPresent(tuple -> firsts.putIfAbsent(tuple, place));
    }
    return firsts;
  }

  private String label(Table table, int row) {
    return labels
        .computeIfAbsent(table.id(), id -> new RowLabels(after.meaning().of(table), values, clock))
        .of(row);
  }

  /** A rule's own message with the values of the row, else what is demanded of the value. */
  private String demanded(Violation violation, Table table, List<Field> fields, int row) {
    Optional<Rule> rule =
        table.rules().stream().filter(r -> r.name().equals(violation.constraint())).findFirst();
    if (rule.isPresent()) {
      return rule.get().message().isBlank()
          ? "The rule " + rule.get().label() + " is broken."
          : Messages.filled(
              rule.get().message(), table, field -> cell(table, field, row).orElse(field.label()));
    }
    return fields.size() != 1
        ? violation.message()
        : after.meaning().of(table).constraintsOf(fields.getFirst().id()).stream()
            .filter(constraint -> constraint.name().equals(violation.constraint()))
            .findFirst()
            .map(constraint -> must(constraint, fields.getFirst()))
            .orElse(violation.message());
  }

  private static String must(Constraint.OfField constraint, Field field) {
    return field.label() + " must " + constraint.demand() + ".";
  }
}
