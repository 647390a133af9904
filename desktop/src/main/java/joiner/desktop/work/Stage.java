package joiner.desktop.work;

/** The six working views, in the order of the job. */
public enum Stage {
  GATHER,
  SHAPE,
  CONNECT,
  GUARD,
  PROVE,
  SHIP
}
