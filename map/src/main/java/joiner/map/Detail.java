package joiner.map;

/** How much of its tables a map tells, most first. */
public enum Detail {
  /** Keys, references, and other fields until the board is full. */
  FIELDS,
  /** What identifies rows and what refers to others. */
  KEYS,
  /** The name alone. */
  NAMES
}
