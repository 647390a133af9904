package joiner.expression;

/**
 * What is known of the values of an expression before it is computed.
 *
 * @param kind what sort of value
 * @param width of whole numbers; of other kinds 32 bits, which say nothing
 * @param scale how many decimals a number has, {@link #UNKNOWN} where engines differ; of other
 *     kinds 0
 */
public record ValueType(Kind kind, Width width, int scale) {
  /** Marks a number whose decimals depend on the engine. */
  public static final int UNKNOWN = -1;

  public ValueType {
    width = kind == Kind.WHOLE ? width : Width.BITS_32;
    scale = kind == Kind.NUMBER ? scale : 0;
  }

  /** A kind of which nothing more is to be known. */
  public static ValueType of(Kind kind) {
    return new ValueType(kind, Width.BITS_32, UNKNOWN);
  }

  /** Whole numbers of that width. */
  public static ValueType whole(Width width) {
    return new ValueType(Kind.WHOLE, width, 0);
  }

  /** Numbers with so many decimals. */
  public static ValueType number(int scale) {
    return new ValueType(Kind.NUMBER, Width.BITS_32, scale);
  }

  /** What holds the values of both, where they can be held together. */
  ValueType joinedWith(ValueType other) {
    return new ValueType(
        kind.joinedWith(other.kind),
        width.orWider(other.width),
        scale == other.scale ? scale : UNKNOWN);
  }

  /**
   * The numbers that arithmetic gives (ISO/IEC 9075-2, numeric value expression; the scale of a
   * quotient is left to the engine).
   */
  static ValueType computed(Expression.Arithmetic operator, ValueType left, ValueType right) {
    if (left.scale == UNKNOWN || right.scale == UNKNOWN) {
      return number(UNKNOWN);
    }
    return number(
        switch (operator) {
          case PLUS, MINUS -> Math.max(left.scale, right.scale);
          case TIMES -> left.scale + right.scale;
          case DIVIDE -> UNKNOWN;
        });
  }
}
