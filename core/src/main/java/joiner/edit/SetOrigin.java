package joiner.edit;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.SqlText;
import joiner.meaning.Draft;
import joiner.meaning.ResultType;
import joiner.meaning.TableMeaning;
import joiner.meaning.WorkedOut;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Origin;
import joiner.model.Stamp;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.shape.CodedNumber;
import joiner.shape.RandomCode;

/**
 * Says where the values of a field come from. What people had entered goes where values are worked
 * out, for it would be seen no more; what was worked out stays in the rows when people are to go on
 * from it. What a field's values are generated as is its type, its pattern and that no two are the
 * same; a stamp is its default as well.
 *
 * @param label what the field is called
 * @param by where its values come from
 */
public record SetOrigin(TableId table, FieldId field, String label, Origin by) implements Edit {
  private static final int LENGTH_OF_PEOPLE = 60;

  /** Has a field worked out. */
  public static SetOrigin by(Table table, Field field, Formula formula) {
    return by(table, field, new Origin.Computed(formula));
  }

  /** Has the values of a field come from anywhere. */
  public static SetOrigin by(Table table, Field field, Origin by) {
    return new SetOrigin(table.id(), field.id(), field.label(), by);
  }

  /** Has a field entered. */
  public static SetOrigin entered(Table table, Field field) {
    return by(table, field, Origin.TYPED);
  }

  @Override
  public String name() {
    return switch (by) {
      case Origin.Typed(boolean once) ->
          once ? "let " + label + " be entered once" : "let " + label + " be entered";
      case Origin.Generated generated -> "generate " + label;
      case Origin.Stamped stamped -> "stamp " + label;
      case Origin.Copied copied -> "fill in " + label;
      case Origin.Computed computed -> "work out " + label;
      case Origin.SummedUp summed -> "work out " + label;
    };
  }

  @Override
  public Draft apply(Draft draft) {
    Table before = draft.design().table(table);
    return by.isWorkedOut()
        ? worked(draft, before)
        : withUnique(with(held(draft, before), f -> typed(draft, kept(f)).withOrigin(by)));
  }

  private interface Change {
    Field of(Field field);
  }

  private Draft with(Draft draft, Change change) {
    return draft.withDesign(draft.design().withTable(table, t -> t.withField(field, change::of)));
  }

  private Draft worked(Draft draft, Table before) {
    Draft computed = with(draft, f -> without(f).withOrigin(by).withDefault(Optional.empty()));
    SampleRows rows =
        before.field(field).isComputed() ? draft.rows() : draft.rows().withoutField(table, field);
    FieldType type = fitted(computed.meaning().of(table), before.field(field).type());
    return with(computed, f -> f.withType(type)).withRows(rows);
  }

  /** The type it has, or one in which all that comes has room. */
  private FieldType fitted(TableMeaning meaning, FieldType now) {
    return meaning.computed(field).orElseThrow() instanceof Checked.Sound sound
            && meaning.resultOf(sound) instanceof ResultType.Found.Type(FieldType result)
        ? ResultType.fitted(now, result)
        : now;
  }

  /** What was worked out so far becomes what the rows hold. */
  private Draft held(Draft draft, Table before) {
    if (!before.field(field).isComputed()) {
      return draft;
    }
    InFile.requireHeld(draft, table);
    WorkedOut worked = WorkedOut.of(draft, before, Clock.systemDefaultZone());
    Rows rows = draft.rows().of(table);
    Draft entered = with(draft, f -> f.withOrigin(Origin.TYPED));
    return rows.count() == 0
        ? entered
        : entered.withRows(draft.rows().with(table, r -> worked.in(r, field)));
  }

  /** The field without what its origin so far had brought along. */
  private static Field without(Field field) {
    return switch (field.origin()) {
      case Origin.Generated(Generator.Coded(CodedNumber number)) ->
          withoutPattern(field, number.pattern());
      case Origin.Generated(Generator.Drawn(RandomCode code)) ->
          withoutPattern(field, code.pattern());
      case Origin.Stamped stamped -> field.withDefault(Optional.empty());
      default -> field;
    };
  }

  private static Field withoutPattern(Field field, String pattern) {
    return field.limits().pattern().equals(Optional.of(pattern))
        ? field.withLimits(field.limits().withPattern(Optional.empty()))
        : field;
  }

  /** The field with all that goes with its new origin. */
  private Field kept(Field now) {
    Field bare = now.origin().equals(by) ? now : without(now);
    return switch (by) {
      case Origin.Generated(Generator.Uuid uuid) ->
          bare.withType(new FieldType.Uuid()).withDefault(Optional.empty());
      case Origin.Generated(Generator.Coded(CodedNumber number)) ->
          formed(bare, number.length(), number.pattern());
      case Origin.Generated(Generator.Drawn(RandomCode code)) ->
          formed(bare, code.length(), code.pattern());
      case Origin.Stamped(Stamp stamp) -> stamped(bare, stamp);
      default -> bare;
    };
  }

  /** A field that is filled in has the type of what it is filled with. */
  private Field typed(Draft draft, Field field) {
    if (!(by instanceof Origin.Copied(Formula formula))) {
      return field;
    }
    return draft
        .meaning()
        .of(table)
        .far(formula)
        .map(far -> far.end(draft.design()).type().asReferenced())
        .map(type -> field.withType(type).withDefault(Optional.empty()))
        .orElse(field);
  }

  private static Field formed(Field field, int length, String pattern) {
    return field
        .withType(new FieldType.Text(length))
        .withDefault(Optional.empty())
        .withLimits(field.limits().withPattern(Optional.of(pattern)));
  }

  /** A field with the type and the default of a stamp. */
  static Field stamped(Field field, Stamp stamp) {
    FieldType type =
        switch (field.type().kind()) {
          case DATE, DATE_TIME, ZONED -> stamp.isMoment() ? field.type() : people();
          case TEXT -> stamp.isMoment() ? new FieldType.DateTime(true) : textOf(field.type());
          default -> stamp.isMoment() ? new FieldType.DateTime(true) : people();
        };
    Kind kind = stamp.isMoment() ? type.kind() : Kind.TEXT;
    String now = SqlText.iso().write(new Expression.Now(kind, Place.NOWHERE));
    return field.withType(type).withDefault(Optional.of(new Formula(now)));
  }

  private static FieldType people() {
    return new FieldType.Text(LENGTH_OF_PEOPLE);
  }

  private static FieldType textOf(FieldType type) {
    return type instanceof FieldType.Text ? type : people();
  }

  /** What is generated is not generated twice. */
  private Draft withUnique(Draft draft) {
    Table now = draft.design().table(table);
    boolean told = now.isKey(List.of(field));
    return by instanceof Origin.Generated && !told
        ? SetUnique.of(now, List.of(field), true).apply(draft)
        : draft;
  }
}
