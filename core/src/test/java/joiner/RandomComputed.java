package joiner;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import joiner.edit.SetOrigin;
import joiner.expression.Checked;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.meaning.Draft;
import joiner.meaning.ResultType;
import joiner.meaning.TableMeaning;
import joiner.model.Field;
import joiner.model.FieldType;
import joiner.model.Table;
import joiner.model.TableId;

/** The rows of {@link RandomRules} with fields worked out from others, some of them in turn. */
public final class RandomComputed {
  private static final TableId TABLE = RandomRules.table().id();

  private RandomComputed() {}

  /** A draft with rows, and fields named c0, c1 and so on, each with the type that goes with it. */
  public static Draft draft(long seed, int rows, int most) {
    var rules = new RandomRules(seed);
    Draft draft = rules.draft(rows);
    var before = new ArrayList<Field>();
    for (int i = 0; i < most; i++) {
      String formula = over(rules.value(), before, seed + i);
      draft = with(draft, "c" + i, formula).orElse(draft);
      draft.design().table(TABLE).fieldNamed("c" + i).ifPresent(before::add);
    }
    return draft;
  }

  /** A formula that reads what was worked out before, by chance. */
  private static String over(String formula, List<Field> before, long chance) {
    if (before.isEmpty() || chance % 2 == 0) {
      return formula;
    }
    Field last = before.getLast();
    return switch (last.type().kind()) {
      case TEXT -> "COALESCE(" + last.name() + ", '-') || " + last.name();
      case WHOLE -> "CASE WHEN " + last.name() + " > 3 THEN 'many' ELSE 'few' END";
      case NUMBER -> "ROUND(" + last.name() + " * 0.5, 1)";
      default -> "CASE WHEN " + last.name() + " THEN kiln ELSE 'no' END";
    };
  }

  private static Optional<Draft> with(Draft draft, String name, String formula) {
    Table table = draft.design().table(TABLE);
    Field field = Field.of(name, name, new FieldType.LongText());
    Draft added = draft.withDesign(draft.design().withTable(TABLE, t -> t.withFieldAdded(field)));
    Draft worked =
        SetOrigin.by(table.withFieldAdded(field), field, new Formula(formula)).apply(added);
    TableMeaning meaning = worked.meaning().of(TABLE);
    return meaning.computed(field.id()).orElseThrow() instanceof Checked.Sound sound
            && sound.kind() != Kind.NULL
            && meaning.resultOf(sound) instanceof ResultType.Found.Type
        ? Optional.of(worked)
        : Optional.empty();
  }
}
