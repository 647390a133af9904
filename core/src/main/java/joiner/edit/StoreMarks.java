package joiner.edit;

import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.SequencedSet;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Expression.Comparison;
import joiner.expression.Reference;
import joiner.meaning.Constraint;
import joiner.meaning.Draft;
import joiner.model.FarField;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.Limits;
import joiner.model.OwnField;
import joiner.model.Relationship;
import joiner.model.Summed;
import joiner.model.Table;
import joiner.model.TableId;
import joiner.rows.Rows;
import joiner.rows.SampleRows;
import joiner.shape.Marks;

/**
 * Keeps the texts of a field without the marks of its pattern, or with them again; people see them
 * with their marks all the same. Rows that hold such texts, of fields that refer to it too, go
 * along.
 *
 * @param label what the field is called
 * @param stored whether the marks are kept in the rows
 */
public record StoreMarks(TableId table, FieldId field, String label, boolean stored)
    implements Edit {
  @Override
  public String name() {
    return "keep " + label + (stored ? " with its marks" : " without its marks");
  }

  @Override
  public Draft apply(Draft draft) {
    Field of = draft.design().table(table).field(field);
    if (of.limits().shown().isEmpty() == stored) {
      return draft;
    }
    String seen =
        of.limits()
            .seen()
            .orElseThrow(
                () -> new EditRefusedException(of.label() + " has no pattern that has marks."));
    Marks marks = marks(of, seen);
    SequencedSet<Referring> holding = holding(draft);
    requireUnread(draft, of, holding);
    UnaryOperator<String> carried = stored ? marks::with : marks::without;
    Limits limits =
        stored
            ? of.limits().withPattern(Optional.of(seen))
            : of.limits().withMarks(marks.bareExpression(), seen);
    SampleRows rows = draft.rows();
    for (Referring each : holding) {
      InFile.requireHeld(draft, each.table());
      rows = rows.with(each.table(), held -> carried(held, each.field(), of, carried));
    }
    return draft.with(
        draft.design().withTable(table, t -> t.withField(field, f -> f.withLimits(limits))), rows);
  }

  private static Marks marks(Field of, String seen) {
    return switch (Marks.of(seen)) {
      case Marks.Found.Parted(Marks marks) -> marks;
      case Marks.Found.None(String why) ->
          throw new EditRefusedException(of.label() + " cannot be kept without its marks. " + why);
    };
  }

  /** The field itself and those that hold its values because they refer to it. */
  private SequencedSet<Referring> holding(Draft draft) {
    var all = new LinkedHashSet<Referring>();
    all.add(new Referring(table, field));
    all.addAll(Referring.to(draft.design(), all.getFirst()));
    return all;
  }

  /** Two texts that were different stay so. */
  private static Rows carried(Rows rows, FieldId field, Field of, UnaryOperator<String> change) {
    Set<String> before = new HashSet<>();
    Set<String> after = new HashSet<>();
    var cells =
        IntStream.range(0, rows.count())
            .mapToObj(row -> rows.cell(row, field))
            .map(
                cell -> {
                  cell.ifPresent(before::add);
                  Optional<String> changed = cell.map(change);
                  changed.ifPresent(after::add);
                  return changed;
                })
            .toList();
    if (after.size() < before.size()) {
      throw new EditRefusedException(
          "Two different values of " + of.label() + " would become the same; mend them first.");
    }
    return rows.withColumn(field, cells);
  }

  /** A formula that reads the field would mean something else. */
  private void requireUnread(Draft draft, Field of, Set<Referring> holding) {
    for (Table each : draft.design().tables()) {
      for (Constraint.Holds rule : draft.meaning().of(each).rules()) {
        if (rule.condition() instanceof Checked.Sound sound
            && looksInto(sound.tree(), draft, each, holding)) {
          throw new EditRefusedException(
              "The rule “"
                  + rule.rule().label()
                  + "” of "
                  + each.label()
                  + " reads "
                  + of.label()
                  + " as it is kept, and would mean something else; change or remove it first.");
        }
      }
    }
    for (Relationship down : draft.design().childrenOf(table)) {
      Table parent = draft.design().table(table);
      boolean reads =
          draft.meaning().offered(down).stream()
              .anyMatch(
                  only ->
                      only instanceof Checked.Sound sound
                          && looksInto(sound.tree(), draft, parent, holding));
      if (reads) {
        throw new EditRefusedException(
            "Which rows are offered over "
                + down.name()
                + " hangs on "
                + of.label()
                + " as it is kept; change that condition first.");
      }
    }
  }

  /**
   * Whether a formula asks for more than that there is a value, or that two of those values are
   * one.
   */
  private static boolean looksInto(
      Expression tree, Draft draft, Table from, Set<Referring> holding) {
    return switch (tree) {
      case Expression.FieldRef(Reference to, var place) -> isOne(to, draft, from, holding);
      case Expression.IsNull(Expression.FieldRef field, var negated, var place) -> false;
      case Expression.Compare(
              var operator,
              Expression.FieldRef(Reference left, var at),
              Expression.FieldRef(Reference right, var with),
              var place)
          when operator == Comparison.EQUAL || operator == Comparison.NOT_EQUAL ->
          isOne(left, draft, from, holding) != isOne(right, draft, from, holding);
      default -> tree.parts().stream().anyMatch(part -> looksInto(part, draft, from, holding));
    };
  }

  private static boolean isOne(Reference to, Draft draft, Table from, Set<Referring> holding) {
    return switch (to) {
      case OwnField own -> holding.contains(new Referring(from.id(), own.field()));
      case FarField far -> {
        Relationship last = draft.design().relationship(far.over().getLast());
        yield holding.contains(new Referring(last.parent(), far.field()));
      }
      case Summed summed -> {
        Table child = draft.design().table(draft.design().relationship(summed.children()).child());
        yield summed.parts().stream().anyMatch(part -> looksInto(part, draft, child, holding));
      }
      default -> false;
    };
  }
}
