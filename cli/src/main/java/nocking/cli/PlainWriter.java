package nocking.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import nocking.quantity.PlainText;

/**
 * The one way out of all commands: whatever a file, a name or an instrument holds, nothing that
 * would move a cursor or turn the direction of writing reaches a terminal.
 */
final class PlainWriter extends Writer {
  private final Writer out;
  private String half = "";

  private PlainWriter(Writer out) {
    this.out = out;
  }

  static PrintWriter to(Writer out) {
    return new PrintWriter(new PlainWriter(out));
  }

  @Override
  public void write(char[] text, int from, int length) throws IOException {
    String s = half + new String(text, from, length);
    // A pair that is cut here is whole with what comes next.
    boolean cut = !s.isEmpty() && Character.isHighSurrogate(s.charAt(s.length() - 1));
    half = cut ? s.substring(s.length() - 1) : "";
    out.write(PlainText.of(cut ? s.substring(0, s.length() - 1) : s));
  }

  @Override
  public void flush() throws IOException {
    out.flush();
  }

  @Override
  public void close() throws IOException {
    out.write(PlainText.of(half));
    out.close();
  }
}
