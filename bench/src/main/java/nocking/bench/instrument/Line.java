package nocking.bench.instrument;

/** A connection over which lines of text go both ways. */
interface Line extends AutoCloseable {
  /** Milliseconds that an answer may take. */
  int PATIENCE = 2000;

  /** Longest line that is an answer; anything longer is noise. */
  int LONGEST = 4096;

  /** Sends a line. */
  void send(String text) throws InstrumentException;

  /** The next line that comes, without its end; all of it has come within its time. */
  String receive() throws InstrumentException;

  /**
   * Throws away what has come and was not read.
   *
   * @return the last line of it; empty for nothing
   */
  String drain() throws InstrumentException;

  @Override
  void close();
}
