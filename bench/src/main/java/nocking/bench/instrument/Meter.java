package nocking.bench.instrument;

/** Something that reads a value. */
public interface Meter extends AutoCloseable {
  /**
   * Who it is; empty for one that cannot say.
   *
   * @throws InstrumentException when it does not answer
   */
  String identity() throws InstrumentException;

  /**
   * A reading in the instrument's own unit.
   *
   * @throws InstrumentException when there is none
   */
  double read() throws InstrumentException;

  @Override
  void close();
}
