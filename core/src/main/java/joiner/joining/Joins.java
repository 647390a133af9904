package joiner.joining;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.IntPredicate;
import joiner.expression.Evaluator;
import joiner.expression.Expression;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.meaning.AskedField;
import joiner.meaning.FormulaRows;
import joiner.meaning.Links;
import joiner.model.Summed;
import org.jspecify.annotations.Nullable;

/**
 * The rows of a question's roles as they are joined, one combination after the other; linear in the
 * combinations that are looked at. Belongs to one thread.
 */
final class Joins {
  private final Bound bound;
  private final Links links;
  private final FormulaRows rows;
  private final Evaluator evaluator;
  private final int[] at;
  private final Map<Integer, List<Integer>> members = new HashMap<>();
  private final Map<Integer, List<Integer>> within = new HashMap<>();

  /** Conditions of a group by the member after which they can be told. */
  private final Map<Integer, List<Expression>> after = new HashMap<>();

  /** Conditions of a group that read groups within it. */
  private final Map<Integer, List<Expression>> last = new HashMap<>();

  Joins(Bound bound, Links links, FormulaRows rows, Evaluator evaluator) {
    this.bound = bound;
    this.links = links;
    this.rows = rows;
    this.evaluator = evaluator;
    this.at = new int[bound.roles().size()];
    for (int i = 0; i < at.length; i++) {
      int group = bound.groupOf(i);
      members.computeIfAbsent(group, bound::members);
      within.computeIfAbsent(group, bound::within);
    }
    for (Bound.Where where : bound.where()) {
      boolean own = where.roles().stream().allMatch(role -> bound.groupOf(role) == where.group());
      Map<Integer, List<Expression>> to = own ? after : last;
      int when = own ? where.roles().stream().max(Integer::compare).orElseThrow() : where.group();
      to.computeIfAbsent(when, w -> new ArrayList<>()).add(where.condition());
    }
  }

  /**
   * Goes through all combinations.
   *
   * @param each is told that another is there, to be read by {@link #row} and {@link #value}; says
   *     whether it wants more
   * @return whether it wanted all
   */
  boolean each(IntPredicate each) {
    int[] count = {0};
    return group(0, () -> each.test(count[0]++));
  }

  /** What goes on after something was joined; whether more is wanted. */
  private interface Next {
    boolean go();
  }

  private boolean group(int group, Next next) {
    return member(group, members.get(group), 0, next);
  }

  private boolean member(int group, List<Integer> all, int place, Next next) {
    if (place == all.size()) {
      return inner(group, within.get(group), 0, next);
    }
    int role = all.get(place);
    for (int row : candidates(role)) {
      at[role] = row;
      boolean holds = holds(after.get(role));
      if (holds && !member(group, all, place + 1, next)) {
        return false;
      }
    }
    return true;
  }

  private boolean inner(int group, List<Integer> all, int place, Next next) {
    if (place == all.size()) {
      return !holds(last.get(group)) || next.go();
    }
    int head = all.get(place);
    boolean[] found = {false};
    boolean more =
        group(
            head,
            () -> {
              found[0] = true;
              return inner(group, all, place + 1, next);
            });
    if (more && !found[0]) {
      clear(head);
      return inner(group, all, place + 1, next);
    }
    return more;
  }

  private void clear(int group) {
    members.get(group).forEach(role -> at[role] = Links.NONE);
    within.get(group).forEach(this::clear);
  }

  private int[] candidates(int role) {
    Bound.Joined joined = bound.roles().get(role);
    if (joined.from() == Bound.NONE) {
      int[] all = new int[links.values(joined.table().id()).count()];
      Arrays.setAll(all, i -> i);
      return all;
    }
    var over = joined.over().orElseThrow();
    int from = at[joined.from()];
    if (joined.down()) {
      return links.children(over)[from];
    }
    int parent = links.parents(over)[from];
    return parent == Links.NONE ? new int[0] : new int[] {parent};
  }

  private boolean holds(@Nullable List<Expression> conditions) {
    return conditions == null || conditions.stream().allMatch(c -> value(c).equals(Value.TRUE));
  }

  /** The row of a role in the present combination; {@link Links#NONE} where it has none. */
  int row(int role) {
    return at[role];
  }

  /** What a formula is in the present combination. */
  Value value(Expression tree) {
    return evaluator.evaluate(tree, this::read);
  }

  private Value read(Reference reference) {
    var asked = (AskedField) reference;
    int row = at[asked.role()];
    if (row == Links.NONE) {
      return absent(asked.of());
    }
    Function<Reference, Value> of = rows.row(bound.roles().get(asked.role()).table().id(), row);
    return of.apply(asked.of());
  }

  /** What is read of a row that is not there: nothing, and a count of nothing is 0. */
  private static Value absent(Reference of) {
    return of instanceof Summed summed && summed.fold() == Summed.Fold.COUNT
        ? Value.whole(0)
        : Value.NULL;
  }
}
