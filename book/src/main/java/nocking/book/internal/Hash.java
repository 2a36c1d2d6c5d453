package nocking.book.internal;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256 (FIPS 180-4) of texts, in hexadecimal. */
public final class Hash {
  private Hash() {}

  /** Hash over several texts, each closed by a zero character so that they cannot run together. */
  public static String of(String... texts) {
    try {
      MessageDigest digest = MessageDigest.getInstance("SHA-256");
      for (String text : texts) {
        digest.update(text.getBytes(StandardCharsets.UTF_8));
        digest.update((byte) 0);
      }
      return HexFormat.of().formatHex(digest.digest());
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
