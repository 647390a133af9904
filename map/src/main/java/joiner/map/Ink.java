package joiner.map;

/** What is drawn with which colour, by its role; a theme says which that is. */
public enum Ink {
  PAPER,
  BOARD,
  TEXT,
  MUTED,
  LINE,
  SPRUCE,
  OAK,
  BRICK,
  HUE_0,
  HUE_1,
  HUE_2,
  HUE_3,
  HUE_4,
  HUE_5;

  /** The colour of an area; that of lines for none. */
  public static Ink area(int hue) {
    return hue < 0 ? LINE : values()[HUE_0.ordinal() + hue];
  }
}
