package nocking.book.internal;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256 (FIPS 180-4) in hexadecimal. */
public final class Hash {
  private Hash() {}

  /** Hash over several texts, each closed by a zero character so that they cannot run together. */
  public static String of(String... texts) {
    var hash = new RunningHash();
    for (String text : texts) hash.take(text);
    return hash.end();
  }

  /** Hash of a file's bytes. */
  public static String of(byte[] bytes) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
