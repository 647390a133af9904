package joiner;

import java.util.List;
import joiner.edit.ChangeKey;
import joiner.edit.SetOrigin;
import joiner.expression.Formula;
import joiner.expression.Width;
import joiner.meaning.Draft;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Generator;
import joiner.model.Noun;
import joiner.model.Origin;
import joiner.model.Relationship;
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

  /** Batches of clay that keep what the clay cost, and who sold it, when they were mixed. */
  public static Draft batches() {
    Table supplier = keyed("supplier", field("name", new FieldType.Text(40)));
    Table clay =
        keyed("clay", field("price", new FieldType.Decimal(8, 2)), field("from_id", WHOLE));
    Table batch = keyed("batch", field("clay_id", WHOLE), field("grams", WHOLE));
    Design design =
        Design.empty("batches", "Batches")
            .withTableAdded(supplier)
            .withTableAdded(clay)
            .withTableAdded(batch)
            .withRelationshipAdded(up(clay, "from_id", supplier))
            .withRelationshipAdded(up(batch, "clay_id", clay));
    Draft draft = new Draft(design, SampleRows.NONE);
    for (String path : List.of("clay_id.price", "clay_id.from_id.name")) {
      String name = path.replace("clay_id.", "").replace('.', '_') + "_then";
      Table now = draft.design().table(batch.id());
      Table added = now.withFieldAdded(field(name, WHOLE));
      draft =
          SetOrigin.by(added, added.field(new FieldId(name)), new Origin.Copied(new Formula(path)))
              .apply(draft.withDesign(draft.design().withTable(batch.id(), t -> added)));
    }
    return draft;
  }

  private static final FieldType WHOLE = new FieldType.WholeNumber(Width.BITS_32);

  private static Table keyed(String name, Field... fields) {
    Table table =
        Table.of(name, name, new Noun(name, name + "s"))
            .withFieldAdded(field(name + "_id", WHOLE).withRequired(true))
            .withPrimaryKey(List.of(new FieldId(name + "_id")));
    for (Field field : fields) {
      table = table.withFieldAdded(field);
    }
    return table;
  }

  private static Relationship up(Table child, String field, Table parent) {
    return Relationship.of(
        "fk_" + child.name() + "_" + field,
        child.id(),
        List.of(new FieldId(field)),
        parent.id(),
        parent.primaryKey());
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
