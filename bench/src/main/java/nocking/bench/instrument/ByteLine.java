package nocking.bench.instrument;

import java.io.IOException;
import nocking.bench.instrument.InstrumentException.Kind;

/** A line over which bytes come one by one. */
abstract class ByteLine implements Line {
  private final String name;
  private final LineReader reader;

  ByteLine(String name) {
    this.name = name;
    reader = new LineReader(name, this::next);
  }

  /** The next byte, as {@link LineReader.Bytes} has it. */
  abstract int next(int milliseconds) throws IOException;

  /** True where bytes lie about that nobody has read. */
  abstract boolean waits() throws IOException;

  @Override
  public final String name() {
    return name;
  }

  @Override
  public final String receive() throws InstrumentException {
    return reader.line(PATIENCE);
  }

  @Override
  public final boolean comes(int milliseconds) throws InstrumentException {
    return reader.comes(milliseconds);
  }

  @Override
  public final boolean bare() {
    return reader.bare();
  }

  @Override
  public final void endsByPause() {
    reader.endsByPause();
  }

  /** Only whole lines lie about: what is being sent now belongs to what is read next. */
  @Override
  public final String drain() throws InstrumentException {
    String last = "";
    try {
      while (reader.holds() || waits()) last = reader.line(PATIENCE);
      return last;
    } catch (IOException e) {
      throw gone();
    }
  }

  final InstrumentException gone() {
    return new InstrumentException(Kind.DISCONNECTED, name + " has dropped the connection");
  }
}
