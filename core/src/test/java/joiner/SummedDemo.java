package joiner;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.edit.SetOrigin;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.meaning.Draft;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.Summing;
import joiner.model.Table;

/** The demo with rows summed up over every relationship in many of the ways their fields allow. */
public final class SummedDemo {
  private SummedDemo() {}

  /** One way in so many is taken. */
  private static final int EVERY = 5;

  /** The demo with the fields, others for each seed. */
  public static Draft draft(long seed) {
    Draft draft = Pottery.demo();
    long number = seed;
    for (Relationship over : draft.design().relationships()) {
      Table child = Pottery.demo().design().table(over.child());
      for (Summing how : Summing.values()) {
        for (Optional<Formula> of : values(how, child)) {
          if (number++ % EVERY == 0) {
            Optional<Formula> where = where(child, of);
            draft = with(draft, over, new Origin.SummedUp(how, over.id(), of).withWhere(where));
          }
        }
      }
    }
    return draft;
  }

  /**
   * A draft with one more field, named s and a number, in the parent, if that can be worked out.
   */
  public static Draft with(Draft draft, Relationship over, Origin by) {
    Table parent = draft.design().table(over.parent());
    String name = "s" + parent.fields().size();
    Field field = Field.of(name, name, new FieldType.LongText());
    Table added = parent.withFieldAdded(field);
    Draft worked =
        SetOrigin.by(added, field, by)
            .apply(draft.withDesign(draft.design().withTable(parent.id(), t -> added)));
    Checked checked =
        worked.meaning().of(worked.design().table(parent.id())).computed(field.id()).orElseThrow();
    return checked instanceof Checked.Sound ? worked : draft;
  }

  private static List<Optional<Formula>> values(Summing how, Table child) {
    var values = new ArrayList<Optional<Formula>>();
    if (!how.needsValue()) {
      values.add(Optional.empty());
    }
    for (Field field : child.fields()) {
      String name = field.name();
      Kind kind = field.type().kind();
      switch (how) {
        case ANY, ALL -> values.add(Optional.of(new Formula(name + " IS NOT NULL")));
        case JOINED -> values.add(Optional.of(new Formula("CAST(" + name + " AS VARCHAR)")));
        default -> values.add(Optional.of(Formula.naming(name)));
      }
      if (kind == Kind.WHOLE && how == Summing.SUM) {
        values.add(Optional.of(new Formula(name + " * 0.25")));
      }
    }
    return values;
  }

  /** A condition for every other value. */
  private static Optional<Formula> where(Table child, Optional<Formula> of) {
    Field last = child.fields().getLast();
    boolean under = of.map(Formula::text).orElse("").length() % 2 == 0;
    return under ? Optional.of(new Formula(last.name() + " IS NULL")) : Optional.empty();
  }
}
