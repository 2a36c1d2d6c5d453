package nocking.bench.instrument;

/** A connection over which lines of text go both ways. */
interface Line extends AutoCloseable {
  /** Milliseconds that an answer may take. */
  int PATIENCE = 2000;

  /** Longest line that is an answer; anything longer is noise. */
  int LONGEST = 4096;

  /** Of the instrument, for messages. */
  String name();

  /** Sends a text, its end of line in it. */
  void send(String text) throws InstrumentException;

  /** The next line that comes, without its end; all of it has come within its time. */
  String receive() throws InstrumentException;

  /** True where something comes, or lies there, within so many milliseconds. */
  boolean comes(int milliseconds) throws InstrumentException;

  /** True where the last line ended by a pause, and nothing has ever shown that lines end so. */
  boolean bare();

  /** From now on a pause ends a line. */
  void endsByPause();

  /**
   * Throws away what has come and was not read.
   *
   * @return the last line of it; empty for nothing
   */
  String drain() throws InstrumentException;

  @Override
  void close();
}
