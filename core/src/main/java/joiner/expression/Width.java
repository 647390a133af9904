package joiner.expression;

/** Width of a whole number in bits. */
public enum Width {
  BITS_16(16, Short.MIN_VALUE, Short.MAX_VALUE),
  BITS_32(32, Integer.MIN_VALUE, Integer.MAX_VALUE),
  BITS_64(64, Long.MIN_VALUE, Long.MAX_VALUE);

  private final int bits;
  private final long min;
  private final long max;

  Width(int bits, long min, long max) {
    this.bits = bits;
    this.min = min;
    this.max = max;
  }

  /** 16, 32 or 64. */
  public int bits() {
    return bits;
  }

  /** Smallest value. */
  public long min() {
    return min;
  }

  /** Greatest value. */
  public long max() {
    return max;
  }

  /** The wider of two. */
  public Width orWider(Width other) {
    return bits >= other.bits ? this : other;
  }

  /** The width with that many bits; anything but 16, 32 and 64 is refused. */
  public static Width ofBits(int bits) {
    for (Width width : values()) {
      if (width.bits == bits) {
        return width;
      }
    }
    throw new IllegalArgumentException("a whole number has 16, 32 or 64 bits, not " + bits);
  }
}
