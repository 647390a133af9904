package joiner.meaning;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import joiner.expression.Checked;
import joiner.expression.EvaluationException;
import joiner.expression.Evaluator;
import joiner.expression.Value;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Picking;
import joiner.model.Relationship;
import joiner.model.Table;
import joiner.model.TableKind;
import joiner.rows.RowValues;
import joiner.rows.Rows;

/** Reads the rows that may be picked over a relationship. Belongs to one thread. */
final class ParentReading {
  private final Table parent;
  private final Relationship reference;
  private final Picking picking;
  private final Rows rows;
  private final FormulaRows formulas;
  private final RowValues values;
  private final RowLabels labels;
  private final Evaluator evaluator;
  private final Optional<Checked> only;

  ParentReading(Draft draft, Relationship reference, Clock clock) {
    this.parent = draft.design().table(reference.parent());
    this.picking = reference.picking();
    this.reference = reference;
    this.rows = draft.rows().of(parent.id());
    this.formulas = new FormulaRows(draft, clock);
    this.values = formulas.of(parent.id());
    this.labels = new RowLabels(draft.meaning().of(parent), formulas, clock);
    this.evaluator = new Evaluator(clock);
    this.only = draft.meaning().offered(reference);
  }

  ParentRows read() {
    var parents = new ArrayList<ParentRows.Parent>();
    List<FieldId> key = reference.parentFields();
    for (int row : inOrder()) {
      List<String> cells = rows.row(row, key).stream().flatMap(Optional::stream).toList();
      if (cells.size() == key.size()) {
        parents.add(parent(row, cells));
      }
    }
    List<FieldType> types = key.stream().map(field -> parent.field(field).type()).toList();
    return new ParentRows(parent.noun(), reference, types, parents);
  }

  private ParentRows.Parent parent(int row, List<String> cells) {
    boolean retired = isRetired(row);
    return new ParentRows.Parent(
        row, cells, labels.of(row), shown(row), retired, !retired && isMet(row));
  }

  private List<Integer> inOrder() {
    List<Integer> all = IntStream.range(0, rows.count()).boxed().toList();
    List<FieldId> order = order().stream().filter(parent::hasField).toList();
    return order.isEmpty()
        ? all
        : all.stream()
            .sorted(order.stream().map(this::by).reduce(Comparator::thenComparing).orElseThrow())
            .toList();
  }

  private List<FieldId> order() {
    return picking.order().isEmpty() && parent.kind() instanceof TableKind.Lookup(var sortBy, var r)
        ? sortBy.stream().toList()
        : picking.order();
  }

  /** Rows without a value come last. */
  private Comparator<Integer> by(FieldId field) {
    return Comparator.comparing(
        row -> values.value(field, row),
        (left, right) -> {
          boolean without = left instanceof Value.Null;
          return without || right instanceof Value.Null
              ? Boolean.compare(without, right instanceof Value.Null)
              : Evaluator.order(left, right);
        });
  }

  private List<String> shown(int row) {
    return picking.shown().stream()
        .filter(parent::hasField)
        .map(parent::field)
        .flatMap(field -> rows.cell(row, field.id()).map(text -> withUnit(text, field)).stream())
        .toList();
  }

  private static String withUnit(String text, Field field) {
    return field.unit().isEmpty() ? text : text + " " + field.unit();
  }

  private boolean isRetired(int row) {
    return parent.kind() instanceof TableKind.Lookup(var sortBy, var retired)
        && retired.map(field -> values.value(field, row)).filter(Value.TRUE::equals).isPresent();
  }

  /** Whether the condition on those offered is true; one that cannot be read asks nothing. */
  private boolean isMet(int row) {
    if (!(only.orElse(null) instanceof Checked.Sound sound)) {
      return true;
    }
    try {
      return evaluator.evaluate(sound.tree(), formulas.row(parent.id(), row)).equals(Value.TRUE);
    } catch (EvaluationException e) {
      return false;
    }
  }
}
