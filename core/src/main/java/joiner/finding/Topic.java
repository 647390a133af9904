package joiner.finding;

/** Where a finding is dealt with. */
public enum Topic {
  SHAPE,
  CONNECT,
  GUARD,
  PROVE
}
