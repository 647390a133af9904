package joiner.format;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/**
 * A file as it once was. Size and time tell quickly that it still is; where they differ its content
 * decides, so that a file that was only touched counts as unchanged.
 *
 * @param digest SHA-256 of the content (FIPS 180-4)
 */
record Fingerprint(long bytes, FileTime modified, String digest) {
  /** That of a file; one that cannot be read is told by an {@link UncheckedIOException}. */
  static Fingerprint of(Path file) {
    try {
      var attributes = Files.readAttributes(file, BasicFileAttributes.class);
      return new Fingerprint(attributes.size(), attributes.lastModifiedTime(), digest(file));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  static Fingerprint of(Path folder, String path) {
    return of(folder.resolve(path));
  }

  /** The digest of a text in UTF-8. */
  static String digestOf(String text) {
    return HexFormat.of().formatHex(sha256().digest(text.getBytes(StandardCharsets.UTF_8)));
  }

  private static MessageDigest sha256() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e); // Every Java has it.
    }
  }

  /** The digest of a file's content, read piece by piece. */
  static String digest(Path file) throws IOException {
    MessageDigest digest = sha256();
    try (var in = new DigestInputStream(Files.newInputStream(file), digest)) {
      in.transferTo(OutputStream.nullOutputStream());
    }
    return HexFormat.of().formatHex(digest.digest());
  }

  /** Whether the file is there with the same content. */
  boolean stillStands(Path file) {
    try {
      if (!Files.isRegularFile(file)) {
        return false;
      }
      var now = Files.readAttributes(file, BasicFileAttributes.class);
      boolean untouched = now.size() == bytes && now.lastModifiedTime().equals(modified);
      return untouched || (now.size() == bytes && digest(file).equals(digest));
    } catch (IOException e) {
      return false;
    }
  }
}
