package joiner.model;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import joiner.expression.Expression;
import joiner.expression.Reference;
import joiner.expression.ValueType;

/**
 * What is made of all rows that refer to a row, each by itself read by formulas of its own table.
 *
 * @param over the relationships from the row a formula is about to the one that is referred to;
 *     none where that is the row itself
 * @param from the fields of the row a formula is about in which the way begins
 * @param children the relationship by which the rows refer to it
 * @param fold what is made of them
 * @param of the value of each row; only {@link Fold#COUNT} has none
 * @param where which of the rows count: those where it is true
 * @param by the order of joined texts, before the texts themselves
 * @param between what stands between joined texts
 * @param path what formulas call it
 * @param holds the type and size that hold what comes of it
 */
public record Summed(
    List<RelationshipId> over,
    List<FieldId> from,
    RelationshipId children,
    Fold fold,
    Optional<Expression> of,
    Optional<Expression> where,
    Optional<Expression> by,
    String between,
    List<String> path,
    FieldType holds)
    implements Reference {
  /** What is made of the values of rows; those without a value are passed over. */
  public enum Fold {
    COUNT,
    SUM,
    LEAST,
    GREATEST,
    JOINED
  }

  public Summed {
    over = List.copyOf(over);
    from = List.copyOf(from);
    path = List.copyOf(path);
  }

  @Override
  public ValueType type() {
    return holds.valueType();
  }

  /** The same of a row that a way leads to. */
  public Summed from(FarField way, List<String> called) {
    var further = new ArrayList<>(way.over());
    further.addAll(over);
    return new Summed(further, way.from(), children, fold, of, where, by, between, called, holds);
  }

  /** What is read of each row. */
  public List<Expression> parts() {
    return Stream.of(of, where, by).flatMap(Optional::stream).toList();
  }
}
