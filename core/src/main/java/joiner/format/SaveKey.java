package joiner.format;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.HexFormat;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * Signs what this user saves (HMAC with SHA-256, RFC 2104), so that a save that was broken off is
 * told from a hidden folder that somebody else put into a design they gave away.
 */
final class SaveKey {
  private static final int BYTES = 32;

  /** Serves where no file can be kept: then only this process knows its own saves again. */
  private static final byte[] OF_THIS_PROCESS = fresh();

  private SaveKey() {}

  /** The signature of a text. */
  static String sign(String text) {
    try {
      Mac mac = Mac.getInstance("HmacSHA256");
      mac.init(new SecretKeySpec(key(), "HmacSHA256"));
      return HexFormat.of().formatHex(mac.doFinal(text.getBytes(StandardCharsets.UTF_8)));
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(e); // Every Java has it.
    }
  }

  /** Whether a signature is ours; takes the same time wherever they differ. */
  static boolean isOurs(String text, String signature) {
    return MessageDigest.isEqual(
        sign(text).getBytes(StandardCharsets.UTF_8), signature.getBytes(StandardCharsets.UTF_8));
  }

  private static byte[] key() {
    Path file = Places.saveKey();
    try {
      byte[] kept = Files.readAllBytes(file);
      return kept.length == BYTES ? kept : OF_THIS_PROCESS;
    } catch (NoSuchFileException e) {
      return make(file);
    } catch (IOException e) {
      return OF_THIS_PROCESS;
    }
  }

  private static byte[] make(Path file) {
    try {
      Path aside = Places.aside(file);
      Files.write(aside, fresh());
      if (!Files.exists(file)) {
        Files.move(aside, file, StandardCopyOption.ATOMIC_MOVE);
      }
      Files.deleteIfExists(aside);
      return Files.readAllBytes(file);
    } catch (IOException e) {
      return OF_THIS_PROCESS;
    }
  }

  private static byte[] fresh() {
    byte[] key = new byte[BYTES];
    new SecureRandom().nextBytes(key);
    return key;
  }
}
