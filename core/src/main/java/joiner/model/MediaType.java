package joiner.model;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * A kind of file, known by its first bytes. Names are those registered with IANA; first bytes are
 * those of the formats themselves: ISO/IEC 15948 (PNG), ISO/IEC 10918-1 (JPEG), GIF89a, RFC 9649
 * (WebP), ISO 32000-1 (PDF), ISO/IEC 26300-2 (OpenDocument) and ISO/IEC 29500-2 (Office Open XML).
 */
public enum MediaType {
  PNG("image/png", "png", 0, "\u0089PNG\r\n\u001a\n"),
  JPEG("image/jpeg", "jpg", 0, "\u00ff\u00d8\u00ff"),
  GIF("image/gif", "gif", 0, "GIF8"),
  WEBP("image/webp", "webp", 8, "WEBP"),
  PDF("application/pdf", "pdf", 0, "%PDF-"),
  ODT(
      "application/vnd.oasis.opendocument.text",
      "odt",
      30,
      "mimetypeapplication/vnd.oasis.opendocument.text"),
  /**
   * A package of parts; whether a text, a sheet or slides are in it, its first bytes do not say.
   */
  OOXML(
      "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
      "docx",
      0,
      "PK\u0003\u0004");

  /** Kinds that show a picture. */
  public static final List<MediaType> IMAGES = List.of(PNG, JPEG, GIF, WEBP);

  /** Kinds that are read as pages. */
  public static final List<MediaType> DOCUMENTS = List.of(PDF, ODT, OOXML);

  private final String iana;
  private final String ending;
  private final int at;
  private final byte[] mark;

  MediaType(String iana, String ending, int at, String mark) {
    this.iana = iana;
    this.ending = ending;
    this.at = at;
    this.mark = mark.getBytes(StandardCharsets.ISO_8859_1);
  }

  /** The name it is registered by: "image/png". */
  public String iana() {
    return iana;
  }

  /** How names of such files end, without the point. */
  public String ending() {
    return ending;
  }

  /** Whether a file beginning with those bytes may be of this kind. */
  public boolean fits(byte[] content) {
    return content.length >= at + mark.length
        && Arrays.equals(content, at, at + mark.length, mark, 0, mark.length);
  }

  /** The first kind that a file beginning with those bytes may be of. */
  public static Optional<MediaType> of(byte[] content) {
    return Arrays.stream(values()).filter(type -> type.fits(content)).findFirst();
  }

  /** The kind registered by that name. */
  public static Optional<MediaType> named(String iana) {
    return Arrays.stream(values()).filter(type -> type.iana.equals(iana)).findFirst();
  }

  /** The kind whose files have names that end so; case makes no difference. */
  public static Optional<MediaType> endingIn(String ending) {
    return Arrays.stream(values()).filter(t -> t.ending.equalsIgnoreCase(ending)).findFirst();
  }
}
