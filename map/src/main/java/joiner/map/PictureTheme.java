package joiner.map;

import java.awt.Color;

/** The colours of pictures that are written; those of the window are in its style sheet. */
public enum PictureTheme {
  LIGHT(
      0xF6F3EC, 0xFFFFFF, 0x20302C, 0x5B6862, 0xD9D3C5, 0x1F6F63, 0x8F5A0E, 0xA8352B, 0x7A5A86,
      0x3C6A92, 0xA5572E, 0x4D7D3C, 0x8A7A2E, 0x4F7F83),
  DARK(
      0x17211F, 0x1F2B28, 0xE6EAE4, 0x9AA8A1, 0x33423E, 0x5BB8A6, 0xE0A548, 0xE5786C, 0xA98BB5,
      0x7BA6CC, 0xD08A62, 0x86B274, 0xBDAD62, 0x84B3B7);

  private final int[] colors;

  PictureTheme(int... colors) {
    this.colors = colors;
  }

  /** The colour of a role. */
  public Color of(Ink ink) {
    return new Color(colors[ink.ordinal()]);
  }
}
