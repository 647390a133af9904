package joiner;

import java.util.List;
import joiner.edit.ChangeKey;
import joiner.edit.SetOrigin;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Noun;
import joiner.model.Origin;
import joiner.model.Stamp;
import joiner.model.Table;
import joiner.rows.SampleRows;
import joiner.shape.CheckDigit;
import joiner.shape.CodedNumber;
import joiner.shape.CodedNumber.Part;
import joiner.shape.RandomCode;

/** A logbook of firings in which the values of many fields are typed by nobody. */
public final class KeptValues {
  /** What nobody types, each by a field of its name. */
  public static final CodedNumber CODE =
      new CodedNumber(
          List.of(
              new Part.Fixed("F-"),
              new Part.Year(false),
              new Part.Fixed("-"),
              new Part.Counter(3),
              new Part.Check(CheckDigit.LUHN)),
          CodedNumber.Restart.YEARLY);

  public static final RandomCode TAG = new RandomCode(RandomCode.PLAIN, 9);

  private KeptValues() {}

  /** A table without rows. */
  public static Draft draft(CodedNumber code) {
    Table log =
        Table.of("firing_log", "Firing log", new Noun("entry", "entries"))
            .withFieldAdded(field("entry_id", new FieldType.Counter(Width.BITS_32)))
            .withFieldAdded(field("what", new FieldType.Text(80)));
    Draft draft = new Draft(Design.empty("log", "Log").withTableAdded(log), SampleRows.NONE);
    draft = ChangeKey.of(log, List.of(new FieldId("entry_id"))).apply(draft);
    draft = with(draft, "batch", Origin.ONCE);
    draft = with(draft, "code", new Origin.Generated(new Generator.Coded(code)));
    draft = with(draft, "tag", new Origin.Generated(new Generator.Drawn(TAG)));
    draft = with(draft, "drawn", new Origin.Generated(new Generator.Uuid(false)));
    draft = with(draft, "timed", new Origin.Generated(new Generator.Uuid(true)));
    for (Stamp stamp : Stamp.values()) {
      draft = with(draft, stamp.name().toLowerCase(), new Origin.Stamped(stamp));
    }
    return draft;
  }

  private static Field field(String name, FieldType type) {
    return Field.of(name, name, type);
  }

  /** With a field whose values come from somewhere. */
  public static Draft with(Draft draft, String name, Origin origin) {
    Table before = draft.design().tables().iterator().next();
    Field field = field(name, new FieldType.Text(40));
    Table added = before.withFieldAdded(field);
    return SetOrigin.by(added, field, origin)
        .apply(draft.withDesign(draft.design().withTable(added.id(), t -> added)));
  }
}
