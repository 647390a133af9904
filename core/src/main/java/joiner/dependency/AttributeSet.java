package joiner.dependency;

import java.util.BitSet;
import java.util.stream.IntStream;

/** An immutable set of attributes, each by its place in the scheme, from 0. */
public final class AttributeSet implements Comparable<AttributeSet> {
  /** No attribute. */
  public static final AttributeSet EMPTY = new AttributeSet(new BitSet());

  private final BitSet bits;

  private AttributeSet(BitSet bits) {
    this.bits = bits;
  }

  /** The set of those places. */
  public static AttributeSet of(int... places) {
    var bits = new BitSet();
    for (int place : places) {
      bits.set(place);
    }
    return new AttributeSet(bits);
  }

  /** The first {@code count} attributes. */
  public static AttributeSet first(int count) {
    var bits = new BitSet();
    bits.set(0, count);
    return new AttributeSet(bits);
  }

  public AttributeSet with(int place) {
    BitSet copy = (BitSet) bits.clone();
    copy.set(place);
    return new AttributeSet(copy);
  }

  public AttributeSet without(int place) {
    BitSet copy = (BitSet) bits.clone();
    copy.clear(place);
    return new AttributeSet(copy);
  }

  public AttributeSet union(AttributeSet other) {
    BitSet copy = (BitSet) bits.clone();
    copy.or(other.bits);
    return new AttributeSet(copy);
  }

  public AttributeSet minus(AttributeSet other) {
    BitSet copy = (BitSet) bits.clone();
    copy.andNot(other.bits);
    return new AttributeSet(copy);
  }

  public AttributeSet intersection(AttributeSet other) {
    BitSet copy = (BitSet) bits.clone();
    copy.and(other.bits);
    return new AttributeSet(copy);
  }

  public boolean contains(int place) {
    return bits.get(place);
  }

  public boolean containsAll(AttributeSet other) {
    for (int i = other.bits.nextSetBit(0); i >= 0; i = other.bits.nextSetBit(i + 1)) {
      if (!bits.get(i)) {
        return false;
      }
    }
    return true;
  }

  public boolean isEmpty() {
    return bits.isEmpty();
  }

  public int size() {
    return bits.cardinality();
  }

  /** The places, ascending. */
  public IntStream places() {
    return bits.stream();
  }

  /** Smaller sets first, then by their places. */
  @Override
  public int compareTo(AttributeSet other) {
    int bySize = Integer.compare(size(), other.size());
    return bySize != 0
        ? bySize
        : java.util.Arrays.compare(places().toArray(), other.places().toArray());
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof AttributeSet that && bits.equals(that.bits);
  }

  @Override
  public int hashCode() {
    return bits.hashCode();
  }

  @Override
  public String toString() {
    return bits.toString();
  }
}
