package joiner.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import joiner.desktop.widget.Texts;
import joiner.desktop.work.Notice;
import joiner.desktop.work.Workbench;
import joiner.edit.ChangeRelationship;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Picking;
import joiner.model.Relationship;
import joiner.model.Table;

/** How the rows that a field refers to are picked, without a window. */
final class PickingModel {
  private final Workbench bench;
  private final Texts texts;

  PickingModel(Workbench bench, Texts texts) {
    this.bench = bench;
    this.texts = texts;
  }

  Table parent(Relationship r) {
    return bench.design().table(r.parent());
  }

  /** Shows a field beside what rows are recognised by, or no longer. */
  void show(Relationship r, FieldId field) {
    apply(r, picking -> picking.withShown(toggled(picking.shown(), field)));
  }

  /** Sorts what is offered by a field after those it is sorted by, or no longer. */
  void order(Relationship r, FieldId field) {
    apply(r, picking -> picking.withOrder(toggled(picking.order(), field)));
  }

  private static List<FieldId> toggled(List<FieldId> fields, FieldId field) {
    var toggled = new ArrayList<>(fields);
    if (!toggled.remove(field)) {
      toggled.add(field);
    }
    return toggled;
  }

  /** Offers only rows that meet a condition; all where it is blank. */
  void only(Relationship r, String condition) {
    apply(r, picking -> picking.withOnly(Formula.unlessBlank(condition)));
  }

  /** Why the condition cannot be used, if so. */
  Optional<String> fault(Relationship r) {
    return bench.draft().meaning().offered(r).orElse(null) instanceof Checked.Faulty faulty
        ? Optional.of(faulty.problems().getFirst().message())
        : Optional.empty();
  }

  /** Shows so many rows before more is typed; as many as there is room for where it is blank. */
  void atOnce(Relationship r, String typed) {
    String text = typed.strip();
    if (text.matches("[1-9]\\d{0,3}")) {
      apply(r, picking -> picking.withAtOnce(OptionalInt.of(Integer.parseInt(text))));
    } else if (text.isEmpty()) {
      apply(r, picking -> picking.withAtOnce(OptionalInt.empty()));
    } else {
      bench.tell(Notice.Sort.REFUSED, texts.get("picking.atOnce.bad", text));
    }
  }

  void mayAdd(Relationship r, boolean may) {
    apply(r, picking -> picking.withMayAdd(may));
  }

  /** Labels of fields the parent has, in that order. */
  List<String> labels(Relationship r, List<FieldId> fields) {
    Table parent = parent(r);
    return fields.stream().filter(parent::hasField).map(parent::field).map(Field::label).toList();
  }

  private void apply(Relationship r, UnaryOperator<Picking> change) {
    Picking now = change.apply(r.picking());
    if (!now.equals(r.picking())) {
      bench.apply(ChangeRelationship.picking(r, now));
    }
  }
}
