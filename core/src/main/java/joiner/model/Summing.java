package joiner.model;

/** How the rows that refer to one are summed up. */
public enum Summing {
  /** How many there are. */
  COUNT,
  /** Their values added up. */
  SUM,
  /** The least value, or the first in order. */
  LEAST,
  /** The greatest value, or the last in order. */
  GREATEST,
  /** The mean of their values. */
  AVERAGE,
  /** Their texts, one behind the other. */
  JOINED,
  /** Whether something holds in at least one. */
  ANY,
  /** Whether something holds in each of them; where there are none, it does. */
  ALL;

  /** Whether it looks at a value of each row; {@link #COUNT} may. */
  public boolean needsValue() {
    return this != COUNT;
  }
}
