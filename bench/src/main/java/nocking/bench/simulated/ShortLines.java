package nocking.bench.simulated;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;

/** Lines of ASCII from someone who may send one without an end: it is not kept in memory. */
public final class ShortLines {
  private static final int LONGEST = 4096;

  private final InputStream in;

  public ShortLines(InputStream in) {
    this.in = new BufferedInputStream(in);
  }

  /**
   * The next line without its end; null when no more comes.
   *
   * @throws IOException also for a line of more than 4096 characters
   */
  public String next() throws IOException {
    var line = new StringBuilder();
    for (int c = in.read(); c != '\n'; c = in.read()) {
      if (c < 0) return line.isEmpty() ? null : line.toString();
      if (c != '\r') line.append((char) c);
      if (line.length() > LONGEST) throw new IOException("a line without an end");
    }
    return line.toString();
  }
}
