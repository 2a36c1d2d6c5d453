package nocking.bench.instrument;

import java.io.IOException;
import java.util.concurrent.TimeUnit;
import nocking.bench.instrument.InstrumentException.Kind;

/**
 * Lines out of bytes, whatever they end with: LF, CR, both, or nothing but a pause. How an
 * instrument ends its lines is learnt from the first that ends; only one that never ended any is
 * taken to end them by a pause.
 */
final class LineReader {
  /** No byte has come in its time. */
  static final int NONE = -2;

  /** Milliseconds of silence that end a line which nothing else ends. */
  private static final int PAUSE = 400;

  /** Milliseconds of silence before that is taken to be so. */
  private static final int LONG_PAUSE = 1000;

  /** Milliseconds in which an LF follows its CR. */
  private static final int TOGETHER = 60;

  private static final int UNKNOWN = -3;

  /** The bytes of a line as they come. */
  interface Bytes {
    /**
     * The next byte, −1 where there will be none any more, {@link #NONE} where none has come.
     *
     * @param milliseconds to wait, at least 1
     */
    int next(int milliseconds) throws IOException;
  }

  /** What ends a line. */
  private enum End {
    UNKNOWN,
    LF,
    CR,
    PAUSE
  }

  private final String name;
  private final Bytes bytes;
  private End end = End.UNKNOWN;
  private int ahead = UNKNOWN;
  private boolean bare;
  private long last;

  /**
   * @param name of the instrument, for messages
   */
  LineReader(String name, Bytes bytes) {
    this.name = name;
    this.bytes = bytes;
  }

  /** True where the last line ended by a pause, and nothing has ever shown that lines end so. */
  boolean bare() {
    return bare;
  }

  /** From now on a pause ends a line. */
  void endsByPause() {
    end = End.PAUSE;
  }

  /**
   * The next line; all of it has one deadline, however it drips.
   *
   * @param patience milliseconds until then
   * @throws InstrumentException where it does not come, comes without an end, or is broken
   */
  String line(int patience) throws InstrumentException {
    long deadline = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(patience);
    var text = new StringBuilder();
    bare = false;
    try {
      while (true) {
        long left = TimeUnit.NANOSECONDS.toMillis(deadline - System.nanoTime());
        boolean begun = !text.isEmpty();
        int wait = begun && end == End.PAUSE ? PAUSE : (int) Math.max(1, left);
        int c = next((int) Math.min(wait, Math.max(1, left)));
        if (c == -1) throw gone();
        if (c == NONE) {
          boolean paused = begun && (end == End.PAUSE || (end == End.UNKNOWN && left <= 1));
          if (paused) return ended(text);
          if (left <= 1) throw silent();
          continue;
        }
        if (left <= 0) throw silent();
        if (c == '\n') {
          end = End.LF;
          return text.toString();
        }
        if (c == '\r' && endsHere()) return text.toString();
        text.append((char) c);
        if (text.length() > Line.LONGEST) {
          throw new InstrumentException(Kind.ODD_ANSWER, name + " sends without an end of line");
        }
      }
    } catch (IOException e) {
      throw gone();
    }
  }

  /** What dripped until the deadline is no line; what stood still for so long may be one. */
  private String ended(StringBuilder text) throws InstrumentException {
    if (end != End.PAUSE && sinceLast() < LONG_PAUSE) throw silent();
    bare = end != End.PAUSE;
    return text.toString();
  }

  private long sinceLast() {
    return TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - last);
  }

  private int next(int milliseconds) throws IOException {
    if (ahead != UNKNOWN) {
      int c = ahead;
      ahead = UNKNOWN;
      return c;
    }
    int c = bytes.next(milliseconds);
    if (c >= 0) last = System.nanoTime();
    return c;
  }

  /** True where a CR ends the line, by itself or with the LF behind it. */
  private boolean endsHere() throws IOException {
    if (end == End.CR) {
      skipLineFeed();
      return true;
    }
    int behind = bytes.next(TOGETHER);
    if (behind == '\n') {
      end = End.LF;
      return true;
    }
    if (end == End.UNKNOWN && behind == NONE) {
      end = End.CR;
      return true;
    }
    // In the midst of a line it is no end; what has it there is not understood.
    if (behind != NONE) ahead = behind;
    return false;
  }

  private void skipLineFeed() throws IOException {
    int behind = bytes.next(1);
    if (behind != '\n' && behind != NONE) ahead = behind;
  }

  /** True where something comes, or was read ahead, within so many milliseconds. */
  boolean comes(int milliseconds) throws InstrumentException {
    if (holds()) return true;
    try {
      int c = bytes.next(milliseconds);
      if (c == -1) throw gone();
      if (c != NONE) ahead = c;
      return c != NONE;
    } catch (IOException e) {
      throw gone();
    }
  }

  /** True where something was read already that nobody has asked for. */
  boolean holds() {
    return ahead >= 0;
  }

  private InstrumentException gone() {
    return new InstrumentException(Kind.DISCONNECTED, name + " has dropped the connection");
  }

  private InstrumentException silent() {
    return new InstrumentException(
        Kind.NO_ANSWER, "%s does not answer in %d s".formatted(name, Line.PATIENCE / 1000));
  }
}
