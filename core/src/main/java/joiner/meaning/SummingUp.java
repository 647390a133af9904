package joiner.meaning;

import java.util.List;
import java.util.Optional;
import joiner.expression.Checked;
import joiner.expression.Expression;
import joiner.expression.Formula;
import joiner.expression.Kind;
import joiner.expression.Place;
import joiner.expression.Problem;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.expression.Width;
import joiner.model.Design;
import joiner.model.Field;
import joiner.model.FieldId;
import joiner.model.FieldType;
import joiner.model.Origin;
import joiner.model.Relationship;
import joiner.model.Summed;
import joiner.model.Table;

/**
 * One field that is made of the rows that refer to its row, in terms of fields that are entered and
 * a few folds: a mean is a sum by a count, “any” and “all” are counts.
 */
final class SummingUp {
  private static final int DECIMALS_OF_MEANS = 2;

  /** No number of decimals is said. */
  static final int UNSAID = -1;

  private static final ValueType WHOLE = ValueType.whole(Width.BITS_64);

  private final ComputedFields computing;
  private final Relationship over;
  private final Table child;
  private final List<String> called;
  private final int scale;

  /**
   * What is made of rows.
   *
   * @param called what formulas call it
   * @param scale how many decimals a mean has; {@link #UNSAID}: as its values have it
   */
  SummingUp(
      ComputedFields computing, Design design, Relationship over, List<String> called, int scale) {
    this.computing = computing;
    this.over = over;
    this.child = design.table(over.child());
    this.called = called;
    this.scale = scale;
  }

  /** A field that is made of rows. */
  static SummingUp of(ComputedFields computing, Design design, Relationship over, Field field) {
    boolean number = field.type().kind() == Kind.NUMBER;
    return new SummingUp(
        computing,
        design,
        over,
        List.of(field.name()),
        number ? field.type().valueType().scale() : UNSAID);
  }

  /** What is wrong with a part, as a sentence. */
  private static final class Wrong extends Exception {
    private static final long serialVersionUID = 1;

    Wrong(String message) {
      super(message, null, false, false);
    }
  }

  /** A value of each row that was read. */
  private record Read(Expression tree, ValueType type, FieldType holds) {}

  /** What the field is worked out by, or what is wrong with it. */
  Checked checked(Origin.SummedUp by) {
    try {
      return sound(by);
    } catch (Wrong wrong) {
      return new Checked.Faulty(List.of(new Problem(Place.NOWHERE.span(), wrong.getMessage())));
    }
  }

  private Checked.Sound sound(Origin.SummedUp by) throws Wrong {
    Optional<Expression> where = by.where().isPresent() ? condition(by.where()) : Optional.empty();
    return switch (by.how()) {
      case COUNT -> {
        Optional<Expression> filled =
            by.of().isPresent() ? Optional.of(isFilled(value(by.of()).tree)) : Optional.empty();
        yield new Checked.Sound(count(both(where, filled)), WHOLE);
      }
      case ANY -> truth(count(both(where, condition(by.of()))), Expression.Comparison.GREATER);
      case ALL -> {
        Expression not =
            new Expression.IsTruth(
                condition(by.of()).orElseThrow(), Optional.of(true), true, Place.NOWHERE);
        yield truth(count(both(where, Optional.of(not))), Expression.Comparison.EQUAL);
      }
      case SUM -> {
        Read of = number(by.of());
        yield sound(fold(Summed.Fold.SUM, of.tree, where, sum(of)), sum(of));
      }
      case AVERAGE -> mean(number(by.of()), where);
      case LEAST -> extreme(Summed.Fold.LEAST, ordered(by.of()), where);
      case GREATEST -> extreme(Summed.Fold.GREATEST, ordered(by.of()), where);
      case JOINED -> joined(by, where);
    };
  }

  private static Checked.Sound sound(Expression tree, FieldType holds) {
    return new Checked.Sound(tree, holds.valueType());
  }

  private static Checked.Sound truth(Expression count, Expression.Comparison operator) {
    var zero = new Expression.Literal(Value.whole(0), Kind.WHOLE, Place.NOWHERE);
    return new Checked.Sound(
        new Expression.Compare(operator, count, zero, Place.NOWHERE), ValueType.of(Kind.BOOLEAN));
  }

