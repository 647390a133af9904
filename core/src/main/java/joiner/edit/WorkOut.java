package joiner.edit;

import java.time.Clock;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.meaning.Draft;
import joiner.meaning.ResultType;
import joiner.meaning.TableMeaning;
import joiner.meaning.WorkedOut;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;

/**
 * Has a field worked out, or entered by people again. What people had entered goes, for it would be
 * seen no more; what was worked out stays in the rows when people are to go on from it.
 *
 * @param label what the field is called
 * @param by where its values come from
 */
public record WorkOut(TableId table, FieldId field, String label, Origin by) implements Edit {
  /** Has a field worked out. */
  public static WorkOut by(Table table, Field field, Formula formula) {
    return by(table, field, new Origin.Computed(formula));
  }

  /** Has a field worked out, in whatever way. */
  public static WorkOut by(Table table, Field field, Origin by) {
    return new WorkOut(table.id(), field.id(), field.label(), by);
  }

  /** Has a field entered. */
  public static WorkOut entered(Table table, Field field) {
    return by(table, field, Origin.TYPED);
  }

  @Override
  public String name() {
    return by.isWorkedOut() ? "work out " + label : "let " + label + " be entered";
  }

  @Override
  public Draft apply(Draft draft) {
    Table before = draft.design().table(table);
    return by.isWorkedOut() ? worked(draft, before) : entered(draft, before);
  }

  private Draft worked(Draft draft, Table before) {
    Draft computed =
        draft.withDesign(
            draft
                .design()
                .withTable(
                    table,
                    t -> t.withField(field, f -> f.withOrigin(by).withDefault(Optional.empty()))));
    SampleRows rows =
        before.field(field).isComputed() ? draft.rows() : draft.rows().withoutField(table, field);
    FieldType type = fitted(computed.meaning().of(table), before.field(field).type());
    return computed.with(
        computed.design().withTable(table, t -> t.withField(field, f -> f.withType(type))), rows);
  }

  /** The type it has, or one in which all that comes has room. */
  private FieldType fitted(TableMeaning meaning, FieldType now) {
    return meaning.computed(field).orElseThrow() instanceof Checked.Sound sound
            && meaning.resultOf(sound) instanceof ResultType.Found.Type(FieldType result)
        ? ResultType.fitted(now, result)
        : now;
  }

  private Draft entered(Draft draft, Table before) {
    if (!before.field(field).isComputed()) {
      return draft;
    }
    InFile.requireHeld(draft, table);
    WorkedOut worked = WorkedOut.of(draft, before, Clock.systemDefaultZone());
    Rows rows = draft.rows().of(table);
    return draft.with(
        draft.design().withTable(table, t -> t.withField(field, f -> f.withOrigin(Origin.TYPED))),
        rows.count() == 0 ? draft.rows() : draft.rows().with(table, r -> worked.in(r, field)));
  }
}
