package joiner.joining;

import java.util.List;
import joiner.expression.Expression;
import joiner.expression.Place;
import joiner.expression.Reference;
import joiner.expression.Value;
import joiner.expression.ValueType;
import joiner.expression.Width;

/** What a mean is made of. */
record SumAndCount(Value sum, Value count) {
  /** One of the two. */
  private record Part(String name, ValueType type) implements Reference {
    @Override
    public List<String> path() {
      return List.of(name);
    }
  }

  private static final Part OF_SUM = new Part("sum", ValueType.number(ValueType.UNKNOWN));
  private static final Part OF_COUNT = new Part("count", ValueType.whole(Width.BITS_64));

  static final Expression SUM = new Expression.FieldRef(OF_SUM, Place.NOWHERE);
  static final Expression COUNT = new Expression.FieldRef(OF_COUNT, Place.NOWHERE);

  Value value(Reference part) {
    return part.equals(OF_SUM) ? sum : count;
  }
}