  private Checked.Sound extreme(Summed.Fold fold, Read of, Optional<Expression> where) {
    Expression ordered =
        of.type.kind() == Kind.TEXT ? new Expression.CodePoints(of.tree, Place.NOWHERE) : of.tree;
    return sound(fold(fold, ordered, where, of.holds), of.holds);
  }

  private Checked.Sound joined(Origin.SummedUp by, Optional<Expression> where) throws Wrong {
    Read of = value(by.of());
    if (of.type.kind() != Kind.TEXT) {
      throw new Wrong(
          "Only texts are joined, and this is "
              + of.type.kind().words()
              + "; write CAST(… AS VARCHAR).");
    }
    Optional<Expression> order =
        by.by().isPresent() ? Optional.of(ordered(by.by()).tree) : Optional.empty();
    var texts = new FieldType.LongText();
    return sound(
        new Expression.FieldRef(
            summed(Summed.Fold.JOINED, Optional.of(of.tree), where, order, by.between(), texts),
            Place.NOWHERE),
        texts);
  }

  private Checked.Sound mean(Read of, Optional<Expression> where) {
    FieldType sums = sum(of);
    Expression sum = fold(Summed.Fold.SUM, of.tree, where, sums);
    Expression count = count(both(where, Optional.of(isFilled(of.tree))));
    int decimals = scale == UNSAID ? Math.max(DECIMALS_OF_MEANS, of.type.scale()) : scale;
    Expression rounded = Means.of(sum, count, decimals);
    return new Checked.Sound(rounded, ValueType.number(decimals));
  }

  private Expression count(Optional<Expression> where) {
    return new Expression.FieldRef(
        summed(
            Summed.Fold.COUNT,
            Optional.empty(),
            where,
            Optional.empty(),
            "",
            new FieldType.WholeNumber(Width.BITS_64)),
        Place.NOWHERE);
  }

  private Expression fold(
      Summed.Fold fold, Expression of, Optional<Expression> where, FieldType holds) {
    return new Expression.FieldRef(
        summed(fold, Optional.of(of), where, Optional.empty(), "", holds), Place.NOWHERE);
  }

  private Summed summed(
      Summed.Fold fold,
      Optional<Expression> of,
      Optional<Expression> where,
      Optional<Expression> by,
      String between,
      FieldType holds) {
    List<FieldId> key = over.parentFields();
    return new Summed(List.of(), key, over.id(), fold, of, where, by, between, called, holds);
  }

  private static Optional<Expression> both(Optional<Expression> one, Optional<Expression> other) {
    return one.isPresent() && other.isPresent()
        ? Optional.of(new Expression.And(List.of(one.get(), other.get()), Place.NOWHERE))
        : one.or(() -> other);
  }

  private static Expression isFilled(Expression of) {
    return new Expression.IsNull(of, true, Place.NOWHERE);
  }

  private static FieldType sum(Read of) {
    return ResultType.sum(of.holds, of.type);
  }

  private Read number(Optional<Formula> of) throws Wrong {
    Read read = value(of);
    if (!read.type.kind().isNumeric()) {
      throw new Wrong("Only numbers are added up, and this is " + read.type.kind().words() + ".");
    }
    return read;
  }

  private Read ordered(Optional<Formula> of) throws Wrong {
    Read read = value(of);
    if (!read.type.kind().isOrdered() && read.type.kind() != Kind.TEXT) {
      throw new Wrong("There is no least or greatest of " + read.type.kind().words() + ".");
    }
    return read;
  }

  private Read value(Optional<Formula> of) throws Wrong {
    Formula formula = of.orElseThrow(() -> new Wrong(missing()));
    Checked.Sound sound = sound(computing.value(formula, child));
    return switch (ResultType.of(sound, read -> computing.type(read, child))) {
      case ResultType.Found.None(String why) -> throw new Wrong(why);
      case ResultType.Found.Type(FieldType holds) -> new Read(sound.tree(), sound.type(), holds);
    };
  }

  private Optional<Expression> condition(Optional<Formula> of) throws Wrong {
    Formula formula = of.orElseThrow(() -> new Wrong(missing()));
    return Optional.of(sound(computing.condition(formula, child)).tree());
  }

  private String missing() {
    return "Say what of each " + child.noun().singular() + " is meant.";
  }

  private Checked.Sound sound(Checked checked) throws Wrong {
    return switch (checked) {
      case Checked.Sound sound -> sound;
      case Checked.Faulty(List<Problem> problems) -> throw new Wrong(problems.getFirst().message());
    };
  }
}
