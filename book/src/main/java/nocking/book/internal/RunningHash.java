package nocking.book.internal;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256 (FIPS 180-4) over texts as they come, each closed by a zero byte. */
public final class RunningHash {
  private final MessageDigest digest;

  public RunningHash() {
    try {
      digest = MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }

  private RunningHash(MessageDigest digest) {
    this.digest = digest;
  }

  /** One that has taken the same and goes its own way. */
  public RunningHash copy() {
    try {
      return new RunningHash((MessageDigest) digest.clone());
    } catch (CloneNotSupportedException e) {
      throw new IllegalStateException("the SHA-256 of every Java can be copied", e);
    }
  }

  public void take(String text) {
    digest.update(text.getBytes(StandardCharsets.UTF_8));
    digest.update((byte) 0);
  }

  /** The hash of what was taken, in hexadecimal; what comes next is taken anew. */
  public String end() {
    return HexFormat.of().formatHex(digest.digest());
  }
}
