package joiner.model;

import java.util.Optional;
import joiner.expression.Formula;

/** Where the values of a field come from. A closed set. */
public sealed interface Origin {
  /** Most are entered by people. */
  Origin TYPED = new Typed(false);

  /** They are entered by people once, and stay as they are. */
  Origin ONCE = new Typed(true);

  /**
   * People enter them.
   *
   * @param once whether what was entered stays
   */
  record Typed(boolean once) implements Origin {}

  /** They are made for each new row, and stay; whoever brings a value of their own may. */
  record Generated(Generator by) implements Origin {}

  /** They are noted of themselves when rows are made and changed. */
  record Stamped(Stamp stamp) implements Origin {}

  /**
   * They are worked out, from other fields of the row and of rows it leads to; nobody enters them.
   *
   * @param formula an SQL value expression
   */
  record Computed(Formula formula) implements Origin {}

  /**
   * They are what a row that the row leads to says when the row is made; people may change them.
   *
   * @param formula the path to a field of another row, as formulas have it
   */
  record Copied(Formula formula) implements Origin {}

  /**
   * They are made of the rows that refer to the row; nobody enters them.
   *
   * @param how what is made of them
   * @param over the relationship in which the field's table is the parent; where it is gone, the
   *     field cannot be worked out
   * @param of the value of each row, as formulas of the child say it
   * @param where which of the rows count; all where it says nothing
   * @param by the order of joined texts
   * @param between what stands between joined texts
   */
  record SummedUp(
      Summing how,
      RelationshipId over,
      Optional<Formula> of,
      Optional<Formula> where,
      Optional<Formula> by,
      String between)
      implements Origin {
    /** What stands between joined texts unless somebody says otherwise. */
    public static final String COMMA = ", ";

    /** Sums rows up without a condition. */
    public SummedUp(Summing how, RelationshipId over, Optional<Formula> of) {
      this(how, over, of, Optional.empty(), Optional.empty(), COMMA);
    }

    public SummedUp withHow(Summing other) {
      return new SummedUp(other, over, of, where, by, between);
    }

    public SummedUp withOver(RelationshipId other) {
      return new SummedUp(how, other, of, where, by, between);
    }

    public SummedUp withOf(Optional<Formula> other) {
      return new SummedUp(how, over, other, where, by, between);
    }

    public SummedUp withWhere(Optional<Formula> other) {
      return new SummedUp(how, over, of, other, by, between);
    }

    public SummedUp withBy(Optional<Formula> other) {
      return new SummedUp(how, over, of, where, other, between);
    }

    public SummedUp withBetween(String other) {
      return new SummedUp(how, over, of, where, by, other);
    }
  }

  /** Whether no row holds them, because they follow from other values. */
  default boolean isWorkedOut() {
    return switch (this) {
      case Typed typed -> false;
      case Generated generated -> false;
      case Stamped stamped -> false;
      case Copied copied -> false;
      case Computed computed -> true;
      case SummedUp summed -> true;
    };
  }

  /** Whether a value, once it is there, stays as it is. */
  default boolean stays() {
    return switch (this) {
      case Typed(boolean once) -> once;
      case Generated generated -> true;
      case Stamped(Stamp stamp) -> !stamp.follows();
      case Copied copied -> false;
      case Computed computed -> false;
      case SummedUp summed -> false;
    };
  }

  /** What they are worked out by, if a formula of the row says it. */
  default Optional<Formula> workedOutBy() {
    return this instanceof Computed(Formula formula) ? Optional.of(formula) : Optional.empty();
  }

  /** Whether they hang on rows of other tables, whatever these are. */
  default boolean reachesOut() {
    return switch (this) {
      case Typed typed -> false;
      case Generated generated -> false;
      case Stamped stamped -> false;
      case Copied(Formula formula) -> formula.reachesOut();
      case Computed(Formula formula) -> formula.reachesOut();
      case SummedUp summed -> true;
    };
  }
}
