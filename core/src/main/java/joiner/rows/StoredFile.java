package joiner.rows;

import java.util.Base64;
import java.util.Optional;
import joiner.expression.Value;
import joiner.model.ByteSize;
import joiner.model.FieldType;
import joiner.model.MediaType;

/** A file kept in a cell. */
public final class StoredFile {
  /** Digits of Base64 that say what kind of file it is; whole groups of four. */
  private static final int HEAD = 120;

  private StoredFile() {}

  /** The bytes a cell holds; empty where it holds none that can be read. */
  public static Optional<byte[]> content(String cell, FieldType.Content type) {
    return ValueReader.read(cell, type) instanceof ReadValue.Fits(Value.Bytes file)
        ? Optional.of(file.content())
        : Optional.empty();
  }

  /** What a cell holds, as people read it: "PNG · 12.3 kB". The text itself if it is no file. */
  public static String words(String cell) {
    try {
      byte[] head = Base64.getDecoder().decode(cell.substring(0, Math.min(HEAD, cell.length())));
      String kind = MediaType.of(head).map(Enum::name).orElse("file");
      return kind + " · " + ByteSize.about(new Value.Bytes(cell).count());
    } catch (IllegalArgumentException e) {
      return cell;
    }
  }

  /** A file as a cell holds it. */
  public static String cell(byte[] content) {
    return Base64.getEncoder().encodeToString(content);
  }
}
