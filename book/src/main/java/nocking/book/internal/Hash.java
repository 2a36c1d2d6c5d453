package nocking.book.internal;

/** SHA-256 (FIPS 180-4) of texts, in hexadecimal. */
public final class Hash {
  private Hash() {}

  /** Hash over several texts, each closed by a zero character so that they cannot run together. */
  public static String of(String... texts) {
    var hash = new RunningHash();
    for (String text : texts) hash.take(text);
    return hash.end();
  }
}
