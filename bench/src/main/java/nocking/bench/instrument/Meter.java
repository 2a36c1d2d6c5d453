package nocking.bench.instrument;

import java.util.List;

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

  /** What is odd and stops nothing, since it was last asked; a sentence each, without its end. */
  default List<String> notes() {
    return List.of();
  }

  @Override
  void close();
}
